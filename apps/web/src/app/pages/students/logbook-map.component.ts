import { Component, computed, input } from '@angular/core';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import { lineTitle } from '@zelpit/core/line';
import type { LogbookItem } from '@zelpit/core/practice';
import { scaleSqrt } from 'd3-scale';

const [cell, left, top] = [34, 62, 30];
/** More notes have no room in their own names. */
const mostNotes = 12;

interface Square {
  readonly x: number;
  readonly y: number;
  readonly side: number;
  readonly isOld: boolean;
  readonly text: string;
}

/** The changes of a student between their notes: the bigger, the less often clean in the last three weeks; older ones are outlines, what was never asked is a dash. */
@Component({
  selector: 'zp-logbook-map',
  template: `
    <svg class="logbook-map" [attr.width]="width()" [attr.viewBox]="'0 0 ' + width() + ' ' + height()" role="img" [attr.aria-label]="text()">
      @for (note of notes(); track note.id; let index = $index) {
        <text [attr.x]="left - 8" [attr.y]="top + index * cell + 22" text-anchor="end">{{ note.name }}</text>
        <text [attr.x]="left + index * cell + 17" [attr.y]="top - 8" text-anchor="middle">{{ note.short }}</text>
      }
      @for (dash of dashes(); track dash) {
        <path class="key-wood" [attr.d]="dash" />
      }
      @for (square of squares(); track square.text) {
        <rect
          [class.is-old]="square.isOld"
          [attr.x]="square.x - square.side / 2"
          [attr.y]="square.y - square.side / 2"
          [attr.width]="square.side"
          [attr.height]="square.side"
          rx="4"
        >
          <title>{{ square.text }}</title>
        </rect>
      }
    </svg>
  `,
})
export class LogbookMapComponent {
  readonly instrument = input.required<Instrument>();
  readonly items = input.required<readonly LogbookItem[]>();
  protected readonly cell = cell;
  protected readonly left = left;
  protected readonly top = top;

  /** Lines of one change each, by its notes. */
  private readonly changes = computed(() => {
    const byTitle = new Map(this.items().flatMap((item) => (item.kind === 'line' ? [[item.title, item] as const] : [])));
    const all = this.instrument().notes.map(({ id }) => id);
    return all.flatMap((home) =>
      all.flatMap((other) => (home === other ? [] : found(byTitle.get(lineTitle(this.instrument(), { home, other })), home, other))),
    );
  });
  protected readonly notes = computed(() => {
    const used = new Set(this.changes().flatMap(({ home, other }) => [home, other]));
    return this.instrument()
      .notes.filter(({ id }) => used.has(id))
      .slice(0, mostNotes)
      .map(({ id, schoolName }) => ({
        id,
        name: schoolName,
        short: schoolName
          .replace(/^low /, 'l')
          .replace(/^high /, 'h')
          .replace(' flat', '♭')
          .replace(' sharp', '♯'),
      }));
  });
  protected readonly width = computed(() => left + Math.max(1, this.notes().length) * cell);
  protected readonly height = computed(() => top + Math.max(1, this.notes().length) * cell);
  protected readonly squares = computed((): readonly Square[] => {
    const size = scaleSqrt([0, 1], [9, 30]);
    return this.changes().flatMap(({ home, other, item }) => {
      const [row, column] = [this.placeOf(home), this.placeOf(other)];
      if (row === -1 || column === -1) return [];
      const { judged, clean } = item.recent;
      const isOld = judged === 0;
      const share = isOld ? item.clean / Math.max(1, item.tries) : clean / judged;
      const text = isOld ? `${item.title}: not in the last three weeks` : `${item.title}: ${clean} of ${judged} clean in the last three weeks`;
      return [{ x: left + column * cell + cell / 2, y: top + row * cell + cell / 2, side: size(1 - share), isOld, text }];
    });
  });
  protected readonly dashes = computed(() => {
    const asked = new Set(this.squares().map(({ x, y }) => `${x} ${y}`));
    const places = this.notes().map((_, index) => index);
    return places.flatMap((row) =>
      places.flatMap((column) => {
        const [x, y] = [left + column * cell + cell / 2, top + row * cell + cell / 2];
        return row === column || asked.has(`${x} ${y}`) ? [] : [`M${x - 5} ${y}h10`];
      }),
    );
  });
  protected readonly text = computed(() =>
    this.squares().length === 0
      ? 'No change was practised as a line yet'
      : this.squares()
          .map(({ text }) => text)
          .join('; '),
  );

  private placeOf(note: NoteId): number {
    return this.notes().findIndex(({ id }) => id === note);
  }
}

const found = (item: LogbookItem | undefined, home: NoteId, other: NoteId) => (item === undefined ? [] : [{ home, other, item }]);
