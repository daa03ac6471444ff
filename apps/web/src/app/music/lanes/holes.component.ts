import { Component, computed, input, output } from '@angular/core';
import { coverOf, type Instrument, type Pattern } from '@zelpit/core/fingering';
import { isOnLeft, isSeenFromBehind, rowOfHole, type ChartView } from './chart-view';
import { coverPath, labelOf } from './hole-figure';

const step = 58;
const edge = 44;

/**
 * The instrument as a row of holes that can be covered and opened. Looking down it as the player does, and from behind, the left hand's
 * names stand on the left; a teacher facing, and a mirror held up, see the mouthpiece on top; only the facing one sees the hands crossed.
 */
@Component({
  selector: 'zp-holes',
  template: `
    <svg [attr.width]="width" [attr.height]="height()" [attr.viewBox]="'0 0 ' + width + ' ' + height()" role="group" aria-label="Holes">
      <rect x="130" y="6" width="60" [attr.height]="height() - 12" rx="30" fill="var(--second-tint)" stroke="var(--wood)" stroke-width="2" />
      @for (hole of drawn(); track hole.id) {
        <g
          role="button"
          tabindex="0"
          class="hole"
          [attr.aria-label]="hole.text"
          [attr.aria-pressed]="hole.coverage >= 1"
          (click)="pressed.emit(hole.index)"
          (keydown.enter)="pressed.emit(hole.index)"
          (keydown.space)="pressed.emit(hole.index); $event.preventDefault()"
        >
          <rect x="0" [attr.y]="hole.y - 28" [attr.width]="width" height="56" fill="transparent" />
          <circle
            [attr.cx]="hole.x"
            [attr.cy]="hole.y"
            r="19"
            fill="var(--paper)"
            stroke="currentColor"
            stroke-width="3"
            [attr.stroke-dasharray]="hole.isHidden ? '5 5' : null"
          />
          @if (hole.coverage > 0) {
            <path [attr.d]="hole.cover" fill="currentColor" />
          }
          <text [attr.x]="hole.labelX" [attr.y]="hole.y + 7" [attr.text-anchor]="hole.anchor" font-size="20" font-weight="600" fill="currentColor">
            {{ hole.label }}
          </text>
        </g>
      }
    </svg>
  `,
})
export class HolesComponent {
  readonly instrument = input.required<Instrument>();
  readonly pattern = input.required<Pattern>();
  readonly view = input<ChartView>('player');
  readonly pressed = output<number>();

  protected readonly width = 320;
  protected readonly height = computed(() => this.instrument().holes.length * step + edge);

  protected readonly drawn = computed(() => {
    const instrument = this.instrument();
    const [view, count] = [this.view(), instrument.holes.length];
    return instrument.holes.map((hole, index) => {
      const finger = instrument.fingers.find((each) => each.id === hole.finger);
      const y = edge / 2 + step / 2 + rowOfHole(view, index, count) * step;
      const isLeft = isOnLeft(finger?.hand ?? 'left', view);
      const coverage = this.pattern()[index];
      const label = labelOf(instrument, index, 'both');
      return {
        id: hole.id,
        index,
        x: 160,
        y,
        label,
        labelX: isLeft ? 118 : 202,
        anchor: isLeft ? 'end' : 'start',
        coverage,
        isHidden: isSeenFromBehind(instrument, index) !== (view === 'behind'),
        cover: coverPath(160, y, 14, coverage),
        text: `${label}, ${coverText[coverOf(coverage)]}`,
      };
    });
  });
}

const coverText = { covered: 'covered', open: 'open', half: 'half covered' } as const;
