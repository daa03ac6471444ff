import { Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { isOverblown } from '@zelpit/core/acoustics';
import { noteOf, speaksHighQuestion } from '@zelpit/core/fingering';
import { wholeScale } from '@zelpit/core/line-sets';
import { compileOrnament, isNeighbourOrnament, neighbourOrnaments, usualOrnaments, type OrnamentSettings, MovementReader } from '@zelpit/core/movement';
import { neighbourTimeline, ornamentTimeline } from '@zelpit/core/sound';
import {
  eighthMsOf,
  writtenOrnaments,
  type TuneNote,
  type WrittenOrnament,
  movementsOfTune,
  placePhrase,
  proposeSeparations,
  withGraceNotes,
  type Density,
  type RightForm,
  type Separation,
  type TuneMovement,
} from '@zelpit/core/tune';
import { count } from '@zelpit/core/words';
import { WideComponent } from '../../kernel/wide/wide.component';
import { messageOf } from '../../kernel/api/api.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { layersText } from '../../music/wording/movement-words';
import { ornamentNames, writtenNames } from '../../music/wording/ornament-words';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { UndoComponent } from '../../kernel/saving/undo.component';
import { TuneEditor } from '../../documents/tune/tune-editor';
import { Transport } from '../../music/sound/transport.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { capital } from '../../kernel/words/words';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';

const densities: readonly Choice<Density>[] = [
  { value: 'plain', label: 'plain: no ornaments' },
  { value: 'a-few', label: 'with a few ornaments' },
  { value: 'session', label: 'as in a session: wherever one fits' },
];
const tempos: readonly number[] = [0.5, 0.75, 1, 1.25];

interface Row {
  readonly place: string;
  readonly written: string;
  readonly text: string;
  readonly short: string;
  readonly movement: TuneMovement;
  readonly right: RightForm | undefined;
  /** What one key or click does; empty where the group stands right. */
  readonly offer: string;
}

/** The movements of a tune: every written group with its name, and the notes too short for theirs; on whistle and Irish pipes what parts repeated notes. */
@Component({
  selector: 'zp-tune-movements',
  imports: [WideComponent, RouterLink, SentenceComponent, ChooserComponent, UndoComponent],
  providers: [TuneEditor],
  template: `
    <div class="page">
      <zp-sentence [state]="editor.stateLabel()"
        ><span class="quiet">Movements in </span><a class="chooser-word" [routerLink]="['/tunes', id()]">{{ opened()?.detail?.title ?? 'a tune' }}</a>
        @if (opened(); as tune) {
          <span class="quiet"> at </span
          ><zp-chooser purpose="Tempo" [value]="tempo()" [word]="'' + tempo()" [choices]="tempoChoices()" (valueChange)="chosenTempo.set($event)" />
        }
        @if (editor.stored()) {
          <zp-undo sentenceEnd [document]="editor" />
        }
      </zp-sentence>
      @if (fault()) {
        <main class="layer page-fill empty">
          <p class="fault-text">{{ fault() }}</p>
          <a class="btn btn-solid" routerLink="/tunes">Go to the tunes</a>
        </main>
      } @else if (opened()) {
        <section class="band" aria-label="What is found">
          <div class="band-said">
            <p class="band-todo">{{ bandText().todo }}</p>
            <p class="band-else">{{ bandText().otherwise }}</p>
          </div>
          <div class="band-actions">
            @if (nextToMend(); as next) {
              <button type="button" class="btn btn-solid text-wrap" [disabled]="isBehind()" (click)="write(next)">
                {{ next.offer }} in {{ next.place }} <kbd>W</kbd>
              </button>
            }
            <a class="btn" [class.btn-solid]="!nextToMend()" [class.btn-line]="nextToMend()" [routerLink]="['/tunes', id()]">To the tune</a>
          </div>
        </section>
        <main class="layer page-fill">
          @if (hasProposals()) {
            <h2 class="heading">How to separate repeated notes, <zp-chooser purpose="Density" [(value)]="density" [choices]="densities" /></h2>
            <p class="second">
              @if (hasThin()) {
                Cuts from B to A are proposed too: this instrument speaks cleanly up high.
              } @else {
                Cuts from B to A are left out. They need an instrument that speaks cleanly up high: say so on
                <a class="word" routerLink="/instruments">Who plays what</a>.
              }
            </p>
            <zp-wide label="What parts repeated notes">
              <table class="risk-table trill-table">
                <tbody>
                  @for (each of proposals(); track $index) {
                    <tr>
                      <th scope="row">{{ each.place }}</th>
                      <td>{{ each.kind }}</td>
                      <td>{{ each.text }}</td>
                      <td>
                        @if (each.hear; as hear) {
                          <button type="button" class="word" [attr.aria-label]="'Hear ' + each.kind + ' in ' + each.place" (click)="hear()">Hear it</button>
                        }
                      </td>
                    </tr>
                  } @empty {
                    <tr>
                      <td>There is no place for an ornament in this tune.</td>
                    </tr>
                  }
                </tbody>
              </table>
            </zp-wide>
          }
          @if (written().length > 0) {
            <h2 class="heading">Ornaments as written</h2>
            <zp-wide label="Ornaments as written">
              <table class="risk-table trill-table">
                <tbody>
                  @for (each of written(); track $index) {
                    <tr>
                      <th scope="row">{{ each.place }}</th>
                      <td>{{ each.name }} on {{ each.note }}</td>
                      <td>
                        @if (each.hear; as hear) {
                          <button type="button" class="word" [attr.aria-label]="'Hear the ' + each.name + ' in ' + each.place" (click)="hear()">Hear it</button>
                        } @else {
                          <span class="second">{{ each.why }}</span>
                        }
                      </td>
                    </tr>
                  }
                </tbody>
              </table>
            </zp-wide>
          }
          @if (isOfPipes()) {
            <h2 class="heading">Every group of grace notes</h2>
            <zp-wide label="Every written group">
              <table class="risk-table trill-table">
                <tbody>
                  @for (row of rows(); track row.movement.note.index) {
                    <tr>
                      <th scope="row">{{ row.place }}</th>
                      <td>
                        <b>{{ row.written }}</b>
                      </td>
                      <td>
                        {{ row.text }}
                        @if (row.right?.isWrongStart) {
                          <br /><span class="wrongly">▲ A wrong start. {{ row.right?.text }}</span>
                        }
                      </td>
                      <td>
                        @if (row.short) {
                          <span class="wrongly">▲ {{ row.short }}</span>
                        }
                        @if (row.right) {
                          <button type="button" class="word" [disabled]="isBehind()" [attr.aria-label]="row.offer + ' in ' + row.place" (click)="write(row)">
                            {{ row.offer }}
                          </button>
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
            </zp-wide>
          }
        </main>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the tune …</p></main>
      }
    </div>
  `,
})
export class TuneMovementsPage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly book = inject(MovementBook);
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly notices = inject(NoticeService);
  protected readonly editor = inject(TuneEditor);
  readonly id = input.required<string>();

  protected readonly densities = densities;
  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly density = signal<Density>('a-few');
  protected readonly densityText = computed(() => labelOf(densities, this.density()));
  protected readonly chosenTempo = signal<number | undefined>(undefined);
  protected readonly tempo = computed(() => this.chosenTempo() ?? this.opened()?.tune.tempo ?? 60);
  protected readonly tempoChoices = computed(() => {
    const own = this.opened()?.tune.tempo ?? 60;
    return [...new Set(tempos.map((share) => Math.round(own * share)))].map((tempo): Choice<number> => ({ value: tempo, label: String(tempo) }));
  });

  private readonly transport = inject(Transport);
  private readonly release = inject(KeyService).use('tuneMovements', {
    write: () => {
      const next = this.nextToMend();
      if (next !== undefined) this.write(next);
    },
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
  /** True while the text is ahead of what is shown of it: places in it are not those of before. */
  protected readonly isBehind = computed(() => this.opened()?.detail.abc !== this.editor.draft()?.abc);
  /** What one key writes right: the first wrong start, else the first wrong element. */
  protected readonly nextToMend = computed(
    () => this.rows().find(({ right }) => right?.isWrongStart === true) ?? this.rows().find(({ right }) => right !== undefined),
  );
  protected readonly isOfPipes = computed(() => this.opened()?.instrument.family === 'pipes');
  protected readonly hasProposals = computed(() => ['whistle', 'irish-pipes'].includes(this.opened()?.instrument.family ?? ''));
  /** True where the instrument is said to speak cleanly up high. */
  protected readonly hasThin = computed(() => this.opened()?.held?.schools[speaksHighQuestion] === 'yes');
  private readonly ornaments = computed((): OrnamentSettings => {
    const opened = this.opened();
    const chosen = opened === undefined ? {} : (this.book.ornaments()[opened.instrument.id] ?? {});
    return { ...usualOrnaments, ...chosen, ...(opened !== undefined && { eighthMs: Math.min(600, Math.max(150, eighthMsOf(opened.tune))) }) };
  });
  protected readonly proposals = computed(() => {
    const opened = this.opened();
    if (opened === undefined) return [];
    const wishes = { density: this.density(), ornaments: this.ornaments(), hasThinCuts: this.hasThin() };
    return proposeSeparations(opened.instrument, opened.tune, wishes).map((each: Separation) => ({
      place: placePhrase(each.note.bar, each.note.beat),
      kind: each.kind === 'tongue' ? 'tongue' : ornamentNames[each.kind],
      text: each.text,
      ...(each.kind === 'tongue' ? { hear: undefined, why: '' } : this.hearing(opened, each.note, each.kind)),
    }));
  });
  /** What stands in the text, as signs or written out. */
  protected readonly written = computed(() => {
    const opened = this.opened();
    if (opened === undefined) return [];
    return writtenOrnaments(opened.instrument, opened.tune).map(({ note, kind }) => ({
      place: placePhrase(note.bar, note.beat),
      name: writtenNames[kind],
      note: note.written.kind === 'note' ? noteOf(opened.instrument, note.written.note).schoolName : '',
      ...this.hearing(opened, note, kind),
    }));
  });
  protected readonly bandText = computed(() => {
    const short = this.movements().filter(({ fits }) => fits !== undefined).length;
    const unknown = this.movements().filter(({ recognised }) => recognised.kind !== 'known').length;
    if (this.hasProposals())
      return {
        todo: `${count(this.proposals().length, 'place')} could take an ornament.`,
        otherwise: 'One suggestion for each place. The tune itself comes first.',
      };
    if (!this.isOfPipes())
      return this.written().length === 0
        ? { todo: 'No ornaments are written in this tune.', otherwise: 'Write T before a note for a trill, M for a mordent, or a grace note in braces.' }
        : { todo: `${count(this.written().length, 'ornament')} written in this tune.`, otherwise: 'Press Hear it to hear one.' };
    if (this.rows().length === 0) return { todo: 'No grace notes are written in this tune.', otherwise: 'Add them to its text, in braces.' };
    const wrong = this.rows().filter(({ right }) => right?.isWrongStart === true).length;
    const fit = short === 0 ? 'Every note is long enough for its grace notes.' : `${count(short, 'note is', 'notes are')} too short at ${this.tempo()}.`;
    const named =
      unknown === 0 ? 'Every group of grace notes is a movement with a name.' : `${count(unknown, 'group is', 'groups are')} not a movement this studio knows.`;
    if (wrong > 0)
      return {
        todo: `${count(wrong, 'group starts', 'groups start')} wrongly for the note before.`,
        otherwise: `${fit} ${named}`,
      };
    return { todo: fit, otherwise: named };
  });

  constructor() {
    this.editor.follow(this.id);
    effect(() => {
      const [draft, stored] = [this.editor.draft(), this.editor.stored()];
      this.state.student();
      if (!this.shelf.isLoaded() || draft === undefined || stored === undefined) return;
      untracked(() =>
        this.tunes
          .takeApart({ ...stored, ...draft })
          .subscribe({ next: (opened) => this.opened.set(opened), error: (error: unknown) => this.fault.set(messageOf(error)) }),
      );
    });
    effect(() => {
      if (this.editor.state() === 'missing') this.fault.set(this.editor.message());
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  ngOnDestroy(): void {
    this.release();
    this.transport.stop();
  }

  /** What plays an ornament, or why it cannot be played. */
  private hearing({ instrument }: OpenedTune, { written }: TuneNote, kind: WrittenOrnament['kind']): { readonly hear?: () => void; readonly why: string } {
    if (written.kind !== 'note') return { why: '' };
    const { note } = written;
    if (isNeighbourOrnament(kind)) {
      const way = neighbourOrnaments(instrument, note, wholeScale(instrument)).find((each) => each.kind === kind);
      if (way === undefined) return { why: 'No pair of fingerings stays in tune.' };
      return { why: '', hear: () => this.transport.sound(instrument, neighbourTimeline(way, isOverblown(instrument))) };
    }
    const settings = this.ornaments();
    const made = compileOrnament(instrument, kind, note, settings);
    if (made.kind === 'unplayable') return { why: made.reason };
    return { why: '', hear: () => this.transport.sound(instrument, ornamentTimeline(instrument, note, made, settings.eighthMs, 1)) };
  }

  /** Writes the right form of a group into the text. */
  protected write({ movement, right, place }: Row): void {
    const [opened, abc] = [this.opened(), this.editor.draft()?.abc];
    if (right === undefined || opened === undefined || abc === undefined || this.isBehind()) return;
    const changed = withGraceNotes(opened.instrument, abc, movement.note, right.graces);
    if (changed === abc) return this.notices.done(`The group in ${place} was not found in the text; change it there.`);
    this.editor.setText(changed, `the grace notes in ${place}`);
    this.notices.done(`${right.written} stands in ${place} now.`, () => this.editor.undo());
  }
}

function offerOf(right: RightForm | undefined): string {
  if (right === undefined) return '';
  return right.graces.length === 0 ? `Leave ${right.written} plain` : `Write ${right.written}`;
}

function rowOf(movement: TuneMovement): Row {
  const { note, written, recognised, noteMs, leastMs, fits, right } = movement;
  const common = { place: placePhrase(note.bar, note.beat), written, movement, right, offer: offerOf(right) };
  if (recognised.kind === 'none') return { ...common, text: 'No known movement is written like this.', short: '' };
  if (recognised.kind === 'unknown')
    return {
      ...common,
      text: `Not a known movement. The nearest is the ${recognised.nearest.movement.names[0]}, ${recognised.nearest.written}: ${recognised.differs}.`,
      short: '',
    };
  const [first, ...others] = recognised.candidates;
  const names = others.filter(({ movement: { parts } }) => parts.some(({ part }) => part !== 'opener')).map((each) => each.movement.names[0]);
  const also = names.length === 0 ? '' : `, also called ${names.join(', ')}`;
  const variant = first.variant === '' ? '' : `, ${first.variant}`;
  const text = capital(`${first.movement.names[0]}${variant}${also}`);
  if (fits === undefined) return { ...common, text, short: '' };
  const room = fits.length === 0 ? 'there is not even time for the bare note' : `there is time for: ${layersText(fits)}`;
  return { ...common, text, short: `too short: ${Math.round(noteMs)} ms, but it needs ${Math.round(leastMs ?? 0)}; ${room}` };
}
