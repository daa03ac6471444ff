import { excerptSchema } from '@zelpit/core/excerpt';
import { noteIdSchema } from '@zelpit/core/fingering';
import { exerciseSchema, lineFingeringSchema } from '@zelpit/core/line';
import { itemDetailsSchema } from '@zelpit/core/review';
import * as z from 'zod';
import { idSchema } from './problem';
import { typedText } from './text';

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

const isShown = (details: object): boolean => Object.values(details).every((value) => typeof value !== 'string' || typedText.safeParse(value).success);
const shownDetails = itemDetailsSchema.refine(isShown, 'This text has characters that cannot be shown. Remove them and try again.');

/** What every item of a sheet has. */
const itemShape = {
  /** Times through the line, at each of its speeds. */
  repetitions: z.number().int().min(1, 'Repeat a line at least once.').max(sheetLimits.repetitions, `At most ${sheetLimits.repetitions} times.`),
  /** Beats a minute; null for free. The first of its speeds, where it has several. */
  tempo: beatsAMinute.nullable(),
  /** Speeds one after the other, until the first slip; null or absent for one pace. */
  speeds: speedsSchema.nullable().optional(),
  point: typedText.max(sheetLimits.point, `A point to watch can have at most ${sheetLimits.point} characters.`),
  /** What is said of it beside that; null or absent for nothing. */
  details: shownDetails.nullable().optional(),
};

export const musicShape = {
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
export const wordsShape = {
  kind: z.literal('words'),
  text: typedText.trim().min(1, 'Write what is to be done.').max(sheetLimits.words, `At most ${sheetLimits.words} characters.`),
  ...itemShape,
};

export const hasItsMusic = ({ kind, excerpt }: { readonly kind: string; readonly excerpt?: unknown }): boolean =>
  pieceKinds.includes(kind) === (excerpt != null);
export const itsMusic = { message: 'A chunk, a part and a tune have a piece of a tune, other lines have none.', path: ['excerpt'] };

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
