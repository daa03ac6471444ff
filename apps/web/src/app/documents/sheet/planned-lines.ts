import { sheetLimits, type SheetLineInput } from '@zelpit/contract';
import { plannedLine, type Line, type DrillStep, type Instrument } from '@zelpit/core';

/** A line as it goes onto a sheet for the first time. */
export type PlannedSheetLine = Omit<SheetLineInput, 'id'>;

/**
 * Lines with the count and pace to begin with, as many as a sheet can hold.
 * @param speeds at which each line stands one after the other; none for once, at the pace to begin with
 */
export function plannedForSheet(instrument: Instrument, lines: readonly Line[], speeds: readonly DrillStep[] = []): readonly PlannedSheetLine[] {
  const planned = lines.map((line) => ({ ...plannedLine(instrument, line), point: '', exercise: line.exercise ?? null }));
  const all = speeds.length === 0 ? planned : planned.flatMap((line) => speeds.map((speed) => ({ ...line, ...speed })));
  return all.slice(0, sheetLimits.lines);
}
