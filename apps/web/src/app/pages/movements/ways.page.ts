import { Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { practiceChanter, type NoteId } from '@zelpit/core/fingering';
import { lightTapNotes, type MovementSettings, type SyllableSet } from '@zelpit/core/movement';
import { ApiFault } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { MovementBook } from '../../studio/movement-book/movement-book.service';

type Value = string;
interface Way {
  readonly purpose: string;
  readonly text: string;
  readonly choices: readonly Choice<Value>[];
  readonly of: (settings: MovementSettings) => Value;
  readonly with: (value: Value, settings: MovementSettings) => Partial<MovementSettings>;
}

const fingersOf = (written: NoteId, text: string, two: string): Way => ({
  purpose: `Fingers of the ${text} grace note`,
  text: `The ${text} grace note is played with`,
  choices: [
    { value: 'one', label: 'one finger' },
    { value: 'two', label: two },
  ],
  of: ({ twoFingers }) => (twoFingers.includes(written) ? 'two' : 'one'),
  with: (value, { twoFingers }) => ({ twoFingers: [...twoFingers.filter((each) => each !== written), ...(value === 'two' ? [written] : [])] }),
});

/** Every choice with what it is by default first. */
const ways: readonly Way[] = [
  {
    purpose: 'From low G',
    text: 'After low G, a throw, grip or taorluath is played',
    choices: [
      { value: 'short', label: 'short, because low G is sounding already' },
      { value: 'full', label: 'in full' },
    ],
    of: ({ fromLowest }) => fromLowest,
    with: (value) => ({ fromLowest: value as MovementSettings['fromLowest'] }),
  },
  {
    purpose: 'Thumb into high G',
    text: 'With the thumb into high G',
    choices: [
      { value: 'all-off', label: 'everything is off, then the thumb returns' },
      { value: 'thumb-first', label: 'the thumb lifts over the note before, and the index finger leaves as it returns' },
    ],
    of: ({ thumbOverUpper }) => thumbOverUpper,
    with: (value) => ({ thumbOverUpper: value as MovementSettings['thumbOverUpper'] }),
  },
  {
    purpose: 'Down from high G',
    text: 'Coming down from high G, the grace note scale uses',
    choices: [
      { value: 'thumb', label: 'the thumb grace note' },
      { value: 'plain', label: 'no grace note' },
    ],
    of: ({ thumbDown }) => thumbDown,
    with: (value) => ({ thumbDown: value as MovementSettings['thumbDown'] }),
  },
  {
    purpose: 'Taorluath on low G',
    text: 'A taorluath on low G, as in the classical repertoire, is',
    choices: [
      { value: 'off', label: 'left out' },
      { value: 'on', label: 'played' },
    ],
    of: ({ classical }) => (classical ? 'on' : 'off'),
    with: (value) => ({ classical: value === 'on' }),
  },
  fingersOf('f', 'F', 'two: L middle and L ring'),
  fingersOf('b', 'B', 'two: R ring and R little'),
  {
    purpose: 'Tap on D',
    text: 'D is tapped',
    choices: [
      { value: 'heavy', label: 'heavily, down to low G' },
      { value: 'light', label: 'lightly, down to C' },
    ],
    of: ({ lightTaps }) => (lightTaps.length > 0 ? 'light' : 'heavy'),
    with: (value) => ({ lightTaps: value === 'light' ? lightTapNotes : [] }),
  },
  {
    purpose: 'Second tap',
    text: 'The second tap of a birl is',
    choices: [
      { value: 'tap', label: 'another tap' },
      { value: 'drag', label: 'the little finger drawn back over its hole' },
    ],
    of: ({ secondTap }) => secondTap,
    with: (value) => ({ secondTap: value as MovementSettings['secondTap'] }),
  },
  {
    purpose: 'Low notes',
    text: 'A low G in a grip or throw is as long as',
    choices: ['1', '1.25', '1.5', '1.75', '2', '2.5'].map((times) => ({ value: times, label: `${times} grace notes` })),
    of: ({ lowTimes }) => String(lowTimes),
    with: (value) => ({ lowTimes: Number(value) }),
  },
  {
    purpose: 'Time between notes',
    text: 'From one note of a taorluath to the next there is the time of',
    choices: ['1.5', '2', '2.5', '3', '4'].map((times) => ({ value: times, label: `${times} grace notes` })),
    of: ({ evenTimes }) => String(evenTimes),
    with: (value) => ({ evenTimes: Number(value) }),
  },
  {
    purpose: 'Beat',
    text: 'The beat falls on',
    choices: [
      { value: 'first', label: 'the first element' },
      { value: 'theme', label: 'the theme note' },
      { value: 'first-low', label: 'the first low G of throws and grips' },
    ],
    of: ({ beat }) => beat,
    with: (value) => ({ beat: value as MovementSettings['beat'] }),
  },
  {
    purpose: 'Count',
    text: 'A taorluath is counted on',
    choices: [
      { value: 'onsets', label: 'its four notes' },
      { value: 'with-opener', label: 'opener, low G, D and E' },
    ],
    of: ({ count }) => count,
    with: (value) => ({ count: value as MovementSettings['count'] }),
  },
];

/** How the studio plays its movements, and its syllables. */
@Component({
  selector: 'zp-ways',
  imports: [SentenceComponent, ChooserComponent, RouterLink],
  template: `
    <div class="page">
      <zp-sentence><a class="chooser-word" routerLink="/movements">Movements</a><span class="quiet">, how we play and count them</span></zp-sentence>
      <section class="band" aria-label="What is here">
        <div class="band-said">
          <p class="band-todo">Say once how this studio plays. Every table, line and judgement follows it.</p>
          <p class="band-else">Lines and tunes made before stay as they were written.</p>
        </div>
      </section>
      <main class="layer page-fill">
        <h2 class="heading">How we play</h2>
        <ul class="plain-list">
          @for (way of shown(); track way.purpose) {
            <li class="mb-2">
              <span class="quiet">{{ way.label }} </span>
              <zp-chooser [purpose]="way.purpose" [value]="way.value" [choices]="way.choices" (valueChange)="choose(way.purpose, $event)" />.
            </li>
          }
        </ul>
        @if (saving.fault()) {
          <p class="fault-text" role="alert">{{ saving.fault() }}</p>
        }
        <h2 class="heading">Syllables</h2>
        <p class="second">One for each note, and one for its grace note. Leave a box empty to say the note’s letter.</p>
        <form (submit)="$event.preventDefault(); saveSyllables()">
          <table class="risk-table syllables">
            <thead>
              <tr>
                <th scope="col">Note</th>
                <th scope="col">as a note</th>
                <th scope="col">as a grace note</th>
              </tr>
            </thead>
            <tbody>
              @for (note of notes; track note.id) {
                <tr>
                  <th scope="row">{{ note.schoolName }}</th>
                  @for (kind of kinds; track kind) {
                    <td>
                      <input
                        class="form-control narrow"
                        maxlength="12"
                        autocomplete="off"
                        [attr.aria-label]="note.schoolName + (kind === 'note' ? ' as a note' : ' as a grace note')"
                        [placeholder]="note.writtenName"
                        [value]="syllable(note.id, kind)"
                        (input)="type(note.id, kind, $event)"
                      />
                    </td>
                  }
                </tr>
              }
            </tbody>
          </table>
          <p class="d-flex flex-wrap gap-3 align-items-center">
            <button type="submit" class="btn btn-solid" [disabled]="saving.isBusy() || !isChanged()">Save the syllables</button>
            @if (isChanged()) {
              <span role="status">Not saved yet.</span>
            }
          </p>
        </form>
      </main>
    </div>
  `,
})
export class WaysPage {
  private readonly book = inject(MovementBook);
  private readonly notices = inject(NoticeService);
  protected readonly saving = new Attempt();
  protected readonly notes = practiceChanter.notes;
  protected readonly kinds = ['note', 'grace'] as const;

  protected readonly shown = computed(() => ways.map(({ purpose, text, choices, of }) => ({ purpose, label: text, choices, value: of(this.book.settings()) })));
  protected readonly syllables = linkedSignal((): SyllableSet => this.book.syllables());
  protected readonly isChanged = signal(false);

  protected choose(purpose: string, value: Value): void {
    const settings = this.book.settings();
    const change = ways.find((way) => way.purpose === purpose)?.with(value, settings) ?? {};
    this.saving.run(
      this.book.saveChoices({ settings: { ...settings, ...change } }),
      () => this.notices.done('Saved.'),
      (error) => this.lookAgain(error),
    );
  }

  protected syllable(note: NoteId, kind: 'note' | 'grace'): string {
    return this.syllables()[note]?.[kind] ?? '';
  }

  protected type(note: NoteId, kind: 'note' | 'grace', event: Event): void {
    const typed = (event.target as HTMLInputElement).value;
    const before = this.syllables()[note] ?? { note: '', grace: '' };
    this.syllables.set({ ...this.syllables(), [note]: { ...before, [kind]: typed } });
    this.isChanged.set(true);
  }

  protected saveSyllables(): void {
    this.saving.run(
      this.book.saveChoices({ syllables: this.syllables() }),
      () => {
        this.isChanged.set(false);
        this.notices.done('The syllables are saved.');
      },
      (error) => this.lookAgain(error),
    );
  }

  /** Changed in another window meanwhile: what stands there now is fetched, and what was typed here stays. */
  private lookAgain(error: unknown): void {
    if (!(error instanceof ApiFault) || error.code !== 'changed-elsewhere') return;
    const typed = this.syllables();
    this.book.reload().subscribe({ next: () => this.isChanged() && this.syllables.set(typed), error: (fault: unknown) => this.notices.fault(fault) });
  }
}
