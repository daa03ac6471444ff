import * as z from 'zod';
import { studentLinkSchema } from './account';
import { reviewCreateSchema, reviewSendSchema, takeBackSeconds } from './review';
import { route, staff } from './route';
import { sheetDetailSchema } from './sheet';

/** A review that was sent, and the link to hand over, shown once. */
export const sentReviewSchema = z.object({ sheet: sheetDetailSchema, link: studentLinkSchema });
export type SentReview = z.infer<typeof sentReviewSchema>;

/** Reviews: sheets that are written after a lesson, and sent. */
export const reviewRoutes = {
  proposeReview: route({
    method: 'post',
    path: '/reviews',
    summary: 'Begin a review, proposed from plan, record, log and what was heard. One that was begun after the same lesson is given back as it is',
    who: staff,
    body: reviewCreateSchema,
    answers: { 200: sheetDetailSchema, 201: sheetDetailSchema },
  }),
  sendReview: route({
    method: 'post',
    path: '/sheets/{id}/send',
    summary: 'Send a review: from then on it never changes. The link opens the student’s own pages, once',
    who: staff,
    body: reviewSendSchema,
    answers: { 200: sentReviewSchema },
  }),
  takeReviewBack: route({
    method: 'post',
    path: '/sheets/{id}/take-back',
    summary: `Take a review back within ${takeBackSeconds} seconds, where nobody has opened it`,
    who: staff,
    body: z.strictObject({}),
    answers: { 200: sheetDetailSchema },
  }),
  writeReviewAnew: route({
    method: 'post',
    path: '/sheets/{id}/anew',
    summary: 'A new version of a review that was sent; the student sees it when it is sent too',
    who: staff,
    body: z.strictObject({}),
    answers: { 200: sheetDetailSchema, 201: sheetDetailSchema },
  }),
  openReview: route({
    method: 'post',
    path: '/sheets/{id}/open',
    summary: 'Note that the student has opened a review; only the first time counts',
    who: ['student'],
    body: z.strictObject({}),
    answers: { 204: null },
  }),
} as const;
