import type { Instrument, NoteId } from '../fingering';
import type { Change } from './change';
import { crossingNoise, outcomesOf, type Outcomes } from './in-between';

/** What can be heard at worst: a lower note pops in, a note between slips in, the sound stops for a moment, the tone blurs, or nothing. */
export type Trouble =
  | { readonly kind: 'pop'; readonly note: NoteId }
  | { readonly kind: 'run'; readonly notes: readonly NoteId[] }
  | { readonly kind: 'stop' }
  | { readonly kind: 'blur'; readonly note: NoteId }
  | { readonly kind: 'none' };

/**
 * The trouble of a change, worst first: a pop before a run before a stop before a blur.
 * @example troubleOf(practiceChanter, changeBetween(practiceChanter, 'b', 'e')) // { kind: 'pop', note: 'low-a' }
 */
export function troubleOf(instrument: Instrument, change: Change, outcomes: Outcomes = outcomesOf(instrument, change)): Trouble {
  const pop = crossingNoise(instrument, change, outcomes);
  if (pop !== undefined) return { kind: 'pop', note: pop };
  if (outcomes.run.length > 0) return { kind: 'run', notes: outcomes.run };
  if (outcomes.loweringFirst?.heard.kind === 'silent' || outcomes.wrongOrder.some(({ heard }) => heard.kind === 'silent')) return { kind: 'stop' };
  const [first] = outcomes.wrongOrder;
  const blurred = outcomes.loweringFirst ?? first;
  return blurred === undefined ? { kind: 'none' } : { kind: 'blur', note: blurred.heard.note };
}

/** One text for all that is heard alike: the note that pops in, a run, a stop, a blur, nothing. */
export const headingOf = (trouble: Trouble): string => (trouble.kind === 'pop' ? `pop ${trouble.note}` : trouble.kind);
