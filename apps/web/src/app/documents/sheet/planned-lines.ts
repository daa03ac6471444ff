import { sheetLimits, type MusicItemInput, type MusicKind, type SheetLineInput } from '@zelpit/contract';
import type { Instrument } from '@zelpit/core/fingering';
import type { Line } from '@zelpit/core/line';
import type { Drill } from '@zelpit/core/line-sets';
import { plannedLine } from '@zelpit/core/plan';

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

/** What a line is called on a sheet: one with movements in it is one of movements. */
export const kindOf = ({ exercise }: Line): MusicKind => (exercise?.notes.some(({ movement }) => movement !== undefined) === true ? 'movement' : 'line');
