import fc from 'fast-check';
import { changeBetween } from '../change';
import { instrumentById, noteOf, practiceChanter, type NoteId } from '../fingering';
import {
  addDurations,
  bestLead,
  difficultyOf,
  exactRisk,
  HandNoise,
  inBetweenSounds,
  levels,
  normalBelow,
  seededNormal,
  simulatedRisk,
  steppedSounds,
  type ChangeRisk,
  type TimingParameters,
} from '.';

const draws = 20_000;
const pairs = practiceChanter.notes.flatMap(({ id: from }) =>
  practiceChanter.notes.filter(({ id }) => id !== from).map(({ id: to }) => changeBetween(practiceChanter, from, to)),
);
const riskOf = (from: NoteId, to: NoteId, parameters: TimingParameters = levels.learner, seed = 1): ChangeRisk =>
  simulatedRisk(practiceChanter, changeBetween(practiceChanter, from, to), parameters, draws, seededNormal(seed));
const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

describe('the timing of a learner on the practice chanter', () => {
  it.each([
    ['d', 'e', 0.37],
    ['b', 'e', 0.32],
    ['c', 'e', 0.32],
    ['d', 'f', 0.25],
    ['b', 'f', 0.22],
    ['c', 'f', 0.22],
    ['d', 'high-g', 0.2],
    ['d', 'high-a', 0.2],
    ['b', 'high-g', 0.17],
    ['c', 'high-a', 0.17],
    ['low-a', 'c', 0.12],
    ['low-a', 'd', 0.08],
    ['e', 'high-a', 0.08],
    ['b', 'c', 0],
    ['high-g', 'high-a', 0],
  ])('%s to %s cuts low with probability %d, either way', (one, other, expected) => {
    expect(Math.abs(riskOf(one, other).low.probability - expected)).toBeLessThan(0.02);
    expect(Math.abs(riskOf(other, one).low.probability - expected)).toBeLessThan(0.02);
  });

  it('over all 72 changes is low .084, run .26 and over-open .058', () => {
    const risks = pairs.map((change) => simulatedRisk(practiceChanter, change, levels.learner, 5000, seededNormal(3)));
    expect(mean(risks.map(({ low }) => low.probability))).toBeCloseTo(0.084, 1.9);
    expect(Math.abs(mean(risks.map(({ run }) => run.probability)) - 0.26)).toBeLessThan(0.02);
    expect(Math.abs(mean(risks.map((risk) => risk['over-open'].probability)) - 0.058)).toBeLessThan(0.01);
  });

  it('with lifts 15 ms ahead cuts low a third as often, and is too open twice as often or more', () => {
    const low = pairs.filter((change) => simulatedRisk(practiceChanter, change, levels.learner, 2000, seededNormal(5)).low.probability > 0.03);
    expect(low).toHaveLength(30);
    const at = (lead: number): readonly [number, number] => {
      const risks = low.map((change) => simulatedRisk(practiceChanter, change, { ...levels.learner, lead }, 3000, seededNormal(6)));
      return [mean(risks.map((risk) => risk.low.probability)), mean(risks.map((risk) => risk['over-open'].probability))];
    };
    for (const [lead, pLow, pOpen] of [
      [0, 0.2, 0.09],
      [5, 0.14, 0.14],
      [10, 0.09, 0.21],
      [15, 0.06, 0.31],
      [20, 0.04, 0.42],
    ]) {
      const [foundLow, foundOpen] = at(lead);
      expect([lead, Math.abs(foundLow - pLow) < 0.02, Math.abs(foundOpen - pOpen) < 0.02]).toEqual([lead, true, true]);
    }
  });

  it('wants a lead of 5 ms where both are minded alike, 15 ms where too open is minded less', () => {
    const low = pairs.filter((change) => simulatedRisk(practiceChanter, change, levels.learner, 2000, seededNormal(5)).low.probability > 0.03);
    const best = (tooOpen: number): number => bestLead(practiceChanter, low, levels.learner, { tooClosed: 1, tooOpen }, 1000, () => seededNormal(9));
    expect(best(1)).toBe(5);
    expect(best(0.3)).toBe(15);
  });
});

describe('changes of two fingers', () => {
  const two = pairs.filter(({ movers }) => movers.length === 2);

  it.each([1, 2, 3, 4, 5])('are simulated as the closed form has them, seed %d', (seed) => {
    const worst = two.map((change) => {
      const [exact, drawn] = [
        exactRisk(practiceChanter, change, levels.learner),
        simulatedRisk(practiceChanter, change, levels.learner, draws, seededNormal(seed)),
      ];
      return Math.max(...Object.entries(drawn).map(([kind, risk]) => Math.abs(risk.probability - (exact?.[kind as keyof ChangeRisk].probability ?? 9))));
    });
    expect(Math.max(...worst)).toBeLessThan(0.01);
  });

  it('by closed form only', () => {
    expect(two.length).toBeGreaterThan(10);
    expect(exactRisk(practiceChanter, changeBetween(practiceChanter, 'low-a', 'b'), levels.learner)).toBeUndefined();
    expect(normalBelow(0)).toBeCloseTo(0.5, 6);
    expect(normalBelow(1.96)).toBeCloseTo(0.975, 4);
  });
});

describe('in-between patterns', () => {
  it('last as long together as the fingers are apart', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 2, maxLength: 6 }), (moments) => {
        const durations = new Float64Array(2 ** moments.length);
        addDurations(
          Float64Array.from(moments),
          Uint8Array.from(durations, (_, mask) => mask),
          durations,
        );
        const sum = durations.reduce((total, each) => total + each, 0);
        expect(sum).toBeCloseTo(Math.max(...moments) - Math.min(...moments), 9);
        expect(durations.every((each) => each >= 0)).toBe(true);
      }),
    );
  });

  it('of the nineteen crosses, landings first, are low G in ten, low A in five, a blur in four; the same both ways', () => {
    const crosses = pairs.filter(({ kind }) => kind === 'cross');
    expect(crosses).toHaveLength(38);
    const closed = crosses.map((change) => {
      const mask = change.movers.reduce((sum, { direction }, index) => (direction === 'lower' ? sum | (1 << index) : sum), 0);
      return { change, sound: inBetweenSounds(practiceChanter, change)[mask] };
    });
    const count = (note: string): number => closed.filter(({ sound }) => sound.kind === 'low' && sound.note === note).length;
    expect([count('low-g'), count('low-a'), closed.filter(({ sound }) => sound.kind !== 'low').length]).toEqual([20, 10, 8]);
    for (const { change, sound } of closed) {
      const openInBoth = sound.pattern.map((coverage, hole) => coverage === 0 && change.fromPattern[hole] === 0 && change.toPattern[hole] === 0);
      expect(sound.pattern.map((coverage) => coverage === 0)).toEqual(openInBoth);
      const back = closed.find(({ change: other }) => other.from === change.to && other.to === change.from);
      expect(back?.sound.pattern).toEqual(sound.pattern);
    }
  });

  it('with lifts first lie never more than 50 cents under the lower note, on either chanter', () => {
    for (const instrument of [practiceChanter, instrumentById('pipe-chanter')]) {
      for (const { from, to } of pairs) {
        const change = changeBetween(instrument, from, to);
        const lifts = change.movers.reduce((mask, { direction }, index) => (direction === 'lift' ? mask | (1 << index) : mask), 0);
        const sounds = inBetweenSounds(instrument, change);
        sounds.forEach(({ kind }, mask) => {
          // Every pattern on a way in which all lifts come before any landing.
          const isLiftFirst = (mask & ~lifts) === 0 || (mask & lifts) === lifts;
          if (isLiftFirst && mask > 0 && mask < sounds.length - 1) expect([from, to, kind === 'low']).toEqual([from, to, false]);
        });
      }
    }
  });

  it('of B to E are low A when the right ring lands first', () => {
    const change = changeBetween(practiceChanter, 'b', 'e');
    const right = change.movers.findIndex(({ finger }) => finger === 'R3');
    expect(inBetweenSounds(practiceChanter, change)[1 << right]).toMatchObject({ kind: 'low', note: 'low-a' });
  });
});

describe('how hard a change is', () => {
  const hardness = (from: NoteId, to: NoteId): number => difficultyOf(practiceChanter, changeBetween(practiceChanter, from, to), riskOf(from, to)).total;

  it('grows with what is in the way: one finger, a run, a cross, a cross that goes low', () => {
    expect(hardness('f', 'high-g')).toBeLessThan(hardness('low-a', 'e'));
    expect(hardness('e', 'low-a')).toBeLessThan(hardness('b', 'c'));
    expect(hardness('b', 'c')).toBeLessThan(hardness('c', 'e'));
  });

  it('is the sum of terms that are all there to be seen', () => {
    for (const change of pairs.slice(0, 20)) {
      const { total, terms } = difficultyOf(practiceChanter, change, simulatedRisk(practiceChanter, change, levels.learner, 500, seededNormal(2)));
      expect(terms.reduce((sum, { value }) => sum + value, 0)).toBeCloseTo(total);
      expect(terms.every(({ label, value }) => label !== '' && value > 0)).toBe(true);
    }
  });
});

describe('one way of moving', () => {
  const change = changeBetween(practiceChanter, 'c', 'e');

  it('is heard step by step, from the first finger to the last', () => {
    const moments = change.movers.map((_, index) => index * 7);
    const steps = steppedSounds(inBetweenSounds(practiceChanter, change), moments);
    expect(steps).toHaveLength(change.movers.length - 1);
    expect(steps.map(({ from, to }) => to - from)).toEqual(steps.map(() => 7));
    const together = steppedSounds(
      inBetweenSounds(practiceChanter, change),
      change.movers.map(() => 3),
    );
    expect(together).toEqual([]);
  });
});

describe('bad input', () => {
  it.each([{ sigma: -1 }, { sigma: 500 }, { rho: 1.2 }, { lead: Number.NaN }, { sigmaOf: { R3: -4 } }])('%j is refused', (change) => {
    expect(() => riskOf('b', 'e', { ...levels.learner, ...change })).toThrow('A timing has deviations of 0 to 200 ms');
  });

  it('is drawn the same for the same seed', () => {
    const all: number[] = [];
    for (const seed of [7, 7]) {
      const [noise, normal] = [new HandNoise(changeBetween(practiceChanter, 'b', 'e').movers, levels.learner), seededNormal(seed)];
      for (let draw = 0; draw < 3; draw += 1) all.push(...noise.draw(normal));
    }
    expect(all.slice(0, 6)).toEqual(all.slice(6));
    expect(noteOf(practiceChanter, 'b').schoolName).toBe('B');
  });
});
