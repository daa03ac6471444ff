import type { Tune } from '../tune';

/** A bar as it is counted aloud, at one place of the tune as it is played: what leads into it, and the bar itself. */
export interface Measure {
  /** As counted aloud. */
  readonly number: number;
  /** Index into the tune's bars. */
  readonly bar: number;
  /** Bars before the bar line that lead into it, as indices: a lead-in, or the second half of a bar that a part cuts. */
  readonly lead: readonly number[];
  /** One number for each different bar: two measures with the same have the same theme notes and lengths. */
  readonly content: number;
}

const tolerance = 1e-6;

/** The measures of a tune in the order in which they sound, repeats played out. */
export function measuresOf(tune: Tune): readonly Measure[] {
  const contents = new ContentNumbers(tune);
  const measures: Measure[] = [];
  let lead: number[] = [];
  for (const index of tune.playedBars) {
    const bar = tune.bars[index];
    const isWithoutNotes = bar.end === bar.first;
    if (isWithoutNotes) continue;
    if (bar.offset > tolerance) {
      lead.push(index);
      continue;
    }
    measures.push({ number: bar.number, bar: index, lead, content: contents.of(index) });
    lead = [];
  }
  return measures;
}

/** Theme notes and lengths of bars, as one number for each different bar. */
class ContentNumbers {
  private readonly known = new Map<string, number>();
  private readonly ofBar = new Map<number, number>();

  constructor(private readonly tune: Tune) {}

  of(index: number): number {
    const found = this.ofBar.get(index);
    if (found !== undefined) return found;
    const text = contentOf(this.tune, index);
    const number = this.known.get(text) ?? this.known.size;
    this.known.set(text, number);
    this.ofBar.set(index, number);
    return number;
  }
}

/**
 * Theme notes of a bar with their lengths as one text; grace notes are not part of it.
 * @param beats only so many whole notes from its start; the whole bar where it is not given
 */
export function contentOf(tune: Tune, index: number, wholeNotes = Number.POSITIVE_INFINITY): string {
  const { first, end } = tune.bars[index];
  const parts: string[] = [];
  let at = 0;
  for (let place = first; place < end && at < wholeNotes - tolerance; place += 1) {
    const { written, duration, isTiedFromPrevious } = tune.notes[place];
    const length = Math.min(duration, wholeNotes - at);
    parts.push(`${nameOf(written)}${isTiedFromPrevious ? '~' : ''}${Math.round(length * 5760)}`);
    at += duration;
  }
  return parts.join(' ');
}

function nameOf(written: Tune['notes'][number]['written']): string {
  if (written.kind === 'note') return written.note;
  return written.kind === 'rest' ? 'z' : `?${written.semitone}`;
}
