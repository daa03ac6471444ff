import { Component, computed, input, output } from '@angular/core';
import { inBetweenSounds, noteOf, ribbons, steppedSounds, type Change, type CoverSpan, type HeardStep, type Instrument, type SoundClass } from '@zelpit/core';

const [left, right, top, pitch, thickness] = [116, 24, 44, 40, 12];
/** Time that is shown on each side of the middle, in ms. */
const shownMs = 60;
const faultClasses: ReadonlySet<SoundClass> = new Set(['low', 'run', 'over-open']);

const classSaid: Readonly<Record<SoundClass, string>> = {
  low: 'too low',
  'over-open': 'too open',
  run: 'a note between',
  between: 'a sound between',
  above: 'too high',
  same: 'hardly heard',
};

/**
 * A change with time stretched: a lane for each finger, its moment to be dragged, the spread of a player around it, and what is heard between the first
 * and the last finger.
 */
@Component({
  selector: 'zp-change-lanes',
  template: `
    <svg [attr.width]="width()" [attr.height]="height()" class="change-lanes" (pointermove)="drag($event)" (pointerup)="held = -1" (pointerleave)="held = -1">
      @for (tick of ticks(); track tick.ms) {
        <line [attr.x1]="tick.x" [attr.x2]="tick.x" [attr.y1]="top - 8" [attr.y2]="lanesEnd()" class="ms-line" [class.is-middle]="tick.ms === 0" />
        <text [attr.x]="tick.x" y="18" text-anchor="middle" class="ms-label">{{ tick.said }}</text>
      }
      @for (step of steps(); track step.mask) {
        <rect
          [attr.x]="step.x"
          [attr.y]="top - 6"
          [attr.width]="step.wide"
          [attr.height]="lanesEnd() - top + 6"
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
            [attr.aria-valuetext]="mover.said"
            (pointerdown)="take($event, mover.index)"
            (keydown)="nudge($event, mover.index)"
          >
            <rect [attr.x]="mover.x - 22" [attr.y]="lane.y - 26" width="44" height="40" fill="transparent" />
            <circle [attr.cx]="mover.x" [attr.cy]="lane.y - 6" r="12" class="moment-knob" />
            <text [attr.x]="mover.x" [attr.y]="lane.y - 1" text-anchor="middle" class="moment-sign" aria-hidden="true">{{ mover.isLift ? '↑' : '↓' }}</text>
          </g>
        }
      }
      @for (step of steps(); track step.mask) {
        <text [attr.x]="step.labelX" [attr.y]="lanesEnd() + 24 + step.row * 24" text-anchor="middle" class="seam-said" [class.wrongly]="step.isFault">
          {{ step.said }}
        </text>
      }
      @if (steps().length === 0) {
        <text [attr.x]="left" [attr.y]="lanesEnd() + 24" class="seam-said">All fingers in one instant: nothing is heard between.</text>
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
  readonly moved = output<{ readonly index: number; readonly ms: number }>();

  protected readonly left = left;
  protected readonly right = right;
  protected readonly top = top;
  protected readonly thickness = thickness;
  protected readonly shown = shownMs;
  /** The mover under the hand; -1 for none. */
  protected held = -1;

  protected readonly lanesEnd = computed(() => top + this.instrument().fingers.length * pitch - 10);
  protected readonly height = computed(() => this.lanesEnd() + 24 * (1 + Math.max(1, ...this.steps().map(({ row }) => row + 1))) + 6);
  private readonly scale = computed(() => (this.width() - left - right) / (2 * shownMs));

  protected readonly ticks = computed(() =>
    [-60, -40, -20, 0, 20, 40, 60].map((ms) => ({ ms, x: this.xOf(ms), said: ms === 60 ? '60 ms' : String(ms).replace('-', '−') })),
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
      const spans: CoverSpan[] = [
        { from: start, to: x, coverage: cover(change.fromPattern) },
        { from: x, to: end, coverage: cover(index === -1 ? change.fromPattern : change.toPattern) },
      ].filter(({ from, to, coverage }) => coverage > 0 && to > from);
      return { id: finger.id, label: finger.label, y, ribbons: ribbons(spans, { y, thickness, left: start, right: end }), mover: this.moverAt(index) };
    });
  });

  protected readonly steps = computed(() => {
    const sounds = inBetweenSounds(this.instrument(), this.change());
    return steppedSounds(sounds, this.moments()).map((step, index) => {
      const [x, end] = [this.xOf(step.from), this.xOf(step.to)];
      return {
        mask: step.mask,
        x,
        wide: end - x,
        labelX: Math.min(this.width() - 180, Math.max(left + 120, (x + end) / 2)),
        row: index,
        isFault: faultClasses.has(step.sound.kind),
        said: this.heardSaid(step),
      };
    });
  });

  protected take(event: PointerEvent, index: number): void {
    this.held = index;
    (event.target as Element).releasePointerCapture(event.pointerId);
    event.preventDefault();
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
        readonly said: string;
        readonly isLift: boolean;
        readonly early: number;
        readonly late: number;
      }
    | undefined {
    if (index === -1) return undefined;
    const ms = this.moments()[index];
    const isLift = this.change().movers[index].direction === 'lift';
    const said = ms === 0 ? 'in the middle' : `${Math.abs(ms)} ms ${ms < 0 ? 'early' : 'late'}`;
    const edge = (at: number): number => this.xOf(clamped(at));
    return { index, x: this.xOf(ms), ms, said, isLift, early: edge(ms - this.sigma()), late: edge(ms + this.sigma()) };
  }

  private heardSaid({ from, to, sound }: HeardStep): string {
    const name = noteOf(this.instrument(), sound.note).schoolName;
    const steadiness = sound.isSteady ? '' : ', unsteady';
    const spread = sound.spread >= 15 ? `, within ${sound.spread} cents` : '';
    const about = sound.kind === 'low' || sound.kind === 'run' ? name : `about ${name}`;
    return `${Math.round(to - from)} ms of ${about} (${classSaid[sound.kind]}${steadiness}${spread})`;
  }
}

const clamped = (ms: number): number => Math.max(-shownMs, Math.min(shownMs, ms));
