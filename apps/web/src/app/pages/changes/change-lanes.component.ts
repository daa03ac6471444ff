import { Component, computed, input, output } from '@angular/core';
import { loudnessAt, loudnessShown } from '@zelpit/core/acoustics';
import type { Change } from '@zelpit/core/change';
import { noteOf, type FingerId, type Instrument } from '@zelpit/core/fingering';
import { ribbons, type CoverSpan } from '@zelpit/core/lanes';
import { centsOfRatio } from '@zelpit/core/pitch';
import { changeTimeline, type ChangePlay } from '@zelpit/core/sound';
import { ChangeEar, type InBetweenSound, type SoundClass } from '@zelpit/core/timing';
import { loudText, soundText } from '../../music/wording/change-words';

const [left, right, top, pitch, thickness] = [112, 24, 40, 34, 12];
/** Time that is shown on each side of the middle, in ms. */
const shownMs = 60;
/** The lane of what is heard: its height, and how thick a tone is at the loudness of the reference note. */
const [heardHeight, heardThickness, thicknessPerDecibel] = [96, 15, 2];
const faultClasses: ReadonlySet<SoundClass> = new Set(['low', 'run', 'over-open']);

/**
 * A change with time stretched: a lane for each finger, its moment to be dragged, the spread of a player around it, and what is heard between the first
 * and the last finger.
 */
@Component({
  selector: 'zp-change-lanes',
  template: `
    <svg [attr.width]="width()" [attr.height]="height()" class="change-lanes" (pointermove)="drag($event)" (pointerup)="drop()" (pointerleave)="drop()">
      @for (tick of ticks(); track tick.ms) {
        <line [attr.x1]="tick.x" [attr.x2]="tick.x" [attr.y1]="top - 8" [attr.y2]="lanesEnd()" class="ms-line" [class.is-middle]="tick.ms === 0" />
        <text [attr.x]="tick.x" y="18" text-anchor="middle" class="ms-label">{{ tick.text }}</text>
      }
      @for (step of steps(); track step.from) {
        <rect
          [attr.x]="step.x"
          [attr.y]="top - 6"
          [attr.width]="step.wide"
          [attr.height]="heardEnd() - top + 6"
          [class]="'seam-' + (step.isFault ? 'fault' : 'mild')"
        />
      }
      @for (lane of lanes(); track lane.id) {
        <text [attr.x]="left - 12" [attr.y]="lane.y - 2" text-anchor="end" class="lane-label" font-size="18" font-weight="600">{{ lane.label }}</text>
        <line [attr.x1]="left" [attr.x2]="width() - right" [attr.y1]="lane.y" [attr.y2]="lane.y" stroke="var(--wood)" stroke-width="1.6" />
        @for (ribbon of lane.ribbons; track $index) {
          <path [attr.d]="ribbon.path" fill="none" stroke="currentColor" stroke-linecap="round" [attr.stroke-width]="thickness" />
        }
        @if (lane.mover; as mover) {
          <line [attr.x1]="mover.early" [attr.x2]="mover.late" [attr.y1]="lane.y + 9" [attr.y2]="lane.y + 9" class="spread-line" />
          <g
            role="slider"
            tabindex="0"
            class="moment"
            [attr.aria-label]="lane.label + (mover.isLift ? ' lifts' : ' lands')"
            [attr.aria-valuenow]="mover.ms"
            [attr.aria-valuemin]="-shown"
            [attr.aria-valuemax]="shown"
            [attr.aria-valuetext]="mover.text"
            (pointerdown)="take($event, mover.index)"
            (keydown)="nudge($event, mover.index)"
          >
            <rect [attr.x]="mover.x - 22" [attr.y]="lane.y - 26" width="44" height="40" fill="transparent" />
            <circle [attr.cx]="mover.x" [attr.cy]="lane.y - 6" r="12" class="moment-knob" />
            <text [attr.x]="mover.x" [attr.y]="lane.y - 1" text-anchor="middle" class="moment-sign" aria-hidden="true">{{ mover.isLift ? '↑' : '↓' }}</text>
          </g>
        }
      }
      <text [attr.x]="left - 12" [attr.y]="heardMiddle() + 6" text-anchor="end" class="lane-label" font-size="18" font-weight="600">you hear</text>
      @for (tone of tones(); track tone.x) {
        <rect
          [attr.x]="tone.x"
          [attr.y]="tone.y - tone.thick / 2"
          [attr.width]="tone.wide"
          [attr.height]="tone.thick"
          [attr.rx]="tone.round"
          [class]="'tone-' + tone.kind"
        />
        @if (tone.text) {
          <text [attr.x]="tone.x + tone.wide / 2" [attr.y]="tone.labelY" text-anchor="middle" class="tone-said" [class.wrongly]="tone.kind === 'fault'">
            {{ tone.text }}
          </text>
        }
      }
      @for (step of steps(); track step.from) {
        <text [attr.x]="left" [attr.y]="heardEnd() + 26 + step.row * 24" class="seam-said" [class.wrongly]="step.isFault">{{ step.text }}</text>
      }
      @if (steps().length === 0) {
        <text [attr.x]="left" [attr.y]="heardEnd() + 26" class="seam-said">All fingers move at the same instant:</text>
        <text [attr.x]="left" [attr.y]="heardEnd() + 46" class="seam-said">nothing is heard in between.</text>
      }
    </svg>
  `,
})
export class ChangeLanesComponent {
  readonly instrument = input.required<Instrument>();
  readonly change = input.required<Change>();
  /** Of each mover, in ms. */
  readonly moments = input.required<readonly number[]>();
  /** A player's deviation, in ms. */
  readonly sigma = input.required<number>();
  readonly width = input(1184);
  /** What covers the change up, where something does. */
  readonly cover = input<ChangePlay['cover']>();
  readonly moved = output<{ readonly index: number; readonly ms: number }>();
  /** A finger was let go after it was dragged. */
  readonly dropped = output<void>();

  protected readonly left = left;
  protected readonly right = right;
  protected readonly top = top;
  protected readonly thickness = thickness;
  protected readonly shown = shownMs;
  /** The mover under the hand; -1 for none. */
  protected held = -1;

  protected readonly lanesEnd = computed(() => top + this.instrument().fingers.length * pitch - 10);
  protected readonly heardMiddle = computed(() => this.lanesEnd() + heardHeight / 2 + 4);
  protected readonly heardEnd = computed(() => this.lanesEnd() + heardHeight + 8);
  protected readonly height = computed(() => this.heardEnd() + 24 * Math.max(1, this.steps().length) + 14);
  private readonly scale = computed(() => (this.width() - left - right) / (2 * shownMs));

  protected readonly ticks = computed(() =>
    [-60, -40, -20, 0, 20, 40, 60].map((ms) => ({ ms, x: this.xOf(ms), text: ms === 60 ? '60 ms' : String(ms).replace('-', '−') })),
  );

  protected readonly lanes = computed(() => {
    const change = this.change();
    const instrument = this.instrument();
    const [start, end] = [left, this.width() - right];
    return instrument.fingers.map((finger, place) => {
      const y = top + (place + 0.5) * pitch;
      const index = change.movers.findIndex((mover) => mover.finger === finger.id);
      const cover = (pattern: readonly number[]): number => Math.max(...pattern.filter((_, hole) => instrument.holes[hole].finger === finger.id));
      const x = index === -1 ? end : this.xOf(this.moments()[index]);
      const hidden = this.graceSpan(finger.id);
      const spans: CoverSpan[] = (
        hidden === undefined
          ? [
              { from: start, to: x, coverage: cover(change.fromPattern) },
              { from: x, to: end, coverage: cover(index === -1 ? change.fromPattern : change.toPattern) },
            ]
          : [
              { from: start, to: hidden.from, coverage: 1 },
              { from: hidden.to, to: end, coverage: 1 },
            ]
      ).filter(({ from, to, coverage }) => coverage > 0 && to > from);
      return { id: finger.id, label: finger.label, y, ribbons: ribbons(spans, { y, thickness, left: start, right: end }), mover: this.moverAt(index) };
    });
  });

  /** What stands between the first and the last thing that moves, in its order. */
  protected readonly steps = computed(() => {
    const [instrument, change, cover] = [this.instrument(), this.change(), this.cover()];
    const ear = new ChangeEar(instrument, change);
    const begin = Math.min(...this.moments(), ...(cover === undefined ? [] : [cover.from]));
    const { steps } = changeTimeline(instrument, change, this.moments(), { noteMs: 0, slower: 1, cover });
    return steps.map(({ pattern, role, start, length }, row) => {
      const [from, to] = [begin + start, begin + start + length];
      const sound = role === 'rest' ? undefined : ear.sound(pattern);
      const isFault = role === 'fault' && sound !== undefined && faultClasses.has(sound.kind);
      return { from, to, x: this.xOf(from), wide: this.xOf(to) - this.xOf(from), row, isFault, role, sound, text: this.heardText(to - from, role, sound) };
    });
  });

  /** The sound as one more ribbon: height is pitch, thickness is loudness. */
  protected readonly tones = computed(() => {
    const [instrument, change, steps] = [this.instrument(), this.change(), this.steps()];
    const ear = new ChangeEar(instrument, change);
    const ends = [ear.sound(change.fromPattern), ear.sound(change.toPattern)];
    const first = steps[0]?.x ?? this.xOf(this.moments()[0] ?? 0);
    const last = steps.length === 0 ? first : steps[steps.length - 1].x + steps[steps.length - 1].wide;
    const pieces = [
      { x: left, end: first, sound: ends[0], kind: 'note', note: change.from },
      ...steps.flatMap(({ x, wide, sound, isFault }) =>
        sound === undefined ? [] : [{ x, end: x + wide, sound, kind: isFault ? 'fault' : 'mild', note: isFault ? sound.note : undefined }],
      ),
      { x: last, end: this.width() - right, sound: ends[1], kind: 'note', note: change.to },
    ];
    const cents = pieces.map(({ sound }) => centsOfRatio(sound.hertz));
    const [low, high] = [Math.min(...cents), Math.max(...cents)];
    const reach = heardHeight - 44;
    return pieces.map(({ x, end, sound, kind, note }, index) => {
      const decibels = loudnessAt(instrument, sound.hertz) ?? 0;
      const thick = Math.max(6, heardThickness + thicknessPerDecibel * decibels);
      const y = this.lanesEnd() + 34 + (high === low ? reach / 2 : ((high - cents[index]) / (high - low)) * reach);
      const text = note === undefined ? '' : noteOf(instrument, note).schoolName;
      return {
        x: x + 1,
        wide: Math.max(1, end - x - 2),
        y,
        thick,
        round: Math.min(thick / 2, Math.max(0, (end - x - 2) / 2)),
        kind,
        text,
        labelY: y - thick / 2 - 6,
      };
    });
  });

  protected take(event: PointerEvent, index: number): void {
    this.held = index;
    (event.target as Element).releasePointerCapture(event.pointerId);
    event.preventDefault();
  }

  protected drop(): void {
    if (this.held === -1) return;
    this.held = -1;
    this.dropped.emit();
  }

  protected drag(event: PointerEvent): void {
    if (this.held === -1) return;
    const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
    const ms = Math.round((event.clientX - box.left - left) / this.scale() - shownMs);
    this.moved.emit({ index: this.held, ms: clamped(ms) });
  }

  protected nudge(event: KeyboardEvent, index: number): void {
    const steps: Readonly<Record<string, number>> = { ArrowLeft: -1, ArrowRight: 1, PageUp: 10, PageDown: -10 };
    const step = steps[event.key];
    if (step === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    this.moved.emit({ index, ms: clamped(this.moments()[index] + step) });
  }

  private xOf(ms: number): number {
    return left + (ms + shownMs) * this.scale();
  }

  private moverAt(index: number):
    | {
        readonly index: number;
        readonly x: number;
        readonly ms: number;
        readonly text: string;
        readonly isLift: boolean;
        readonly early: number;
        readonly late: number;
      }
    | undefined {
    if (index === -1) return undefined;
    const ms = this.moments()[index];
    const isLift = this.change().movers[index].direction === 'lift';
    const text = ms === 0 ? 'on time' : `${Math.abs(ms)} ms ${ms < 0 ? 'early' : 'late'}`;
    const edge = (at: number): number => this.xOf(clamped(at));
    return { index, x: this.xOf(ms), ms, text, isLift, early: edge(ms - this.sigma()), late: edge(ms + this.sigma()) };
  }

  /** Between which places a grace note's finger is off; undefined for every other finger. */
  private graceSpan(finger: FingerId): { readonly from: number; readonly to: number } | undefined {
    const cover = this.cover();
    if (cover?.opens?.includes(finger) !== true) return undefined;
    return { from: this.xOf(cover.from), to: this.xOf(cover.to) };
  }

  private heardText(ms: number, role: string, sound: InBetweenSound | undefined): string {
    if (sound === undefined) return `${Math.round(ms)} ms of silence: ${this.cover()?.opens === null ? 'the tongue' : 'every hole is closed'}`;
    const name = noteOf(this.instrument(), sound.note).schoolName;
    const spread = sound.spread >= 15 ? `, give or take ${sound.spread} cents` : '';
    const steadiness = sound.isSteady ? '' : ', unsteady';
    if (role === 'grace') return `${Math.round(ms)} ms of the grace note, near ${name}${spread}${steadiness}`;
    const about = sound.kind === 'low' || sound.kind === 'run' ? name : `about ${name}`;
    const decibels = loudText(loudnessShown(this.instrument(), sound.hertz));
    const loud = decibels === '' ? '' : `, ${decibels}`;
    return `${Math.round(ms)} ms of ${about} (${soundText[sound.kind]}${loud}${steadiness}${spread})`;
  }
}

const clamped = (ms: number): number => Math.max(-shownMs, Math.min(shownMs, ms));
