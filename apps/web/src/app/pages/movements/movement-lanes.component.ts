import { Component, computed, input } from '@angular/core';
import { chartedPattern, noteOf, withFingers, type Instrument } from '@zelpit/core/fingering';
import { ribbons, type CoverSpan } from '@zelpit/core/lanes';
import { timedSteps, type CompiledMovement, type MovementPace } from '@zelpit/core/movement';

const [left, right, top, pitch, thickness] = [112, 16, 64, 32, 12];
/** How much of the notes around a movement is drawn, in ms. */
const aroundMs = 90;

/** A movement as finger lanes in time: what each finger does, step by step, with letters and counts above. */
@Component({
  selector: 'zp-movement-lanes',
  template: `
    <svg [attr.width]="width()" [attr.height]="height()" class="change-lanes" role="img" [attr.aria-label]="text()">
      @for (step of columns(); track step.x) {
        <rect
          [attr.x]="step.x"
          [attr.y]="4"
          [attr.width]="step.wide"
          [attr.height]="height() - 8"
          [class]="step.kind === 'note' ? 'step-theme' : 'step-grace'"
          rx="8"
        />
        <text [attr.x]="step.x + step.wide / 2" y="26" text-anchor="middle" class="step-letter">{{ step.letter }}</text>
        <text [attr.x]="step.x + step.wide / 2" y="48" text-anchor="middle" class="ms-label">{{ step.under }}</text>
      }
      @for (lane of lanes(); track lane.id) {
        <text [attr.x]="left - 12" [attr.y]="lane.y - 2" text-anchor="end" class="lane-label" font-size="18" font-weight="600">{{ lane.label }}</text>
        <line [attr.x1]="left" [attr.x2]="width() - right" [attr.y1]="lane.y" [attr.y2]="lane.y" stroke="var(--wood)" stroke-width="1.6" />
        @for (ribbon of lane.ribbons; track $index) {
          <path [attr.d]="ribbon.path" fill="none" stroke="currentColor" stroke-linecap="round" [attr.stroke-width]="thickness" />
        }
      }
    </svg>
  `,
})
export class MovementLanesComponent {
  readonly instrument = input.required<Instrument>();
  readonly movement = input.required<CompiledMovement>();
  readonly pace = input.required<MovementPace>();
  readonly width = input(640);
  /** What stands over each element: its count, or its syllable; elements are numbered where nothing is given. */
  readonly labels = input<readonly string[]>();
  readonly beforeLabel = input('');
  readonly afterLabel = input('');

  protected readonly left = left;
  protected readonly right = right;
  protected readonly thickness = thickness;
  protected readonly height = computed(() => top + this.instrument().fingers.length * pitch + 6);

  /** Everything that sounds, in its order: the note before, the steps, the theme note. */
  private readonly pieces = computed(() => {
    const [instrument, movement] = [this.instrument(), this.movement()];
    const steps = timedSteps(movement, this.pace()).map(({ written, pattern, lengthMs, kind }) => ({
      note: written,
      pattern,
      lengthMs,
      kind: kind === 'note' ? 'step' : kind,
    }));
    const [first, ...rest] = steps;
    // Under an opener the other fingers change halfway.
    const isCovering = movement.kind === 'compiled' && movement.before !== null && first?.kind === 'opener';
    const halves = isCovering
      ? [
          { ...first, lengthMs: first.lengthMs / 2, pattern: this.openedOver(movement) },
          { ...first, lengthMs: first.lengthMs / 2, kind: 'same' as const },
          ...rest,
        ]
      : steps;
    const around = (note: string) => ({ note, pattern: chartedPattern(instrument, note), lengthMs: aroundMs, kind: 'note' });
    return [...(movement.before === null ? [] : [around(movement.before)]), ...halves, around(movement.after)];
  });
  private readonly scale = computed(() => (this.width() - left - right) / this.pieces().reduce((sum, { lengthMs }) => sum + lengthMs, 0));

  protected readonly columns = computed(() => {
    let x = left;
    let count = 0;
    return this.pieces().map(({ note, lengthMs, kind, pattern }, index, all) => {
      const wide = lengthMs * this.scale();
      const isStep = kind !== 'note' && kind !== 'same';
      if (isStep) count += 1;
      const around = index === all.length - 1 ? this.afterLabel() : this.beforeLabel();
      const label = isStep ? (this.labels()?.[count - 1] ?? String(count)) : around;
      const column = {
        x,
        wide,
        kind,
        pattern,
        letter: kind === 'same' ? '' : noteOf(this.instrument(), note).writtenName,
        under: kind === 'same' ? '' : label,
      };
      x += wide;
      return column;
    });
  });

  protected readonly lanes = computed(() => {
    const instrument = this.instrument();
    return instrument.fingers.map(({ id, label }, place) => {
      const y = top + (place + 0.5) * pitch;
      const spans: CoverSpan[] = [];
      for (const { x, wide, pattern } of this.columns()) {
        const coverage = Math.max(...pattern.filter((_, hole) => instrument.holes[hole].finger === id));
        const last = spans[spans.length - 1];
        if (coverage === 0) continue;
        if (last !== undefined && Math.abs(last.to - x) < 0.01 && last.coverage === coverage) spans[spans.length - 1] = { ...last, to: x + wide };
        else spans.push({ from: x, to: x + wide, coverage });
      }
      return { id, label, y, ribbons: ribbons(spans, { y, thickness, left, right: this.width() - right }) };
    });
  });

  /** The note before with the opener's fingers off. */
  private openedOver({ before, steps }: Extract<CompiledMovement, { kind: 'compiled' }>): readonly number[] {
    const instrument = this.instrument();
    return withFingers(instrument, chartedPattern(instrument, before ?? ''), steps[0].fingers, 0);
  }

  protected readonly text = computed(() => {
    const movement = this.movement();
    return movement.kind === 'compiled' ? `Fingers of ${movement.written}` : movement.reason;
  });
}
