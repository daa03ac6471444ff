import type { ArchiveFiles } from '../archive/archive-part';
import { studioFile } from '../archive/archive.repository';
import { archivePartsOf } from '../things/thing';
import { things } from '../things/things';

/** The files of an archive in which a studio has nothing but its name. */
export const emptyArchive = (name: string): ArchiveFiles =>
  new Map<string, unknown>([[studioFile, { name }], ...archivePartsOf(things).map(({ part }) => [part.file, part.absent] as const)]);
