import { archivePartsOf, type Thing } from '../things/thing';

export const manifestName = 'manifest.json';
/** The file that every archive has beside those of the things. */
export const studioFile = 'studio.json';

/** The version that is written: the latest with which any part came or changed. */
export const versionOf = (things: readonly Thing[]): number => Math.max(...archivePartsOf(things).map(({ part }) => part.changed ?? part.since));

/** The files of a version in the order in which its manifest names them: what came earlier stands first. */
export function filesOf(things: readonly Thing[], version: number): readonly string[] {
  const parts = archivePartsOf(things).map(({ part }) => part);
  return [studioFile, ...[...parts].sort((one, other) => one.since - other.since).flatMap(({ file, since }) => (since <= version ? [file] : []))];
}
