import { outcomesOf, troubleOf, type Change } from '../change';
import { patternKey, type Instrument, type Pattern } from '../fingering';

/** The three ways of going wrong that can be heard on purpose. */
export type FaultKind = 'land-early' | 'lift-early' | 'wrong-order';

/** The in-between patterns that a fault sounds, in their order; empty where the change cannot go wrong that way. */
export function faultPatterns(instrument: Instrument, change: Change, fault: FaultKind): readonly Pattern[] {
  const outcomes = outcomesOf(instrument, change);
  switch (fault) {
    case 'land-early':
      return outcomes.loweringFirst === undefined ? [] : [outcomes.loweringFirst.pattern];
    case 'lift-early':
      return outcomes.liftingFirst === undefined ? [] : [outcomes.liftingFirst.pattern];
    case 'wrong-order':
      return unique(outcomes.wrongOrder.map((step) => step.pattern));
  }
}

function unique(patterns: readonly Pattern[]): readonly Pattern[] {
  return [...new Map(patterns.map((each) => [patternKey(each), each])).values()];
}

/** The fault that shows the trouble of a change best; `undefined` where nothing can go wrong. */
export function worstFault(instrument: Instrument, change: Change): FaultKind | undefined {
  const trouble = troubleOf(instrument, change).kind;
  if (trouble === 'none') return undefined;
  return trouble === 'pop' || (trouble === 'blur' && change.kind === 'cross') ? 'land-early' : 'wrong-order';
}
