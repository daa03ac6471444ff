import type { Instrument } from '../fingering';
import { musicOfLine, type Line, type LineMusic } from '../line';
import type { AskedNote } from './asked';

/** A line, or a piece of a tune on a sheet, as what is asked for: once through, its bars counted from 1, what leads in as bar 0. */
export const askedOfLine = (instrument: Instrument, line: Line): readonly AskedNote[] => askedOfMusic(musicOfLine(instrument, line));

/** The same of music as it is played: of half a line, or of one step of a piece. */
export function askedOfMusic({ sounds, beatsInBar, firstBeat }: LineMusic): readonly AskedNote[] {
  const first = firstBeat > 1e-6 ? 0 : 1;
  let at = firstBeat;
  return sounds.map(({ note, graceNotes, beats, isTied }): AskedNote => {
    const bar = Math.floor(at / beatsInBar + 1e-6) + first;
    at += beats;
    return { note, graceNotes, beats, isTied, bar };
  });
}
