import { noteIdSchema, tuningSchema } from '@zelpit/core/fingering';
import * as z from 'zod';
import { versionSchema } from './version';
import { modelIdSchema } from './model-id';
import { pageOf, pageQuerySchema } from './page';
import { idSchema } from './problem';
import { bringBackRoute, readers, route, staff } from './route';
import { typedText } from './text';
import { archiveDates, momentSchema, signSchema } from './archive-sign';

/** An instrument that somebody plays: which model, how it is tuned and held, which notes are known on it. */
export const heldInstrumentInputSchema = z.strictObject({
  name: typedText.trim().min(1, 'Enter a name.').max(60, 'A name can have at most 60 characters.'),
  /** Whose it is; null for the teacher who adds it. */
  studentId: idSchema.nullable(),
  /** A built-in instrument, or one that the studio made. */
  model: modelIdSchema,
  hands: z.enum(['left-on-top', 'right-on-top']),
  /** In which octave its music is written: as the chart has it, or an octave lower, as many books for the ocarina do. */
  written: z.enum(['as-charted', 'octave-lower']).default('as-charted'),
  tuning: tuningSchema,
  /** Answers to the questions on which schools disagree, by question. */
  schools: z.record(z.string().max(40), z.string().max(40)),
  /** Pitch of the reference note; null for the usual one. */
  referenceHertz: z.number().min(10, 'The pitch must be at least 10 Hz.').max(20_000, 'The pitch can be at most 20 000 Hz.').nullable(),
  knownNotes: z.array(noteIdSchema).max(80),
  note: typedText.max(300, 'A remark can have at most 300 characters.'),
});
export type HeldInstrumentInput = z.infer<typeof heldInstrumentInputSchema>;

/** `version` is the one that was read; a later one in the database refuses the save. */
export const heldInstrumentSaveSchema = heldInstrumentInputSchema.omit({ studentId: true }).extend({ version: versionSchema });
export type HeldInstrumentSave = z.infer<typeof heldInstrumentSaveSchema>;

export const heldInstrumentSchema = heldInstrumentInputSchema.omit({ studentId: true }).extend({
  id: z.string(),
  owner: z.object({ kind: z.enum(['student', 'teacher', 'studio']), id: z.string().nullable(), name: z.string() }),
  version: z.number().int(),
});
export type HeldInstrument = z.infer<typeof heldInstrumentSchema>;

export const heldInstrumentQuerySchema = pageQuerySchema.extend({ student: idSchema.optional() });

/** `student` is null for a teacher's or the studio's own; `model` a sign of this archive, or a built-in instrument. */
export const archiveInstrumentSchema = heldInstrumentInputSchema
  .omit({ studentId: true })
  .extend({ sign: signSchema, student: signSchema.nullable(), changed: momentSchema, ...archiveDates });

/** Instruments that people play. */
export const instrumentRoutes = {
  instruments: route({
    method: 'get',
    path: '/instruments',
    summary: 'Instruments that students and teachers play, by name; a student sees the own ones',
    who: readers,
    query: heldInstrumentQuerySchema,
    answers: { 200: pageOf(heldInstrumentSchema) },
  }),
  addInstrument: route({
    method: 'post',
    path: '/instruments',
    summary: 'Add an instrument of a student or of the teacher',
    who: staff,
    body: heldInstrumentInputSchema,
    answers: { 201: heldInstrumentSchema },
  }),
  saveInstrument: route({
    method: 'put',
    path: '/instruments/{id}',
    summary: 'Save an instrument’s settings and the notes known on it; 409 where it was changed after it was read',
    who: staff,
    body: heldInstrumentSaveSchema,
    answers: { 200: heldInstrumentSchema },
  }),
  putInstrumentAway: route({ method: 'delete', path: '/instruments/{id}', summary: 'Put an instrument away', who: staff, answers: { 204: null } }),
  bringInstrumentBack: bringBackRoute('instrument'),
} as const;
