import { hasMusic, type SheetLineInput } from '@zelpit/contract';
import { assertLine, noteOf, type Instrument } from '@zelpit/core';
import { HttpProblem } from '../http/problem';

/**
 * A line must be two different notes of its instrument, its own music or the piece of a tune notes of it too, in fingers of it.
 * @throws ZelpitFault as `assertLine`
 */
export function assertPlayable(instrument: Instrument, lines: readonly Playable[]): void {
  for (const line of lines.filter(hasMusic)) {
    assertLine(instrument, line);
    // A piece of a tune can be one note.
    if (line.home === line.other && line.excerpt == null)
      throw new HttpProblem('not-possible', `A line needs two different notes; here both are ${noteOf(instrument, line.home).schoolName}.`);
  }
}

type Playable =
  | Pick<Extract<SheetLineInput, { kind: 'words' }>, 'kind'>
  | Pick<Exclude<SheetLineInput, { kind: 'words' }>, 'kind' | 'home' | 'other' | 'exercise' | 'excerpt' | 'fingering'>;
