const storageKey = 'zelpit.pedal';

/** What the two switches of a pedal do in a lesson: turn to the next and the one before, or say clean and not yet. */
export type PedalUse = 'turns' | 'judges';

/** How the pedal at this computer is used. */
export const pedal = {
  read: (): PedalUse => (localStorage.getItem(storageKey) === 'judges' ? 'judges' : 'turns'),
  keep: (use: PedalUse): void => localStorage.setItem(storageKey, use),
};
