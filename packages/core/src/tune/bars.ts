import type { Bar, Meter, TuneNote } from './tune';

export type UnplacedNote = Omit<TuneNote, 'bar' | 'beat'>;
export type UnnumberedBar = Omit<Bar, 'number'>;

const tolerance = 1e-6;

/**
 * Numbers bars as they are counted aloud: a short first bar is the lead-in, 0; a bar cut in two by a repeat sign or a
 * double bar counts once, its second half going on in the beats where the first stopped.
 */
export function numberBars(
  notes: readonly UnplacedNote[],
  bars: readonly UnnumberedBar[],
  meter: Meter,
): { readonly notes: readonly TuneNote[]; readonly bars: readonly Bar[] } {
  const placed: TuneNote[] = [];
  const numbered: Bar[] = [];
  let number = 0;
  let filled = 0;
  bars.forEach((bar, index) => {
    const length = lengthOf(notes, bar);
    const isLeadIn = index === 0 && bars.length > 1 && length < meter.bar - tolerance;
    const isSecondHalf = index > 0 && filled > tolerance && filled + length <= meter.bar + tolerance;
    if (!isSecondHalf && !isLeadIn) {
      number += 1;
      filled = 0;
    }
    let position = isLeadIn ? meter.bar - length : filled;
    for (let at = bar.first; at < bar.end; at += 1) {
      placed.push(placedAt(notes[at], number, 1 + position / meter.beat));
      position += notes[at].duration;
    }
    numbered.push({ ...bar, number });
    filled = isLeadIn || position >= meter.bar - tolerance || !bar.endsPart ? 0 : position;
  });
  return { notes: placed, bars: numbered };
}

/** Field by field: spreading hundreds of notes took most of the time of reading a tune. */
function placedAt(note: UnplacedNote, bar: number, beat: number): TuneNote {
  const { index, written, graceNotes, strayGraceNotes, duration, isTiedFromPrevious, sign, isSlurred, source } = note;
  return { index, written, graceNotes, strayGraceNotes, duration, bar, beat, isTiedFromPrevious, sign, isSlurred, source };
}

function lengthOf(notes: readonly UnplacedNote[], bar: UnnumberedBar): number {
  let length = 0;
  for (let at = bar.first; at < bar.end; at += 1) length += notes[at].duration;
  return length;
}
