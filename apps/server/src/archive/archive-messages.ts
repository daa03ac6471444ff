import type { ProblemCode } from '@zelpit/contract';
import type { CheckedArchive } from './check-archive';

/** A backup to check, and where what was checked goes. */
export interface ArchiveRequest {
  readonly path: string;
  readonly folder: string;
}

export type ArchiveAnswer =
  | { readonly kind: 'progress'; readonly done: number; readonly of: number }
  | { readonly kind: 'checked'; readonly checked: CheckedArchive }
  | { readonly kind: 'refused'; readonly code: ProblemCode; readonly detail: string };
