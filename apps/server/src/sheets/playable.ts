import type { SheetLineInput } from '@zelpit/contract';
import { noteOf, type Instrument } from '@zelpit/core';
import { HttpProblem } from '../http/problem';

/** A line must be two different notes of its instrument, and its own music of notes of it too. @throws ZelpitFault `unknown-note` */
export function assertPlayable(instrument: Instrument, lines: readonly Pick<SheetLineInput, 'home' | 'other' | 'exercise'>[]): void {
  for (const { home, other, exercise } of lines) {
    const name = noteOf(instrument, home).schoolName;
    noteOf(instrument, other);
    if (home === other) throw new HttpProblem('not-possible', `A line goes between two notes; here both are ${name}.`);
    for (const { note, graceNotes = [] } of exercise?.notes ?? []) for (const id of [note, ...graceNotes]) noteOf(instrument, id);
  }
}
