import type { Instrument } from '../fingering';

/** Pitch of the lowest note of the instruments whose geometry others copy in another size, in Hz. */
const referenceHertz: Readonly<Record<string, number>> = {
  'whistle-d': 440 * 2 ** (5 / 12),
  'recorder-soprano-baroque': 440 * 2 ** (3 / 12),
  'recorder-soprano-german': 440 * 2 ** (3 / 12),
};

/** How much higher an instrument sounds than the one whose geometry it is a copy of; 1 for that one itself. */
export function sizeRatio(modelId: string | undefined, instrument: Instrument): number {
  const reference = modelId === undefined ? undefined : referenceHertz[modelId];
  return reference === undefined ? 1 : instrument.reference.hertz / reference;
}
