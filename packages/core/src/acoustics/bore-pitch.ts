import type { Instrument, Pattern } from '../fingering';
import type { Foot } from './bore-model';
import { geometryOf, sizeRatio } from './pattern-sound';
import { boreModelFor, soundOf } from './sound-model';

/**
 * The pitch of any pattern in any register by the model of an instrument's bore, built once. Undefined for an instrument without one; what it gives is undefined
 * where the pattern sounds nothing there.
 */
export function borePitch(instrument: Instrument, foot: Foot): ((pattern: Pattern, register: number) => number | undefined) | undefined {
  const geometry = geometryOf(instrument);
  if (geometry === undefined) return undefined;
  const ratio = sizeRatio(instrument);
  const model = boreModelFor(instrument, geometry, ratio);
  return (pattern, register) => {
    const found = soundOf(model, pattern, foot);
    const pitch = geometry.excitation === 'window' ? found?.registers[register - 1] : found?.hertz;
    return pitch === undefined ? undefined : pitch * ratio;
  };
}
