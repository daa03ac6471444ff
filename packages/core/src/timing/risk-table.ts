import { changeOfFingerings, outcomesOf, troubleOf, type Change, type Outcomes, type Trouble } from '../change';
import type { Fingering, Instrument, Pattern } from '../fingering';
import { difficultyOf, type Difficulty } from './difficulty';
import { evenNormals } from './even-normals';
import { inBetweenSounds, type InBetweenSound } from './in-between-sounds';
import { hiddenRisk, type HiddenRisk, type Hiding } from './hidden-change';
import { exactRisk, simulatedRisk, type ChangeRisk, type TimingParameters } from './timing-model';

/** A probability is then within about 0.015 of what many draws give; changes of two fingers are exact. A prime, as a lattice wants it. */
const usualDraws = 1009;

/**
 * Risk and difficulty of the changes of one instrument under one player's timing, each computed when it is first asked for: in closed form where there is
 * one, else by simulation with the same draws for every change, so that two changes are compared under the same hands. Map, panel, lines and tune all ask
 * one table: a change has one figure.
 */
export class RiskTable {
  /** By the two notes and what covers the change up; several where the notes have several fingerings. */
  private readonly known = new Map<string, Known[]>();
  /** By the fingering before, then the one after. */
  private readonly heard = new Map<Fingering, Map<Fingering, HeardChange>>();
  /** What stands between, by the change. */
  private readonly sounds = new WeakMap<Change, readonly InBetweenSound[]>();
  /** By how many numbers a draw takes. */
  private readonly normals = new Map<number, () => () => number>();

  constructor(
    readonly instrument: Instrument,
    readonly timing: TimingParameters,
    private readonly draws = usualDraws,
  ) {}

  /** The change from one fingering to another and what is heard of it at worst; tunes come back to the same few. */
  heardOf(before: Fingering, after: Fingering): HeardChange {
    const from = this.heard.get(before) ?? new Map<Fingering, HeardChange>();
    this.heard.set(before, from);
    const known = from.get(after);
    if (known !== undefined) return known;
    const change = changeOfFingerings(this.instrument, before, after);
    const outcomes = outcomesOf(this.instrument, change);
    const heard = { change, outcomes, trouble: troubleOf(this.instrument, change, outcomes) };
    from.set(after, heard);
    return heard;
  }

  /** @param hiding what covers the change up, where something does */
  riskOf(change: Change, hiding?: Hiding): ChangeRisk {
    return this.of(change, hiding).risk;
  }

  /** What a cover hides of a change, beside its risk. */
  hiddenRiskOf(change: Change, hiding: Hiding): HiddenRisk {
    const { instrument, timing, draws } = this;
    return hiddenRisk(instrument, change, hiding, timing, draws, this.normalsFor(numbersOf(change) + coverNumbers), this.soundsOf(change));
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
    const found = { change, risk, difficulty: difficultyOf(this.instrument, change, risk, this.soundsOf(change)) };
    this.known.set(key, [...all, found]);
    return found;
  }

  private computed(change: Change, hiding: Hiding | undefined): ChangeRisk {
    if (hiding !== undefined) return this.hiddenRiskOf(change, hiding).risk;
    const { instrument, timing, draws } = this;
    const sounds = this.soundsOf(change);
    return exactRisk(instrument, change, timing, sounds) ?? simulatedRisk(instrument, change, timing, draws, this.normalsFor(numbersOf(change)), sounds);
  }

  private soundsOf(change: Change): readonly InBetweenSound[] {
    const sounds = this.sounds.get(change) ?? inBetweenSounds(this.instrument, change);
    this.sounds.set(change, sounds);
    return sounds;
  }

  private normalsFor(numbers: number): () => number {
    const pool = this.normals.get(numbers) ?? evenNormals(numbers, this.draws);
    this.normals.set(numbers, pool);
    return pool();
  }
}

/** A change with what can be heard of it. */
export interface HeardChange {
  readonly change: Change;
  readonly outcomes: Outcomes;
  readonly trouble: Trouble;
}

/** A draw takes a number for each mover and one for each hand that moves. */
const numbersOf = ({ movers }: Change): number => movers.length + Math.max(1, new Set(movers.map(({ hand }) => hand)).size);
/** And two for where the cover begins and ends. */
const coverNumbers = 2;

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
