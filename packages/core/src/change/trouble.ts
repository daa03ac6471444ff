import { noteOf, type Instrument, type NoteId } from '../fingering';
import type { Change } from './change';
import { crossingNoise, outcomesOf, type Outcomes } from './in-between';

/** What can be heard at worst: a lower note pops in, a note between slips in, the tone blurs, or nothing. */
export type Trouble =
  | { readonly kind: 'pop'; readonly note: NoteId }
  | { readonly kind: 'run'; readonly notes: readonly NoteId[] }
  | { readonly kind: 'blur'; readonly note: NoteId }
  | { readonly kind: 'none' };

const rankOfKind: Readonly<Record<Trouble['kind'], number>> = { pop: 0, run: 1, blur: 2, none: 3 };

/**
 * The trouble of a change, worst first: a pop before a run before a blur.
 * @example troubleOf(practiceChanter, changeBetween(practiceChanter, 'b', 'e')) // { kind: 'pop', note: 'low-a' }
 */
export function troubleOf(instrument: Instrument, change: Change, outcomes: Outcomes = outcomesOf(instrument, change)): Trouble {
  const pop = crossingNoise(instrument, change, outcomes);
  if (pop !== undefined) return { kind: 'pop', note: pop };
  if (outcomes.run.length > 0) return { kind: 'run', notes: outcomes.run };
  const [first] = outcomes.wrongOrder;
  const blurred = outcomes.loweringFirst ?? first;
  return blurred === undefined ? { kind: 'none' } : { kind: 'blur', note: blurred.heard.note };
}

/** What is compared when changes are ranked. */
export interface Troubled {
  readonly trouble: Trouble;
  readonly change: Change;
  readonly occurrences: number;
}

/**
 * Order of trouble, for `sort`: pops by the loudness of the note that pops in, then runs, blurs, none; within that more
 * movers first, then more occurrences. The one place to replace by probabilities.
 */
export function compareTrouble(instrument: Instrument, one: Troubled, other: Troubled): number {
  return (
    rankOfKind[one.trouble.kind] - rankOfKind[other.trouble.kind] ||
    popLoudness(instrument, other.trouble) - popLoudness(instrument, one.trouble) ||
    other.change.movers.length - one.change.movers.length ||
    other.occurrences - one.occurrences
  );
}

function popLoudness(instrument: Instrument, trouble: Trouble): number {
  return trouble.kind === 'pop' ? noteOf(instrument, trouble.note).loudnessDecibels : 0;
}

/** Weight of one occurrence when lines are chosen: 0 for nothing, 1 for a blur, 2 for a run, 6 and up for a pop. */
export function troubleWeight(instrument: Instrument, trouble: Trouble): number {
  const weights: Readonly<Record<Trouble['kind'], number>> = { none: 0, blur: 1, run: 2, pop: 6 };
  return weights[trouble.kind] + Math.max(0, popLoudness(instrument, trouble));
}
