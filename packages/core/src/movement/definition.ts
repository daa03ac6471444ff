import * as z from 'zod';
import { noteIdSchema, withoutMarks, type NoteId } from '../fingering';

const letters = z.array(noteIdSchema).min(1, 'A part names at least one grace note.').max(8, 'A part names at most eight grace notes.').readonly();

/** What a movement is made of, in its order; the theme note itself follows. */
export const movementPartSchema = z.discriminatedUnion('part', [
  /** The grace note that the law of openers gives; nothing where none is possible. */
  z.strictObject({ part: z.literal('opener') }),
  /** The theme note, sounded for a moment. */
  z.strictObject({ part: z.literal('theme') }),
  /** The first of these grace notes that the theme note allows. */
  z.strictObject({ part: z.literal('second'), from: letters }),
  /** `light` taps with the lower hand's finger nearest the face only. */
  z.strictObject({ part: z.literal('tap'), weight: z.enum(['heavy', 'light']).optional() }),
  /** The lowest note, every hole closed. */
  z.strictObject({ part: z.literal('low') }),
  /** A grace note on the lowest note: the first of these that has not the letter of the note before. */
  z.strictObject({ part: z.literal('inner'), from: letters }),
  /** A note as the chart has it, whatever it is written over. */
  z.strictObject({ part: z.literal('charted'), note: noteIdSchema }),
  /** A grace note on the theme note, or on a note. */
  z.strictObject({ part: z.literal('grace'), written: noteIdSchema, over: noteIdSchema.optional() }),
]);
export type MovementPart = Readonly<z.infer<typeof movementPartSchema>>;

/** An id is a word in small letters: "heavy-throw". */
export const movementIdSchema = z
  .string()
  .min(1, 'A movement needs an id.')
  .max(60, 'An id can have at most 60 characters.')
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'An id is written in small letters and figures with hyphens between.');

const nameSchema = z.string().trim().min(1, 'A movement needs a name.').max(60, 'A name of a movement has at most 60 characters.');
const hintSchema = z
  .string()
  .trim()
  .min(1, 'A hint is not empty.')
  .max(200, 'A hint has at most 200 characters.')
  .regex(withoutMarks, 'A hint is plain text, without marks such as <b>.');
const mostGraces = 12;

/** One start and arrival that a teacher wants otherwise than the laws give it. */
export const movementCellSchema = z.strictObject({
  before: noteIdSchema.nullable(),
  after: noteIdSchema,
  /** Letters of the grace notes in their order. */
  graces: z.array(noteIdSchema).max(mostGraces, `A movement has at most ${mostGraces} grace notes.`).readonly(),
});
export type MovementCell = Readonly<z.infer<typeof movementCellSchema>>;

/** A movement as data: what it is made of, and how it stands to others. */
export const movementDefinitionSchema = z.strictObject({
  id: movementIdSchema,
  /** The name that is shown, then the others that are in use. */
  names: z.array(nameSchema).min(1, 'A movement needs a name.').max(8, 'A movement has at most eight names.').readonly(),
  /** Other spellings under which it is looked for. */
  spelt: z.array(nameSchema).max(12).readonly().optional(),
  parts: z
    .array(movementPartSchema)
    .min(1, 'A movement has at least one element.')
    .max(mostGraces, `A movement has at most ${mostGraces} elements.`)
    .readonly(),
  /** Theme notes that it ends on; every note that its parts allow where nothing is said. */
  arrivals: z.array(noteIdSchema).min(1).max(20).readonly().optional(),
  /** Movements that come before it. */
  after: z.array(movementIdSchema).max(12).readonly(),
  /** Simpler ones that can stand in its place, the fullest first. */
  simpler: z.array(movementIdSchema).max(12).readonly(),
  /** True where a first note that sounds already is not sounded again. */
  skipsSounding: z.boolean().optional(),
  /** True where it leaves its note and comes back by itself, so that the same note before and after is its first drill. */
  returns: z.boolean().optional(),
  /** Where its onsets are evenly spaced rather than as long as their kind. */
  isEven: z.boolean().optional(),
  /** What to listen for, `{note}` for its theme note; the usual words where nothing is said. */
  listen: hintSchema.optional(),
  /** One physical hint, likewise. */
  hint: hintSchema.optional(),
  /** Where a teacher wants a start and arrival otherwise. */
  cells: z.array(movementCellSchema).max(120).readonly().optional(),
});
export type MovementDefinition = Readonly<z.infer<typeof movementDefinitionSchema>>;

/** True for a tap by itself, which needs its own note sounding before it. */
export const isTapAlone = ({ parts }: Pick<MovementDefinition, 'parts'>): boolean => parts.every(({ part }) => part === 'tap');

/** A teacher's choices; the default of each is the usual way. */
export const movementSettingsSchema = z.strictObject({
  /** From the lowest note: without the low note that sounds already, or in full. */
  fromLowest: z.enum(['short', 'full']).default('short'),
  /** Thumb into a note whose index finger leaves too: all fingers off at once, or the thumb over the note before. */
  thumbOverUpper: z.enum(['all-off', 'thumb-first']).default('all-off'),
  /** A single grace note coming down from a note with the index finger up: the thumb, or none. */
  thumbDown: z.enum(['thumb', 'plain']).default('thumb'),
  /** The movements that end on the lowest note too, as in the classical repertoire. */
  classical: z.boolean().default(false),
  /** Grace notes, by their letters, that are played with the next finger of the hand too. */
  twoFingers: z.array(noteIdSchema).max(12).readonly().default([]),
  /** Notes that are tapped lightly: by the lower hand's open finger nearest the face only. */
  lightTaps: z.array(noteIdSchema).max(12).readonly().default([]),
  /** Two taps of the finger one after the other: both alike, or the second by drawing it back over the hole. */
  secondTap: z.enum(['tap', 'drag']).default('tap'),
  /** Where the beat falls: on the first element, on the theme note, or on the first low note where there is one. */
  beat: z.enum(['first', 'theme', 'first-low']).default('first'),
  /** Counting words of an even movement: on its opener, low note and grace notes, or on its onsets. */
  count: z.enum(['with-opener', 'onsets']).default('onsets'),
  /** A low note inside a grip or throw lasts so many grace notes. */
  lowTimes: z.number().min(1).max(2.5).default(1.5),
  /** Onsets of an even movement are so many grace notes apart. */
  evenTimes: z.number().min(1.5).max(4).default(2),
});
export type MovementSettings = Readonly<z.infer<typeof movementSettingsSchema>>;

export const usualMovementSettings: MovementSettings = movementSettingsSchema.parse({});

/** Letters in which a definition names grace notes and notes, once each. */
export function notesNamed({ parts, arrivals = [], cells = [] }: MovementDefinition): readonly NoteId[] {
  const ofPart = (part: MovementPart): readonly NoteId[] => {
    switch (part.part) {
      case 'second':
      case 'inner':
        return part.from;
      case 'charted':
        return [part.note];
      case 'grace':
        return part.over === undefined ? [part.written] : [part.written, part.over];
      default:
        return [];
    }
  };
  const ofCell = ({ before, after, graces }: MovementCell): readonly NoteId[] => [...(before === null ? [] : [before]), after, ...graces];
  return [...new Set([...parts.flatMap(ofPart), ...arrivals, ...cells.flatMap(ofCell)])];
}
