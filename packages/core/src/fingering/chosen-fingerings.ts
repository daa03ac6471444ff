import * as z from 'zod';
import { ZelpitFault } from '../fault';
import { holesSchema, noteIdSchema, type Fingering, type Instrument, type NoteId } from './instrument';
import { noteOf } from './lookup';
import { isSameFingers, patternKey } from './pattern';
import { withFirst } from './schools';

/** A way of a note that was chosen in place of the one taught first. */
export const chosenFingeringSchema = z.strictObject({
  note: noteIdSchema,
  pattern: holesSchema.readonly(),
  foot: z.enum(['closed', 'open']).optional(),
});
export type ChosenFingering = Readonly<z.infer<typeof chosenFingeringSchema>>;

/** A way of a note in one word: the note's id, with a number where it is not the way taught first. */
export const wayIdOf = ({ note, rank }: Pick<Fingering, 'note' | 'rank'>): string => (rank === 1 ? note : `${note}.${rank}`);

/** The ways among these that are not the ones taught first, each once. */
export function chosenOf(fingerings: readonly Fingering[]): readonly ChosenFingering[] {
  const chosen = new Map(
    fingerings
      .filter(({ rank }) => rank > 1)
      .map(({ note, pattern, foot }) => [`${note} ${keyOf({ pattern, foot })}`, { note, pattern, ...(foot !== undefined && { foot }) }] as const),
  );
  return [...chosen.values()];
}

const known = new WeakMap<Instrument, Map<string, Instrument>>();

/**
 * The instrument with the chosen ways taught first: what is computed and drawn of it then is in these fingers. A way that it no longer has is played all the
 * same; one for another number of holes, or of a note that it does not have, is passed over. The same answer for the same choice.
 */
export function withChosen(instrument: Instrument, chosen: readonly ChosenFingering[] | null | undefined): Instrument {
  const fitting = (chosen ?? []).filter(({ note, pattern }) => pattern.length === instrument.holes.length && instrument.notes.some(({ id }) => id === note));
  if (fitting.length === 0) return instrument;
  const key = fitting.map((each) => `${each.note} ${keyOf(each)}`).join('\n');
  const all = known.get(instrument) ?? new Map<string, Instrument>();
  known.set(instrument, all);
  const made = all.get(key) ?? fitting.reduce(withOne, instrument);
  all.set(key, made);
  return made;
}

function withOne(instrument: Instrument, chosen: ChosenFingering): Instrument {
  const there = wayOf(instrument, chosen);
  if (there?.rank === 1) return instrument;
  const ofNote = instrument.fingerings.filter(({ note }) => note === chosen.note);
  const register = ofNote.find(({ rank }) => rank === 1)?.register ?? 1;
  const own: Fingering = there ?? { ...chosen, school: 'own', register, rank: 1 + Math.max(0, ...ofNote.map(({ rank }) => rank)), source: 'teacher' };
  const fingerings = there === undefined ? [...instrument.fingerings, own] : instrument.fingerings;
  return { ...instrument, fingerings: withFirst(fingerings, own) };
}

/** Whether a way is the chosen one: the same note and fingers, and the same foot where one is said. */
export const isSameWay = (way: Fingering, { note, pattern, foot }: ChosenFingering): boolean =>
  way.note === note && (foot === undefined || way.foot === foot) && way.pattern.length === pattern.length && isSameFingers(way.pattern, pattern);

const wayOf = ({ fingerings }: Instrument, chosen: ChosenFingering): Fingering | undefined => fingerings.find((each) => isSameWay(each, chosen));

const keyOf = ({ pattern, foot }: Pick<ChosenFingering, 'pattern' | 'foot'>): string => `${patternKey(pattern)}${foot ?? ''}`;

/**
 * A note by its name, and that its fingers are an alternative where they are not the ones taught first.
 * @throws ZelpitFault `unknown-note`
 * @example wayName(practiceChanter, { note: 'e', pattern: pattern('X XXO XXXX') }) // 'E (fingering 2)'
 */
export function wayName(
  instrument: Instrument,
  { note, pattern, foot }: { readonly note: NoteId; readonly pattern: readonly number[]; readonly foot?: ChosenFingering['foot'] },
): string {
  const name = noteOf(instrument, note).schoolName;
  const rank = wayOf(instrument, { note, pattern, foot })?.rank ?? 2;
  if (rank === 1) return name;
  return `${name} (fingering ${rank})`;
}

/**
 * Refuses ways that the instrument cannot have, of notes that are not played, and two ways of one note.
 * @param played the notes that the ways are for
 * @throws ZelpitFault `invalid-pattern`; `unknown-note`
 */
export function assertChosen(instrument: Instrument, chosen: readonly ChosenFingering[] | null | undefined, played: ReadonlySet<NoteId>): void {
  const seen = new Set<NoteId>();
  for (const { note, pattern } of chosen ?? []) {
    const name = noteOf(instrument, note).schoolName;
    const count = instrument.holes.length;
    if (pattern.length !== count)
      throw new ZelpitFault('invalid-pattern', `The ${instrument.name} has ${count} holes; a fingering of ${name} with ${pattern.length} came.`, { note });
    if (!played.has(note)) throw new ZelpitFault('invalid-pattern', `A fingering of ${name} came for a line that does not play it.`, { note });
    if (seen.has(note)) throw new ZelpitFault('invalid-pattern', `Two fingerings of ${name} came for one line.`, { note });
    seen.add(note);
  }
}
