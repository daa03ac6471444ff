import { scaledGeometry, sizeRatio, soundSourceOf } from '@zelpit/core/acoustics';
import type { Instrument } from '@zelpit/core/fingering';

/** A copy of an instrument that stands by itself: its geometry at its own size in it. */
export function copiedInstrument(instrument: Instrument, name: string): Instrument {
  const source = soundSourceOf(instrument);
  return {
    ...instrument,
    name,
    madeFrom: instrument.madeFrom ?? instrument.id,
    ...(source !== undefined && { sound: { geometry: scaledGeometry(source.geometry, sizeRatio(instrument)), atHertz: instrument.reference.hertz } }),
  };
}
