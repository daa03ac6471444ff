import { count } from '../words';
import type { Form } from './form';

/** One voice of a round. */
export interface RoundEntry {
  /** From 1. */
  readonly voice: number;
  /** The voice begins when the first one is at this measure, as an index into the form's measures. */
  readonly measure: number;
  /** The bar that the first voice plays then, as counted aloud. */
  readonly bar: number;
}

export type Round =
  { readonly kind: 'round'; readonly distance: number; readonly entries: readonly RoundEntry[] } | { readonly kind: 'none'; readonly reason: string };

/** More voices than that have no room in a class. */
export const mostVoices = 12;

/**
 * When each voice of a round begins.
 * @param after the section after which the next voice enters, from 1; where it is not given, the tune is shared out among the voices
 */
export function roundOf({ measures, sections }: Pick<Form, 'measures' | 'sections'>, voices: number, after?: number): Round {
  const total = measures.length;
  if (!Number.isInteger(voices) || voices < 2 || voices > mostVoices) return { kind: 'none', reason: `A round has 2 to ${mostVoices} voices, not ${voices}.` };
  const section = after === undefined ? undefined : sections.find(({ number }) => number === after);
  if (after !== undefined && section === undefined)
    return { kind: 'none', reason: `There is no section ${after}: this tune has ${count(sections.length, 'section')}.` };
  if (section === undefined && total % voices !== 0)
    return { kind: 'none', reason: `${count(total, 'bar')} cannot be shared out among ${voices} voices: the parts would have different lengths.` };
  const distance = section === undefined ? total / voices : section.end;
  if (distance * (voices - 1) >= total)
    return {
      kind: 'none',
      reason: `Voice ${voices} would enter after the first one has ended: the next voice must enter after ${count(Math.floor((total - 1) / (voices - 1)), 'bar')} at the latest.`,
    };
  const entries = Array.from({ length: voices }, (_, index): RoundEntry => ({
    voice: index + 1,
    measure: index * distance,
    bar: measures[index * distance].number,
  }));
  return { kind: 'round', distance, entries };
}

/** True where the text calls the tune a round. */
export const isRound = (rhythm: string): boolean => /\b(round|canon)\b/i.test(rhythm);
