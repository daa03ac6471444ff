import { instrumentSchema, keptFingeringSchema, movementDefinitionSchema, movementIdSchema } from '@zelpit/core';
import * as z from 'zod';
import { heldInstrumentInputSchema } from './instrument';
import { movementChoicesSchema } from './movement';
import { sheetLineInputSchema } from './sheet';
import { consentSchema, studentMovementsSchema } from './student';
import { typedText } from './text';
import { trialInputSchema } from './trial';
import { tunePinsSchema } from './tune';

/**
 * A whole studio as one file: a zip of `manifest.json` and one JSON file a kind. Things are named by signs that hold
 * inside the archive only ("s1", "t4"), so that it can be brought into any studio on any server. docs/archive.md
 * describes it.
 */
export const archiveFormat = 'zelpit-studio';
export const archiveVersion = 4;
const firstParts = ['studio.json', 'students.json', 'tunes.json', 'sheets.json'] as const;
const secondParts = [...firstParts, 'instruments.json', 'models.json', 'fingerings.json'] as const;
const thirdParts = [...secondParts, 'trials.json'] as const;
export const archiveParts = [...thirdParts, 'movements.json'] as const;
/** Which files an archive of each version has. */
export const archivePartsOf: Readonly<Record<number, readonly ArchivePart[]>> = { 1: firstParts, 2: secondParts, 3: thirdParts, 4: archiveParts };
export type ArchivePart = (typeof archiveParts)[number];

/** Largest archive taken, packed and unpacked, in bytes. */
export const longestArchive = 50_000_000;
export const longestUnpacked = 400_000_000;

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const moment = z.iso.datetime();

export const archiveManifestSchema = z.strictObject({
  format: z.literal(archiveFormat),
  version: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(archiveVersion)]),
  /** When it was written. */
  written: moment,
  /** SHA-256 of each file, in hexadecimal. */
  files: z.strictObject({
    'studio.json': sha256,
    'students.json': sha256,
    'tunes.json': sha256,
    'sheets.json': sha256,
    // Since version 2.
    'instruments.json': sha256.optional(),
    'models.json': sha256.optional(),
    'fingerings.json': sha256.optional(),
    // Since version 3.
    'trials.json': sha256.optional(),
    // Since version 4.
    'movements.json': sha256.optional(),
  }),
  /** SHA-256 of the rest of this manifest, written as JSON without spaces in this order of fields. */
  checksum: sha256,
});
export type ArchiveManifest = z.infer<typeof archiveManifestSchema>;

const sign = z.string().regex(/^[a-z]\d{1,7}$/);
const dates = { created: moment, putAway: moment.nullable() };

export const archiveStudioSchema = z.strictObject({ name: typedText.min(1).max(80) });
export const archiveStudentSchema = z.strictObject({
  ...{ sign, alias: typedText.min(1).max(60), consent: consentSchema.nullable() },
  movements: studentMovementsSchema.default([]),
  ...dates,
});
export const archiveTuneSchema = z.strictObject({
  sign,
  instrument: z.string().min(1).max(60),
  abc: typedText.max(200_000),
  pins: tunePinsSchema.shape.pins.default([]),
  changed: moment,
  ...dates,
});
export const archiveSheetSchema = z.strictObject({
  sign,
  student: sign,
  tune: sign.nullable(),
  instrument: z.string().min(1).max(60),
  title: typedText.min(1).max(120),
  note: typedText.max(300),
  changed: moment,
  lines: z.array(sheetLineInputSchema.omit({ id: true }).extend({ code: z.string().regex(/^[2-9A-HJKMNP-Z]{4}$/) })).max(60),
  ...dates,
});

/** `student` is null for a teacher's or the studio's own; `model` a sign of this archive, or a built-in instrument. */
export const archiveInstrumentSchema = heldInstrumentInputSchema
  .omit({ studentId: true })
  .extend({ sign, student: sign.nullable(), changed: moment, ...dates });
export const archiveModelSchema = z.strictObject({ sign, instrument: instrumentSchema, by: typedText.max(120), changed: moment, ...dates });
export const archiveFingeringSchema = keptFingeringSchema.extend({ model: z.string().min(1).max(60), by: typedText.max(120), on: z.iso.date() });
/** `model` is a sign of this archive, or a built-in instrument; the student a sign, or null for a teacher who tried it. */
export const archiveTrialSchema = z.strictObject({
  student: sign.nullable(),
  model: z.string().min(1).max(60),
  result: trialInputSchema.shape.result,
  at: moment,
});

const archiveMovementSchema = z.strictObject({
  movement: movementIdSchema,
  definition: movementDefinitionSchema.nullable(),
  by: typedText.max(120),
  on: z.iso.date(),
});
/** What the studio says of movements; `choices` is null where it plays them the usual way. */
export const archiveMovementsSchema = z.strictObject({
  choices: movementChoicesSchema.nullable(),
  kept: z.array(archiveMovementSchema).max(300),
});

export const archiveContentSchema = z.strictObject({
  'studio.json': archiveStudioSchema,
  'students.json': z.array(archiveStudentSchema).max(5000),
  'tunes.json': z.array(archiveTuneSchema).max(50_000),
  'sheets.json': z.array(archiveSheetSchema).max(50_000),
  'instruments.json': z.array(archiveInstrumentSchema).max(20_000).default([]),
  'models.json': z.array(archiveModelSchema).max(2000).default([]),
  'fingerings.json': z.array(archiveFingeringSchema).max(50_000).default([]),
  'trials.json': z.array(archiveTrialSchema).max(200_000).default([]),
  'movements.json': archiveMovementsSchema.default({ choices: null, kept: [] }),
});
export type ArchiveContent = z.infer<typeof archiveContentSchema>;

export const archiveQuerySchema = z.object({
  /** What happens to what is in the studio already: it must be empty, or it is put away first. */
  before: z.enum(['empty', 'put-away']).default('empty'),
});

export const archiveResultSchema = z.object({
  students: z.number().int(),
  tunes: z.number().int(),
  sheets: z.number().int(),
  instruments: z.number().int(),
  models: z.number().int(),
  fingerings: z.number().int(),
  trials: z.number().int(),
  movements: z.number().int(),
  /** Lines whose codes were taken on this server, so that they got new ones. */
  newCodes: z.number().int(),
  putAway: z.number().int(),
});
export type ArchiveResult = z.infer<typeof archiveResultSchema>;
