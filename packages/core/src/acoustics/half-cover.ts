import { coverOf, soundingPitch, type Fingering, type Instrument, type Pattern } from '../fingering';
import type { Foot } from './bore-model';
import { borePitch } from './bore-pitch';
import { usualFoot } from './sound-model';
import { centsOfRatio } from '../pitch';

const halvings = 14;
/** Less than this is no half cover but a leak, more than its rest no opening. */
const leastCover = 0.04;

/** Solves for how far a hole is covered; the model behind it is built once. */
export class HalfCoverSolver {
  private readonly pitchOf: (pattern: Pattern, register: number) => number | undefined;

  constructor(instrument: Instrument, foot: Foot = usualFoot(instrument)) {
    this.pitchOf = borePitch(instrument, foot) ?? (() => undefined);
  }

  /**
   * The share of one hole that must be covered for a pitch, all other holes as they are. Undefined where no share between open and
   * covered gives it, and for an instrument without a bore.
   * @param wanted in Hz at the instrument's tuning
   * @param register 1 to 3 on a flue; 1 elsewhere
   */
  cover(pattern: Pattern, hole: number, wanted: number, register = 1): number | undefined {
    const at = (coverage: number): number | undefined =>
      this.pitchOf(
        pattern.map((each, index) => (index === hole ? coverage : each)),
        register,
      );
    let [low, high] = [leastCover, 1 - leastCover];
    const [open, covered] = [at(low), at(high)];
    if (open === undefined || covered === undefined || (open - wanted) * (covered - wanted) > 0) return undefined;
    const rises = covered > open;
    for (let turn = 0; turn < halvings; turn += 1) {
      const middle = (low + high) / 2;
      const pitch = at(middle);
      if (pitch === undefined) return undefined;
      if (pitch < wanted === rises) low = middle;
      else high = middle;
    }
    const reached = at((low + high) / 2);
    return reached !== undefined && Math.abs(centsOfRatio(reached / wanted)) < 3 ? (low + high) / 2 : undefined;
  }
}

/**
 * How far the half-covered hole of a charted fingering must be covered to give its note. Undefined where no hole, or more than one, is half
 * covered, and where the model finds none.
 */
export function solvedCover(instrument: Instrument, { pattern, note, register, foot }: Fingering): number | undefined {
  const halves = pattern.flatMap((coverage, hole) => (coverOf(coverage) === 'half' ? [hole] : []));
  if (halves.length !== 1) return undefined;
  const wanted = soundingPitch(instrument, note);
  const solver = new HalfCoverSolver(instrument, foot);
  return solver.cover(pattern, halves[0], wanted, register);
}
