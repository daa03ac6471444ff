import { Component, computed, input } from '@angular/core';
import { glideBetween } from '@zelpit/core/acoustics';
import type { Change } from '@zelpit/core/change';
import { noteOf, type Instrument } from '@zelpit/core/fingering';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';

const [width, height, left, bottom, top] = [420, 190, 74, 34, 16];

/** The way of the pitch while a finger pinches, opens half a hole or slides. */
@Component({
  selector: 'zp-glide',
  template: `
    @if (drawn(); as it) {
      <figure class="glide">
        <svg [attr.viewBox]="'0 0 ' + width + ' ' + height" role="img" [attr.aria-label]="it.text">
          @for (tick of it.ticks; track tick.cents) {
            <line [attr.x1]="left" [attr.x2]="width" [attr.y1]="tick.y" [attr.y2]="tick.y" class="ms-line" />
            <text [attr.x]="left - 8" [attr.y]="tick.y + 6" text-anchor="end" class="ms-label">{{ tick.text }}</text>
          }
          <path [attr.d]="it.path" fill="none" stroke="currentColor" stroke-width="9" stroke-linecap="round" stroke-linejoin="round" />
          <text [attr.x]="left" [attr.y]="height - 8" class="ms-label">{{ it.from }}</text>
          <text [attr.x]="width" [attr.y]="height - 8" text-anchor="end" class="ms-label">{{ it.to }}</text>
        </svg>
        <figcaption class="second">{{ it.text }}</figcaption>
      </figure>
    }
  `,
})
export class GlideComponent {
  readonly instrument = input.required<Instrument>();
  readonly change = input.required<Change>();
  protected readonly width = width;
  protected readonly height = height;
  protected readonly left = left;

  protected readonly drawn = computed(() => {
    const [instrument, change] = [this.instrument(), this.change()];
    const glide = glideBetween(instrument, change.from, change.fromPattern, change.toPattern, change.register ?? 1);
    if (glide === undefined || glide.points.length < 2) return undefined;
    const cents = glide.points.map((point) => point.cents);
    const y = scaleLinear([Math.min(0, ...cents), Math.max(0, ...cents)], [height - bottom, top]).nice(4);
    const x = scaleLinear([0, 1], [left + 6, width - 6]);
    const path = line<(typeof glide.points)[number]>(
      (point) => x(point.share),
      (point) => y(point.cents),
    )([...glide.points]);
    const half = glide.points[Math.floor(glide.points.length / 2)].cents;
    const all = glide.points[glide.points.length - 1].cents;
    const name = (id: string): string => noteOf(instrument, id).schoolName;
    const text = glide.isBroken
      ? 'Not a smooth glide: on the way the sound jumps to another register.'
      : `A glide, not a step: with the finger half-way the pitch has moved ${Math.round(half)} of ${Math.round(all)} cents.`;
    return {
      path: path ?? '',
      text: text.replace(/-/g, '−'),
      ticks: y.ticks(4).map((value) => ({ cents: value, y: y(value), text: `${value} cents`.replace('-', '−') })),
      from: name(change.from),
      to: name(change.to),
    };
  });
}
