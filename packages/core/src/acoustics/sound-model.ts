import type { BoreGeometry, Instrument, Pattern } from '../fingering';
import { BoreModel, type Foot, type Resonance } from './bore-model';

/** What a pattern of holes sounds by the model. */
export interface Sounding {
  readonly hertz: number;
  /** False where another resonance is nearly as ready, or the chosen one is not the lowest. */
  readonly isSteady: boolean;
  /** Resonances from the lowest up; on a flue the breath decides between the first two. */
  readonly registers: readonly number[];
}

/** How the foot stands while fingers are looked for. */
export const usualFoot = ({ family }: Instrument): Foot => (family === 'irish-pipes' ? 'closed' : 'open');

/** True where nothing sounds: every hole is covered, and the foot is closed. */
export const isStopped = (pattern: Pattern, foot: Foot | undefined): boolean => foot === 'closed' && pattern.every((coverage) => coverage >= 1);

const pointsOfGrid = 500;
const fourSemitones = 2 ** (4 / 12);
/** 3 dB as a ratio of impedances. */
const threeDecibels = 10 ** (3 / 20);

/** The model of a bore over the range of an instrument, which may be a copy `ratio` times as high as the geometry. */
export function boreModelFor(instrument: Instrument, geometry: BoreGeometry, ratio = 1): BoreModel {
  const pitches = instrument.notes.map((note) => (note.ratio * instrument.reference.hertz) / ratio);
  return new BoreModel(geometry, { from: 0.8 * Math.min(...pitches), to: 1.35 * Math.max(...pitches), count: pointsOfGrid });
}

/**
 * Which of the resonances sounds: the readiest one. Undefined where there is none. On a reed the resistance counts in proportion to
 * the frequency: a cone's admittance falls as it goes up, and the octave of every low note would seem readier than the note.
 */
export function soundingOf(found: readonly Resonance[], excitation: BoreGeometry['excitation']): Sounding | undefined {
  if (found.length === 0) return undefined;
  const unreadiness = ({ hertz, resistance }: Resonance): number => (excitation === 'reed' ? resistance * hertz : resistance);
  const chosen = found.reduce((best, each) => (unreadiness(each) < unreadiness(best) ? each : best));
  const hasRival = found.some((other) => {
    const interval = Math.max(other.hertz, chosen.hertz) / Math.min(other.hertz, chosen.hertz);
    return other !== chosen && interval < fourSemitones && unreadiness(other) / unreadiness(chosen) < threeDecibels;
  });
  return { hertz: chosen.hertz, isSteady: !hasRival && chosen === found[0], registers: found.map((each) => each.hertz) };
}

export function soundOf(model: BoreModel, pattern: Pattern, foot: Foot = 'open'): Sounding | undefined {
  return soundingOf(model.resonances(pattern, foot), model.excitation);
}
