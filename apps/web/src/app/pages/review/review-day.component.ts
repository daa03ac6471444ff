import { Component, computed, input, output } from '@angular/core';
import { itemMinutes, type ReviewItem } from '@zelpit/core/review';
import { count } from '@zelpit/core/words';

const [width, height, wood] = [1040, 62, 54];
/** Between two ribbons. */
const gap = 5;
/** So much of the width belongs to the day; what hangs over the post has the rest. */
const share = 0.94;

interface DayRibbon {
  readonly id: string;
  readonly number: number;
  readonly x: number;
  readonly width: number;
  readonly isChosen: boolean;
}

/** A student's day as one wood: a ribbon for each item, as long as its minutes; what hangs over the post is too much. */
@Component({
  selector: 'zp-review-day',
  template: `
    <svg class="review-day" [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="text()">
      <path class="key-wood" [attr.d]="'M0 ' + wood + 'H' + width" />
      @for (ribbon of ribbons(); track ribbon.id) {
        <g class="day-ribbon" [class.is-chosen]="ribbon.isChosen" (click)="chosen.emit(ribbon.id)">
          <rect [attr.x]="ribbon.x" [attr.y]="ribbon.isChosen ? 20 : 33" [attr.width]="ribbon.width" height="20" rx="10" />
          <text [attr.x]="ribbon.x + ribbon.width / 2" [attr.y]="ribbon.isChosen ? 14 : 27" text-anchor="middle">{{ ribbon.number }}</text>
        </g>
      }
      <path class="day-post" [attr.d]="'M' + post + ' 22V' + height" />
    </svg>
  `,
})
export class ReviewDayComponent {
  readonly items = input.required<readonly (ReviewItem & { readonly id: string })[]>();
  /** Minutes of the student's day. */
  readonly day = input.required<number>();
  readonly chosenId = input<string>();
  readonly chosen = output<string>();

  protected readonly width = width;
  protected readonly height = height;
  protected readonly wood = wood;
  protected readonly post = width * share;
  readonly minutes = computed(() => this.items().reduce((sum, item) => sum + itemMinutes(item), 0));
  protected readonly text = computed(() => `${count(this.minutes(), 'minute')} of ${this.day()} a day`);

  protected readonly ribbons = computed((): readonly DayRibbon[] => {
    const unit = Math.min((width * share) / this.day(), width / Math.max(1, this.minutes()));
    let x = 0;
    return this.items().flatMap((item, index) => {
      const minutes = itemMinutes(item);
      if (minutes === 0) return [];
      const ribbon = { id: item.id, number: index + 1, x: x + gap / 2, width: Math.max(8, minutes * unit - gap), isChosen: item.id === this.chosenId() };
      x += minutes * unit;
      return [ribbon];
    });
  });
}
