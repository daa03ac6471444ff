import type { ArchiveFiles } from '../archive/archive-part';
import { studioFile } from '../archive/archive.repository';
import { things } from '../things/things';

/** The files of an archive in which a studio has nothing but its name. */
export const emptyArchive = (name: string): ArchiveFiles =>
  new Map<string, unknown>([
    [studioFile, { name }],
    ...things.flatMap(({ archive }) => (archive === undefined ? [] : [[archive.file, archive.absent] as const])),
  ]);
