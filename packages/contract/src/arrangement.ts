import { noteIdSchema } from '@zelpit/core/fingering';
import { ornamentKinds } from '@zelpit/core/movement';
import { phraseRhythms } from '@zelpit/core/score';
import * as z from 'zod';
import { idSchema } from './problem';
import { holders, route, staff } from './route';
import { signSchema } from './archive-sign';

const noteIndex = z.string().regex(/^\d{1,5}$/, 'Notes are counted from 0.');

/** How one student plays one tune; the tune itself stays as it is written. */
export const arrangementSchema = z.strictObject({
  /** How far it is moved, positive upwards. */
  semitones: z.number().int().min(-24).max(24).default(0),
  /** Bars that are played an octave lower or higher, as counted aloud. */
  folds: z
    .array(
      z.strictObject({ from: z.number().int().min(0).max(99_999), to: z.number().int().min(0).max(99_999), octaves: z.union([z.literal(-1), z.literal(1)]) }),
    )
    .max(100, 'At most 100 stretches of a tune can be folded.')
    .default([]),
  /** At which layer decorated notes stand, by the index of the note; in full where nothing is said. */
  layers: z.record(noteIndex, z.enum(['bare', 'one', 'simpler', 'full', 'heavier'])).default({}),
  /** Ornaments that are added, by the index of the note. */
  ornaments: z.record(noteIndex, z.enum(ornamentKinds)).default({}),
  /** Grace notes that are added, by the index of the note. */
  graces: z.record(noteIndex, z.array(noteIdSchema).max(12)).default({}),
  /** Notes that are played as another one, by their index. */
  instead: z.record(noteIndex, noteIdSchema).default({}),
  /** Bars, as counted aloud, that are played in another rhythm than is written. */
  rhythms: z
    .array(z.strictObject({ from: z.number().int().min(0).max(99_999), to: z.number().int().min(0).max(99_999), rhythm: z.enum(phraseRhythms) }))
    .max(100, 'At most 100 phrases of a tune can have another rhythm.')
    .default([]),
  /** Which voice of a round is the student's, from 1; 0 for none in particular. */
  voice: z.number().int().min(0).max(12).default(0),
  /** Version of the tune's text that it was made for. */
  tuneVersion: z.number().int().min(1).default(1),
});
export type Arrangement = z.infer<typeof arrangementSchema>;
export const noArrangement: Arrangement = arrangementSchema.parse({});

/** Version 0: nothing is kept yet. */
export const keptArrangementSchema = z.object({ arrangement: arrangementSchema, version: z.number().int().min(0) });
export type KeptArrangement = z.infer<typeof keptArrangementSchema>;

export const arrangementSaveSchema = z.strictObject({
  student: idSchema,
  arrangement: arrangementSchema,
  /** The one that was read, 0 for none; a later one in the database refuses the save. */
  version: z.number().int().min(0).max(2_147_483_647),
});

/** A tune that a student plays in a way of their own. */
export const tuneOfStudentSchema = z.object({ tune: idSchema, title: z.string(), arrangement: arrangementSchema });
export type TuneOfStudent = z.infer<typeof tuneOfStudentSchema>;

/** An arrangement in an archive. */
export const archiveArrangementSchema = z.strictObject({ student: signSchema, tune: signSchema, arrangement: arrangementSchema });

/** How students play tunes. */
export const arrangementRoutes = {
  arrangement: route({
    method: 'get',
    path: '/tunes/{id}/arrangement',
    summary: 'How a student plays a tune; version 0 where nothing is kept',
    who: holders,
    query: z.object({ student: idSchema }),
    answers: { 200: keptArrangementSchema },
  }),
  saveArrangement: route({
    method: 'put',
    path: '/tunes/{id}/arrangement',
    summary: 'Keep how a student plays a tune; 409 where it was changed after it was read',
    who: staff,
    body: arrangementSaveSchema,
    answers: { 200: keptArrangementSchema },
  }),
  tunesOfStudent: route({
    method: 'get',
    path: '/students/{id}/tunes',
    summary: 'Tunes that a student plays in a way of their own, the last changed first; at most 200',
    who: holders,
    answers: { 200: z.array(tuneOfStudentSchema) },
  }),
} as const;
