import * as z from 'zod';
import { momentSchema } from './archive-sign';
import { thingKindSchema } from './route';
import { typedText } from './text';

/**
 * A whole studio as one file: a zip of `manifest.json` and one JSON file a kind of thing, whose schema stands in that thing's file of the
 * contract. Things are named by signs that hold inside the archive only ("s1", "t4"), so that it can be brought into any studio on any server.
 * docs/archive.md describes it.
 */
export const archiveFormat = 'zelpit-studio';

/** Largest archive taken, packed and unpacked, in bytes. */
export const longestArchive = 500_000_000;
export const longestUnpacked = 4_000_000_000;

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);

export const archiveManifestSchema = z.strictObject({
  format: z.literal(archiveFormat),
  version: z.number().int().min(1),
  /** When it was written. */
  written: momentSchema,
  /** SHA-256 of each file, in hexadecimal, by its name. */
  files: z.record(z.string(), sha256),
  /** SHA-256 of the rest of this manifest, written as JSON without spaces in this order of fields. */
  checksum: sha256,
});
export type ArchiveManifest = z.infer<typeof archiveManifestSchema>;

export const archiveStudioSchema = z.strictObject({ name: typedText.min(1).max(80) });
export type ArchiveStudio = z.infer<typeof archiveStudioSchema>;

export const archiveQuerySchema = z.object({
  /** What happens to what is in the studio already: it must be empty, or it is put away first. */
  before: z.enum(['empty', 'put-away']).default('empty'),
});

export const archiveResultSchema = z.object({
  /** How many of each kind of thing are here now. */
  counts: z.record(thingKindSchema, z.number().int()),
  /** Lines whose codes were taken in this studio, so that they got new ones. */
  newCodes: z.number().int(),
  putAway: z.number().int(),
});
export type ArchiveResult = z.infer<typeof archiveResultSchema>;
