import { ZelpitFault } from '../fault';
import type { Change, Mover } from '../change';
import type { FingerId, Instrument } from '../fingering';
import { inBetweenSounds, soundClasses, type InBetweenSound, type SoundClass } from './in-between-sounds';

/** How a player's fingers keep together. Times in ms. */
export interface TimingParameters {
  /** Standard deviation of a finger's moment. */
  readonly sigma: number;
  /** Own deviations of single fingers, where they were set or fitted. */
  readonly sigmaOf?: Readonly<Partial<Record<FingerId, number>>>;
  /** How much a finger comes late by itself; negative is early. */
  readonly biasOf?: Readonly<Partial<Record<FingerId, number>>>;
  /** Correlation within a hand, 0 to 1; the thumb belongs to its hand. */
  readonly rho: number;
  /** How much earlier lifts are meant than landings. */
  readonly lead: number;
}

/** A beginner's deviation is about 25 ms, a fluent player's about 8. */
export const levels = {
  beginner: { sigma: 25, rho: 0.5, lead: 0 },
  learner: { sigma: 15, rho: 0.5, lead: 0 },
  fluent: { sigma: 8, rho: 0.5, lead: 0 },
} as const satisfies Readonly<Record<string, TimingParameters>>;
export type Level = keyof typeof levels;

/** Shorter than this, a sound between two notes is not heard as one, in ms. */
export const audibleMs = 10;

/** What one class of sounds does in a change. */
export interface ClassRisk {
  /** That it sounds for longer than 10 ms in all. */
  readonly probability: number;
  /** Mean length in all, in ms. */
  readonly meanMs: number;
}

export type ChangeRisk = Readonly<Record<SoundClass, ClassRisk>>;

/** @throws ZelpitFault `out-of-range` for a deviation outside 0 to 200 ms, a correlation outside 0 to 1, a lead beyond 200 ms either way */
export function assertTiming({ sigma, sigmaOf = {}, rho, lead }: TimingParameters): void {
  const isIn = (value: number, low: number, high: number): boolean => value >= low && value <= high;
  const deviations = [sigma, ...Object.values(sigmaOf).filter((value) => value !== undefined)];
  if (!deviations.every((value) => isIn(value, 0, 200)) || !isIn(rho, 0, 1) || !isIn(lead, -200, 200))
    throw new ZelpitFault('out-of-range', 'A timing has deviations of 0 to 200 ms, a correlation of 0 to 1 and a lead of at most 200 ms.', {
      sigma,
      rho,
      lead,
    });
}

/** Means and deviations of each mover's moment, lifts `lead` ms before landings. */
function momentsOf(
  movers: readonly Mover[],
  { sigma, sigmaOf = {}, biasOf = {}, lead }: TimingParameters,
): readonly { readonly mean: number; readonly sigma: number }[] {
  return movers.map(({ finger, direction }) => ({ mean: (direction === 'lift' ? -lead : 0) + (biasOf[finger] ?? 0), sigma: sigmaOf[finger] ?? sigma }));
}

/** Draws the moments of movers: normal noise, part of it shared within a hand. */
export class HandNoise {
  private readonly means: Float64Array;
  private readonly common: Float64Array;
  private readonly own: Float64Array;
  private readonly isRight: Uint8Array;
  private readonly hasBoth: boolean;
  private readonly drawn: Float64Array;
  private first = 0;
  private second = 0;

  /** @throws ZelpitFault `out-of-range` as `assertTiming` does */
  constructor(movers: readonly Mover[], parameters: TimingParameters) {
    assertTiming(parameters);
    const moments = momentsOf(movers, parameters);
    this.means = Float64Array.from(moments, ({ mean }) => mean);
    this.common = Float64Array.from(moments, ({ sigma }) => sigma * Math.sqrt(parameters.rho));
    this.own = Float64Array.from(moments, ({ sigma }) => sigma * Math.sqrt(1 - parameters.rho));
    this.isRight = Uint8Array.from(movers, ({ hand }) => Number(hand === 'right'));
    this.hasBoth = this.isRight.includes(1) && this.isRight.includes(0);
    this.drawn = new Float64Array(movers.length);
  }

  /**
   * One way of moving: the moments of the movers in ms, in the same array each time.
   * @param normal numbers of mean 0 and deviation 1
   */
  draw(normal: () => number): Float64Array {
    const { drawn, means, common, own, isRight } = this;
    const first = normal();
    // A hand that does not move draws nothing.
    const second = this.hasBoth ? normal() : first;
    for (let index = 0; index < drawn.length; index += 1) {
      drawn[index] = means[index] + common[index] * (isRight[index] === 1 ? second : first) + own[index] * normal();
    }
    this.first = first;
    this.second = second;
    return drawn;
  }

  /** What the fingers of a hand had in common in the last draw; a hand that does not move goes with the one that does. */
  sharedOf(hand: Mover['hand']): number {
    return hand === 'right' ? this.second : this.first;
  }
}

/** Goes through the patterns between the first and the last mover, by their masks. */
export function eachStep(moments: Float64Array, visit: (mask: number, begin: number, end: number) => void): void {
  const count = moments.length;
  let mask = 0;
  let now = 0;
  for (let step = 0; step < count; step += 1) {
    // The earliest that has not moved yet.
    let next = -1;
    for (let index = 0; index < count; index += 1) if (((mask >> index) & 1) === 0 && (next === -1 || moments[index] < moments[next])) next = index;
    if (step > 0) visit(mask, now, moments[next]);
    now = moments[next];
    mask |= 1 << next;
  }
}

/**
 * How long each class of sound is heard between the first and the last mover, added to `into`: `eachStep` written out, as the map walks here millions of times.
 * @param classAt the class of each pattern, by its mask
 */
export function addDurations(moments: Float64Array, classAt: Uint8Array, into: Float64Array): void {
  const count = moments.length;
  let mask = 0;
  let now = 0;
  for (let step = 0; step < count; step += 1) {
    let next = -1;
    for (let index = 0; index < count; index += 1) if (((mask >> index) & 1) === 0 && (next === -1 || moments[index] < moments[next])) next = index;
    if (step > 0) into[classAt[mask]] += moments[next] - now;
    now = moments[next];
    mask |= 1 << next;
  }
}

/**
 * The risk of a change by simulation.
 * @param draws how many; 20 000 give a probability within about 0.007
 */
export function simulatedRisk(
  instrument: Instrument,
  change: Change,
  parameters: TimingParameters,
  draws: number,
  normal: () => number,
  sounds: readonly InBetweenSound[] = inBetweenSounds(instrument, change),
): ChangeRisk {
  const classAt = Uint8Array.from(sounds, ({ kind }) => soundClasses.indexOf(kind));
  const [counts, totals, inDraw] = [new Float64Array(soundClasses.length), new Float64Array(soundClasses.length), new Float64Array(soundClasses.length)];
  if (change.movers.length > 1) {
    const noise = new HandNoise(change.movers, parameters);
    for (let draw = 0; draw < draws; draw += 1) {
      inDraw.fill(0);
      addDurations(noise.draw(normal), classAt, inDraw);
      for (let kind = 0; kind < inDraw.length; kind += 1) {
        totals[kind] += inDraw[kind];
        if (inDraw[kind] > audibleMs) counts[kind] += 1;
      }
    }
  }
  const entries = soundClasses.map((kind, index) => [kind, { probability: counts[index] / draws, meanMs: totals[index] / draws }] as const);
  return Object.fromEntries(entries) as Record<SoundClass, ClassRisk>;
}

/** Probability that a normal number of mean 0 and deviation 1 lies below a value. Source: Abramowitz and Stegun (1964), 7.1.26, within 1.5e-7. */
export function normalBelow(value: number): number {
  const t = 1 / (1 + (0.327_591_1 * Math.abs(value)) / Math.SQRT2);
  const polynomial = t * (0.254_829_592 + t * (-0.284_496_736 + t * (1.421_413_741 + t * (-1.453_152_027 + t * 1.061_405_429))));
  const erf = 1 - polynomial * Math.exp(-(value * value) / 2);
  return value >= 0 ? 0.5 * (1 + erf) : 0.5 * (1 - erf);
}

/** The risk of a change of two fingers in closed form; undefined for any other. */
export function exactRisk(
  instrument: Instrument,
  change: Change,
  parameters: TimingParameters,
  sounds: readonly InBetweenSound[] = inBetweenSounds(instrument, change),
): ChangeRisk | undefined {
  assertTiming(parameters);
  if (change.movers.length !== 2) return undefined;
  const [one, other] = momentsOf(change.movers, parameters);
  const shared = change.movers[0].hand === change.movers[1].hand ? parameters.rho : 0;
  const deviation = Math.sqrt(one.sigma ** 2 + other.sigma ** 2 - 2 * shared * one.sigma * other.sigma);
  const risk = Object.fromEntries(soundClasses.map((kind) => [kind, { probability: 0, meanMs: 0 }])) as Record<SoundClass, ClassRisk>;
  // Mask 1: the first has moved and the second has not, for as long as the second is later.
  for (const [mask, mean] of [
    [1, other.mean - one.mean],
    [2, one.mean - other.mean],
  ] as const) {
    const { kind } = sounds[mask];
    const before = risk[kind];
    risk[kind] = { probability: before.probability + longerThan(audibleMs, mean, deviation), meanMs: before.meanMs + meanAbove(mean, deviation) };
  }
  return risk;
}

function longerThan(length: number, mean: number, deviation: number): number {
  if (deviation === 0) return mean > length ? 1 : 0;
  return normalBelow((mean - length) / deviation);
}

/** Mean of what lies above 0. */
function meanAbove(mean: number, deviation: number): number {
  if (deviation === 0) return Math.max(0, mean);
  const z = mean / deviation;
  return mean * normalBelow(z) + (deviation * Math.exp(-(z * z) / 2)) / Math.sqrt(2 * Math.PI);
}

/** How much a teacher minds what is too open and what is too closed. */
export interface LeadWeights {
  readonly tooClosed: number;
  readonly tooOpen: number;
}

const leadStep = 5;
const longestLead = 40;

/**
 * The lead of lifts before landings that makes the weighted risk of a change smallest, in ms: a multiple of 5, 0 to 40.
 * @param normals the same draws serve every lead
 */
export function bestLead(
  instrument: Instrument,
  changes: readonly Change[],
  parameters: TimingParameters,
  weights: LeadWeights,
  draws: number,
  normals: () => () => number,
): number {
  let best = { lead: 0, cost: Infinity };
  const sounds = changes.map((change) => inBetweenSounds(instrument, change));
  for (let lead = 0; lead <= longestLead; lead += leadStep) {
    const cost = changes.reduce((sum, change, index) => {
      const risk = simulatedRisk(instrument, change, { ...parameters, lead }, draws, normals(), sounds[index]);
      return sum + weights.tooClosed * risk.low.probability + weights.tooOpen * risk['over-open'].probability;
    }, 0);
    if (cost < best.cost - 1e-12) best = { lead, cost };
  }
  return best.lead;
}
