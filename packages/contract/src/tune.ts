import { noteIdSchema } from '@zelpit/core/fingering';
import { longestTune } from '@zelpit/core/tune';
import * as z from 'zod';
import { versionSchema } from './version';
import { findSchema, pageOf, pageQuerySchema } from './page';
import { typedText } from './text';
import { bringBackRoute, holders, route, staff } from './route';
import { archiveDates, momentSchema, signSchema } from './archive-sign';

export const longestBook = 8_000_000;
const abcText = typedText.max(longestTune, `The text of one tune can have at most ${longestTune} characters.`);

const instrument = z.string().min(1).max(60);
/** Id of a voice as the text names it; empty for the first. */
const voice = typedText.max(40, 'The name of a voice can have at most 40 characters.');
/** Which note of a chord is played. */
const chordNote = z.enum(['highest', 'lowest', 'first']);

/**
 * `version` is the one that was read; a later one in the database refuses the save.
 * `instrument` moves the tune to another one, `voice` and `chordNote` choose what is read of it; what is not given stays.
 */
export const tuneInputSchema = z.strictObject({
  abc: abcText,
  version: versionSchema,
  instrument: instrument.optional(),
  voice: voice.optional(),
  chordNote: chordNote.optional(),
});
export type TuneInput = z.infer<typeof tuneInputSchema>;

/** What a tune is played for. */
export const tuneUses = ['dancers', 'church', 'class', 'session'] as const;
export type TuneUse = (typeof tuneUses)[number];

/** Ids with commas between, as an address has them. */
const idList = (most: number) =>
  z
    .string()
    .max(2000)
    .transform((text) => text.split(',').filter((id) => id !== ''))
    .pipe(z.array(noteIdSchema).max(most));

/** What tunes are looked for. */
const tuneFilterShape = {
  rhythm: typedText.max(60).optional(),
  /** Ids of instruments with commas between. */
  instrument: z.string().max(600).optional(),
  /** Notes that are known, with commas between: with `missing`, tunes that ask for so many others at most. */
  known: idList(80).optional(),
  missing: z.coerce.number().int().min(0).max(40).optional(),
  /** Names of movements that are had, with bars between: tunes with no others. */
  movements: typedText.max(2000).optional(),
  meter: typedText.max(20).optional(),
  use: z.enum(tuneUses).optional(),
  hard: z.enum(['little', 'some', 'much']).optional(),
  /** Notes that follow each other in it, with commas between. */
  phrase: idList(40).optional(),
  /** Notes of a range, with commas between: tunes that keep within it. */
  within: idList(80).optional(),
  /** A title: tunes that are usually played before or after it. */
  beside: typedText.max(120).optional(),
};

export const tuneListQuerySchema = pageQuerySchema.extend({ find: findSchema, ...tuneFilterShape });
export const tuneOpeningsQuerySchema = z.object({ ...tuneFilterShape, known: idList(80) });

/** For which instrument the tunes of a file are read. */
export const tuneImportQuerySchema = z.object({ instrument: instrument.default('practice-chanter') });

export const tuneSummarySchema = z.object({
  id: z.string(),
  title: z.string(),
  rhythm: z.string(),
  meter: z.string(),
  key: z.string(),
  bars: z.number().int(),
  /** Theme notes that its instrument does not have. */
  outside: z.number().int(),
  instrument: z.string(),
  /** Notes of that instrument that it asks for. */
  notes: z.array(noteIdSchema),
  /** Theme notes that it asks for: who knows these can play it. */
  theme: z.array(noteIdSchema),
  /** "AABB" */
  form: z.string(),
  /** How much a learner has to mind in it. */
  hard: z.enum(['little', 'some', 'much', 'does not fit']),
  /** What it is played for. */
  uses: z.array(z.enum(tuneUses)),
  /** Titles of the tunes that are usually played before and after it; empty for none. */
  before: z.string(),
  after: z.string(),
  /** Names of the movements in it. */
  movements: z.array(z.string()),
  /** How many places of its text were passed over or do not add up. */
  findings: z.number().int(),
});
export type TuneSummary = z.infer<typeof tuneSummarySchema>;

/** A fingering that a teacher wants for a note of this tune, whatever the path finder would choose. */
export const tunePinSchema = z.strictObject({
  note: noteIdSchema,
  /** Its holes: how far each is covered, 0 to 1. */
  pattern: z.array(z.number().min(0).max(1)).min(1).max(20),
});
export type TunePin = z.infer<typeof tunePinSchema>;
/** `version` is that of the fixed fingerings that were read; they have one of their own beside the text's. */
export const tunePinsSchema = z.strictObject({
  pins: z.array(tunePinSchema).max(80, 'At most 80 notes of a tune can have a fixed fingering.'),
  version: versionSchema,
});
export type TunePins = z.infer<typeof tunePinsSchema>;

/** Which stretch of a tune a script is for, as the address of the page has it: "1-1", "6a", "n5-9" for notes. */
export const scriptKeySchema = z
  .string()
  .regex(/^(\d{1,5}(-\d{1,5}|[ab])|n\d{1,6}-\d{1,6})$/, 'A stretch is written as 1-2, as 6a for half a bar, or as n5-9 for notes.');

/** What teachers say of a tune beside its text. */
export const tuneNotesSchema = z.strictObject({
  /** The form where it was corrected: "A8 B8 B8"; empty for the one that is found. */
  form: typedText.max(400, 'A form can have at most 400 characters.').default(''),
  uses: z.array(z.enum(tuneUses)).max(tuneUses.length).default([]),
  /** Titles of the tunes that are played before and after it in a set; empty for none. */
  before: typedText.max(120, 'A title can have at most 120 characters.').default(''),
  after: typedText.max(120, 'A title can have at most 120 characters.').default(''),
  /** Voices of a round, and the section after which the next one enters; null for no round. */
  round: z
    .strictObject({ voices: z.number().int().min(2).max(12), after: z.number().int().min(1).max(2000).nullable() })
    .nullable()
    .default(null),
  /** Scripts that were changed by hand, by the stretch that they are for. */
  scripts: z
    .record(scriptKeySchema, typedText.max(4000, 'A script can have at most 4 000 characters.'))
    .refine((scripts) => Object.keys(scripts).length <= 200, 'At most 200 scripts of a tune can be kept.')
    .default({}),
});
export type TuneNotes = z.infer<typeof tuneNotesSchema>;
export const noTuneNotes: TuneNotes = tuneNotesSchema.parse({});

/** `version` is that of what was read; it has one of its own beside the text's. */
export const tuneNotesSaveSchema = z.strictObject({ notes: tuneNotesSchema, version: versionSchema });

export const tuneDetailSchema = tuneSummarySchema.extend({
  about: tuneNotesSchema,
  aboutVersion: z.number().int(),
  abc: z.string(),
  voice: z.string(),
  chordNote,
  version: z.number().int(),
  pins: z.array(tunePinSchema),
  pinsVersion: z.number().int(),
});
export type TuneDetail = z.infer<typeof tuneDetailSchema>;

export const abcFaultSchema = z.object({ line: z.number().int(), column: z.number().int(), problem: z.string(), expected: z.string() });
export type AbcFaultReport = z.infer<typeof abcFaultSchema>;

export const refusedTuneSchema = z.object({ title: z.string(), firstLine: z.number().int(), abc: z.string(), faults: z.array(abcFaultSchema) });
export type RefusedTune = z.infer<typeof refusedTuneSchema>;

/** A place of a text that was passed over or does not add up; bar 0 where it belongs to none. */
export const findingSchema = z.object({ bar: z.number().int(), text: z.string() });

/** A tune that came in, with what a teacher should look at. */
export const addedTuneSchema = tuneSummarySchema.extend({ look: z.array(findingSchema) });
export type AddedTune = z.infer<typeof addedTuneSchema>;

export const importResultSchema = z.object({ saved: z.array(addedTuneSchema), refused: z.array(refusedTuneSchema) });
export type ImportResult = z.infer<typeof importResultSchema>;

/** What a save of one tune's text gives back: the tune, or where the text cannot be read. */
export const tuneSaveSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('saved'), tune: tuneDetailSchema }),
  z.object({ kind: z.literal('refused'), faults: z.array(abcFaultSchema) }),
]);
export type TuneSave = z.infer<typeof tuneSaveSchema>;

/** A tune in an archive. */
export const archiveTuneSchema = z.strictObject({
  sign: signSchema,
  instrument: z.string().min(1).max(60),
  abc: typedText.max(longestTune),
  voice: voice.default(''),
  chordNote: chordNote.default('highest'),
  pins: tunePinsSchema.shape.pins.default([]),
  about: tuneNotesSchema.default(noTuneNotes),
  changed: momentSchema,
  ...archiveDates,
});

/** How many tunes can be played with some notes, and how many one more note opens. */
export const tuneOpeningsSchema = z.object({
  playable: z.number().int(),
  opens: z.array(z.object({ note: z.string(), tunes: z.number().int() })),
  /** Tunes that need two notes or more. */
  more: z.number().int(),
});
export type TuneOpenings = z.infer<typeof tuneOpeningsSchema>;

/** Tunes. */
export const tuneRoutes = {
  openings: route({
    method: 'get',
    path: '/tunes/openings',
    summary: 'How many tunes can be played with the notes that are known, and how many each other note opens',
    who: holders,
    query: tuneOpeningsQuerySchema,
    answers: { 200: tuneOpeningsSchema },
  }),
  tunes: route({
    method: 'get',
    path: '/tunes',
    summary: 'The tunes by title',
    who: holders,
    query: tuneListQuerySchema,
    answers: { 200: pageOf(tuneSummarySchema) },
  }),
  book: route({
    method: 'get',
    path: '/tunes/book',
    summary: 'All tunes as the text of one ABC book, by title',
    who: holders,
    query: z.object({ instrument: instrument.optional() }),
    answers: { 200: z.object({ abc: z.string() }) },
  }),
  tune: route({ method: 'get', path: '/tunes/{id}', summary: 'One tune with its text', who: holders, answers: { 200: tuneDetailSchema } }),
  bringTunes: route({
    method: 'post',
    path: '/tunes/import',
    summary: 'Bring in an ABC file: what can be read is saved, what cannot is named with its faults (201 where anything was saved)',
    who: staff,
    query: tuneImportQuerySchema,
    body: 'abc',
    answers: { 200: importResultSchema, 201: importResultSchema },
  }),
  saveTune: route({
    method: 'put',
    path: '/tunes/{id}',
    summary: 'Save the text of a tune; a text that cannot be read is not saved and its faults come back',
    who: staff,
    body: tuneInputSchema,
    answers: { 200: tuneSaveSchema },
  }),
  pinFingers: route({
    method: 'put',
    path: '/tunes/{id}/pins',
    summary: 'Which fingerings a tune must take, one a note; the whole list. 409 where they were changed after they were read',
    who: staff,
    body: tunePinsSchema,
    answers: { 200: tuneDetailSchema },
  }),
  saveTuneNotes: route({
    method: 'put',
    path: '/tunes/{id}/about',
    summary: 'What teachers say of a tune: form, use, neighbours, round, scripts; the whole of it. 409 where it was changed after it was read',
    who: staff,
    body: tuneNotesSaveSchema,
    answers: { 200: tuneDetailSchema },
  }),
  putTuneAway: route({ method: 'delete', path: '/tunes/{id}', summary: 'Put a tune away', who: staff, answers: { 204: null } }),
  bringTuneBack: bringBackRoute('tune'),
} as const;
