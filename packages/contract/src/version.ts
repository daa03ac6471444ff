import * as z from 'zod';

/** Largest number that the database keeps as a version. */
const largest = 2_147_483_647;

/** The version of a document that was read; the database keeps no larger one. */
export const versionSchema = z.number().int().min(1).max(largest, 'This version is too large to be one.');
