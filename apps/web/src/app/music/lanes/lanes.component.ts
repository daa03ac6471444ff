import { Component, computed, input } from '@angular/core';
import type { Finger, Instrument } from '@zelpit/core/fingering';
import { coverSpans, laneLayout, ribbons, type LaneNote } from '@zelpit/core/lanes';

/** A finger's own name, the holes that it covers, or both. */
export type LaneNames = 'fingers' | 'holes' | 'both';

/** The finger lanes: one per finger from the face down, at any size. Lives inside an SVG. */
@Component({
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: 'g[zpLanes]',
  template: `
    @for (lane of drawn(); track lane.id) {
      @if (labels() !== 'none') {
        <svg:text
          [attr.x]="left() - 12"
          [attr.y]="lane.y - layout().thickness * 0.18"
          class="lane-label"
          text-anchor="end"
          [attr.font-size]="labelSize()"
          font-family="Gabarito Variable"
          [attr.font-weight]="isPaper() ? 700 : 600"
        >
          {{ lane.label }}
        </svg:text>
      }
      <svg:line
        [attr.x1]="left()"
        [attr.x2]="right()"
        [attr.y1]="lane.y"
        [attr.y2]="lane.y"
        [attr.stroke]="isPaper() ? '#000' : 'var(--wood)'"
        [attr.stroke-width]="isPaper() ? 1 : 1.6"
      />
      @for (span of pillars(); track span[0]) {
        <svg:line [attr.x1]="span[0]" [attr.x2]="span[1]" [attr.y1]="lane.y" [attr.y2]="lane.y" stroke="var(--wood-on-pillar)" stroke-width="1.6" />
      }
      @for (ribbon of lane.ribbons; track $index) {
        <svg:path
          [attr.d]="ribbon.path"
          fill="none"
          stroke="currentColor"
          stroke-linecap="round"
          stroke-linejoin="round"
          [attr.stroke-width]="layout().thickness"
        />
        @if (ribbon.coverage < 1) {
          <svg:path
            [attr.d]="ribbon.path"
            fill="none"
            stroke="var(--paper, #fff)"
            stroke-linecap="round"
            stroke-linejoin="round"
            [attr.stroke-width]="layout().thickness - 4"
          />
          <svg:path
            [attr.d]="ribbon.path"
            fill="none"
            stroke="currentColor"
            stroke-linecap="butt"
            [attr.stroke-width]="layout().thickness * ribbon.coverage"
            [attr.transform]="'translate(0 ' + (layout().thickness * (1 - ribbon.coverage)) / 2 + ')'"
          />
        }
      }
    }
  `,
})
export class LanesComponent {
  readonly instrument = input.required<Instrument>();
  readonly notes = input.required<readonly LaneNote[]>();
  readonly left = input.required<number>();
  readonly right = input.required<number>();
  readonly pitch = input.required<number>();
  /** Whose names stand before the lanes: every finger's, only those that move, or nobody's. */
  readonly labels = input<'all' | 'movers' | 'none'>('all');
  readonly labelSize = input(17);
  /** By which names the lanes are called. */
  readonly names = input<LaneNames>('fingers');
  readonly isPaper = input(false);
  /** Where a pillar stands behind the lanes, from and to: the wood is darker there. */
  readonly pillars = input<readonly (readonly [number, number])[]>([]);

  readonly layout = computed(() => laneLayout(this.instrument(), this.pitch()));

  protected readonly drawn = computed(() => {
    const { lanes, thickness } = this.layout();
    const left = this.left();
    const right = this.right();
    const spans = coverSpans(this.instrument(), this.notes(), left, right);
    return lanes.map(({ finger, y }) => {
      const own = spans.get(finger.id) ?? [];
      const stays = own.length === 0 || (own.length === 1 && own[0].from <= left && own[0].to >= right);
      return {
        id: finger.id,
        y,
        label: this.labels() === 'movers' && stays ? '' : this.nameOf(finger),
        ribbons: ribbons(own, { y, thickness, left, right }),
      };
    });
  });

  private nameOf({ id, label }: Finger): string {
    const holes = this.instrument()
      .holes.filter((hole) => hole.finger === id)
      .map((hole) => hole.id)
      .join(' ');
    if (this.names() === 'fingers') return label;
    return this.names() === 'holes' || holes === id ? holes : `${label} ${holes}`;
  }
}
