import * as z from 'zod';

/** A built-in instrument by its id, or a model that the studio made. */
export const modelIdSchema = z.string().min(1).max(60);
