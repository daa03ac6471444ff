import {
  changeBetween,
  cheapestPath,
  instrumentById,
  PathCosts,
  exactRisk,
  inBetweenSounds,
  levels,
  normalPool,
  practiceChanter,
  seededNormal,
  seededRandom,
  simulatedRisk,
  soundClasses,
  type Change,
} from '@zelpit/core';
import { benchCommand, medianOf, type Figure } from './measure';

const draws = 20_000;
const rounds = 7;
const common = { better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;

const pairs: readonly Change[] = practiceChanter.notes.flatMap(({ id: from }) =>
  practiceChanter.notes.filter(({ id }) => id !== from).map(({ id: to }) => changeBetween(practiceChanter, from, to)),
);

/** All 72 changes, their in-between sounds classed anew. */
function wholeMap(seed: number): number {
  const start = performance.now();
  const normals = normalPool(seed);
  for (const change of pairs) simulatedRisk(practiceChanter, change, levels.learner, draws, normals(), inBetweenSounds(practiceChanter, change));
  return performance.now() - start;
}

/** The largest difference of any probability of a two-finger change from its closed form. */
function farthest(seed: number): number {
  const differences = pairs.flatMap((change) => {
    const exact = exactRisk(practiceChanter, change, levels.learner);
    if (exact === undefined) return [];
    const drawn = simulatedRisk(practiceChanter, change, levels.learner, draws, seededNormal(seed));
    return soundClasses.map((kind) => Math.abs(drawn[kind].probability - exact[kind].probability));
  });
  return Math.max(...differences);
}

/** Notes a second through the fingerings of a whistle whose C natural has six ways. */
function pathSpeed(): number {
  const whistle = instrumentById('whistle-d');
  const more = [
    [0, 1, 1, 0, 1, 0],
    [0, 1, 1, 0, 0, 1],
  ].map((pattern, index) => ({ note: 'c6', pattern, school: 'own', rank: 5 + index, register: 1, source: 'teacher' as const }));
  const costs = new PathCosts({ ...whistle, fingerings: [...whistle.fingerings, ...more] });
  const random = seededRandom(4);
  const ids = whistle.notes.map(({ id }) => id);
  const notes = Array.from({ length: 50_000 }, (_, index) => ({ note: index % 2 === 0 ? 'c6' : ids[Math.floor(random() * ids.length)], isApart: false }));
  cheapestPath(costs, notes);
  const times = Array.from({ length: 5 }, () => {
    const start = performance.now();
    cheapestPath(costs, notes);
    return performance.now() - start;
  });
  return notes.length / (medianOf(times) / 1000);
}

export function timingFigures(): readonly Figure[] {
  wholeMap(0);
  const times = Array.from({ length: rounds }, (_, index) => wholeMap(index + 1));
  const map = medianOf(times);
  const speed = pathSpeed();
  const exact = [1, 2, 3, 4, 5].map((seed): Figure => {
    const off = farthest(seed);
    return {
      ...common,
      name: `simulated changes of two fingers against the closed form, seed ${seed}: largest difference`,
      median: off,
      unit: 'of 1',
      goal: 'within 0.010',
      isMet: off < 0.01,
    };
  });
  return [
    { ...common, name: 'the map of 72 changes, 20 000 draws each, one thread', median: map, unit: 'ms', goal: 'under 1500 ms', isMet: map < 1500 },
    ...exact,
    {
      ...common,
      name: 'path finder through the whistle, every second note with six ways',
      median: speed,
      unit: 'notes a second',
      better: 'higher',
      goal: 'at least 100 000',
      isMet: speed >= 100_000,
    },
  ];
}
