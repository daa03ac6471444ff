import { Injectable, signal } from '@angular/core';

export interface KeyBinding {
  /** As `KeyboardEvent.key` gives it; several for a key that pedals send too. */
  readonly keys: readonly string[];
  /** As printed on the key cap. */
  readonly cap: string;
  readonly label: string;
  readonly run: () => void;
  /** True for a key that counts with Ctrl (or Command), also while somebody types; `shift` with Shift too. */
  readonly ctrl?: true;
  readonly shift?: true;
}

const typing = 'input, textarea, select, [contenteditable="true"]';

/** The keys of the page in view. They rest while somebody types or a dialog is open. */
@Injectable({ providedIn: 'root' })
export class KeyService {
  private readonly layers = signal<readonly (readonly KeyBinding[])[]>([]);

  constructor() {
    document.addEventListener('keydown', (event) => this.onKey(event));
    // A button that was clicked gives the space bar back to the sound.
    document.addEventListener('click', (event) => {
      const button = (event.target as Element | null)?.closest?.('button:not([role="combobox"])');
      if (event.detail > 0 && button instanceof HTMLElement && button.getAttribute('aria-haspopup') === null) button.blur();
    });
  }

  /** Adds a page's keys; call what comes back when the page goes. */
  use(bindings: readonly KeyBinding[]): () => void {
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
      (event.key === ' ' || event.key === 'Enter') && target?.closest?.('button, a, [role="button"], [role="menuitem"], summary') != null;
    if (isPressingControl) return;
    const isInMenu = target?.closest?.('[role="menu"], .dropdown-menu') != null;
    if (isInMenu) return;
    const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    const binding = this.all().find((each) => each.ctrl === undefined && each.keys.includes(key));
    if (binding === undefined) return;
    event.preventDefault();
    binding.run();
  }

  private onCtrl(event: KeyboardEvent): void {
    if (document.querySelector('.modal.show') !== null) return;
    const key = event.key.toLowerCase();
    const binding = this.all().find((each) => each.ctrl === true && (each.shift === true) === event.shiftKey && each.keys.includes(key));
    if (binding === undefined) return;
    event.preventDefault();
    binding.run();
  }
}
