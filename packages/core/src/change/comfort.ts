import type { Instrument, Pattern } from '../fingering';

/** How the instrument is held up where the fingers hardly hold it; `lower` is the hand at the foot. */
const support: Readonly<Record<Instrument['family'], (lower: string) => string>> = {
  pipes: (lower) => `Rest the foot of the chanter on a table, or hold it with the ${lower} thumb.`,
  'irish-pipes': () => 'Keep the foot of the chanter on the knee.',
  whistle: (lower) => `Hold it up with the ${lower} thumb and the ${lower} little finger.`,
  recorder: (lower) => `Rest it on the ${lower} thumb.`,
  ocarina: () => 'Hold it up with the little fingers and the palms.',
};

/** Holes that stay covered throughout, from one pattern to the last. */
export function heldThroughout(...patterns: readonly Pattern[]): number {
  const [first = []] = patterns;
  return first.filter((_, hole) => patterns.every((pattern) => pattern[hole] >= 1)).length;
}

/** A sentence where one hole or none stays covered throughout a change, or a movement: the instrument is hardly held then. */
export const comfortHint = (instrument: Instrument, ...patterns: readonly Pattern[]): string | undefined =>
  supportHint(instrument, heldThroughout(...patterns));

/** The same by the number of holes that stay covered. */
export function supportHint(instrument: Instrument, held: number): string | undefined {
  if (held > 1) return undefined;
  return `${held === 1 ? 'One finger alone hardly holds the instrument.' : 'No finger is left to hold the instrument.'} ${support[instrument.family](instrument.fingers[instrument.fingers.length - 1].hand)}`;
}
