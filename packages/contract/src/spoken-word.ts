import { longestTitle } from '@zelpit/core/practice';
import * as z from 'zod';
import { holders, route } from './route';
import { typedText } from './text';

/** Longest spoken word, in seconds, and its largest file. */
export const longestWordSeconds = 60;
export const longestWordBytes = 3_000_000;
/** After so many days a spoken word goes by itself. */
export const wordDays = 30;
/** Spoken words of one lesson. */
export const mostWords = 60;

/** Something said in a lesson, hands on the instrument: a sound, and what it is about. */
export const spokenWordSchema = z.object({
  id: z.string(),
  lessonId: z.string(),
  /** What was practised when it was said, as the plan calls it. */
  title: z.string(),
  seconds: z.number().int(),
  at: z.string(),
  /** When it goes by itself. */
  keptUntil: z.string(),
});
export type SpokenWord = z.infer<typeof spokenWordSchema>;

const wordQuerySchema = z.object({
  title: typedText.trim().min(1, 'Say what the word is about.').max(longestTitle, `A title can have at most ${longestTitle} characters.`),
  seconds: z.coerce.number().int().min(1).max(longestWordSeconds, `A spoken word lasts at most ${longestWordSeconds} seconds.`),
});

/** Words that are spoken in a lesson; a student may be heard in them, so a guardian has to agree. */
export const spokenWordRoutes = {
  spokenWords: route({
    method: 'get',
    path: '/lessons/{id}/words',
    summary: 'What was said in a lesson, in its order',
    who: holders,
    answers: { 200: z.array(spokenWordSchema) },
  }),
  addSpokenWord: route({
    method: 'post',
    path: '/lessons/{id}/words',
    summary: `Keep a spoken word (WAV, at most ${longestWordSeconds} seconds) for ${wordDays} days; only where a guardian has agreed`,
    who: holders,
    query: wordQuerySchema,
    body: 'sound',
    isStreamed: true,
    answers: { 201: spokenWordSchema },
  }),
  spokenWordSound: route({
    method: 'get',
    path: '/spoken-words/{id}/sound',
    summary: 'The sound of a spoken word; not where a guardian no longer agrees',
    who: holders,
    answers: { 200: 'sound' },
  }),
  dropSpokenWord: route({ method: 'delete', path: '/spoken-words/{id}', summary: 'Delete a spoken word, for good', who: holders, answers: { 204: null } }),
} as const;
