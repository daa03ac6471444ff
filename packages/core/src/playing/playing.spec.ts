import * as fc from 'fast-check';
import { changeBetween } from '../change';
import { chartedFingering, instrumentById, practiceChanter as chanter, type FingerId, type NoteId } from '../fingering';
import { audibleMs, levels, seededNormal, seededRandom, type TimingParameters } from '../timing';
import {
  canBeSensed,
  fingersDown,
  fitTiming,
  judgePlaying,
  oneChangeOf,
  simulatedPlaying,
  timingOf,
  type FingerEvent,
  type StudentNote,
  type TimedChange,
} from '.';

const note = (id: NoteId, ms = 800): StudentNote => ({ fingering: chartedFingering(chanter, id), ms });
const thereAndBack = (home: NoteId, other: NoteId, times: number): readonly StudentNote[] =>
  Array.from({ length: 2 * times + 1 }, (_, index) => note(index % 2 === 0 ? home : other));
const at = (finger: FingerId, isDown: boolean, ms: number): FingerEvent => ({ finger, isDown, ms });

describe('judgePlaying', () => {
  const there = changeBetween(chanter, 'b', 'e');

  it('hears low A where the right ring lands before the left ring lifts, and tells for how long', () => {
    const { played } = judgePlaying(chanter, [there], [at('R3', true, 100), at('L3', false, 135)]);
    expect(played).toEqual([expect.objectContaining({ verdict: 'low', ms: 35, heard: [{ kind: 'low', note: 'low-a', ms: 35 }], stray: [] })]);
  });

  it('finds it too open the other way, and clean within 10 ms', () => {
    expect(judgePlaying(chanter, [there], [at('L3', false, 100), at('R3', true, 160)]).played[0]).toMatchObject({ verdict: 'over-open', ms: 60 });
    expect(judgePlaying(chanter, [there], [at('R3', true, 100), at('L3', false, 109)]).played[0]).toMatchObject({ verdict: 'clean', ms: 9 });
    expect(judgePlaying(chanter, [there], [at('R3', true, 100), at('L3', false, 109)], 5).played[0]).toMatchObject({ verdict: 'low', ms: 9 });
  });

  it('names fingers that had nothing to do, and does not count a finger that was only tried', () => {
    const events = [at('R4', true, 0), at('R4', false, 40), at('L3', false, 100), at('L1', false, 103), at('R3', true, 104), at('L1', true, 130)];
    const { played } = judgePlaying(chanter, [there], events);
    expect(played).toHaveLength(1);
    expect(played[0].stray).toEqual(['L1']);
    expect(played[0].moments).toEqual([100, 104]);
  });

  it('counts no change that was not reached, and leaves repeated reports of a held key alone', () => {
    const judged = judgePlaying(chanter, [there, changeBetween(chanter, 'e', 'b')], [at('R3', true, 10), at('R3', true, 20), at('L3', false, 21)]);
    expect(judged.reached).toBe(1);
    expect(judgePlaying(chanter, [there], []).reached).toBe(0);
    expect(judgePlaying(chanter, [], [at('R3', true, 10)]).played).toEqual([]);
  });

  it('judges a simulated student as that student is known to have played (property)', () => {
    const ids = chanter.notes.map(({ id }) => id);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), fc.array(fc.constantFrom(...ids), { minLength: 3, maxLength: 12 }), (seed, names) => {
        const distinct = names.filter((name, index) => index === 0 || name !== names[index - 1]);
        const playing = simulatedPlaying(
          chanter,
          distinct.map((name) => note(name)),
          levels.beginner,
          seededNormal(seed),
        );
        const judged = judgePlaying(
          chanter,
          playing.changes.map(({ change }) => change),
          playing.events,
        );
        expect(judged.played.map(({ verdict }) => verdict)).toEqual(playing.changes.map(({ verdict }) => verdict));
        judged.played.forEach((each, index) =>
          expect(each.heard.reduce((sum, { ms }) => sum + ms, 0)).toBeCloseTo(
            playing.changes[index].heard.reduce((sum, { ms }) => sum + ms, 0),
            6,
          ),
        );
      }),
    );
  });
});

describe('simulatedPlaying', () => {
  it('is the same for the same draws, and its steps fill the time without a hole', () => {
    const one = simulatedPlaying(chanter, thereAndBack('c', 'e', 4), levels.learner, seededNormal(7));
    expect(simulatedPlaying(chanter, thereAndBack('c', 'e', 4), levels.learner, seededNormal(7))).toEqual(one);
    one.steps.slice(1).forEach((step, index) => expect(step.startMs).toBeCloseTo(one.steps[index].startMs + one.steps[index].lengthMs, 6));
    const last = one.steps[one.steps.length - 1];
    expect(last.startMs + last.lengthMs).toBeCloseTo(one.lengthMs, 6);
  });

  it('makes the faults of its level: a beginner more than a fluent player', () => {
    const faults = (timing: TimingParameters): number =>
      simulatedPlaying(chanter, thereAndBack('c', 'e', 100), timing, seededNormal(2)).changes.filter(({ heard }) =>
        heard.some(({ kind, ms }) => kind === 'low' && ms > audibleMs),
      ).length;
    expect(faults(levels.beginner)).toBeGreaterThan(2 * faults(levels.fluent));
  });
});

describe('canBeSensed', () => {
  it('knows that keys tell no half cover and no breath', () => {
    const recorder = instrumentById('recorder-soprano-baroque');
    const pattern = (id: NoteId) => chartedFingering(recorder, id).pattern;
    expect(canBeSensed(pattern('c5'), pattern('d5'))).toBe(true);
    expect(canBeSensed(pattern('e5'), pattern('e6'))).toBe(false);
    expect([...fingersDown(recorder, pattern('e6'))]).toContain('T');
  });
});

describe('fitTiming', () => {
  /** Forty times there and back through changes that move every finger. */
  const playedBy = (timing: TimingParameters, seed: number): readonly TimedChange[] => {
    const playing = simulatedPlaying(chanter, thereAndBack('c', 'high-a', 40), timing, seededNormal(seed));
    return judgePlaying(
      chanter,
      playing.changes.map(({ change }) => change),
      playing.events,
    ).played.map(({ index, moments }) => ({
      change: playing.changes[index].change,
      moments,
    }));
  };

  it('refuses to tell anything from fewer than eight changes', () => {
    expect(() => fitTiming(playedBy(levels.learner, 1).slice(0, 7))).toThrow(/At least 8 changes.*there are 7/);
  });

  it('recovers the spread of all fingers, each finger’s and the lead, with errors that hold', () => {
    const timing: TimingParameters = { sigma: 14, sigmaOf: { R3: 22 }, biasOf: { R3: 24, L2: -18 }, rho: 0.5, lead: 12 };
    const fitted = fitTiming(playedBy(timing, 5));
    const of = (finger: FingerId) => fitted.fingers.find((each) => each.finger === finger)!;
    const mean = (24 - 18) / fitted.fingers.length;
    expect(fitted.lead.value).toBeCloseTo(12, -0.7);
    expect(Math.abs(of('R3').bias.value - (24 - mean))).toBeLessThan(3 * of('R3').bias.error);
    expect(Math.abs(of('L2').bias.value - (-18 - mean))).toBeLessThan(3 * of('L2').bias.error);
    expect(Math.abs(of('R3').sigma.value - 22)).toBeLessThan(3 * of('R3').sigma.error);
    expect(of('R3').sigma.value).toBeGreaterThan(of('L2').sigma.value);
    expect(timingOf(fitted)).toMatchObject({ rho: 0.5, sigmaOf: expect.objectContaining({ R3: expect.any(Number) }) });
  });

  it('is not led astray by a hand that stopped to think', () => {
    const played = playedBy({ sigma: 12, rho: 0.5, lead: 0 }, 3);
    const [first, ...rest] = played;
    const stopped = { ...first, moments: first.moments.map((moment, index) => moment + (index === 0 ? 4000 : 0)) };
    expect(fitTiming([stopped, ...rest]).sigma.value).toBeCloseTo(fitTiming(rest).sigma.value, 3);
  });

  it('over fifty players recovers spreads and biases within a fifth in the middle', () => {
    const random = seededRandom(11);
    const players = Array.from({ length: 50 }, (_, index) => {
      const sigma = 8 + 17 * random();
      const late = sigma * (1.2 + random());
      const fitted = fitTiming(playedBy({ sigma, biasOf: { R2: late }, rho: 0.5, lead: 0 }, 100 + index));
      const bias = fitted.fingers.find(({ finger }) => finger === 'R2')!.bias.value;
      return [Math.abs(fitted.sigma.value / sigma - 1), Math.abs(bias / (late * (1 - 1 / fitted.fingers.length)) - 1)];
    });
    const within = (which: number): number => players.filter((each) => each[which] < 0.2).length;
    expect(within(0)).toBeGreaterThanOrEqual(48);
    expect(within(1)).toBeGreaterThanOrEqual(48);
  });
});

describe('one change of a performance', () => {
  it('keeps what lies between at its length, between two short notes', () => {
    const playing = simulatedPlaying(chanter, thereAndBack('b', 'e', 3), levels.beginner, seededNormal(3));
    const faulty = playing.changes.find(({ index }) => playing.steps.some(({ note, role }) => role === 'fault' && note === index));
    if (faulty === undefined) throw new Error('A beginner should have made a fault.');
    const { steps, lengthMs } = oneChangeOf(playing, faulty.index);
    const between = steps.filter(({ role }) => role === 'fault').map((step) => step.lengthMs);
    expect(between).toEqual(playing.steps.filter(({ note, role }) => role === 'fault' && note === faulty.index).map((step) => step.lengthMs));
    expect(steps.filter(({ role }) => role === 'theme').map((step) => step.lengthMs)).toEqual([30, 30]);
    expect(lengthMs).toBeCloseTo(60 + between.reduce((sum, each) => sum + each, 0));
  });
});
