import type { Change } from '../change';
import type { Instrument, Pattern } from '../fingering';
import { difficultyOf, type Difficulty } from './difficulty';
import { hiddenRisk, type Hiding } from './hidden-change';
import { normalPool } from './seeded-random';
import { exactRisk, simulatedRisk, type ChangeRisk, type TimingParameters } from './timing-model';

/** A probability is then within about 0.03, which is enough to rank by; changes of two fingers are exact. */
const usualDraws = 1000;
const seed = 1;
/** So many normal numbers a change draws at most: eight fingers and two hands. */
const numbersADraw = 10;
const mostNumbers = 262_144;

/**
 * Risk and difficulty of the changes of one instrument under one player's timing, each computed when it is first asked for: in closed form where there is
 * one, else by simulation with the same draws for every change, so that two changes are compared under the same hands.
 */
export class RiskTable {
  /** By the two notes and what covers the change up; several where the notes have several fingerings. */
  private readonly known = new Map<string, Known[]>();
  private readonly normals: () => () => number;

  constructor(
    readonly instrument: Instrument,
    readonly timing: TimingParameters,
    private readonly draws = usualDraws,
  ) {
    this.normals = normalPool(seed, Math.min(mostNumbers, draws * numbersADraw));
  }

  /** @param hiding what covers the change up, where something does */
  riskOf(change: Change, hiding?: Hiding): ChangeRisk {
    return this.of(change, hiding).risk;
  }

  difficultyOf(change: Change, hiding?: Hiding): Difficulty {
    return this.of(change, hiding).difficulty;
  }

  private of(change: Change, hiding?: Hiding): Known {
    const key = `${change.from}>${change.to}${keyOf(hiding)}`;
    const all = this.known.get(key) ?? [];
    const known = all.find((each) => isSameChange(each.change, change));
    if (known !== undefined) return known;
    const risk = this.computed(change, hiding);
    const found = { change, risk, difficulty: difficultyOf(this.instrument, change, risk) };
    this.known.set(key, [...all, found]);
    return found;
  }

  private computed(change: Change, hiding: Hiding | undefined): ChangeRisk {
    const { instrument, timing, draws } = this;
    if (hiding !== undefined) return hiddenRisk(instrument, change, hiding, timing, draws, this.normals()).risk;
    return exactRisk(instrument, change, timing) ?? simulatedRisk(instrument, change, timing, draws, this.normals());
  }
}

interface Known {
  readonly change: Change;
  readonly risk: ChangeRisk;
  readonly difficulty: Difficulty;
}

const isSamePattern = (one: Pattern, other: Pattern): boolean => one === other || one.every((coverage, hole) => coverage === other[hole]);
const isSameChange = (one: Change, other: Change): boolean =>
  one.register === other.register && isSamePattern(one.fromPattern, other.fromPattern) && isSamePattern(one.toPattern, other.toPattern);

function keyOf(hiding: Hiding | undefined): string {
  if (hiding === undefined) return '';
  return ` ${hiding.kind === 'tongue' ? 'tongue' : hiding.opens.join('+')} ${hiding.lengthMs}`;
}
