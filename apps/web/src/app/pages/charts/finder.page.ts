import { Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { patternsNear, type FinderOrder, type FoundPattern } from '@zelpit/core/acoustics';
import { ZelpitFault } from '@zelpit/core/fault';
import { chartedPattern, noteOf, soundingPitch, type Instrument, type NoteId } from '@zelpit/core/fingering';
import { count } from '@zelpit/core/words';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { typedNumber } from '../../kernel/words/words';
import { Transport } from '../../music/sound/transport.service';
import { ChartState } from '../../studio/state/chart-state.service';
import { FingeringComponent } from '../../music/lanes/fingering.component';
import { holesText } from '../../music/lanes/hole-figure';
import { centsText } from '../../music/wording/chart-words';
import { KeepFingeringComponent } from './keep-fingering.component';

const most = 40;
const toneSeconds = 1.2;
type Halves = 'none' | 'usual' | 'all';

const orders: readonly Choice<FinderOrder>[] = [
  { value: 'tuning', label: 'the best in tune first' },
  { value: 'ease', label: 'the easiest first' },
  { value: 'school', label: 'the chart’s own first' },
];
const halvesChoices: readonly Choice<Halves>[] = [
  { value: 'none', label: 'no half covers' },
  { value: 'usual', label: 'half covers where they are usual' },
  { value: 'all', label: 'half covers on every hole' },
];

/** Patterns of fingers for a wanted pitch, by tuning, by ease between two notes, or by school. */
@Component({
  selector: 'zp-finder',
  imports: [SentenceComponent, FingeringComponent, ChooserComponent, RouterLink, KeepFingeringComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" routerLink="/charts">Chart</a>
        <span class="quiet">, fingerings on </span>
        <zp-chooser purpose="Instrument" [value]="state.choice()" [word]="state.text()" [choices]="state.choices()" (valueChange)="state.choose($event)" />
        <span class="quiet"> for </span>
        <zp-chooser purpose="Note" [value]="note()" [choices]="notes()" (valueChange)="choose($event)" />
      </zp-sentence>
      <section class="band" aria-label="What is looked for">
        <div class="band-said" role="status">
          <p class="band-todo">{{ found().text }}</p>
          <p class="band-else">These are computed. Try one on the instrument, then save it as your own.</p>
        </div>
      </section>
      <main class="layer page-fill">
        <form class="finder-form" (submit)="$event.preventDefault()">
          <div>
            <label class="form-label" for="wanted">Pitch in Hz</label>
            <input id="wanted" class="form-control" inputmode="decimal" autocomplete="off" [value]="wanted()" (input)="wanted.set(typed($event))" />
          </div>
          <div>
            <label class="form-label" for="within">Within (cents)</label>
            <input id="within" class="form-control" inputmode="numeric" autocomplete="off" [value]="within()" (input)="within.set(typed($event))" />
          </div>
          <p class="finder-words">
            <span class="seen"
              ><span class="quiet">between </span>
              <zp-chooser purpose="Note before" [(value)]="before" [choices]="notes()" />
              <span class="quiet"> and </span>
              <zp-chooser purpose="Note after" [(value)]="after" [choices]="notes()"
            /></span>
            <zp-chooser purpose="Ranked" [(value)]="order" [choices]="orders" />
            <zp-chooser purpose="Half covers" [(value)]="halves" [choices]="halvesChoices" />
          </p>
        </form>
        <p class="second mb-1">
          Holes that change, and crosses, are counted from the note before and to the note after. 100 cents are a semitone; below about 5 cents hardly anyone
          hears a difference.
        </p>
        <ul class="rows finder-rows">
          @for (each of found().patterns; track each.key) {
            <li>
              <div class="finder-row">
                <button type="button" class="row-link border-0 text-start" [attr.aria-label]="'Hear ' + each.text" (click)="hear(each)">
                  <span><zp-fingering [instrument]="state.instrument()" [pattern]="each.pattern" /> {{ each.besides }}</span>
                  <small>{{ each.tuning }}</small>
                  <small>{{ each.ease }}</small>
                </button>
                @if (each.charted) {
                  <span class="second finder-kept text-nowrap">{{ each.charted }}</span>
                } @else {
                  <button
                    type="button"
                    class="word"
                    [attr.aria-label]="'Save ' + each.text + ' as my own'"
                    (click)="keeping.set(keeping() === each.key ? '' : each.key)"
                  >
                    Save as my own
                  </button>
                }
              </div>
              @if (keeping() === each.key) {
                <zp-keep-fingering [instrument]="state.instrument()" [pattern]="each.pattern" [note]="note()" (closed)="keeping.set('')" />
              }
            </li>
          }
        </ul>
      </main>
    </div>
  `,
})
export class FinderPage {
  private readonly transport = inject(Transport);
  protected readonly state = inject(ChartState);
  protected readonly orders = orders;
  protected readonly halvesChoices = halvesChoices;
  protected readonly name = this.state.text;
  protected readonly notes = computed(() => this.state.instrument().notes.map((note): Choice<NoteId> => ({ value: note.id, label: note.schoolName })));
  protected readonly note = linkedSignal(() => startingNote(this.state.instrument()));
  protected readonly wanted = linkedSignal(() => soundingPitch(this.state.instrument(), this.note()).toFixed(1));
  protected readonly within = signal('25');
  protected readonly before = linkedSignal(() => this.neighbour(-1));
  protected readonly after = linkedSignal(() => this.neighbour(1));
  protected readonly order = signal<FinderOrder>('tuning');
  protected readonly halves = signal<Halves>('none');
  protected readonly keeping = signal('');
  protected readonly noteText = computed(() => this.nameOfNote(this.note()));
  protected readonly orderText = computed(() => labelOf(orders, this.order()));
  protected readonly halvesText = computed(() => labelOf(halvesChoices, this.halves()));

  protected readonly found = computed(() => {
    const instrument = this.state.instrument();
    const [wanted, within] = [typedNumber(this.wanted()) ?? Number.NaN, Number(this.within().trim() || Number.NaN)];
    if (Number.isNaN(wanted)) return { text: 'Write the pitch as a number, in Hz.', patterns: [] };
    if (Number.isNaN(within)) return { text: 'Write the cents as a number.', patterns: [] };
    try {
      const beside = [this.before(), this.after()].map((note) => chartedPattern(instrument, note));
      const all = patternsNear(instrument, wanted, within, beside, { order: this.order(), halves: this.halves() });
      return { text: this.countText(all, within), patterns: all.slice(0, most).map((each) => rowOf(instrument, each)) };
    } catch (error) {
      if (error instanceof ZelpitFault) return { text: error.message, patterns: [] };
      throw error;
    }
  });

  protected typed(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  protected choose(note: NoteId): void {
    this.note.set(note);
    this.keeping.set('');
  }

  protected nameOfNote(id: NoteId): string {
    return labelOf(this.notes(), id);
  }

  /** Plays the pitch that the model gives the pattern. */
  protected hear({ cents }: Pick<FoundPattern, 'cents'>): void {
    const pitch = (typedNumber(this.wanted()) ?? Number.NaN) * 2 ** (cents / 1200);
    this.transport.holdTone(this.state.instrument(), pitch, toneSeconds);
  }

  private countText(all: readonly FoundPattern[], within: number): string {
    if (all.length === 0) return `No fingering sounds within ${within} cents of that pitch.`;
    if (all.length > most) return `${all.length} fingerings within ${within} cents; here are the best ${most}.`;
    return all.length === 1 ? `1 fingering within ${within} cents.` : `${all.length} fingerings within ${within} cents, ${this.orderText()}.`;
  }

  private neighbour(by: number): NoteId {
    const { notes } = this.state.instrument();
    const at = notes.findIndex(({ id }) => id === this.note()) + by;
    return notes[Math.max(0, Math.min(notes.length - 1, at))].id;
  }
}

/** A note that is hard to choose fingers for: one with several ways, else one in the middle. */
function startingNote(instrument: Instrument): NoteId {
  const ways = (id: NoteId): number => instrument.fingerings.filter(({ note }) => note === id).length;
  const most = instrument.notes.reduce((best, each) => (ways(each.id) > ways(best.id) ? each : best));
  return ways(most.id) > 1 ? most.id : instrument.notes[Math.floor(instrument.notes.length / 2)].id;
}

function rowOf(
  instrument: Instrument,
  found: FoundPattern,
): Omit<FoundPattern, 'charted'> & {
  readonly key: string;
  readonly text: string;
  readonly besides: string;
  readonly tuning: string;
  readonly ease: string;
  readonly charted: string;
} {
  const { pattern, register, cents, isSteady, moved, crosses, halfHole, charted } = found;
  const share = halfHole === undefined ? '' : `, ${instrument.holes[halfHole].id} to ${Math.round(pattern[halfHole] * 100)} %`;
  const blown = register > 1 ? ', blown harder' : '';
  return {
    ...found,
    key: `${register} ${pattern.join(' ')}`,
    text: `${holesText(instrument, pattern)}${share}${blown}`,
    besides: `${share}${blown}`.replace(/^, /, ''),
    tuning: `${centsText(cents)}${isSteady ? '' : ', unsteady'}`,
    ease: `${count(moved, 'hole')} change${crosses > 0 ? `, ${count(crosses, 'cross', 'crosses')}` : ''}`,
    charted: charted === undefined ? '' : chartedText(instrument, charted),
  };
}

function chartedText(instrument: Instrument, { note, rank, confirmed }: NonNullable<FoundPattern['charted']>): string {
  const name = noteOf(instrument, note).schoolName;
  if (confirmed !== undefined) return `saved by ${confirmed.by}`;
  return rank === 1 ? `the chart’s ${name}` : `${name}, fingering ${rank}`;
}
