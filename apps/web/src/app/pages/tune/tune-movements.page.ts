import { Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MovementReader, movementsOfTune, placePhrase, proposeSeparations, type Density, type Separation, type TuneMovement } from '@zelpit/core';
import { messageOf } from '../../kernel/api/api.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { layersText } from '../../music/wording/movement-words';
import { ornamentNames } from '../../music/wording/ornament-words';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { capital } from '../../kernel/words/words';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';

const densities: readonly Choice<Density>[] = [
  { value: 'plain', label: 'plain' },
  { value: 'a-few', label: 'with a few ornaments' },
  { value: 'session', label: 'as in a session' },
];
const thin: readonly Choice<boolean>[] = [
  { value: false, label: 'left out' },
  { value: true, label: 'taken too' },
];
const tempos: readonly number[] = [0.5, 0.75, 1, 1.25];

interface Row {
  readonly place: string;
  readonly written: string;
  readonly text: string;
  readonly short: string;
}

/** The movements of a tune: every written group with its name, and the notes too short for theirs; on whistle and Irish pipes what parts repeated notes. */
@Component({
  selector: 'zp-tune-movements',
  imports: [RouterLink, SentenceComponent, ChooserComponent],
  template: `
    <div class="page">
      <zp-sentence
        ><span class="quiet">Movements of </span><a class="chooser-word" [routerLink]="['/tunes', id()]">{{ opened()?.detail?.title ?? 'a tune' }}</a>
        @if (opened(); as tune) {
          <span class="quiet"> at </span
          ><zp-chooser purpose="Tempo" [value]="tempo()" [word]="'' + tempo()" [choices]="tempoChoices()" (valueChange)="chosenTempo.set($event)" />
        }
      </zp-sentence>
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text">{{ fault() }}</p>
          <a class="btn btn-solid" routerLink="/tunes">To the tunes</a>
        </main>
      } @else if (opened()) {
        <section class="band" aria-label="What is found">
          <div class="band-said">
            <p class="band-todo">{{ bandText().todo }}</p>
            <p class="band-else">{{ bandText().otherwise }}</p>
          </div>
          <div class="band-actions"><a class="btn btn-solid" [routerLink]="['/tunes', id()]">To the tune</a></div>
        </section>
        <main class="layer page-fill">
          @if (hasProposals()) {
            <h2 class="heading">What parts repeated notes, <zp-chooser purpose="Density" [(value)]="density" [choices]="densities" /></h2>
            <p><span class="quiet">Cuts over the thin part of the scale are </span><zp-chooser purpose="Thin cuts" [(value)]="hasThin" [choices]="thin" />.</p>
            <div class="workshop-wide" tabindex="0" role="region" aria-label="What parts repeated notes">
              <table class="risk-table trill-table">
                <tbody>
                  @for (each of proposals(); track $index) {
                    <tr>
                      <th scope="row">{{ each.place }}</th>
                      <td>{{ each.kind }}</td>
                      <td>{{ each.text }}</td>
                    </tr>
                  } @empty {
                    <tr>
                      <td>No note repeats here.</td>
                    </tr>
                  }
                </tbody>
              </table>
            </div>
          }
          @if (!hasProposals() || rows().length > 0) {
            <h2 class="heading">Every written group</h2>
            <div class="workshop-wide" tabindex="0" role="region" aria-label="Every written group">
              <table class="risk-table trill-table">
                <tbody>
                  @for (row of rows(); track $index) {
                    <tr>
                      <th scope="row">{{ row.place }}</th>
                      <td>
                        <b>{{ row.written }}</b>
                      </td>
                      <td>{{ row.text }}</td>
                      <td>
                        @if (row.short) {
                          <span class="wrongly">▲ {{ row.short }}</span>
                        }
                      </td>
                    </tr>
                  } @empty {
                    <tr>
                      <td>No grace notes are written in this tune.</td>
                    </tr>
                  }
                </tbody>
              </table>
            </div>
          }
        </main>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the tune …</p></main>
      }
    </div>
  `,
})
export class TuneMovementsPage {
  private readonly tunes = inject(TunesService);
  private readonly book = inject(MovementBook);
  readonly id = input.required<string>();

  protected readonly densities = densities;
  protected readonly thin = thin;
  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly density = signal<Density>('a-few');
  protected readonly densityText = computed(() => labelOf(densities, this.density()));
  protected readonly hasThin = signal(false);
  protected readonly thinText = computed(() => labelOf(thin, this.hasThin()));
  protected readonly chosenTempo = signal<number | undefined>(undefined);
  protected readonly tempo = computed(() => this.chosenTempo() ?? this.opened()?.tune.tempo ?? 60);
  protected readonly tempoChoices = computed(() => {
    const own = this.opened()?.tune.tempo ?? 60;
    return [...new Set(tempos.map((share) => Math.round(own * share)))].map((tempo): Choice<number> => ({ value: tempo, label: String(tempo) }));
  });

  /** Kept while the tempo changes: what was recognised once is not read again. */
  private readonly reader = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : new MovementReader(opened.instrument, this.book.own());
  });
  private readonly movements = computed((): readonly TuneMovement[] => {
    const [opened, reader] = [this.opened(), this.reader()];
    if (opened === undefined || reader === undefined) return [];
    return movementsOfTune(opened.instrument, opened.tune, reader, { tempo: this.tempo(), settings: this.book.settings(), own: this.book.own() });
  });
  protected readonly rows = computed(() => this.movements().map((each) => rowOf(each)));
  protected readonly hasProposals = computed(() => ['whistle', 'irish-pipes'].includes(this.opened()?.instrument.family ?? ''));
  protected readonly proposals = computed(() => {
    const opened = this.opened();
    if (opened === undefined) return [];
    return proposeSeparations(opened.instrument, opened.tune, { density: this.density(), hasThinCuts: this.hasThin() }).map((each: Separation) => ({
      place: placePhrase(each.note.bar, each.note.beat),
      kind: each.kind === 'tongue' ? 'tongue' : ornamentNames[each.kind],
      text: each.text,
    }));
  });
  protected readonly bandText = computed(() => {
    const short = this.movements().filter(({ fits }) => fits !== undefined).length;
    const unknown = this.movements().filter(({ recognised }) => recognised.kind !== 'known').length;
    if (this.hasProposals())
      return { todo: `${this.proposals().length} places are parted or decorated.`, otherwise: 'One proposal for each place; the tune stays in front.' };
    if (this.rows().length === 0) return { todo: 'No grace notes are written in this tune.', otherwise: 'Write them into its text, in braces.' };
    const fit =
      short === 0 ? 'Every note is long enough for what stands on it.' : `${short} ${short === 1 ? 'note is' : 'notes are'} too short at ${this.tempo()}.`;
    const named = unknown === 0 ? 'Every group has a name.' : `${unknown} ${unknown === 1 ? 'group is' : 'groups are'} no movement that this studio knows.`;
    return { todo: fit, otherwise: named };
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() =>
        this.tunes.open(id).subscribe({ next: (opened) => this.opened.set(opened), error: (error: unknown) => this.fault.set(messageOf(error)) }),
      );
    });
  }
}

function rowOf({ note, written, recognised, noteMs, leastMs, fits }: TuneMovement): Row {
  const common = { place: placePhrase(note.bar, note.beat), written };
  if (recognised.kind === 'none') return { ...common, text: 'No movement is written nearly like this.', short: '' };
  if (recognised.kind === 'unknown')
    return {
      ...common,
      text: `No movement. Nearest is ${recognised.nearest.movement.names[0]}, ${recognised.nearest.written}: ${recognised.differs}.`,
      short: '',
    };
  const [first, ...others] = recognised.candidates;
  const also = others.length === 0 ? '' : `, or ${others.map(({ movement }) => movement.names[0]).join(', ')}`;
  const variant = first.variant === '' ? '' : `, ${first.variant}`;
  const text = capital(`${first.movement.names[0]}${variant}${also}`);
  if (fits === undefined) return { ...common, text, short: '' };
  const room = fits.length === 0 ? 'not even a bare note has time' : `there is time for: ${layersText(fits)}`;
  return { ...common, text, short: `too short: ${Math.round(noteMs)} ms, it needs ${Math.round(leastMs ?? 0)}; ${room}` };
}
