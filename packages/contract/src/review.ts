import { noteIdSchema } from '@zelpit/core/fingering';
import * as z from 'zod';
import { momentSchema, signSchema } from './archive-sign';
import { idSchema } from './problem';
import { sheetLimits, sheetLineInputSchema } from './sheet-item';
import { typedText } from './text';

const dayText = z.iso.date('A day is written as 2026-12-01.');

/** Minutes that a student can practise on a day. */
export const dayMinutesSchema = z.number().int().min(5, 'A day of practice has at least 5 minutes.').max(240, 'A day of practice has at most 240 minutes.');

/** The one thing that comes first for some weeks. */
export const prioritySchema = z.strictObject({
  text: typedText.trim().min(1, 'Say what comes first.').max(200, 'What comes first can have at most 200 characters.'),
  sentence: typedText.max(300, 'A sentence can have at most 300 characters.'),
  until: dayText,
  /** The change that it is about; null for none. */
  home: noteIdSchema.nullable(),
  other: noteIdSchema.nullable(),
});

/** What makes a sheet a review. */
export const reviewSchema = z.strictObject({
  /** The day of the lesson, or of writing. */
  on: dayText,
  /** The day of the next lesson: up to there it is practised. */
  until: dayText,
  priority: prioritySchema.nullable(),
  /** So long the student practises on a day. */
  minutes: dayMinutesSchema,
  /** What was struck out or left out, with the reason; the student does not see it. */
  struck: z
    .array(z.strictObject({ item: sheetLineInputSchema, reason: typedText.max(200) }))
    .max(sheetLimits.lines, `At most ${sheetLimits.lines} items can be struck out.`),
  /** The items as they were proposed, by their ids. */
  proposed: z.array(sheetLineInputSchema).max(sheetLimits.lines),
});
export type Review = z.infer<typeof reviewSchema>;

/** A review in an archive: its sheet's own fields beside those of every sheet. */
export const archiveReviewSchema = z.object({
  review: reviewSchema.nullable().default(null),
  lesson: signSchema.nullable().default(null),
  sent: momentSchema.nullable().default(null),
  opened: momentSchema.nullable().default(null),
  replaces: signSchema.nullable().default(null),
});

export const reviewCreateSchema = z.strictObject({
  studentId: idSchema,
  /** The lesson that it is written after; null for none. */
  lessonId: idSchema.nullable(),
  /** The day by the clock of who writes. */
  on: dayText,
});

/** How a review is sent: by a link that is shown, and by mail where an address is given. */
export const reviewSendSchema = z.strictObject({
  /** The version that was read: what is sent is what was seen. */
  version: z.number().int().min(1),
  /** Where the mail goes, a grown-up’s address; null for none. */
  mailTo: z.email('That is not an e-mail address.').max(200).nullable(),
});

/** So long a review can be taken back after it was sent, in seconds, where nobody has opened it. */
export const takeBackSeconds = 60;
