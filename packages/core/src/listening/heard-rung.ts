import type { Instrument } from '../fingering';
import { capital } from '../words';
import { askedSounds, type AskedNote } from './asked';
import type { HeardStretch } from './heard-stretch';
import { isNoteFaulty, judgeAsked, noteText, whereOf, worstNotesFirst, type TakeClick } from './judge-asked';

/** How a rung of a tempo ladder went, as far as it was heard. `going` while nothing speaks against it and it is not over. */
export interface HeardRung {
  readonly rating: 'clean' | 'slip' | 'unheard' | 'going';
  /** The worst place, or why nothing is claimed; empty while it goes on, and where all was clean. */
  readonly text: string;
}

/** A rung of which less than this share was heard is judged by nobody. Our own choice. */
const leastHeard = 0.75;

/**
 * A rung as it was heard so far: a sure fault ends it at once, whatever comes after. Its last note may still be sounding, so that nothing is said of it before the
 * rung is over.
 * @param notes of the whole rung: once through, as often as it is played
 */
export function heardRung(
  instrument: Instrument,
  notes: readonly AskedNote[],
  stretches: readonly HeardStretch[],
  { click, isOver }: { readonly click: TakeClick; readonly isOver: boolean },
): HeardRung {
  const heard = judgeAsked(instrument, notes, stretches, click).notes;
  const judged = isOver ? heard : heard.slice(0, -1);
  const [worst] = worstNotesFirst(judged).filter((note) => isNoteFaulty(note));
  if (worst !== undefined) return { rating: 'slip', text: `${capital(whereOf(worst))}: ${noteText(instrument, worst)}.` };
  if (!isOver) return { rating: 'going', text: '' };
  const wanted = new Set(askedSounds(instrument, notes).map(({ of }) => of)).size;
  const there = judged.filter(({ ms }) => ms !== null).length;
  return there < leastHeard * wanted ? { rating: 'unheard', text: 'Too little was heard to judge it.' } : { rating: 'clean', text: '' };
}
