import { hasRegisters } from '../acoustics';
import { chartedFingering, type Instrument, type NoteId } from '../fingering';
import type { CompiledOrnament } from '../movement';
import { milliseconds } from '../pitch';
import type { Timeline, TimelineStep } from './timeline';

/** An ornament as it sounds on its note, everything `slower` times slower; empty where it cannot be played. */
export function ornamentTimeline(instrument: Instrument, note: NoteId, ornament: CompiledOrnament, eighthMs: number, slower = 1): Timeline {
  if (ornament.kind === 'unplayable') return { steps: [], clicks: [], length: milliseconds(0) };
  const blown = hasRegisters(instrument) ? { register: chartedFingering(instrument, note).register } : {};
  const times = eighthMs * slower;
  const steps = ornament.steps.map(({ kind, pattern, start, length }): TimelineStep => ({
    ...{ pattern, ...blown, start: milliseconds(start * times), length: milliseconds(length * times), note: 0 },
    role: kind === 'note' ? 'theme' : 'grace',
  }));
  return { steps, clicks: [], length: milliseconds(ornament.eighths * times) };
}
