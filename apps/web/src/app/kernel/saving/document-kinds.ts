import { InjectionToken, type Injector, type Provider } from '@angular/core';
import type { DocumentKind } from './document-kind';

/** A kind of document by its name; what fetches and saves it is loaded when work of that kind waits. */
export interface RegisteredKind {
  readonly kind: string;
  readonly load: (injector: Injector) => Promise<DocumentKind<unknown, unknown>>;
}

/** Every kind of document whose unsaved work a closed window may have left. */
export const documentKinds = new InjectionToken<readonly RegisteredKind[]>('kinds of document');

/** Registers a kind of document with what looks after unsaved work. */
export function provideDocumentKind<D, S>(kind: string, load: (injector: Injector) => Promise<DocumentKind<D, S>>): Provider {
  return { provide: documentKinds, multi: true, useValue: { kind, load: load as RegisteredKind['load'] } satisfies RegisteredKind };
}
