import { Injectable, signal } from '@angular/core';
import { keyTable, type KeyEntry, type KeyPage } from './key-table';

export interface KeyBinding extends KeyEntry {
  /** @param key as `KeyboardEvent.key` gave it, a letter small */
  readonly run: (key: string) => void;
}

/** What takes letters: a box to tick and a slider take none. */
const typing = 'input:not([type="checkbox"], [type="radio"], [type="range"]), textarea, select, [contenteditable="true"]';
/** What takes the space bar or Enter for itself. */
const pressed = 'button, a, summary, input, [role="button"], [role="menuitem"]';

/** The keys of the page in view. They rest while somebody types or a dialog is open. */
@Injectable({ providedIn: 'root' })
export class KeyService {
  private readonly layers = signal<readonly (readonly KeyBinding[])[]>([]);

  constructor() {
    document.addEventListener('keydown', (event) => this.onKey(event));
    // A button or a box that was clicked gives the space bar and the arrows back to the page.
    document.addEventListener('click', (event) => {
      const control = (event.target as Element | null)?.closest?.('button:not([role="combobox"]), input[type="checkbox"], input[type="radio"]');
      if (event.detail > 0 && control instanceof HTMLElement && control.getAttribute('aria-haspopup') === null) control.blur();
    });
  }

  /** Adds the keys of a page, or of a part of one; call what comes back when it goes. */
  use<P extends KeyPage>(page: P, runs: Readonly<Record<keyof (typeof keyTable)[P], (key: string) => void>>): () => void {
    const entries: Readonly<Record<string, KeyEntry>> = keyTable[page];
    const bindings = Object.entries<(key: string) => void>(runs).map(([name, run]): KeyBinding => ({ ...entries[name], run }));
    this.layers.update((layers) => [...layers, bindings]);
    return () => this.layers.update((layers) => layers.filter((layer) => layer !== bindings));
  }

  all(): readonly KeyBinding[] {
    return [...this.layers()].reverse().flat();
  }

  private onKey(event: KeyboardEvent): void {
    if (event.defaultPrevented || event.altKey) return;
    if (event.ctrlKey || event.metaKey) {
      this.onCtrl(event);
      return;
    }
    const target = event.target as Element | null;
    if (target?.closest?.(typing) || document.querySelector('.modal.show')) return;
    const isPressingControl =
      (event.key === ' ' || event.key === 'Enter' || event.key.startsWith('Arrow')) &&
      target?.closest?.(event.key.startsWith('Arrow') ? 'input' : pressed) != null;
    if (isPressingControl) return;
    const isInMenu = target?.closest?.('[role="menu"], .dropdown-menu') != null;
    if (isInMenu) return;
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    const binding = this.all().find((each) => each.ctrl === undefined && each.keys.includes(key));
    if (binding === undefined) return;
    event.preventDefault();
    binding.run(key);
  }

  private onCtrl(event: KeyboardEvent): void {
    if (document.querySelector('.modal.show') !== null) return;
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    const binding = this.all().find((each) => each.ctrl === true && (each.shift === true) === event.shiftKey && each.keys.includes(key));
    if (binding === undefined) return;
    event.preventDefault();
    binding.run(key);
  }
}
