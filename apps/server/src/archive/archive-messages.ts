import type { ProblemCode } from '@zelpit/contract';
import type { ReadArchive } from './archive-file';

/** What of a file of a backup crosses from the thread that read it: its part is known by its kind. A long list crosses in slices. */
export type ArchiveAnswer =
  | { readonly kind: 'file'; readonly of: string; readonly content: unknown; readonly prepared: unknown }
  | { readonly kind: 'more'; readonly of: string; readonly content: readonly unknown[] }
  | { readonly kind: 'read'; readonly studio: ReadArchive['studio'] }
  | { readonly kind: 'refused'; readonly code: ProblemCode; readonly detail: string };
