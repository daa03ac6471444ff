import {
  chartedFingering,
  EarStaircase,
  fitTiming,
  judgePlaying,
  practiceChanter as chanter,
  probabilityRight,
  seededNormal,
  seededRandom,
  simulatedPlaying,
  type FittedTiming,
  type TimingParameters,
} from '@zelpit/core';
import { benchCommand, medianOf, type Figure } from './measure';

const common = { unit: '%', better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;
const listeners = 200;
const players = 200;
/** Forty repetitions, there and back, of a change that moves six fingers across both hands. */
const [home, other, repetitions] = ['c', 'high-a', 40] as const;

/** By how many percent the staircase misses each listener's threshold, and how many answers it takes. */
function listenerErrors(): { readonly errors: readonly number[]; readonly answers: readonly number[] } {
  const random = seededRandom(31);
  const answers: number[] = [];
  const errors = Array.from({ length: listeners }, () => {
    const threshold = 5 * 16 ** random();
    const staircase = new EarStaircase();
    while (!staircase.isDone()) {
      const ms = staircase.next();
      staircase.answer({ ms, isRight: random() < probabilityRight(ms, threshold) });
    }
    answers.push(staircase.trials.length);
    return 100 * Math.abs(staircase.threshold().ms / threshold - 1);
  });
  return { errors, answers };
}

function fitted(timing: TimingParameters, seed: number): FittedTiming {
  const notes = Array.from({ length: 2 * repetitions + 1 }, (_, index) => ({ fingering: chartedFingering(chanter, index % 2 === 0 ? home : other), ms: 800 }));
  const { changes, events } = simulatedPlaying(chanter, notes, timing, seededNormal(seed));
  const { played } = judgePlaying(
    chanter,
    changes.map(({ change }) => change),
    events,
  );
  return fitTiming(played.map(({ index, moments }) => ({ change: changes[index].change, moments })));
}

/** By how many percent the spread of all fingers, the spread of one and the bias of one are missed. */
function playerErrors(): { readonly all: readonly number[]; readonly one: readonly number[]; readonly bias: readonly number[] } {
  const random = seededRandom(47);
  const off = (found: number, true_: number): number => 100 * Math.abs(found / true_ - 1);
  const rows = Array.from({ length: players }, (_, index) => {
    const sigma = 8 + 17 * random();
    const own = sigma * (0.8 + 0.8 * random());
    const late = sigma * (1 + random());
    const found = fitted({ sigma, sigmaOf: { R3: own }, biasOf: { R2: late }, rho: 0.5, lead: 0 }, 1000 + index);
    const even = fitted({ sigma, rho: 0.5, lead: 0 }, 5000 + index);
    const of = (finger: string): FittedTiming['fingers'][number] => found.fingers.find((each) => each.finger === finger) as FittedTiming['fingers'][number];
    return [off(even.sigma.value, sigma), off(of('R3').sigma.value, own), off(of('R2').bias.value, late * (1 - 1 / found.fingers.length))] as const;
  });
  return { all: rows.map((row) => row[0]), one: rows.map((row) => row[1]), bias: rows.map((row) => row[2]) };
}

const figure = (name: string, errors: readonly number[]): Figure => {
  const within = Math.round((100 * errors.filter((error) => error <= 20).length) / errors.length);
  const median = medianOf([...errors]);
  return { ...common, name: `${name}; ${within} of 100 within 20 %`, median, goal: 'within 20 %', isMet: median < 20 && within >= 80 };
};

export function playerFigures(): readonly Figure[] {
  const { errors, answers } = listenerErrors();
  const { all, one, bias } = playerErrors();
  return [
    figure(`blind test of ${listeners} simulated listeners, 5 to 80 ms: threshold missed by (${medianOf([...answers])} answers in the middle)`, errors),
    figure(`${players} simulated players, ${repetitions} repetitions: spread of all fingers missed by`, all),
    figure(`${players} simulated players, ${repetitions} repetitions: own spread of one finger missed by`, one),
    figure(`${players} simulated players, ${repetitions} repetitions: bias of one finger missed by`, bias),
  ];
}
