import { sheetLimits, type MusicItemInput, type MusicKind, type SheetLineInput } from '@zelpit/contract';
import { hardestPair, type Excerpt } from '@zelpit/core/excerpt';
import type { Instrument } from '@zelpit/core/fingering';
import type { Line } from '@zelpit/core/line';
import type { Drill } from '@zelpit/core/line-sets';
import { plannedLine } from '@zelpit/core/plan';
import type { Tune } from '@zelpit/core/tune';

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;
/** An item as it goes onto a sheet for the first time. */
export type PlannedItem = WithoutId<SheetLineInput>;
/** One that has notes. */
export type PlannedSheetLine = Omit<MusicItemInput, 'id'>;

/** Lines with the count and pace to begin with, or with one drill for all of them, as many as a sheet can hold. */
export function plannedForSheet(instrument: Instrument, lines: readonly Line[], drill?: Drill, kind?: MusicKind): readonly PlannedSheetLine[] {
  return lines.slice(0, sheetLimits.lines).map((line) => ({
    ...plannedLine(instrument, line),
    kind: kind ?? kindOf(line),
    point: '',
    exercise: line.exercise ?? null,
    ...drill,
  }));
}

/** So often a piece of a tune is to be played clean in a row. */
export const cleanTimes = 4;

/** A piece of a tune as it goes onto a sheet, known by its hardest change. */
export function plannedExcerpt(instrument: Instrument, tune: Tune, excerpt: Excerpt, tempo: number | null): PlannedSheetLine {
  const [home, other] = hardestPair(instrument, tune);
  return { kind: 'chunk', home, other, repetitions: cleanTimes, tempo, point: '', exercise: null, excerpt, fingering: null };
}

/** What a line is called on a sheet: one with movements in it is one of movements. */
export const kindOf = ({ exercise }: Line): MusicKind => (exercise?.notes.some(({ movement }) => movement !== undefined) === true ? 'movement' : 'line');
