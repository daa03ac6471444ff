import { Component, computed, input } from '@angular/core';
import { noteOf, type Instrument } from '@zelpit/core/fingering';
import { laneLayout, type LaneNote } from '@zelpit/core/lanes';
import type { LineMusic } from '@zelpit/core/line';
import { LanesComponent } from '../../music/lanes/lanes.component';

/** A beat is at least this wide, and wider where notes are short. */
const beatWidth = 105;
const graceWidth = 15;
const [narrowestNote, widestBeat] = [58, 240];
const left = 56;
const pillarX = 150;
const pitch = 33;
const letters = 44;

/** The lanes of a line running under a pillar that stands still. */
@Component({
  selector: 'zp-runner-drawing',
  imports: [LanesComponent],
  template: `
    <svg [attr.viewBox]="'0 0 ' + width() + ' ' + height" preserveAspectRatio="xMinYMid meet" role="img" [attr.aria-label]="text()">
      <defs>
        <clipPath id="runner-window"><rect [attr.x]="left" y="0" [attr.width]="width()" [attr.height]="height" /></clipPath>
      </defs>
      <rect [class]="isWaiting() ? 'pillar-empty' : 'pillar'" [attr.x]="pillarX - 39" y="3" width="78" [attr.height]="height - 6" rx="20" />
      <g clip-path="url(#runner-window)">
        <g [attr.transform]="'translate(' + shift() + ' 0)'">
          @for (column of columns(); track column.index) {
            <text class="runner-letter" [class.on-pillar]="column.index === now()" [attr.x]="column.x" y="36">{{ column.text }}</text>
          }
          <g
            zpLanes
            [attr.transform]="'translate(0 ' + lettersHeight + ')'"
            [instrument]="instrument()"
            [notes]="columns()"
            [left]="edges().left"
            [right]="edges().right"
            [pitch]="pitch"
            labels="none"
            [pillars]="isWaiting() ? [] : [[pillarX - 39 - shift(), pillarX + 39 - shift()]]"
          />
        </g>
      </g>
      @for (hand of hands(); track hand.text) {
        <text class="runner-hand" x="8" [attr.y]="hand.middle + 10">{{ hand.text }}</text>
        <path [attr.d]="'M44 ' + hand.top + 'V' + hand.bottom" stroke="currentColor" stroke-width="3" />
      }
    </svg>
  `,
})
export class RunnerDrawingComponent {
  readonly instrument = input.required<Instrument>();
  /** What sounds once through. */
  readonly music = input.required<LineMusic>();
  /** What it is of: "C and E". */
  readonly about = input.required<string>();
  /** Beats since the first note; undefined before the start, negative while counting in. */
  readonly beat = input<number>();
  /** Times through the line. */
  readonly times = input.required<number>();
  /** Width in units of the drawing: its share of the height. */
  readonly width = input(390);

  protected readonly left = left;
  protected readonly pillarX = pillarX;
  protected readonly pitch = pitch;
  protected readonly lettersHeight = letters;
  private readonly layout = computed(() => laneLayout(this.instrument(), pitch));
  protected readonly height = 352;

  protected readonly isWaiting = computed(() => (this.beat() ?? -1) < 0);
  /** While counting in, the first note waits beside the pillar and comes under it on the last beat. */
  private readonly moved = computed(() => Math.max(-1.2, this.beat() ?? 0));
  /** When each note of one time through begins, in beats. */
  private readonly onsets = computed(() => {
    let beat = 0;
    return this.music().sounds.map(({ note, graceNotes, beats }) => {
      const onset = { note, graceNotes, beat };
      beat += beats;
      return onset;
    });
  });
  private readonly spacing = computed(() => {
    const shortest = Math.min(...this.music().sounds.map(({ beats }) => beats));
    return Math.min(widestBeat, Math.max(beatWidth, narrowestNote / shortest));
  });
  /** Place of the note that sounds, repeats counted. */
  protected readonly now = computed(() => {
    const onsets = this.onsets();
    const { beats } = this.music();
    const moved = Math.max(0, this.moved());
    const within = moved % beats;
    const place = onsets.findIndex(({ beat }) => beat > within + 1e-6);
    return Math.floor(moved / beats) * onsets.length + (place === -1 ? onsets.length : place) - 1;
  });
  protected readonly shift = computed(() => -Math.round(this.moved() * this.spacing() * 10) / 10);

  protected readonly columns = computed((): readonly (LaneNote & { readonly index: number; readonly text: string })[] => {
    const onsets = this.onsets();
    const [beats, spacing] = [this.music().beats, this.spacing()];
    const first = Math.max(0, this.now() - 2);
    const reach = this.moved() * spacing + this.width() + 2 * spacing;
    const columns: (LaneNote & { readonly index: number; readonly text: string })[] = [];
    for (let index = first; index < this.times() * onsets.length; index += 1) {
      const { note, graceNotes, beat } = onsets[index % onsets.length];
      const x = pillarX + (Math.floor(index / onsets.length) * beats + beat) * spacing;
      if (x > reach && columns.length > 0) break;
      columns.push({
        index,
        x,
        note,
        graceNotes: graceNotes.map((grace, place) => ({ note: grace, x: x - graceWidth * (graceNotes.length - place) })),
        text: note === null ? '' : noteOf(this.instrument(), note).schoolName,
      });
    }
    const silence = { index: -1, x: pillarX - spacing, note: null, graceNotes: [], text: '' };
    return first === 0 ? [silence, ...columns] : columns;
  });
  protected readonly edges = computed(() => {
    const columns = this.columns();
    const spacing = this.spacing();
    const reach = spacing * (columns[0].note === null ? 3 : 0.8);
    return { left: columns[0].x - reach, right: columns[columns.length - 1].x + spacing * 0.8 };
  });
  protected readonly hands = computed(() => {
    const { lanes, thickness } = this.layout();
    const groups = [
      { text: 'T', own: lanes.filter(({ finger }) => finger.thumb) },
      { text: 'L', own: lanes.filter(({ finger }) => !finger.thumb && finger.hand === 'left') },
      { text: 'R', own: lanes.filter(({ finger }) => !finger.thumb && finger.hand === 'right') },
    ];
    return groups
      .filter(({ own }) => own.length > 0)
      .map(({ text, own }) => {
        const top = letters + own[0].y - thickness - 2;
        const bottom = letters + own[own.length - 1].y + 2;
        return { text, top, bottom, middle: (top + bottom) / 2 };
      });
  });
  protected readonly text = computed(() => `Finger lanes of ${this.about()}`);
}
