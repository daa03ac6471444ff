import { soundingPitch, type Instrument, type NoteId, type Pattern } from '../fingering';
import type { Foot } from './bore-model';
import { borePitch } from './bore-pitch';
import { soundSourceOf, vesselHertz } from './pattern-sound';
import { usualFoot } from './sound-model';
import { centsOfRatio } from '../pitch';

/** One point of a glide. */
export interface GlidePoint {
  /** How far the fingers have come, 0 to 1; the open area grows in proportion. */
  readonly share: number;
  /** From the first note, in cents; positive is up. */
  readonly cents: number;
}

/** Between two points no step of a finger's travel is larger than this. */
const points = 24;
/** A jump of more than this between neighbours is another register, in cents. */
const jumpCents = 250;

/** The way of the pitch while fingers travel evenly from one pattern to another, and whether it breaks into another register on its way. */
export interface Glide {
  readonly points: readonly GlidePoint[];
  readonly isBroken: boolean;
}

/**
 * The pitch path of a pinch, a half hole or a slide: a hole that opens evenly makes a glide, and half the area already gives most of the interval.
 * Undefined for an instrument without a geometry.
 * @param register on a flue, the one that is blown; 1 elsewhere
 * @throws ZelpitFault `unknown-note`
 */
export function glideBetween(
  instrument: Instrument,
  note: NoteId,
  from: Pattern,
  to: Pattern,
  register = 1,
  foot: Foot = usualFoot(instrument),
): Glide | undefined {
  const pitchAt = pitchFunction(instrument, register, foot);
  if (pitchAt === undefined) return undefined;
  const first = pitchAt(from) ?? soundingPitch(instrument, note);
  const found = Array.from({ length: points + 1 }, (_, index): GlidePoint | undefined => {
    const share = index / points;
    const hertz = pitchAt(from.map((coverage, hole) => coverage + (to[hole] - coverage) * share));
    return hertz === undefined ? undefined : { share, cents: centsOfRatio(hertz / first) };
  }).filter((point) => point !== undefined);
  const isBroken = found.some((point, index) => index > 0 && Math.abs(point.cents - found[index - 1].cents) > jumpCents);
  return { points: found, isBroken };
}

function pitchFunction(instrument: Instrument, register: number, foot: Foot): ((pattern: Pattern) => number | undefined) | undefined {
  const source = soundSourceOf(instrument)?.geometry;
  if (source?.excitation === 'vessel') return (pattern) => vesselHertz(instrument, source, pattern);
  const pitchOf = borePitch(instrument, foot);
  return pitchOf === undefined ? undefined : (pattern) => pitchOf(pattern, register);
}
