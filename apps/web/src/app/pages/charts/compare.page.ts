import { Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  chartedFingering,
  chartedPattern,
  isSameToPlay,
  noteOf,
  ratioOf,
  soundingPitch,
  withTuning,
  type Instrument,
  type NoteId,
  type Tuning,
} from '@zelpit/core/fingering';
import { laneLayout, type LaneNote } from '@zelpit/core/lanes';
import { centsOfRatio } from '@zelpit/core/pitch';
import { heldTone } from '@zelpit/core/sound';
import { count } from '@zelpit/core/words';
import { LanesComponent } from '../../music/lanes/lanes.component';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { Transport } from '../../music/sound/transport.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { ChartState } from '../../studio/state/chart-state.service';
import { centsText } from '../../music/wording/chart-words';

const [columnWidth, left, pitch] = [74, 116, 23];
const [toneSeconds, bothSeconds] = [1.2, 2.4];

interface Side {
  readonly instrument: Instrument;
  readonly name: string;
}

interface Row {
  readonly key: string;
  readonly name: string;
  /** Which octave it is said with it: "high A". */
  readonly spoken: string;
  readonly ids: readonly [NoteId | undefined, NoteId | undefined];
  readonly hertz: readonly [number | undefined, number | undefined];
  readonly isOtherFingers: boolean;
  /** The second's pitch from the first's in whole cents; undefined where one has no such note. */
  readonly apart: number | undefined;
}

/** Two charts of one family beside each other: models, schools or tunings, what differs in fingers and in pitch. */
@Component({
  selector: 'zp-compare',
  imports: [SentenceComponent, ChooserComponent, RouterLink, LanesComponent],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" routerLink="/charts">Chart</a><span class="quiet"> of </span>
        <zp-chooser purpose="First instrument" [(value)]="firstChoice" [word]="sides()[0].name" [choices]="choices()" />
        <span class="quiet"> beside </span>
        <zp-chooser purpose="Second instrument" [(value)]="secondChoice" [word]="sides()[1].name" [choices]="choices()" />
      </zp-sentence>
      <section class="band" aria-label="What differs">
        <div class="band-said" role="status">
          <p class="band-todo">{{ found() }}</p>
          <p class="band-else">{{ chosenText() }}</p>
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" [disabled]="chosenRow()?.hertz?.[0] === undefined" (click)="hear(0)">Hear the first</button>
          <button type="button" class="btn btn-solid" [disabled]="chosenRow()?.hertz?.[1] === undefined" (click)="hear(1)">Hear the second</button>
          <button type="button" class="btn btn-line" [disabled]="!canHearBoth()" (click)="hearBoth()">Hear both</button>
        </div>
      </section>
      @if (tuningQuestions().length > 0) {
        <section class="layer chart-options" aria-label="Tunings">
          <p class="second w-100 mb-0">
            Pitch as a ratio to low A: 2/1 is an octave above it. 100 cents are a semitone; below about 5 cents hardly anyone hears a difference.
          </p>
          @for (side of [0, 1]; track side) {
            @for (question of tuningQuestions(); track question.note) {
              <span class="seen"
                ><span class="quiet">{{ side === 0 ? 'first' : 'second' }} {{ question.text }} </span
                ><zp-chooser
                  [purpose]="(side === 0 ? 'First ' : 'Second ') + question.text"
                  [value]="ratioOf(side, question.note)"
                  [word]="ratioOf(side, question.note)"
                  [choices]="question.choices"
                  (valueChange)="tune(side, question.note, $event)"
              /></span>
            }
          }
        </section>
      }
      <main class="chart-lanes" role="main" tabindex="0" aria-label="Two charts">
        <div class="chart-wide" [style.width.px]="width()">
          <div class="chart-heads" [style.padding-left.px]="left">
            @for (row of rows(); track row.key; let index = $index) {
              <button
                type="button"
                class="chart-head compare-head"
                [class.is-different]="row.isOtherFingers"
                [style.width.px]="columnWidth"
                [attr.aria-pressed]="index === chosen()"
                [attr.aria-label]="row.spoken + (row.apart ? ', ' + row.apart + ' cents apart' : '') + (row.isOtherFingers ? ', other fingers' : '')"
                (click)="pick(index)"
              >
                {{ row.name }}
              </button>
            }
          </div>
          @for (side of sides(); track $index) {
            <h2 class="group-title m-0">{{ side.name }}</h2>
            <svg [attr.width]="width()" [attr.height]="heightOf(side.instrument)" aria-hidden="true">
              <rect
                [attr.x]="left + chosen() * columnWidth + 3"
                y="2"
                [attr.width]="columnWidth - 6"
                [attr.height]="heightOf(side.instrument) - 4"
                rx="12"
                class="chart-pillar"
              />
              <g zpLanes [instrument]="side.instrument" [notes]="lanes()[$index]" [left]="left" [right]="width() - 8" [pitch]="pitch" [labelSize]="16"></g>
            </svg>
          }
          <div class="chart-moves compare-cents">
            <span class="second text-end pe-2" [style.width.px]="left">in cents</span>
            @for (row of rows(); track row.key) {
              <span [style.width.px]="columnWidth" [class.wrongly]="row.apart !== 0">{{ signed(row.apart) }}</span>
            }
          </div>
          <p class="chart-legend">
            Dotted line: different fingers. Bottom row: how many cents the second instrument is sharp (+) or flat (−) of the first, with the same
            {{ referenceName() }}.
          </p>
        </div>
      </main>
    </div>
  `,
})
export class ComparePage {
  private readonly transport = inject(Transport);
  private readonly state = inject(StudioState);
  protected readonly chart = inject(ChartState);
  protected readonly columnWidth = columnWidth;
  protected readonly left = left;
  protected readonly pitch = pitch;
  protected readonly choices = this.state.instrumentChoices;

  protected readonly firstChoice = linkedSignal(() => this.state.inHand().choice);
  private readonly first = computed(() => this.state.handFor(this.firstChoice()) ?? this.state.inHand());
  /** The other model of the same name, else another tuning of the same instrument. */
  protected readonly secondChoice = linkedSignal(() => {
    const { instrument } = this.first();
    const other = this.choices().find(({ value }) => {
      const hand = this.state.handFor(value);
      return hand !== undefined && hand.held === undefined && hand.instrument.name === instrument.name && hand.instrument.id !== instrument.id;
    });
    return other?.value ?? instrument.id;
  });
  private readonly second = computed(() => this.state.handFor(this.secondChoice()) ?? this.first());

  /** Fractions by note, for each side; where nothing is chosen, the second side takes the tuner's other one. */
  private readonly ratios = signal<readonly [Readonly<Record<NoteId, string>>, Readonly<Record<NoteId, string>>]>([{}, {}]);
  protected readonly tuningQuestions = computed(() =>
    this.first()
      .instrument.notes.filter(({ justRatios }) => (justRatios?.length ?? 0) > 1)
      .map(({ id, schoolName, justRatios }) => ({
        note: id,
        text: schoolName,
        ratios: justRatios ?? [],
        choices: (justRatios ?? []).map((ratio): Choice<string> => ({ value: ratio, label: ratio })),
      })),
  );

  protected readonly sides = computed((): readonly [Side, Side] => [this.sideOf(0), this.sideOf(1)]);

  protected readonly rows = computed((): readonly Row[] => {
    const [{ instrument: one }, { instrument: other }] = this.sides();
    const semitones = [...new Set([...one.notes, ...other.notes].map((note) => note.writtenSemitone))].sort((low, high) => low - high);
    return semitones.map((semitone): Row => {
      const [mine, theirs] = [one, other].map((instrument) => instrument.notes.find((note) => note.writtenSemitone === semitone));
      const both = mine !== undefined && theirs !== undefined;
      return {
        key: String(semitone),
        name: (mine ?? theirs)?.writtenName ?? '',
        spoken: (mine ?? theirs)?.schoolName ?? '',
        ids: [mine?.id, theirs?.id],
        hertz: [mine === undefined ? undefined : soundingPitch(one, mine.id), theirs === undefined ? undefined : soundingPitch(other, theirs.id)],
        isOtherFingers: both && !isSameToPlay(one, chartedPattern(one, mine.id), other, chartedPattern(other, theirs.id)),
        apart: both ? Math.round(centsOfRatio(theirs.ratio / mine.ratio)) : undefined,
      };
    });
  });

  protected readonly chosen = linkedSignal({
    source: this.rows,
    computation: (rows) => Math.max(0, rows.findIndex(isDifferent)),
  });
  protected readonly chosenRow = computed((): Row | undefined => this.rows()[this.chosen()]);
  protected readonly width = computed(() => left + this.rows().length * columnWidth + 16);
  protected readonly referenceName = computed(() => {
    const { instrument } = this.sides()[0];
    return noteOf(instrument, instrument.reference.note).schoolName;
  });

  protected readonly lanes = computed(() =>
    this.sides().map(({ instrument }, side) =>
      this.rows().map(({ ids }, index): LaneNote => {
        const id = ids[side];
        const x = left + (index + 0.5) * columnWidth;
        return id === undefined ? { x, note: null, graceNotes: [] } : { x, note: id, pattern: chartedFingering(instrument, id).pattern, graceNotes: [] };
      }),
    ),
  );

  protected readonly found = computed(() => {
    const rows = this.rows();
    const fingers = rows.filter(({ isOtherFingers }) => isOtherFingers).length;
    const pitches = rows.filter(({ apart }) => apart !== undefined && apart !== 0).length;
    if (fingers === 0 && pitches === 0) return 'The two charts are the same.';
    const parts = [
      ...(fingers > 0 ? [`${count(fingers, 'note has', 'notes have')} different fingers`] : []),
      ...(pitches > 0 ? [`${count(pitches, 'note is', 'notes are')} tuned differently`] : []),
    ];
    return `${parts.join(', ')}.`;
  });

  protected readonly chosenText = computed(() => {
    const row = this.chosenRow();
    if (row === undefined) return '';
    const [one, other] = row.hertz.map((hertz) => (hertz === undefined ? 'not there' : `${hertz.toFixed(1)} Hz`));
    return `${row.name}: ${one} and ${other}${row.apart === undefined || row.apart === 0 ? '' : `; the second is ${centsText(row.apart)}`}.`;
  });
  protected readonly canHearBoth = computed(() => this.chosenRow()?.hertz.every((hertz) => hertz !== undefined) === true);

  protected signed(cents: number | undefined): string {
    if (cents === undefined) return '';
    return cents > 0 ? `+${cents}` : String(cents).replace('-', '−');
  }

  protected heightOf(instrument: Instrument): number {
    return laneLayout(instrument, pitch).height + 8;
  }

  protected ratioOf(side: number, note: NoteId): string {
    const question = this.tuningQuestions().find((each) => each.note === note);
    const { instrument } = this.sides()[side];
    const now = noteOf(instrument, note).ratio;
    return question?.ratios.find((text) => Math.abs(ratioOf(text) - now) < 1e-9) ?? now.toFixed(4);
  }

  protected tune(side: number, note: NoteId, ratio: string): void {
    this.ratios.update(([one, other]) => (side === 0 ? [{ ...one, [note]: ratio }, other] : [one, { ...other, [note]: ratio }]));
  }

  protected pick(index: number): void {
    this.chosen.set(index);
    this.hear(0);
  }

  protected hear(side: 0 | 1): void {
    const hertz = this.chosenRow()?.hertz[side];
    if (hertz !== undefined) this.transport.holdTone(this.sides()[side].instrument, hertz, toneSeconds);
  }

  /** Both pitches together, at half level each, so that their beating is heard. */
  protected hearBoth(): void {
    const row = this.chosenRow();
    if (row === undefined) return;
    const families = this.sides().map(({ instrument }) => instrument.family);
    this.transport.hold((sampleRate) => {
      const [one, other] = row.hertz.map((hertz, side) => heldTone(families[side], hertz ?? 1, bothSeconds, sampleRate));
      return one.map((value, index) => (value + other[index]) / 2);
    });
  }

  private sideOf(side: 0 | 1): Side {
    const hand = side === 0 ? this.first() : this.second();
    const isSameThing = this.firstChoice() === this.secondChoice() || this.first().instrument.id === this.second().instrument.id;
    const chosen = this.ratios()[side];
    const others = side === 1 && isSameThing && Object.keys(chosen).length === 0 ? this.otherTuning() : chosen;
    const has = Object.fromEntries(Object.entries(others).filter(([note]) => hand.instrument.notes.some(({ id }) => id === note)));
    const tuning: Tuning = Object.keys(has).length === 0 ? { kind: 'chart' } : { kind: 'ratios', ratios: has };
    const word = hand.held?.name ?? this.choices().find(({ value }) => value === hand.choice)?.label ?? hand.instrument.name;
    const text = Object.entries(has).map(([note, ratio]) => `${noteOf(hand.instrument, note).schoolName} ${ratio}`);
    return { instrument: withTuning(hand.instrument, tuning), name: text.length === 0 ? word : `${word}, ${text.join(', ')}` };
  }

  /** The tuner's second fraction of the highest note that has one. */
  private otherTuning(): Readonly<Record<NoteId, string>> {
    const question = this.tuningQuestions().at(-1);
    if (question === undefined) return {};
    const now = noteOf(this.first().instrument, question.note).ratio;
    const other = question.ratios.find((text) => Math.abs(ratioOf(text) - now) > 1e-9);
    return other === undefined ? {} : { [question.note]: other };
  }
}

const isDifferent = ({ apart, isOtherFingers }: Row): boolean => isOtherFingers || (apart !== undefined && apart !== 0);
