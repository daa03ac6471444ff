import type { ProblemCode } from '@zelpit/contract';
import type { ReadArchive } from './archive-file';

/** What of a file of a backup crosses from the thread that read it: its part is known by its kind. */
export interface CrossingFile {
  readonly kind: string;
  readonly content: unknown;
  readonly prepared: unknown;
}

/** A backup that was read and checked, or why it was not. */
export type ArchiveAnswer =
  | { readonly kind: 'read'; readonly studio: ReadArchive['studio']; readonly files: readonly CrossingFile[] }
  | { readonly kind: 'refused'; readonly code: ProblemCode; readonly detail: string };
