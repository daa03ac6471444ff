import { noteOf, spokenFingers, type ChangeRisk, type Fingering, type Instrument, type Level, type SoundClass } from '@zelpit/core';
import type { Choice } from '../shell/chooser.component';

/** Whose fingers are reckoned with: a level, or what was measured of the student. */
export type Whose = Level | 'measured';

export const levelChoices: readonly Choice<Level>[] = [
  { value: 'beginner', said: 'a beginner' },
  { value: 'learner', said: 'a learner' },
  { value: 'fluent', said: 'a fluent player' },
];

/** "In how many of a hundred": what is said of a probability. */
export function inHundred(probability: number): string {
  const count = Math.round(probability * 100);
  if (count === 0 && probability > 0.0005) return '< 1';
  return String(count);
}

const rows: readonly (readonly [SoundClass, string])[] = [
  ['low', 'a low note cuts in'],
  ['run', 'notes between slip in'],
  ['over-open', 'too open for a moment'],
  ['between', 'a sound between'],
  ['above', 'a sound above both'],
];

export interface SaidRisk {
  readonly said: string;
  readonly inHundred: string;
  readonly ms: string;
}

export function risksSaid(risk: ChangeRisk): readonly SaidRisk[] {
  return rows
    .filter(([kind]) => kind !== 'above' || risk.above.probability > 0)
    .map(([kind, said]) => ({ said, inHundred: inHundred(risk[kind].probability), ms: `${risk[kind].meanMs.toFixed(1)} ms` }));
}

/** How often something is heard for longer than 10 ms that should not: low, run or too open, at least. */
export const worstOf = (risk: ChangeRisk): number => Math.max(risk.low.probability, risk.run.probability, risk['over-open'].probability);

/** "X XXX OOXO" as fingers that lie: "left index, middle and ring". */
export function waySaid(instrument: Instrument, { pattern, rank }: Fingering): string {
  const down = instrument.fingers
    .filter(({ id }) => pattern.some((coverage, hole) => instrument.holes[hole].finger === id && coverage > 0))
    .map(({ id }) => id);
  const fingers = down.length === 0 ? 'all open' : `${spokenFingers(instrument, down)} down`;
  return rank === 1 ? `${fingers} (taught first)` : fingers;
}

export const nameOfNote = (instrument: Instrument, id: string): string => noteOf(instrument, id).schoolName;
