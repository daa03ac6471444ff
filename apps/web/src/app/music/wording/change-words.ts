import { spokenFingers, type Change } from '@zelpit/core/change';
import { noteOf, type Fingering, type Instrument } from '@zelpit/core/fingering';
import type { ChangeRisk, Level, SoundClass } from '@zelpit/core/timing';
import type { Choice } from '../../kernel/chooser/chooser.component';
import { capital } from '../../kernel/words/words';

/** Whose fingers are reckoned with: a level, or what was measured of the student. */
export type Whose = Level | 'measured';

export const levelChoices: readonly Choice<Level>[] = [
  { value: 'beginner', label: 'a beginner (fingers vary by 25 ms)' },
  { value: 'learner', label: 'a learner (15 ms)' },
  { value: 'fluent', label: 'a fluent player (8 ms)' },
];

/** "In how many of a hundred": what is said of a probability. */
export function inHundred(probability: number): string {
  const count = Math.round(probability * 100);
  if (count === 0 && probability > 0.0005) return '< 1';
  return String(count);
}

const rows: readonly (readonly [SoundClass, string])[] = [
  ['low', 'a low note cuts in'],
  ['run', 'notes in between slip in'],
  ['over-open', 'a gap is heard'],
  ['between', 'another sound in between'],
  ['above', 'a sound higher than both notes'],
  ['silent', 'silence'],
];

export interface RiskText {
  readonly text: string;
  readonly inHundred: string;
  readonly ms: string;
}

export function risksText(risk: ChangeRisk): readonly RiskText[] {
  return rows
    .filter(([kind]) => (kind !== 'above' && kind !== 'silent') || risk[kind].probability > 0)
    .map(([kind, text]) => ({ text, inHundred: inHundred(risk[kind].probability), ms: `${risk[kind].meanMs.toFixed(1)} ms` }));
}

/** How often something is heard for longer than 10 ms that should not: low, run or too open, at least. */
export const worstOf = (risk: ChangeRisk): number => Math.max(risk.low.probability, risk.run.probability, risk['over-open'].probability);

/** "X XXX OOXO" as fingers that lie: "left index, middle and ring". */
export function wayText(instrument: Instrument, { pattern, rank }: Fingering): string {
  const down = instrument.fingers
    .filter(({ id }) => pattern.some((coverage, hole) => instrument.holes[hole].finger === id && coverage > 0))
    .map(({ id }) => id);
  const fingers = down.length === 0 ? 'all open' : `${spokenFingers(instrument, down)} down`;
  return rank === 1 ? `${fingers} (taught first)` : fingers;
}

export const nameOfNote = (instrument: Instrument, id: string): string => noteOf(instrument, id).schoolName;

export const soundText: Readonly<Record<SoundClass, string>> = {
  low: 'too low',
  'over-open': 'a gap',
  run: 'a note in between',
  between: 'another sound in between',
  above: 'too high',
  same: 'hardly heard',
  silent: 'silence',
};

/** Loudness against the reference note; nothing where none is known. */
export const loudText = (decibels: number | undefined): string =>
  decibels === undefined || Math.abs(decibels) < 0.05 ? '' : `${decibels > 0 ? '+' : ''}${decibels.toFixed(1).replace('-', '−')} dB`;

/** "Left ring lifts; right middle and ring land." */
export function moversText(instrument: Instrument, { movers }: Change): string {
  const of = (direction: 'lift' | 'lower', one: string, many: string): string => {
    const fingers = movers.filter((mover) => mover.direction === direction).map(({ finger }) => finger);
    return fingers.length === 0 ? '' : `${spokenFingers(instrument, fingers)} ${fingers.length === 1 ? one : many}`;
  };
  const parts = [of('lift', 'lifts', 'lift'), of('lower', 'lands', 'land')].filter((part) => part !== '');
  return parts.length === 0 ? 'No finger moves.' : `${capital(parts.join('; '))}.`;
}
