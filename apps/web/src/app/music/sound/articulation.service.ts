import { Injectable, signal } from '@angular/core';
import { isTonguedFamily, type Instrument } from '@zelpit/core/fingering';
import type { Articulation } from '@zelpit/core/tune';

const storageKey = 'zelpit.articulation.';

const words: Readonly<Record<Articulation, string>> = {
  written: 'tongued except in slurs',
  tongued: 'all tongued',
  slurred: 'all slurred',
};

export const articulations = Object.entries(words).map(([value, text]) => ({ value: value as Articulation, label: text }));
export const articulationText = (articulation: Articulation): string => words[articulation];

type Family = Instrument['family'];

/** How tunes are articulated, by family: chosen once, kept in this browser. */
@Injectable({ providedIn: 'root' })
export class ArticulationSettings {
  private readonly chosen = signal<Readonly<Partial<Record<Family, Articulation>>>>({});

  of(family: Family): Articulation {
    if (!isTonguedFamily(family)) return 'slurred';
    const stored = this.chosen()[family] ?? localStorage.getItem(storageKey + family);
    return stored === 'written' || stored === 'tongued' || stored === 'slurred' ? stored : 'written';
  }

  choose(family: Family, articulation: Articulation): void {
    localStorage.setItem(storageKey + family, articulation);
    this.chosen.update((all) => ({ ...all, [family]: articulation }));
  }
}
