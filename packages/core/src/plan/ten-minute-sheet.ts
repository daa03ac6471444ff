import type { Instrument } from '../fingering';
import { beatsOfLine, lineCountInBeats, pairKey, startingTempo, pacesOf, type CountedLine, type Line } from '../line';
import { troubleOfTune, type TuneChange, type TuneChanges } from '../tune';

/** A line as it goes onto a sheet. */
export type PlannedLine = CountedLine;

export interface TenMinutes {
  readonly lines: readonly PlannedLine[];
  /** Occurrences of troubled changes in the tune that the lines practise, and all of them. */
  readonly heldMoments: number;
  readonly troubledMoments: number;
  readonly minutes: number;
}

/** One line is the eight changes that a teacher asks for; music of its own goes by quicker. Our own choice. */
const usualRepetitions = { change: 1, exercise: 4 } as const;
/** Most and fewest times through a line in ten minutes; fewer teach nothing. Our own choice. */
const [mostRepetitions, fewestRepetitions] = [8, 3];
/** Pace reckoned with, and played at, where a line is free; beats a minute. Our own choice. */
export const freeTempo = 60;
/** Rest of both hands after a line, in seconds: the one number of plan, screen and paper. Our own choice, after the caution about rest. */
const restSeconds = 40;
/** "Rest both hands for 40 seconds" */
export const restPhrase = `Rest both hands for ${restSeconds} seconds`;
const tenMinutes = 600;
/** "Most" of the trouble: lines are added until this share of its weight is held. */
const share = 0.8;

/** What the time of a line depends on. */
type Timed = Pick<PlannedLine, 'repetitions' | 'tempo' | 'speeds' | 'exercise' | 'excerpt'>;

/**
 * Time that a line on a sheet takes, one count-in at each speed and the rest after it included, in seconds.
 * @example expectedSeconds({ repetitions: 8, tempo: 60 }) // 172
 */
export function expectedSeconds(line: Timed): number {
  const beats = lineCountInBeats + line.repetitions * beatsOfLine(line);
  return pacesOf(line).reduce((sum: number, tempo) => sum + (beats * 60) / (tempo ?? freeTempo), restSeconds);
}

/** The same for all lines of a sheet together, in whole minutes, at least one. */
export function expectedMinutes(lines: readonly Timed[]): number {
  return Math.max(1, Math.round(secondsOf(lines) / 60));
}

interface WeighedPair {
  readonly first: TuneChange;
  readonly weight: number;
  readonly moments: number;
}

/**
 * The fewest lines that hold most of a tune's trouble, each as often as ten minutes allow. A line practises a change there
 * and back, so the two directions count together; lines never share a change, so taking the heaviest first is the best choice.
 * Where even the fewest times through do not fit, the lightest lines are left out.
 */
export function tenMinuteSheet(instrument: Instrument, changes: readonly TuneChange[]): TenMinutes {
  const pairs = weighedPairs(changes);
  const total = pairs.reduce((sum, pair) => sum + pair.weight, 0);
  const chosen: WeighedPair[] = [];
  let held = 0;
  for (const pair of pairs) {
    if (held >= share * total) break;
    chosen.push(pair);
    held += pair.weight;
  }
  const fitted = fitIntoTime(
    instrument,
    chosen.map(({ first }) => lineOfChange(first)),
  );
  const heldMoments = chosen.slice(0, fitted.length).reduce((sum, pair) => sum + pair.moments, 0);
  const troubledMoments = pairs.reduce((sum, pair) => sum + pair.moments, 0);
  return { lines: fitted, heldMoments, troubledMoments, minutes: secondsOf(fitted) / 60 };
}

/** Both directions of each troubled change together, heaviest first; in other fingers it is another change. */
function weighedPairs(changes: readonly TuneChange[]): readonly WeighedPair[] {
  const pairs = new Map<string, WeighedPair>();
  for (const each of changes) {
    const weight = troubleOfTune([each]);
    if (weight === 0) continue;
    // Tongued here and slurred there, it is still one line.
    const key = pairKey(lineOfChange(each));
    const known = pairs.get(key) ?? { first: each, weight: 0, moments: 0 };
    pairs.set(key, { first: known.first, weight: known.weight + weight, moments: known.moments + each.occurrences });
  }
  return [...pairs.values()].sort((one, other) => other.weight - one.weight);
}

function fitIntoTime(instrument: Instrument, lines: readonly Line[]): readonly PlannedLine[] {
  const planned = lines.map((line) => plannedLine(instrument, line));
  for (let count = planned.length; count > 0; count -= 1) {
    for (let repetitions = mostRepetitions; repetitions >= fewestRepetitions; repetitions -= 1) {
      const attempt = planned.slice(0, count).map((line) => ({ ...line, repetitions }));
      if (secondsOf(attempt) <= tenMinutes) return attempt;
    }
  }
  return [];
}

const secondsOf = (lines: readonly Timed[]): number => lines.reduce((sum, line) => sum + expectedSeconds(line), 0);

/** The changes of a tune that can be heard going wrong and are practised for it: the open ones, and those that the tongue hides for the most part. */
export const changesToPractise = ({ open, tongued }: TuneChanges): readonly TuneChange[] => [...open, ...tongued];

/** The line that practises a change of a tune, in the fingers that the tune has there. */
export const lineOfChange = ({ change, fingering }: TuneChange): Line => ({
  ...{ home: change.from, other: change.to },
  ...(fingering.length > 0 && { fingering }),
});

/** A line with the usual repetitions and a pace to begin with. */
export function plannedLine(instrument: Instrument, line: Line): PlannedLine {
  return {
    ...line,
    repetitions: line.exercise == null && line.excerpt == null ? usualRepetitions.change : usualRepetitions.exercise,
    tempo: startingTempo(instrument, line),
  };
}

/** "These 3 lines hold 14 of the 25 weak moments of the tune." */
export function heldPhrase({ lines, heldMoments, troubledMoments }: TenMinutes): string {
  const subject = lines.length === 1 ? 'This line covers' : `These ${lines.length} lines cover`;
  return `${subject} ${heldMoments} of the ${troubledMoments} places in the tune that can go wrong.`;
}
