import { sheetLimits, type SheetLineInput } from '@zelpit/contract';
import { plannedLine, type Drill, type Instrument, type Line } from '@zelpit/core';

/** A line as it goes onto a sheet for the first time. */
export type PlannedSheetLine = Omit<SheetLineInput, 'id'>;

/** Lines with the count and pace to begin with, or with one drill for all of them, as many as a sheet can hold. */
export function plannedForSheet(instrument: Instrument, lines: readonly Line[], drill?: Drill): readonly PlannedSheetLine[] {
  return lines.slice(0, sheetLimits.lines).map((line) => ({ ...plannedLine(instrument, line), point: '', exercise: line.exercise ?? null, ...drill }));
}
