import { signal } from '@angular/core';

const storageKey = 'zelpit.lanes';
const isOpen = signal(localStorage.getItem(storageKey) === null);

/** Whether what the lanes mean stands beside the music: until it is closed once in this browser. */
export const lanesLegend = {
  text: 'Thick: the hole is covered. The end rises: the finger lifts. The end comes down: it lands. A hop: a grace note. Thin line: open.',
  isOpen: isOpen.asReadonly(),
  close: (): void => {
    localStorage.setItem(storageKey, 'known');
    isOpen.set(false);
  },
};
