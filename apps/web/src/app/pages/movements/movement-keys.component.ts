import { Component, computed, input, linkedSignal, type OnDestroy } from '@angular/core';
import { chartedPattern, noteOf, type FingerId, type Instrument } from '@zelpit/core/fingering';
import { judgeMovement, type CompiledMovement, type JudgedMovement, type MovementPace } from '@zelpit/core/movement';
import { fingersDown, type FingerEvent } from '@zelpit/core/playing';
import { FingerPadsComponent } from '../../music/fingers/finger-pads.component';

/** The theme note stands when nothing moved for so long, in ms. */
const stillMs = 450;
const shownBefore = 6;

/** A movement played on keys or pads, judged: elements missing, extra, uneven, and what slipped in between. */
@Component({
  selector: 'zp-movement-keys',
  imports: [FingerPadsComponent],
  template: `
    <zp-finger-pads [instrument]="instrument()" [wanted]="wanted()" [isLive]="movement().kind === 'compiled'" (moved)="take($event)" (lies)="follow($event)" />
    <p role="status">{{ text() }}</p>
    @if (before().length > 0) {
      <ul class="plain-list">
        @for (each of before(); track $index) {
          <li [class.wrongly]="!each.isClean">{{ each.text }}</li>
        }
      </ul>
    }
  `,
})
export class MovementKeysComponent implements OnDestroy {
  readonly instrument = input.required<Instrument>();
  readonly movement = input.required<CompiledMovement>();
  readonly pace = input<MovementPace>();

  private readonly isReady = linkedSignal({ source: () => this.movement(), computation: () => false });
  private readonly events = linkedSignal({ source: () => this.movement(), computation: (): readonly FingerEvent[] => [] });
  private readonly judged = linkedSignal({ source: () => this.movement(), computation: (): readonly JudgedMovement[] => [] });
  private timer?: ReturnType<typeof setTimeout>;

  private readonly start = computed(() => {
    const movement = this.movement();
    return movement.kind === 'compiled' && movement.before !== null ? movement.before : undefined;
  });
  /** Before it begins, the fingers of the note before. */
  protected readonly wanted = computed((): ReadonlySet<FingerId> | undefined => {
    const start = this.start();
    return start === undefined || this.isReady() ? undefined : fingersDown(this.instrument(), chartedPattern(this.instrument(), start));
  });
  protected readonly text = computed(() => {
    const start = this.start();
    const [last] = this.judged();
    if (start === undefined) return '';
    const name = noteOf(this.instrument(), start).schoolName;
    if (this.isReady()) return 'Now play it, and stay on the last note.';
    return last === undefined ? `Set your fingers for ${name}.` : `${this.verdictOf(last)} Go back to ${name} for the next one.`;
  });
  protected readonly before = computed(() =>
    this.judged()
      .slice(1, shownBefore)
      .map((each) => ({ isClean: each.isClean, text: this.verdictOf(each) })),
  );

  ngOnDestroy(): void {
    clearTimeout(this.timer);
  }

  protected take(event: FingerEvent): void {
    if (!this.isReady()) return;
    this.events.update((events) => [...events, event]);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.judge(), stillMs);
  }

  protected follow(lying: ReadonlySet<FingerId>): void {
    const wanted = this.wanted();
    if (wanted === undefined || this.isReady()) return;
    if (wanted.size === lying.size && [...wanted].every((finger) => lying.has(finger))) this.isReady.set(true);
  }

  private judge(): void {
    const judged = judgeMovement(this.instrument(), this.movement(), this.events(), this.pace());
    if (judged !== undefined) {
      this.judged.update((all) => [judged, ...all]);
      this.events.set([]);
      this.isReady.set(false);
    }
  }

  private verdictOf({ elements, strays, isClean, totalMs }: JudgedMovement): string {
    if (isClean) return `Clean, in ${Math.round(totalMs)} ms.`;
    const movement = this.movement();
    const steps = movement.kind === 'compiled' ? movement.steps : [];
    const name = (index: number): string =>
      steps[index] === undefined ? 'the last note' : `element ${index + 1}, ${noteOf(this.instrument(), steps[index].written).schoolName},`;
    const words = { missing: 'is missing', 'too-short': 'is too short', 'too-long': 'is too long', there: '' };
    const parts = [
      ...elements
        .filter(({ verdict }) => verdict !== 'there')
        .map(({ index, verdict, ms }) => `${name(index)} ${words[verdict]}${verdict === 'missing' ? '' : ` (${Math.round(ms)} ms)`}`),
      ...strays.map(({ note, ms, before, isExtra, overlaps }) =>
        overlaps === undefined
          ? `${noteOf(this.instrument(), note).schoolName} ${isExtra ? 'is extra' : 'slips in'} before ${name(before).replace(/,$/, '')} (${Math.round(ms)} ms)`
          : `${name(overlaps)} started before the grace note had ended (${Math.round(ms)} ms)`,
      ),
    ];
    const text = parts.join('; ');
    return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
  }
}
