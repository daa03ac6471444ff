import { heardFrom, liesBelow, liesBetween, type Heard } from '../acoustics';
import { withFingers, type FingerId, type Instrument, type NoteId, type Pattern } from '../fingering';
import type { Change, Mover } from './change';

/** A pattern on the way, with what it sounds. */
export interface InBetween {
  readonly pattern: Pattern;
  readonly heard: Heard;
}

/** Who goes first and last, as taught. */
export interface Lead {
  /** Lifting fingers: going up the one nearest the face leads, going down the one furthest from it. */
  readonly lifts: readonly FingerId[];
  /** Lowering fingers: the furthest lands first, the nearest last. */
  readonly lowers: readonly FingerId[];
}

/** What fingers out of step let through; a part is absent where it cannot happen. */
export interface Outcomes {
  /** All lowering fingers down, no lifting finger up yet: the crossing noise. */
  readonly loweringFirst?: InBetween;
  /** All lifting fingers up, nothing down yet: the gap. */
  readonly liftingFirst?: InBetween;
  /** Lifts, then landings, each in the reverse of the taught order. */
  readonly wrongOrder: readonly InBetween[];
  /** Charted notes strictly between the ends that slip in when the order is wrong. */
  readonly run: readonly NoteId[];
}

export function leadOf(change: Change): Lead {
  const fingers = (direction: Mover['direction']): FingerId[] => change.movers.filter((mover) => mover.direction === direction).map((mover) => mover.finger);
  const lifts = fingers('lift');
  return { lifts: change.isRising ? lifts : lifts.reverse(), lowers: fingers('lower').reverse() };
}

/** What is heard when the fingers of a change do not move together. */
export function outcomesOf(instrument: Instrument, change: Change): Outcomes {
  const { lifts, lowers } = leadOf(change);
  const at = (pattern: Pattern): InBetween => ({ pattern, heard: heardFrom(instrument, pattern, { register: change.register, foot: change.foot }) });
  const isCross = change.kind === 'cross';
  const wrongOrder = patternsAlong(instrument, change, [...[...lifts].reverse(), ...[...lowers].reverse()]).map(at);
  const sounding = wrongOrder.filter(({ heard }) => heard.kind !== 'silent');
  const run = sounding.map((step) => step.heard.note).filter((note) => liesBetween(instrument, note, change.from, change.to));
  return {
    ...(isCross && {
      loweringFirst: at(withFingers(instrument, change.fromPattern, lowers, 1)),
      liftingFirst: at(withFingers(instrument, change.fromPattern, lifts, 0)),
    }),
    wrongOrder,
    run: [...new Set(run)],
  };
}

/** The in-between patterns when the movers go one after another in the order given; both ends left out. */
export function patternsAlong(instrument: Instrument, change: Change, order: readonly FingerId[]): readonly Pattern[] {
  const patterns: Pattern[] = [];
  let current = change.fromPattern;
  for (const finger of order.slice(0, -1)) {
    current = current.map((coverage, hole) => (instrument.holes[hole].finger === finger ? change.toPattern[hole] : coverage));
    patterns.push(current);
  }
  return patterns;
}

/** The crossing noise of a change, where it is a lower note than both ends; `undefined` where there is none. */
export function crossingNoise(instrument: Instrument, change: Change, outcomes: Outcomes): NoteId | undefined {
  const heard = outcomes.loweringFirst?.heard;
  if (heard === undefined || heard.kind === 'silent') return undefined;
  return liesBelow(instrument, heard.note, change.from, change.to) ? heard.note : undefined;
}
