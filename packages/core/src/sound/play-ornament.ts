import { isOverblown } from '../acoustics';
import { chartedFingering, type Instrument, type NoteId } from '../fingering';
import type { CompiledOrnament, NeighbourWay, OrnamentStep } from '../movement';
import { milliseconds } from '../pitch';
import type { Timeline, TimelineStep } from './timeline';

/** The tongue is a moment of silence. */
const roles: Readonly<Partial<Record<OrnamentStep['kind'], TimelineStep['role']>>> = { note: 'theme', tongue: 'rest' };

/** An ornament as it sounds on its note, everything `slower` times slower; empty where it cannot be played. */
export function ornamentTimeline(instrument: Instrument, note: NoteId, ornament: CompiledOrnament, eighthMs: number, slower = 1): Timeline {
  if (ornament.kind === 'unplayable') return { steps: [], clicks: [], length: milliseconds(0) };
  const blown = isOverblown(instrument) ? { register: chartedFingering(instrument, note).register } : {};
  const times = eighthMs * slower;
  const steps = ornament.steps.map(({ kind, pattern, start, length }): TimelineStep => ({
    ...{ pattern, ...blown, start: milliseconds(start * times), length: milliseconds(length * times), note: 0 },
    role: roles[kind] ?? 'grace',
  }));
  return { steps, clicks: [], length: milliseconds(ornament.eighths * times) };
}

const neighbourMs = 70;
const mainMs = 600;

/** Trill, mordent or grace note as it sounds: short notes by turns, the last one long; everything `slower` times slower. */
export function neighbourTimeline({ sequence }: NeighbourWay, isBlown: boolean, slower = 1): Timeline {
  let at = 0;
  const steps = sequence.map(({ pattern, register }, index): TimelineStep => {
    const length = (index === sequence.length - 1 ? mainMs : neighbourMs) * slower;
    const step = { pattern, ...(isBlown && { register }), start: milliseconds(at), length: milliseconds(length), role: 'theme' as const, note: 0 };
    at += length;
    return step;
  });
  return { steps, clicks: [], length: milliseconds(at) };
}
