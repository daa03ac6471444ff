import * as z from 'zod';
import { route } from './route';

/** Whether the server lives and works, and what its API is. */
export const watchRoutes = {
  health: route({
    method: 'get',
    path: '/health',
    summary: 'Whether the server lives',
    who: 'anyone',
    answers: { 200: z.object({ status: z.literal('ok') }) },
  }),
  ready: route({
    method: 'get',
    path: '/ready',
    summary: 'Whether the server can work: its database answers',
    who: 'anyone',
    answers: { 200: z.object({ status: z.literal('ready') }) },
  }),
  description: route({
    method: 'get',
    path: '/openapi.json',
    summary: 'This description',
    who: 'anyone',
    answers: { 200: z.looseObject({ openapi: z.string() }) },
  }),
} as const;
