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
    const isLeadIn = index === 0 && length < meter.bar - tolerance;
    const isSecondHalf = index > 0 && filled > tolerance && filled + length <= meter.bar + tolerance;
    if (!isSecondHalf && !isLeadIn) {
      number += 1;
      filled = 0;
    }
    let position = isLeadIn ? meter.bar - length : filled;
    for (const note of notes.slice(bar.first, bar.end)) {
      placed.push({ ...note, bar: number, beat: 1 + position / meter.beat });
      position += note.duration;
    }
    numbered.push({ ...bar, number });
    filled = isLeadIn || position >= meter.bar - tolerance || !bar.endsPart ? 0 : position;
  });
  return { notes: placed, bars: numbered };
}

function lengthOf(notes: readonly UnplacedNote[], bar: UnnumberedBar): number {
  return notes.slice(bar.first, bar.end).reduce((sum, note) => sum + note.duration, 0);
}
