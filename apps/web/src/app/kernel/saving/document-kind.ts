import { catchError, map, of, type Observable } from 'rxjs';
import type { SavedKind, SavingEvent } from './saving';
import { failureOf } from './saving-failure';
import type { Outstanding } from './work-store.service';

/** What a save came to; a draft may be refused for what stands in it. */
export type SaveResult<S> = { readonly kind: 'saved'; readonly stored: S } | { readonly kind: 'refused'; readonly message: string };

/** How one kind of document is fetched, saved and compared. `D` is what a person edits, `S` what the server keeps. */
export interface DocumentKind<D, S> extends SavedKind<D, S> {
  readonly kind: string;
  readonly load: (id: string) => Observable<S>;
  /** One try; the key makes the same save known again. */
  readonly save: (id: string, draft: D, version: number, key: string) => Observable<SaveResult<S>>;
  readonly nameOf: (stored: S) => string;
  /** When it was saved last, as an ISO moment; undefined where that is not known. */
  readonly savedAt: (stored: S) => string | undefined;
}

/** Sends one save, and gives what the machine has to know of it; never fails. */
export function sendSave<D, S>(kind: DocumentKind<D, S>, id: string, { key, version, draft }: Outstanding<D>): Observable<SavingEvent<D, S>> {
  return kind.save(id, draft, version, key).pipe(
    map((result): SavingEvent<D, S> => (result.kind === 'saved' ? { kind: 'answered', key, stored: result.stored } : { ...result, key })),
    catchError((error: unknown) => of({ kind: 'failed', key, failure: failureOf(error) } as const)),
  );
}
