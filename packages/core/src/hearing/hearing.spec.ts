import * as fc from 'fast-check';
import { changeBetween } from '../change';
import { practiceChanter as chanter } from '../fingering';
import { seededRandom } from '../timing';
import { blindPair, EarStaircase, longestMs, mostTrials, probabilityRight, shortestMs } from '.';

/** What the staircase finds of a listener with this threshold. */
function found(threshold: number, seed: number): { readonly ms: number; readonly trials: number } {
  const random = seededRandom(seed);
  const staircase = new EarStaircase();
  while (!staircase.isDone()) {
    const ms = staircase.next();
    staircase.answer({ ms, isRight: random() < probabilityRight(ms, threshold) });
  }
  return { ms: staircase.threshold().ms, trials: staircase.trials.length };
}

describe('probabilityRight', () => {
  it('is a guess for nothing, three in four at the threshold, nearly sure far above it', () => {
    expect(probabilityRight(0.001, 20)).toBeCloseTo(0.5, 6);
    expect(probabilityRight(20, 20)).toBeCloseTo(0.75, 9);
    expect(probabilityRight(100, 20)).toBeCloseTo(0.98, 6);
  });
});

describe('EarStaircase', () => {
  it.each([6, 10, 20, 40, 80])('finds a threshold of %d ms within a fifth for most listeners, in at most eighty answers', (threshold) => {
    const all = Array.from({ length: 40 }, (_, index) => found(threshold, 500 + index));
    expect(all.filter(({ ms }) => Math.abs(ms / threshold - 1) <= 0.2).length).toBeGreaterThanOrEqual(34);
    expect(Math.max(...all.map(({ trials }) => trials))).toBeLessThanOrEqual(mostTrials);
  });

  it('gives shorter faults after right answers and longer ones after wrong ones, within its bounds (property)', () => {
    fc.assert(
      fc.property(fc.array(fc.boolean(), { maxLength: 70 }), (answers) => {
        const staircase = new EarStaircase();
        for (const isRight of answers) {
          const ms = staircase.next();
          expect(ms).toBeGreaterThanOrEqual(shortestMs);
          expect(ms).toBeLessThanOrEqual(longestMs);
          staircase.answer({ ms, isRight });
          if (isRight) expect(staircase.next()).toBeLessThanOrEqual(ms + 0.1);
          else expect(staircase.next()).toBeGreaterThanOrEqual(ms - 0.1);
        }
        const { ms, from, to } = staircase.threshold();
        expect(from).toBeLessThanOrEqual(to);
        expect(Number.isFinite(ms)).toBe(true);
      }),
    );
  });

  it('refuses a first guess that it could not play', () => {
    expect(() => new EarStaircase(1)).toThrow(/between 2 and 160 ms, not 1/);
  });
});

describe('blindPair', () => {
  const change = changeBetween(chanter, 'b', 'e');
  const rate = 16_000;

  it.each([0, 1] as const)('has the fault in version %d only; both are equally long and equally loud', (crossed) => {
    const pair = blindPair(chanter, change, 60, crossed, rate)!;
    const second = Math.round((pair.secondMs / 1000) * rate);
    const length = pair.samples.length - second;
    const [one, other] = [pair.samples.slice(0, length), pair.samples.slice(second)];
    const power = (samples: Float32Array): number => Math.sqrt(samples.reduce((sum, sample) => sum + sample ** 2, 0) / samples.length);
    expect(power(one) / power(other)).toBeCloseTo(1, 4);
    expect(blindPair(chanter, change, 60, crossed === 0 ? 1 : 0, rate)!.samples.length).toBe(pair.samples.length);
    const clean = blindPair(chanter, change, 0.001, crossed, rate)!;
    const differs = (from: number): number =>
      pair.samples.slice(from, from + length).reduce((sum, sample, index) => sum + Math.abs(sample - clean.samples[from + index]), 0);
    expect(differs(crossed === 0 ? 0 : second)).toBeGreaterThan(5 * differs(crossed === 0 ? second : 0));
  });

  it('is not there where nothing can go wrong', () => {
    expect(blindPair(chanter, changeBetween(chanter, 'c', 'd'), 60, 0, rate)).toBeUndefined();
  });
});
