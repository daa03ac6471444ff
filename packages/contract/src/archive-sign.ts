import * as z from 'zod';

/** The name of a thing inside an archive: "s1", "t4". */
export const signSchema = z.string().regex(/^[a-z]\d{1,7}$/);
export const momentSchema = z.iso.datetime();
/** When a thing was made, and since when it is put away. */
export const archiveDates = { created: momentSchema, putAway: momentSchema.nullable() };
