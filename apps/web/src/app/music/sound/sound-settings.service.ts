import { Injectable, signal } from '@angular/core';
import type { FaultKind } from '@zelpit/core/sound';

export type ChosenFault = FaultKind | 'worst';

export const faultWords: Readonly<Record<ChosenFault, string>> = {
  worst: 'each change’s worst fault',
  'land-early': 'lands early',
  'lift-early': 'lifts early',
  'wrong-order': 'out of order',
};

export const slowest = 20;
export const fastest = 150;
const step = 5;
export const shortestFault = 5;
export const longestFault = 60;

/** How things are to sound: the same on every page. The level starts quiet each time the page is opened. */
@Injectable({ providedIn: 'root' })
export class SoundSettings {
  /** Share of the written tempo, in percent. */
  readonly percent = signal(100);
  readonly hasCountIn = signal(true);
  readonly hasClick = signal(false);
  readonly repeats = signal(false);
  readonly fault = signal<ChosenFault>('worst');
  readonly faultMs = signal(20);
  /** Every note as loud as on the instrument, where that is known; else all alike. */
  readonly hasBalance = signal(true);
  readonly hasDrone = signal(false);
  /** 0 to 1; the samples themselves are capped at half. */
  readonly level = signal(0.4);

  colour(): { readonly hasBalance: boolean; readonly hasDrone: boolean } {
    return { hasBalance: this.hasBalance(), hasDrone: this.hasDrone() };
  }

  slower(): void {
    this.percent.update((percent) => Math.max(slowest, percent - step));
  }

  faster(): void {
    this.percent.update((percent) => Math.min(fastest, percent + step));
  }
}
