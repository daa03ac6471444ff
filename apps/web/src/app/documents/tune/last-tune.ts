const storageKey = 'zelpit.tune';

/** The tune that was open last in this browser, by its id. */
export const lastTune = {
  read: (): string | null => localStorage.getItem(storageKey),
  keep: (id: string): void => localStorage.setItem(storageKey, id),
};
