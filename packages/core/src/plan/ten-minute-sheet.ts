import type { Instrument } from '../fingering';
import { lineBeats, lineCountInBeats, startingTempo, troubleOfTuneChange, type ChangeLine } from '../line';
import type { TuneChange } from '../tune';

/** A line as it goes onto a sheet. */
export interface PlannedLine extends ChangeLine {
  /** Times through the line. */
  readonly repetitions: number;
  /** Beats a minute; `null` for free. */
  readonly tempo: number | null;
}

export interface TenMinutes {
  readonly lines: readonly PlannedLine[];
  /** Occurrences of troubled changes in the tune that the lines practise, and all of them. */
  readonly heldMoments: number;
  readonly troubledMoments: number;
  readonly minutes: number;
}

const usualRepetitions = 8;
/** Pace reckoned with where a line is free. */
const freeTempo = 60;
/** Rest of both hands after a line. Our own choice, after the caution about rest. */
const restSeconds = 40;
const tenMinutes = 600;
/** "Most" of the trouble: lines are added until this share is held. */
const share = 0.8;

/** Time that a line on a sheet takes, rests included, in seconds. */
export function expectedSeconds(line: { readonly repetitions: number; readonly tempo: number | null }): number {
  return (line.repetitions * (lineBeats + lineCountInBeats) * 60) / (line.tempo ?? freeTempo) + restSeconds;
}

/**
 * The fewest lines that hold most of a tune's trouble and fit into ten minutes. A line practises a change there and back,
 * so the two directions count together; lines never share a change, so taking the heaviest first is the best choice.
 */
export function tenMinuteSheet(instrument: Instrument, changes: readonly TuneChange[]): TenMinutes {
  const pairs = new Map<string, { first: TuneChange; weight: number; moments: number }>();
  for (const each of changes) {
    const weight = troubleOfTuneChange(instrument, each);
    if (weight === 0) continue;
    const key = [each.change.from, each.change.to].sort().join(' ');
    const known = pairs.get(key);
    if (known === undefined) pairs.set(key, { first: each, weight, moments: each.occurrences });
    else pairs.set(key, { first: known.first, weight: known.weight + weight, moments: known.moments + each.occurrences });
  }
  const heaviest = [...pairs.values()].sort((one, other) => other.weight - one.weight);
  const total = heaviest.reduce((sum, pair) => sum + pair.weight, 0);
  const lines: PlannedLine[] = [];
  let held = 0;
  let heldMoments = 0;
  let seconds = 0;
  for (const pair of heaviest) {
    if (held >= share * total) break;
    const line = plannedLine(instrument, { home: pair.first.change.from, other: pair.first.change.to });
    if (seconds + expectedSeconds(line) > tenMinutes) continue;
    lines.push(line);
    held += pair.weight;
    heldMoments += pair.moments;
    seconds += expectedSeconds(line);
  }
  const troubledMoments = heaviest.reduce((sum, pair) => sum + pair.moments, 0);
  return { lines, heldMoments, troubledMoments, minutes: seconds / 60 };
}

/** A line with the usual repetitions and a pace to begin with. */
export function plannedLine(instrument: Instrument, line: ChangeLine): PlannedLine {
  return { ...line, repetitions: usualRepetitions, tempo: startingTempo(instrument, line) };
}
