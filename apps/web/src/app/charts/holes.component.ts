import { Component, computed, input, output } from '@angular/core';
import { coverOf, type Instrument, type Pattern } from '@zelpit/core';

/** From where the instrument is looked at. */
export type ChartView = 'player' | 'facing' | 'mirror' | 'behind';

export const views: readonly { readonly value: ChartView; readonly said: string }[] = [
  { value: 'player', said: 'by the player' },
  { value: 'facing', said: 'by a teacher facing' },
  { value: 'mirror', said: 'in a mirror' },
  { value: 'behind', said: 'from behind' },
];

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
          [attr.aria-label]="hole.said"
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
  readonly isMirrored = input(false);
  readonly pressed = output<number>();

  protected readonly width = 320;
  protected readonly height = computed(() => this.instrument().holes.length * step + edge);

  protected readonly drawn = computed(() => {
    const instrument = this.instrument();
    const [view, count] = [this.view(), instrument.holes.length];
    return instrument.holes.map((hole, index) => {
      const finger = instrument.fingers.find((each) => each.id === hole.finger);
      const isFromFoot = view === 'player';
      const y = edge / 2 + step / 2 + (isFromFoot ? count - 1 - index : index) * step;
      const isBehind = finger?.thumb === true;
      const isLeftHand = (finger?.hand === 'left') !== this.isMirrored();
      // Who faces the player, or looks from in front, sees the left hand on the right.
      const isOnLeft = isLeftHand !== (view === 'facing');
      const coverage = this.pattern()[index];
      const label = `${finger?.label ?? ''} ${hole.id === hole.finger ? '' : hole.id}`.trim();
      return {
        id: hole.id,
        index,
        x: 160,
        y,
        label,
        labelX: isOnLeft ? 118 : 202,
        anchor: isOnLeft ? 'end' : 'start',
        coverage,
        isHidden: isBehind !== (view === 'behind'),
        cover: coverPath(160, y, coverage),
        said: `${label}, ${coverSaid[coverOf(coverage)]}`,
      };
    });
  });
}

const coverSaid = { covered: 'covered', open: 'open', half: 'half covered' } as const;

/** A disc, filled from below to its share. */
function coverPath(x: number, y: number, coverage: number): string {
  const radius = 14;
  if (coverage >= 1) return `M${x - radius} ${y}a${radius} ${radius} 0 1 0 ${2 * radius} 0a${radius} ${radius} 0 1 0 ${-2 * radius} 0Z`;
  const level = y + radius - 2 * radius * Math.min(0.9, Math.max(0.1, coverage));
  const half = Math.sqrt(Math.max(0, radius ** 2 - (level - y) ** 2));
  return `M${x - half} ${level}A${radius} ${radius} 0 ${coverage > 0.5 ? 1 : 0} 0 ${x + half} ${level}Z`;
}
