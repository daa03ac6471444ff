import { noteOf, type Instrument, type NoteId } from '../fingering';
import { capital, listed, numberWord } from '../words';
import { shortestNote } from './align-take';
import type { HeardStretch } from './heard-stretch';

/** What was heard between two notes that were asked for. */
export interface BetweenNotes {
  /** Null for a gap. */
  readonly note: NoteId | null;
  readonly ms: number;
  readonly confidence: number;
  /** True where the device lost what sounded here. */
  readonly isLost?: true;
}

/** A change that was asked for, as it was heard. */
export interface HeardChange {
  /** From 1, in the order of playing. */
  readonly number: number;
  readonly from: NoteId;
  readonly to: NoteId;
  /** When the second note begins, in ms from the beginning of the take. */
  readonly at: number;
  readonly between: readonly BetweenNotes[];
  /** Clean; something between that nobody asked for; or not certain enough to say. */
  readonly verdict: 'clean' | 'noise' | 'gap' | 'unsure';
}

export interface JudgedTake {
  readonly changes: readonly HeardChange[];
  /** Notes that were asked for and not heard, up to the last that was. */
  readonly missing: number;
  /** "Seven of eight clean. Change 3: low G sounds for 22 ms before E." */
  readonly text: string;
}

/** Shorter is not heard as a fault; the same bound as everywhere. */
export const shortestFault = 10;
/** Longer silence between two notes is a gap. Our own choice: what a tongue takes is shorter. */
const longestTongue = 60;
/** Less certain than that is not claimed. Our own choice. */
const leastConfidence = 0.25;
/** More in-between than that is another note, not a noise. */
const longestNoise = 200;

/**
 * A take against the notes that were asked for, one after the other: the long stretches are matched with them in their order, as many as are there; what lies between two that follow each other is what was heard in the change.
 * @param wanted the notes in their order; the same note twice is one
 */
export function judgeTake(instrument: Instrument, wanted: readonly NoteId[], stretches: readonly HeardStretch[]): JudgedTake {
  const asked = wanted.filter((note, index) => note !== wanted[index - 1]);
  const matched = matchedNotes(asked, stretches);
  const changes: HeardChange[] = [];
  matched.slice(1).forEach((place, index) => {
    const before = matched[index];
    if (place.wanted !== before.wanted + 1) return;
    const between = stretches
      .slice(before.heard + 1, place.heard)
      .map(betweenOf)
      .filter(({ ms }) => ms >= shortestFault);
    const { start } = stretches[place.heard];
    changes.push({ number: changes.length + 1, from: asked[before.wanted], to: asked[place.wanted], at: start, between, verdict: verdictOf(between) });
  });
  const last = matched.at(-1)?.wanted ?? -1;
  return { changes, missing: last + 1 - matched.length, text: takeText(instrument, changes) };
}

/** A stretch between two notes that were asked for. */
export const betweenOf = ({ note, start, end, confidence, isLost }: HeardStretch): BetweenNotes => ({
  ...{ note, ms: Math.round(end - start), confidence },
  ...(isLost && { isLost }),
});

interface Match {
  readonly wanted: number;
  readonly heard: number;
}

/** The longest way through both in their order: each long stretch stands for the next note that was asked for and is the same. */
function matchedNotes(asked: readonly NoteId[], stretches: readonly HeardStretch[]): readonly Match[] {
  const long = stretches.flatMap(({ note, start, end }, heard) => (note !== null && end - start >= shortestNote ? [{ note, heard }] : []));
  // Longest common subsequence from the end, so that ties are taken as early as they come.
  const lengths = Array.from({ length: asked.length + 1 }, () => new Array<number>(long.length + 1).fill(0));
  for (let row = asked.length - 1; row >= 0; row -= 1)
    for (let column = long.length - 1; column >= 0; column -= 1)
      lengths[row][column] = asked[row] === long[column].note ? lengths[row + 1][column + 1] + 1 : Math.max(lengths[row + 1][column], lengths[row][column + 1]);
  const found: Match[] = [];
  for (let [row, column] = [0, 0]; row < asked.length && column < long.length;) {
    if (asked[row] === long[column].note) {
      found.push({ wanted: row, heard: long[column].heard });
      [row, column] = [row + 1, column + 1];
    }
    // A note that nobody asked for is passed over before one that was asked for is given up.
    else if (lengths[row][column + 1] >= lengths[row + 1][column]) column += 1;
    else row += 1;
  }
  return found;
}

/** Of what stood between two notes: what sounds and is too short to be a note; silence that no tongue takes; what is certain enough to be claimed. */
export const noisesIn = (between: readonly BetweenNotes[]): readonly BetweenNotes[] => between.filter(({ note, ms }) => note !== null && ms <= longestNoise);
export const gapsIn = (between: readonly BetweenNotes[]): readonly BetweenNotes[] =>
  between.filter(({ note, ms, isLost }) => note === null && !isLost && ms > longestTongue);
/** True where something stood there and nobody can say what. */
export const isUnsure = (between: readonly BetweenNotes[]): boolean => between.some(({ note, isLost }) => note !== null || isLost);
export const isLossIn = (between: readonly BetweenNotes[]): boolean => between.some(({ isLost }) => isLost);
export const surely = ({ confidence }: Pick<HeardStretch, 'confidence'>): boolean => confidence >= leastConfidence;

function verdictOf(between: readonly BetweenNotes[]): HeardChange['verdict'] {
  const noises = noisesIn(between);
  if (noises.some(surely)) return 'noise';
  if (gapsIn(between).length > 0) return 'gap';
  return isUnsure(between) ? 'unsure' : 'clean';
}

/** What one change was, as a sentence. */
export function changeText(instrument: Instrument, { from, to, between, verdict }: HeardChange): string {
  const name = (note: NoteId): string => noteOf(instrument, note).schoolName;
  const sounds = between.flatMap(({ note, ms }) => (note === null ? [] : [`${name(note)} sounds for ${ms} ms`]));
  switch (verdict) {
    case 'clean':
      return `${name(from)} to ${name(to)}: clean`;
    case 'noise':
      return `${listed(sounds)} before ${name(to)}`;
    case 'gap':
      return `a gap of ${Math.max(...between.map(({ ms }) => ms))} ms before ${name(to)}`;
    case 'unsure':
      return unsureText(between, name(to));
  }
}

/** What is said where nothing is claimed. */
export const unsureText = (between: readonly BetweenNotes[], before: string): string =>
  isLossIn(between) ? `the device lost the sound before ${before}` : `something before ${before}, not certain what`;

/** What a teacher decided about a change that was not certain. */
export type Decision = 'clean' | 'faulty';

/** True where something was heard that nobody asked for, or a teacher says so; what is not certain counts as clean until then. */
export const isFaulty = ({ number, verdict }: HeardChange, decided: ReadonlyMap<number, Decision> = new Map()): boolean =>
  (verdict === 'noise' || verdict === 'gap' || verdict === 'unsure') && (decided.get(number) ?? (verdict === 'unsure' ? 'clean' : 'faulty')) === 'faulty';

/** The changes with a fault, the longest first, then what is not certain and not decided, in its order. */
export function worstFirst(changes: readonly HeardChange[], decided: ReadonlyMap<number, Decision> = new Map()): readonly HeardChange[] {
  const faulty = changes.filter((change) => isFaulty(change, decided)).sort((one, other) => cutInMs(other) - cutInMs(one));
  return [...faulty, ...changes.filter(({ number, verdict }) => verdict === 'unsure' && !decided.has(number))];
}

/** The take in a sentence or two: how many were clean, then the worst place and what is heard there. */
export function takeText(instrument: Instrument, changes: readonly HeardChange[], decided: ReadonlyMap<number, Decision> = new Map()): string {
  if (changes.length === 0) return 'No change that was asked for is in this take.';
  const clean = changes.filter((change) => !isFaulty(change, decided)).length;
  const first = `${capital(numberWord(clean))} of ${numberWord(changes.length)} clean.`;
  const worst = worstFirst(changes, decided).find((change) => isFaulty(change, decided));
  return worst === undefined ? first : `${first} Change ${worst.number}: ${changeText(instrument, worst)}.`;
}

/** How long what cut in sounds before the second note, in ms. */
export const cutInMs = ({ between }: HeardChange): number => between.reduce((sum, { ms }) => sum + ms, 0);
