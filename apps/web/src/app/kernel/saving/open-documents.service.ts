import { Injectable } from '@angular/core';

/** Documents that are in view in this window: each sends itself, and nobody else does. */
@Injectable({ providedIn: 'root' })
export class OpenDocuments {
  private readonly open = new Map<object, string>();

  enter(document: object, kind: string, id: string): void {
    this.open.set(document, `${kind} ${id}`);
  }

  leave(document: object): void {
    this.open.delete(document);
  }

  has(kind: string, id: string): boolean {
    return [...this.open.values()].includes(`${kind} ${id}`);
  }
}
