import type { SheetLineInput } from '@zelpit/contract';
import { assertLine, noteOf, type Instrument } from '@zelpit/core';
import { HttpProblem } from '../http/problem';

/** A line must be two different notes of its instrument, its own music of notes of it too, in fingers of it. @throws ZelpitFault as `assertLine` */
export function assertPlayable(instrument: Instrument, lines: readonly Pick<SheetLineInput, 'home' | 'other' | 'exercise' | 'fingering'>[]): void {
  for (const line of lines) {
    assertLine(instrument, line);
    if (line.home === line.other)
      throw new HttpProblem('not-possible', `A line needs two different notes; here both are ${noteOf(instrument, line.home).schoolName}.`);
  }
}
