import { excerptSchema } from '@zelpit/core/excerpt';
import { noteIdSchema } from '@zelpit/core/fingering';
import { exerciseSchema, lineFingeringSchema } from '@zelpit/core/line';
import * as z from 'zod';
import { versionSchema } from './version';
import { typedText } from './text';
import { findSchema, pageOf, pageQuerySchema } from './page';
import { idSchema } from './problem';
import { bringBackRoute, everyone, route, staff } from './route';
import { archiveDates, momentSchema, signSchema } from './archive-sign';

/** How much a sheet can hold. */
export const sheetLimits = { lines: 60, repetitions: 50, speeds: 12, slowest: 20, fastest: 300, title: 120, note: 300, point: 300, words: 300 } as const;

const beatsAMinute = z
  .number()
  .int()
  .min(sheetLimits.slowest, `At least ${sheetLimits.slowest} beats a minute.`)
  .max(sheetLimits.fastest, `At most ${sheetLimits.fastest} beats a minute.`);
/** Speeds at which a line is played one after the other. */
const speedsSchema = z
  .array(beatsAMinute)
  .min(2, 'A drill has at least two speeds.')
  .max(sheetLimits.speeds, `A drill can have at most ${sheetLimits.speeds} speeds.`)
  .readonly();

/** What a thing to practise is made of: notes of the instrument, or words alone. */
export const musicKinds = ['line', 'scale', 'movement', 'chunk', 'part', 'tune'] as const;
export type MusicKind = (typeof musicKinds)[number];
/** Kinds that are a piece of a tune. */
const pieceKinds: readonly string[] = ['chunk', 'part', 'tune'];

/** What every item of a sheet has. */
const itemShape = {
  /** Times through the line, at each of its speeds. */
  repetitions: z.number().int().min(1, 'Repeat a line at least once.').max(sheetLimits.repetitions, `At most ${sheetLimits.repetitions} times.`),
  /** Beats a minute; null for free. The first of its speeds, where it has several. */
  tempo: beatsAMinute.nullable(),
  /** Speeds one after the other, until the first slip; null or absent for one pace. */
  speeds: speedsSchema.nullable().optional(),
  point: typedText.max(sheetLimits.point, `A point to watch can have at most ${sheetLimits.point} characters.`),
};

const musicShape = {
  kind: z.enum(musicKinds).default('line'),
  home: noteIdSchema,
  other: noteIdSchema,
  ...itemShape,
  /** The line's own music; without it the line is the change there and back, eight times. */
  exercise: exerciseSchema.nullable().optional(),
  /** The piece of a tune that it is; only for a chunk, a part and a tune. */
  excerpt: excerptSchema.nullable().optional(),
  /** How its notes are fingered where that is not the way taught first. */
  fingering: lineFingeringSchema.nullable().optional(),
};

/** Something to do that has no notes: posture, singing, clapping, a page of one's own book. */
const wordsShape = {
  kind: z.literal('words'),
  text: typedText.trim().min(1, 'Write what is to be done.').max(sheetLimits.words, `At most ${sheetLimits.words} characters.`),
  ...itemShape,
};

const hasItsMusic = ({ kind, excerpt }: { readonly kind: string; readonly excerpt?: unknown }): boolean => pieceKinds.includes(kind) === (excerpt != null);
const itsMusic = { message: 'A chunk, a part and a tune have a piece of a tune, other lines have none.', path: ['excerpt'] };

/** A line's own id; a new line may bring one that no line has yet, or none. */
const ownId = { id: idSchema.optional() };

/** One thing to practise. What comes later adds kinds. */
export const sheetLineInputSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...ownId, ...musicShape }).refine(hasItsMusic, itsMusic),
  z.strictObject({ ...ownId, ...wordsShape }),
]);
export type SheetLineInput = z.infer<typeof sheetLineInputSchema>;
export type MusicItemInput = Exclude<SheetLineInput, { readonly kind: 'words' }>;
export type WordsItemInput = Extract<SheetLineInput, { readonly kind: 'words' }>;

/** True for what has notes. */
export const hasMusic = <T extends { readonly kind: string }>(item: T): item is Exclude<T, { readonly kind: 'words' }> => item.kind !== 'words';

const title = typedText.trim().min(1, 'Enter a title.').max(sheetLimits.title, `A title can have at most ${sheetLimits.title} characters.`);
const isOnce = (found: readonly { id?: string }[]): boolean => {
  const ids = found.flatMap(({ id }) => (id === undefined ? [] : [id]));
  return new Set(ids).size === ids.length;
};
const lines = z
  .array(sheetLineInputSchema)
  .max(sheetLimits.lines, `A sheet can have at most ${sheetLimits.lines} lines.`)
  .refine(isOnce, 'The same line is on the sheet twice.');

export const sheetCreateSchema = z.strictObject({
  studentId: idSchema,
  tuneId: idSchema.nullable(),
  instrument: z.string().min(1).max(60),
  title,
  note: typedText.max(sheetLimits.note, `The message at the top can have at most ${sheetLimits.note} characters.`),
  lines,
});
export type SheetCreate = z.infer<typeof sheetCreateSchema>;

export const sheetListQuerySchema = pageQuerySchema.extend({ find: findSchema, student: idSchema.optional() });

/** `version` is the one that was read; a later one in the database refuses the save. */
export const sheetSaveSchema = z.strictObject({
  title,
  note: typedText.max(sheetLimits.note, `The message at the top can have at most ${sheetLimits.note} characters.`),
  lines,
  version: versionSchema,
});
export type SheetSave = z.infer<typeof sheetSaveSchema>;

const storedShape = {
  id: z.string(),
  code: z.string(),
  repetitions: z.number().int(),
  tempo: z.number().int().nullable(),
  speeds: z.array(z.number().int()).readonly().nullable(),
  point: z.string(),
};
const musicItemSchema = z.object({
  ...storedShape,
  kind: z.enum(musicKinds),
  home: z.string(),
  other: z.string(),
  exercise: exerciseSchema.nullable(),
  excerpt: excerptSchema.nullable(),
  fingering: lineFingeringSchema.nullable(),
});
export const sheetLineSchema = z.discriminatedUnion('kind', [musicItemSchema, z.object({ ...storedShape, kind: z.literal('words'), text: z.string() })]);
export type SheetLine = z.infer<typeof sheetLineSchema>;

export const sheetSummarySchema = z.object({
  id: z.string(),
  title: z.string(),
  student: z.object({ id: z.string(), alias: z.string() }),
  tune: z.object({ id: z.string(), title: z.string() }).nullable(),
  instrument: z.string(),
  lineCount: z.number().int(),
  updatedAt: z.string(),
});
export type SheetSummary = z.infer<typeof sheetSummarySchema>;

export const sheetDetailSchema = sheetSummarySchema.extend({ note: z.string(), version: z.number().int(), lines: z.array(sheetLineSchema) });
export type SheetDetail = z.infer<typeof sheetDetailSchema>;

/** A line opened by its short code. */
export const openedLineSchema = z.object({
  line: sheetLineSchema,
  instrument: z.string(),
  sheet: z.object({ id: z.string(), title: z.string() }),
  student: z.object({ id: z.string(), alias: z.string() }),
});
export type OpenedLine = z.infer<typeof openedLineSchema>;

/** Signs of a short code: no 0/O, 1/I/L, so that it can be read from paper. */
export const codeSigns = '23456789ABCDEFGHJKMNPQRSTUVWXYZ';
export const codeSchema = z
  .string()
  .trim()
  .toUpperCase()
  .regex(new RegExp(`^[${codeSigns}]{4}$`), 'A code has four letters or digits, as printed beside the line.');

const archivedCode = { code: z.string().regex(/^[2-9A-HJKMNP-Z]{4}$/) };
const archiveItemSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...musicShape, ...archivedCode }).refine(hasItsMusic, itsMusic),
  z.strictObject({ ...wordsShape, ...archivedCode }),
]);

/** A sheet in an archive. */
export const archiveSheetSchema = z.strictObject({
  sign: signSchema,
  student: signSchema,
  tune: signSchema.nullable(),
  instrument: z.string().min(1).max(60),
  title: typedText.min(1).max(sheetLimits.title),
  note: typedText.max(sheetLimits.note),
  changed: momentSchema,
  lines: z.array(archiveItemSchema).max(sheetLimits.lines),
  ...archiveDates,
});

/** Practice sheets. */
export const sheetRoutes = {
  sheets: route({
    method: 'get',
    path: '/sheets',
    summary: 'The sheets, changed last first; a student sees the own ones',
    who: everyone,
    query: sheetListQuerySchema,
    answers: { 200: pageOf(sheetSummarySchema) },
  }),
  addSheet: route({ method: 'post', path: '/sheets', summary: 'Add a sheet', who: staff, body: sheetCreateSchema, answers: { 201: sheetDetailSchema } }),
  sheet: route({ method: 'get', path: '/sheets/{id}', summary: 'One sheet with its lines', who: everyone, answers: { 200: sheetDetailSchema } }),
  saveSheet: route({
    method: 'put',
    path: '/sheets/{id}',
    summary: 'Save a sheet; 409 where it was changed after it was read',
    who: staff,
    body: sheetSaveSchema,
    answers: { 200: sheetDetailSchema },
  }),
  linesOfSheet: route({ method: 'get', path: '/sheets/{id}/lines.abc', summary: 'The lines of a sheet as ABC', who: everyone, answers: { 200: 'abc' } }),
  putSheetAway: route({ method: 'delete', path: '/sheets/{id}', summary: 'Put a sheet away', who: staff, answers: { 204: null } }),
  bringSheetBack: bringBackRoute('sheet'),
  lineByCode: route({
    method: 'get',
    path: '/lines/{code}',
    summary: 'A line by the code printed beside it',
    who: everyone,
    answers: { 200: openedLineSchema },
  }),
} as const;
