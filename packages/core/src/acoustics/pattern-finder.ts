import { ZelpitFault } from '../fault';
import { coverOf, holesThatDiffer, isSameFingers, patternKey, type Fingering, type Instrument, type Pattern } from '../fingering';
import { centsBetween, hertz, type Hertz } from '../pitch';
import { allSoundings, soundingsByPattern } from './all-soundings';
import { HalfCoverSolver } from './half-cover';
import { sizeRatio } from './pattern-sound';

/** A pattern that gives a wanted pitch. */
export interface FoundPattern {
  readonly pattern: Pattern;
  /** On a flue 1, or 2 and 3 where it is blown harder; 1 elsewhere. */
  readonly register: number;
  /** From the wanted pitch; positive is sharp. */
  readonly cents: number;
  readonly isSteady: boolean;
  /** Holes that differ from the patterns beside it, all together. */
  readonly moved: number;
  /** To how many of the patterns beside it fingers lift and others land. */
  readonly crosses: number;
  /** The hole whose half cover was solved for; its share stands in the pattern. */
  readonly halfHole?: number;
  /** The fingering of the chart that it is. */
  readonly charted?: Fingering;
}

export type FinderOrder = 'tuning' | 'ease' | 'school';

export interface FinderSettings {
  /** What comes first; in tune by default. */
  readonly order?: FinderOrder;
  /** Which holes are tried half covered: none (the default), those that usually are, or all. */
  readonly halves?: 'none' | 'usual' | 'all';
}

/** Nearer than this, two patterns are as good in tune, in cents. */
const asGood = 5;
const widest = 200;
/** A half cover is as much trouble as this many holes moved. */
const halfCost = 2;
const crossCost = 2;

/**
 * Patterns whose pitch lies within so many cents of a wanted one, in Hz at the instrument's tuning. The best in tune come first and, of those that
 * are as good, the easiest from and to the patterns beside it; or the easiest first; or those of the chart first.
 * @throws ZelpitFault `out-of-range` for a pitch outside 1 to 20 000 Hz, or more than 200 cents
 */
export function patternsNear(
  instrument: Instrument,
  wanted: number,
  within: number,
  beside: readonly Pattern[],
  { order = 'tuning', halves = 'none' }: FinderSettings = {},
): readonly FoundPattern[] {
  const pitchWanted = hertz(wanted);
  if (!(within >= 0 && within <= widest)) throw new ZelpitFault('out-of-range', `Search within 0 to ${widest} cents, not ${within}.`, { within });
  const plain = plainPatterns(instrument, pitchWanted, within, halves !== 'none');
  const solved = halves === 'none' ? [] : solvedPatterns(instrument, pitchWanted, halves === 'all');
  const found = [...plain, ...solved].map((each): FoundPattern => ({ ...each, ...ease(each.pattern, beside), ...chartedAs(instrument, each) }));
  return found.sort(comparing(order));
}

type Bare = Omit<FoundPattern, 'moved' | 'crosses' | 'charted'>;

function plainPatterns(instrument: Instrument, wanted: Hertz, within: number, withHalves: boolean): Bare[] {
  const ratio = sizeRatio(instrument);
  return allSoundings(instrument).flatMap(({ pattern, registers, isSteady }) => {
    if (!withHalves && hasHalf(pattern)) return [];
    return registers.flatMap((pitch, index) => {
      const cents = centsBetween(wanted, hertz(pitch * ratio));
      return Math.abs(cents) <= within ? [{ pattern, register: index + 1, cents, isSteady: isSteady || registers.length > 1 }] : [];
    });
  });
}

/** Half covers that give the pitch exactly: between a hole covered and open lies the pitch that is wanted. */
function solvedPatterns(instrument: Instrument, wanted: Hertz, all: boolean): Bare[] {
  const ratio = sizeRatio(instrument);
  const solver = new HalfCoverSolver(instrument);
  const byPattern = soundingsByPattern(instrument);
  const plain = allSoundings(instrument).filter(({ pattern }) => !hasHalf(pattern));
  const found: Bare[] = [];
  instrument.holes.forEach((hole, index) => {
    if (hole.half === undefined && !all) return;
    for (const { pattern, registers, isSteady } of plain) {
      if (pattern[index] !== 1) continue;
      const open = byPattern.get(patternKey(pattern.map((coverage, at) => (at === index ? 0 : coverage))));
      registers.forEach((pitch, register) => {
        const opened = open?.registers[register];
        if (opened === undefined || (pitch * ratio - wanted) * (opened * ratio - wanted) >= 0) return;
        const cover = solver.cover(pattern, index, wanted, register + 1);
        if (cover === undefined) return;
        const solved = pattern.map((coverage, at) => (at === index ? Math.round(cover * 100) / 100 : coverage));
        found.push({ pattern: solved, register: register + 1, cents: 0, isSteady, halfHole: index });
      });
    }
  });
  return found;
}

const hasHalf = (pattern: Pattern): boolean => pattern.some((coverage) => coverOf(coverage) === 'half');

function ease(pattern: Pattern, beside: readonly Pattern[]): { readonly moved: number; readonly crosses: number } {
  const isCross = (other: Pattern): boolean =>
    pattern.some((coverage, hole) => coverage > other[hole]) && pattern.some((coverage, hole) => coverage < other[hole]);
  return { moved: beside.reduce((sum, other) => sum + holesThatDiffer(pattern, other), 0), crosses: beside.filter(isCross).length };
}

function chartedAs(instrument: Instrument, { pattern, register }: Bare): { readonly charted?: Fingering } {
  const charted = instrument.fingerings.find((each) => each.register === register && isSameFingers(each.pattern, pattern));
  return charted === undefined ? {} : { charted };
}

function comparing(order: FinderOrder): (one: FoundPattern, other: FoundPattern) => number {
  const grade = ({ cents }: FoundPattern): number => Math.floor(Math.abs(cents) / asGood);
  const trouble = ({ moved, crosses, pattern }: FoundPattern): number => moved + crosses * crossCost + (hasHalf(pattern) ? halfCost : 0);
  const school = ({ charted }: FoundPattern): number => charted?.rank ?? 99;
  const byTuning = (one: FoundPattern, other: FoundPattern): number => grade(one) - grade(other);
  const byEase = (one: FoundPattern, other: FoundPattern): number => trouble(one) - trouble(other);
  const byName = (one: FoundPattern, other: FoundPattern): number => patternKey(one.pattern).localeCompare(patternKey(other.pattern));
  const firsts = {
    tuning: [byTuning, byEase],
    ease: [byEase, byTuning],
    school: [(one: FoundPattern, other: FoundPattern) => school(one) - school(other), byTuning, byEase],
  };
  return (one, other) => {
    for (const compare of firsts[order]) {
      const found = compare(one, other);
      if (found !== 0) return found;
    }
    return byName(one, other);
  };
}
