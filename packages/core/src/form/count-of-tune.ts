import type { Tune, TuneNote } from '../tune';
import { countAloud, usualCount, type CountWay } from './count-aloud';

/** The words of the count of a tune, by bar, each with the note that begins on it. */
export interface PlacedCount {
  readonly bar: number;
  readonly at: number;
  readonly text: string;
  readonly isBeat: boolean;
  /** Index of the note that begins there; undefined where none does. */
  readonly note: number | undefined;
  /** The note during which it is said, and how far into it, 0 to 1. */
  readonly within: { readonly note: number; readonly share: number } | undefined;
}

/** Every word of the count through a tune as it is written. */
export function countOfTune(tune: Tune, way: CountWay = usualCount): readonly PlacedCount[] {
  return tune.bars.flatMap((bar, index): PlacedCount[] => {
    if (bar.meter.bar === 0 || bar.end === bar.first) return [];
    const starts = startsIn(tune, bar.first, bar.end, bar.meter.beat);
    const words = countAloud(
      bar.meter,
      starts.map(({ at }) => at),
      way,
      bar.offset,
      bar.offset + bar.length,
    );
    return words.map(({ at, text, isBeat }) => {
      const on = starts.find((each) => Math.abs(each.at - at) < 1e-6)?.note.index;
      return { bar: index, at, text, isBeat, note: on, within: on === undefined ? withinOf(tune, bar, at) : undefined };
    });
  });
}

function withinOf({ notes }: Tune, { first, end, meter }: Tune['bars'][number], at: number): PlacedCount['within'] {
  for (let index = end - 1; index >= first; index -= 1) {
    const start = (notes[index].beat - 1) * meter.beat;
    if (start < at - 1e-6) return { note: index, share: Math.min(1, (at - start) / notes[index].duration) };
  }
  return undefined;
}

interface Start {
  readonly at: number;
  readonly note: TuneNote;
}

/** Notes that begin in a stretch, from the bar line, in whole notes; what is tied goes on. */
function startsIn({ notes }: Tune, first: number, end: number, beat: number): readonly Start[] {
  return notes
    .slice(first, end)
    .filter(({ isTiedFromPrevious }) => !isTiedFromPrevious)
    .map((note) => ({ at: (note.beat - 1) * beat, note }));
}
