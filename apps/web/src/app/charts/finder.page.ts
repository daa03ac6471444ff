import { Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { chartedPattern, heldTone, patternsNear, soundingPitch, tablePitch, ZelpitFault, type FoundPattern, type NoteId, type Pattern } from '@zelpit/core';
import { ChooserComponent, type Choice } from '../shell/chooser.component';
import { SentenceComponent } from '../shell/sentence.component';
import { Transport } from '../sound/transport.service';
import { ChartState } from './chart-state.service';
import { centsSaid, recited } from './chart-words';

const most = 40;
const toneSeconds = 1.2;

/** Patterns of fingers for a wanted pitch, by tuning and by ease between two notes. */
@Component({
  selector: 'zp-finder',
  imports: [SentenceComponent, ChooserComponent, RouterLink],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" routerLink="/charts">Chart</a>
        <span class="quiet"> fingers on the </span>
        <zp-chooser purpose="Instrument" [word]="name()" [choices]="state.choices()" (chosen)="state.choose($event)" />
        <span class="quiet"> for </span>
        <zp-chooser purpose="Note" [word]="noteSaid()" [choices]="notes()" (chosen)="choose($event)" />
      </zp-sentence>
      <section class="band" aria-label="What is looked for">
        <div class="band-said" role="status">
          <p class="band-todo">{{ found().said }}</p>
          <p class="band-else">The model proposes; try each before you teach it. Half covers are not among them.</p>
        </div>
      </section>
      <main class="layer page-fill">
        <form class="d-flex flex-wrap gap-4 mb-3" (submit)="$event.preventDefault()">
          <div>
            <label class="form-label" for="wanted">Pitch in Hz</label>
            <input id="wanted" class="form-control" inputmode="decimal" autocomplete="off" [value]="wanted()" (input)="wanted.set(typed($event))" />
          </div>
          <div>
            <label class="form-label" for="within">Within cents</label>
            <input id="within" class="form-control" inputmode="numeric" autocomplete="off" [value]="within()" (input)="within.set(typed($event))" />
          </div>
          <div>
            <span class="form-label d-block">Between</span>
            <zp-chooser purpose="Note before" [word]="nameOfNote(before())" [choices]="notes()" (chosen)="before.set($event)" />
            <span class="quiet"> and </span>
            <zp-chooser purpose="Note after" [word]="nameOfNote(after())" [choices]="notes()" (chosen)="after.set($event)" />
          </div>
        </form>
        <ul class="rows" style="max-width: 960px">
          @for (each of found().patterns; track each.said) {
            <li>
              <button type="button" class="row-link border-0 text-start w-100" [attr.aria-label]="'Hear ' + each.said" (click)="hear(each.pattern)">
                <span>{{ each.said }}</span>
                <small>{{ each.cents }}{{ each.isSteady ? '' : ', unsteady' }}</small>
                <small>{{ each.moved }} {{ each.moved === 1 ? 'hole' : 'holes' }} to move</small>
              </button>
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
  protected readonly name = this.state.said;
  protected readonly notes = computed(() => this.state.instrument().notes.map((note): Choice<NoteId> => ({ value: note.id, said: note.schoolName })));
  private readonly note = linkedSignal(() => this.state.instrument().notes[Math.min(4, this.state.instrument().notes.length - 1)].id);
  protected readonly wanted = linkedSignal(() => soundingPitch(this.state.instrument(), this.note()).toFixed(1));
  protected readonly within = signal('25');
  protected readonly before = linkedSignal(() => this.neighbour(-1));
  protected readonly after = linkedSignal(() => this.neighbour(1));
  protected readonly noteSaid = computed(() => this.nameOfNote(this.note()));

  protected readonly found = computed(() => {
    const instrument = this.state.instrument();
    const [wanted, within] = [Number(this.wanted().trim().replace(',', '.') || Number.NaN), Number(this.within().trim() || Number.NaN)];
    if (Number.isNaN(wanted)) return { said: 'Write the pitch as a number, in Hz.', patterns: [] };
    if (Number.isNaN(within)) return { said: 'Write the cents as a number.', patterns: [] };
    try {
      const beside = [this.before(), this.after()].map((note) => chartedPattern(instrument, note));
      const all = patternsNear(instrument, wanted, within, beside);
      const patterns = all.slice(0, most).map((each) => ({ ...each, said: recited(instrument, each.pattern) || 'all open', cents: centsSaid(each.cents) }));
      return { said: this.countSaid(all, within), patterns };
    } catch (error) {
      if (error instanceof ZelpitFault) return { said: error.message, patterns: [] };
      throw error;
    }
  });

  protected typed(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  protected choose(note: NoteId): void {
    this.note.set(note);
  }

  protected nameOfNote(id: NoteId): string {
    return this.notes().find(({ value }) => value === id)?.said ?? '';
  }

  /** Plays the pitch that the model gives the pattern. */
  protected hear(pattern: Pattern): void {
    const { family } = this.state.instrument();
    const pitch = tablePitch(this.state.instrument(), pattern)?.hertz;
    if (pitch !== undefined) this.transport.hold((sampleRate) => heldTone(family, pitch, toneSeconds, sampleRate));
  }

  private countSaid(all: readonly FoundPattern[], within: number): string {
    if (all.length === 0) return `No fingers sound within ${within} cents of it.`;
    if (all.length > most) return `${all.length} ways within ${within} cents; the best ${most} are shown.`;
    return all.length === 1 ? `One way within ${within} cents.` : `${all.length} ways within ${within} cents, the best first.`;
  }

  private neighbour(by: number): NoteId {
    const { notes } = this.state.instrument();
    const at = notes.findIndex(({ id }) => id === this.note()) + by;
    return notes[Math.max(0, Math.min(notes.length - 1, at))].id;
  }
}
