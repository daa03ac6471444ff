import { changesOfTune, compileMovement, MovementReader, movementsOf, movementTable, practiceChanter as chanter, readTune, seededRandom } from '@zelpit/core';
import { benchCommand, medianTime, type Figure } from './measure';

const tunes = 1000;
const barsOfTune = 16;

/** A tune whose every note carries a movement, drawn by a seed. */
function graceNotesOfTune(seed: number): readonly { readonly before: string; readonly letters: readonly string[]; readonly after: string }[] {
  const random = seededRandom(seed);
  const ids = chanter.notes.map(({ id }) => id);
  const movements = movementsOf(chanter);
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  return Array.from({ length: barsOfTune * 4 }, () => {
    const [before, after] = [any(ids), any(ids)];
    const compiled = compileMovement(chanter, any(movements), before, after);
    return { before, after, letters: compiled.kind === 'compiled' ? compiled.steps.map(({ written }) => written) : ['high-g', any(ids)] };
  });
}

export function movementFigures(): readonly Figure[] {
  const common = { unit: 'ms', better: 'lower', baseline: null, ratio: null, command: benchCommand } as const;
  const slowest = Math.max(...movementsOf(chanter).map((movement) => medianTime(() => void movementTable(chanter, movement))));
  const book = Array.from({ length: tunes }, (_, seed) => graceNotesOfTune(seed + 1));
  const reading = medianTime(() => {
    const reader = new MovementReader(chanter);
    for (const tune of book) for (const { before, letters, after } of tune) reader.read(before, letters, after);
  });
  // The measure is of use only where real tunes are read too.
  const parsed = 'X:1\nT:One\nM:2/4\nL:1/8\nK:HP\n{gcd}c>e|{GdGe}A2|\n';
  if (changesOfTune(chanter, readTune(chanter, parsed)).underGraceNotes.length === 0) throw new Error('No grace note was read.');
  return [
    { ...common, name: 'full table of one movement, 9 by 9, the slowest of them', median: slowest, goal: 'under 5 ms', isMet: slowest < 5 },
    { ...common, name: `grace notes of ${tunes} tunes recognised, ${barsOfTune * 4} groups each`, median: reading, goal: 'under 1 s', isMet: reading < 1000 },
  ];
}
