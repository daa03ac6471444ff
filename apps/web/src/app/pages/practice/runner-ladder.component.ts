import { Component, computed, input } from '@angular/core';
import type { Ladder } from '@zelpit/core/practice';

/** Rungs around the one that is played, on a narrow window too. */
const shownBelow = 3;
const shownAbove = 2;

/** The tempos of a climb: clean ones are covered, the one that is played now stands out, the best one says so. */
@Component({
  selector: 'zp-runner-ladder',
  template: `
    <ol class="rungs" aria-label="Tempo ladder">
      @for (rung of rungs(); track rung.tempo) {
        <li [class.is-clean]="rung.isClean" [class.is-now]="rung.isNow" [class.is-slip]="rung.isSlip" [attr.aria-current]="rung.isNow || null">
          {{ rung.tempo }}
          @if (rung.isBest) {
            <small>best</small>
          } @else if (rung.isSlip) {
            <small>slipped</small>
          }
        </li>
      }
    </ol>
  `,
})
export class RunnerLadderComponent {
  readonly ladder = input.required<Ladder>();
  readonly best = input<number>();

  protected readonly rungs = computed(() => {
    const { plan, rungs, next } = this.ladder();
    const now = next ?? rungs.at(-1)?.tempo ?? plan.start;
    const tempos: number[] = [];
    for (let tempo = plan.start; tempo < plan.ceiling; tempo += plan.step) tempos.push(tempo);
    tempos.push(plan.ceiling);
    const place = Math.max(0, tempos.indexOf(now));
    return tempos.slice(Math.max(0, place - shownBelow), place + shownAbove + 1).map((tempo) => ({
      tempo,
      isNow: tempo === next,
      isClean: rungs.some((rung) => rung.tempo === tempo && rung.rating === 'clean'),
      isSlip: rungs.some((rung) => rung.tempo === tempo && rung.rating === 'slip'),
      isBest: tempo === this.best(),
    }));
  });
}
