import type { SheetLineInput } from '@zelpit/contract';
import { instrumentById, noteOf } from '@zelpit/core';
import { HttpProblem } from '../http/problem';

/** A line must be two different notes of its instrument. @throws ZelpitFault `unknown-note` */
export function assertPlayable(instrumentId: string, lines: readonly Pick<SheetLineInput, 'home' | 'other'>[]): void {
  const instrument = instrumentById(instrumentId);
  for (const { home, other } of lines) {
    const name = noteOf(instrument, home).schoolName;
    noteOf(instrument, other);
    if (home === other) throw new HttpProblem(422, 'Cannot be done', `A line goes between two notes; here both are ${name}.`);
  }
}
