import { ZelpitFault } from '../fault';

/** What a listener was given and answered. */
export interface EarTrial {
  /** Length of the fault, in ms. */
  readonly ms: number;
  readonly isRight: boolean;
}

/** What is known of a listener's threshold: the length at which three answers in four are right. */
export interface EarThreshold {
  /** In ms. */
  readonly ms: number;
  /** Between these it lies with 90 in 100. */
  readonly from: number;
  readonly to: number;
}

/** The test stops then, whatever is known. */
export const mostMinutes = 5;
export const mostTrials = 80;
/** Enough is known when the threshold is this sure: its upper end over its lower one. */
const sureRatio = 1.45;
const fewestTrials = 20;

/** Shortest and longest fault that is played, in ms. */
export const [shortestMs, longestMs] = [2, 160];
const gridSteps = 120;
const guessed = 0.5;
/** A listener who hears it still presses the wrong key now and then. */
const lapses = 0.02;
/** Steepness of the curve from guessing to hearing (Weibull), usual for detection (Watson and Pelli 1983). */
const slope = 3.5;
/** Share of right answers at the threshold. */
const share = 0.75;

const grid: readonly number[] = Array.from({ length: gridSteps + 1 }, (_, index) => shortestMs * (longestMs / shortestMs) ** (index / gridSteps));

/**
 * Probability of a right answer of two for a fault of `ms` by a listener with a threshold: a Weibull curve from a half to nearly 1, three in four at the
 * threshold. Source: Watson and Pelli (1983), eq. 1, with the threshold moved to three in four.
 */
export function probabilityRight(ms: number, threshold: number): number {
  const scale = -Math.log((1 - lapses - share) / (1 - lapses - guessed));
  return guessed + (1 - guessed - lapses) * (1 - Math.exp(-scale * (ms / threshold) ** slope));
}

/**
 * An adaptive staircase for "which of the two was crossed": a Bayesian staircase after Watson and Pelli (1983). Every answer sharpens what is known of the
 * threshold, and the next fault is as long as the threshold is thought to be, a little longer, where an answer tells most.
 */
export class EarStaircase {
  private readonly weights = new Float64Array(grid.length).fill(1);
  private readonly given: EarTrial[] = [];

  /** @param expected a first guess of the threshold, in ms; the guess is weak */
  constructor(expected = 25) {
    if (!(expected >= shortestMs && expected <= longestMs))
      throw new ZelpitFault('out-of-range', `The first guess must be between ${shortestMs} and ${longestMs} ms, not ${expected}.`, { expected });
    grid.forEach((threshold, index) => {
      this.weights[index] = Math.exp(-0.5 * (Math.log(threshold / expected) / 1.2) ** 2);
    });
  }

  get trials(): readonly EarTrial[] {
    return this.given;
  }

  /** Length of the next fault, in ms, to a tenth. */
  next(): number {
    const { ms } = this.threshold();
    return Math.round(Math.min(longestMs, Math.max(shortestMs, ms * 1.15)) * 10) / 10;
  }

  answer(trial: EarTrial): void {
    this.given.push(trial);
    grid.forEach((threshold, index) => {
      const right = probabilityRight(trial.ms, threshold);
      this.weights[index] *= trial.isRight ? right : 1 - right;
    });
    const most = this.weights.reduce((largest, weight) => Math.max(largest, weight), 0);
    for (let index = 0; index < this.weights.length; index += 1) this.weights[index] /= most;
  }

  threshold(): EarThreshold {
    const sum = this.weights.reduce((all, weight) => all + weight, 0);
    const mean = grid.reduce((all, threshold, index) => all + Math.log(threshold) * this.weights[index], 0) / sum;
    const at = (part: number): number => {
      let seen = 0;
      const index = this.weights.findIndex((weight) => (seen += weight) >= part * sum);
      return grid[index === -1 ? grid.length - 1 : index];
    };
    return { ms: Math.exp(mean), from: at(0.05), to: at(0.95) };
  }

  /** True once enough is known or asked. */
  isDone(): boolean {
    const { from, to } = this.threshold();
    return this.given.length >= mostTrials || (this.given.length >= fewestTrials && to / from <= sureRatio);
  }
}
