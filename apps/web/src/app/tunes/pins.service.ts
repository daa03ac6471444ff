import { Injectable, signal } from '@angular/core';
import type { Pins } from '@zelpit/core';

const storageKey = 'zelpit.pins.';

/** Fingerings that a teacher pinned for the notes of a tune, kept in this browser. */
@Injectable({ providedIn: 'root' })
export class PinnedFingers {
  private readonly changed = signal(0);

  of(tune: string): Pins {
    this.changed();
    try {
      const stored: unknown = JSON.parse(localStorage.getItem(storageKey + tune) ?? '{}');
      const entries = typeof stored === 'object' && stored !== null ? Object.entries(stored) : [];
      return new Map(entries.filter((entry): entry is [string, string] => typeof entry[1] === 'string'));
    } catch {
      return new Map();
    }
  }

  /** Pins a way by its holes; nothing unpins. */
  pin(tune: string, note: string, holes: string | undefined): void {
    const pins = new Map(this.of(tune));
    if (holes === undefined) pins.delete(note);
    else pins.set(note, holes);
    localStorage.setItem(storageKey + tune, JSON.stringify(Object.fromEntries(pins)));
    this.changed.update((count) => count + 1);
  }
}
