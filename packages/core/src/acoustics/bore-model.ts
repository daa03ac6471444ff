import { airDensity, soundSpeed } from './air';
import type { BoreGeometry } from '../fingering';
import { toneHoleTransfer } from './tone-hole';
import { chained, identity, type Transfer } from './transfer';
import { tubeTransfer } from './tube';

/** How the lower end of the bore stands: open to the air, or closed (an Irish chanter on the knee). */
export type Foot = 'open' | 'closed';

/** A frequency at which the air column answers the excitation. */
export interface Resonance {
  readonly hertz: number;
  /** Real part of the admittance (reed) or impedance (window) there: the smaller, the readier it sounds. In SI units. */
  readonly resistance: number;
}

/** Which frequencies are looked at, in Hz. */
export interface Grid {
  readonly from: number;
  readonly to: number;
  readonly count: number;
}

/** Pressure and flow at one place for each frequency, as real and imaginary parts. */
type Wave = Float64Array;

const mostResonances = 3;
/** In mm. */
const longestSlice = 15;

/**
 * The air column of a bore with side holes, computed from the foot upwards over a grid of frequencies. Everything that does not
 * depend on the fingers is computed once; a pattern is a walk up the holes, and many patterns share the walk's lower part.
 */
export class BoreModel {
  readonly frequencies: Float64Array;
  /** Indices into the geometry's holes, from the foot up. */
  private readonly order: readonly number[];
  private readonly feet: Readonly<Record<Foot, Wave>>;
  /** For each step of `order` and each coverage: the hole and the bore above it, up to the next hole. */
  private readonly steps: readonly Map<number, Transfer>[];
  private readonly above: readonly Transfer[];
  /** What the excitation adds: to the admittance of a reed, to the impedance of a window. */
  private readonly added: Float64Array;
  private readonly scratch: readonly Wave[];

  constructor(
    private readonly geometry: BoreGeometry,
    { from, to, count }: Grid,
  ) {
    this.frequencies = Float64Array.from({ length: count }, (_, index) => from * (to / from) ** (index / (count - 1)));
    const at = (index: number): number => geometry.holes[index].positionMillimetres;
    this.order = geometry.holes.map((_, index) => index).sort((one, other) => at(other) - at(one) || other - one);
    const end = geometry.bore[geometry.bore.length - 1].positionMillimetres;
    const upper = this.order.map((_, step) => (step + 1 < this.order.length ? at(this.order[step + 1]) : 0));
    const lowest = this.boreBetween(at(this.order[0]), end);
    this.above = this.order.map((hole, step) => this.boreBetween(upper[step], at(hole)));
    this.steps = this.order.map(() => new Map<number, Transfer>());
    this.feet = { open: this.footWave(lowest, this.openEnd()), closed: this.footWave(lowest, undefined) };
    this.added = this.excitationTerm();
    this.scratch = this.order.map(() => new Float64Array(4 * count));
  }

  get excitation(): BoreGeometry['excitation'] {
    return this.geometry.excitation;
  }

  /** Resonances of one pattern, the lowest first, at most three. `coverages` in the order of the geometry's holes. */
  resonances(coverages: readonly number[], foot: Foot = 'open'): readonly Resonance[] {
    let wave = this.feet[foot];
    this.order.forEach((hole, step) => {
      const next = this.scratch[step];
      advance(this.step(step, coverages[hole]), wave, next);
      wave = next;
    });
    return this.crossings(wave);
  }

  /**
   * Resonances of all patterns in which every hole takes one of its levels, each pattern visited once. `coverages` is the same
   * array each time, changed between the visits.
   */
  forAll(levelsOf: (hole: number) => readonly number[], visit: (coverages: readonly number[], found: readonly Resonance[]) => void, foot: Foot = 'open'): void {
    const coverages = this.geometry.holes.map(() => 1);
    const walk = (step: number, wave: Wave): void => {
      if (step === this.order.length) {
        visit(coverages, this.crossings(wave));
        return;
      }
      for (const level of levelsOf(this.order[step])) {
        coverages[this.order[step]] = level;
        advance(this.step(step, level), wave, this.scratch[step]);
        walk(step + 1, this.scratch[step]);
      }
    };
    walk(0, this.feet[foot]);
  }

  private step(step: number, coverage: number): Transfer {
    const known = this.steps[step].get(coverage);
    if (known !== undefined) return known;
    const hole = this.geometry.holes[this.order[step]];
    const isOpen = coverage < 1;
    const transfer = toneHoleTransfer(
      {
        radius: (hole.diameterMillimetres / 2000) * (isOpen ? Math.sqrt(1 - coverage) : 1),
        boreRadius: this.radiusAt(hole.positionMillimetres) / 1000,
        chimney: hole.chimneyMillimetres / 1000,
        outerRadius: this.geometry.outerDiameterMillimetres / 2000,
        isOpen,
      },
      this.frequencies,
    );
    const both = chained(this.above[step], transfer);
    this.steps[step].set(coverage, both);
    return both;
  }

  /** Radius of the bore in mm. */
  private radiusAt(position: number): number {
    const { bore } = this.geometry;
    const next = Math.max(1, bore.findIndex((point) => point.positionMillimetres >= position) || 1);
    const [lower, upper] = [bore[next - 1], bore[next]];
    const share = (position - lower.positionMillimetres) / (upper.positionMillimetres - lower.positionMillimetres);
    return (lower.diameterMillimetres + share * (upper.diameterMillimetres - lower.diameterMillimetres)) / 2;
  }

  /** The bore from one place down to another, in mm. */
  private boreBetween(upper: number, lower: number): Transfer {
    const breaks = this.geometry.bore.map((point) => point.positionMillimetres).filter((position) => position > upper && position < lower);
    const corners = [upper, ...breaks, lower];
    // Losses grow as a bore narrows: a cone is cut into short pieces, each with losses of its own.
    const places = corners.flatMap((corner, index) => (index === 0 ? [corner] : this.slices(corners[index - 1], corner)));
    let whole = identity(this.frequencies.length);
    for (let index = 1; index < places.length; index += 1) {
      const length = (places[index] - places[index - 1]) / 1000;
      if (length <= 0) continue;
      const tube = { length, upperRadius: this.radiusAt(places[index - 1] + 1e-9) / 1000, lowerRadius: this.radiusAt(places[index]) / 1000 };
      whole = chained(whole, tubeTransfer(tube, this.frequencies));
    }
    return whole;
  }

  /** Ends of the pieces of a straight stretch, in mm. */
  private slices(upper: number, lower: number): number[] {
    const isCylinder = Math.abs(this.radiusAt(upper + 1e-9) - this.radiusAt(lower)) < 1e-6;
    const count = isCylinder ? 1 : Math.max(1, Math.ceil((lower - upper) / longestSlice));
    return Array.from({ length: count }, (_, index) => upper + ((lower - upper) * (index + 1)) / count);
  }

  /** Impedance of the open lower end. Source: Levine and Schwinger (1948). */
  private openEnd(): Float64Array {
    const radius = this.geometry.bore[this.geometry.bore.length - 1].diameterMillimetres / 2000;
    const impedance = (airDensity * soundSpeed) / (Math.PI * radius * radius);
    const end = new Float64Array(2 * this.frequencies.length);
    this.frequencies.forEach((hertz, index) => {
      const k = (2 * Math.PI * hertz) / soundSpeed;
      end[2 * index] = impedance * 0.25 * (k * radius) ** 2;
      end[2 * index + 1] = impedance * 0.6133 * k * radius;
    });
    return end;
  }

  /** Pressure and flow at the lowest hole; without an end impedance, no air flows at the foot. */
  private footWave(lowest: Transfer, end: Float64Array | undefined): Wave {
    const start = new Float64Array(4 * this.frequencies.length);
    this.frequencies.forEach((_, index) => {
      if (end === undefined) start[4 * index] = 1;
      else start.set([end[2 * index], end[2 * index + 1], 1, 0], 4 * index);
    });
    const wave = new Float64Array(start.length);
    advance(lowest, start, wave);
    return wave;
  }

  private excitationTerm(): Float64Array {
    const { geometry } = this;
    const radius = geometry.bore[0].diameterMillimetres / 2000;
    return this.frequencies.map((hertz) => {
      const omega = 2 * Math.PI * hertz;
      if (geometry.excitation === 'reed') return (omega * geometry.reedVolumeCubicMillimetres * 1e-9) / (airDensity * soundSpeed ** 2);
      const length = (geometry.windowLengthMillimetres / 1000) * (1 + geometry.windowSlope * ((hertz / geometry.windowReferenceHertz) ** 2 - 1));
      return (omega * airDensity * length) / (Math.PI * radius * radius);
    });
  }

  /** Where the imaginary part of what the excitation sees crosses from - to +. */
  private crossings(wave: Wave): readonly Resonance[] {
    const isReed = this.geometry.excitation === 'reed';
    const found: Resonance[] = [];
    // Flow over pressure for a reed, pressure over flow for a window.
    const [above, below] = isReed ? [2, 0] : [0, 2];
    let lastRe = 0;
    let lastIm = Number.NaN;
    for (let index = 0; index < this.frequencies.length && found.length < mostResonances; index += 1) {
      const oneRe = wave[4 * index + above];
      const oneIm = wave[4 * index + above + 1];
      const otherRe = wave[4 * index + below];
      const otherIm = wave[4 * index + below + 1];
      const size = otherRe * otherRe + otherIm * otherIm;
      const re = (oneRe * otherRe + oneIm * otherIm) / size;
      const im = (oneIm * otherRe - oneRe * otherIm) / size + this.added[index];
      if (lastIm < 0 && im >= 0) {
        const share = lastIm / (lastIm - im);
        const before = this.frequencies[index - 1];
        found.push({ hertz: before * (this.frequencies[index] / before) ** share, resistance: lastRe + share * (re - lastRe) });
      }
      lastRe = re;
      lastIm = im;
    }
    return found;
  }
}

/** The wave above a piece of the instrument from the wave below it, at each frequency. */
function advance(transfer: Transfer, below: Wave, above: Wave): void {
  for (let at = 0, from = 0; at < below.length; at += 4, from += 8) {
    const pRe = below[at];
    const pIm = below[at + 1];
    const uRe = below[at + 2];
    const uIm = below[at + 3];
    above[at] = transfer[from] * pRe - transfer[from + 1] * pIm + transfer[from + 2] * uRe - transfer[from + 3] * uIm;
    above[at + 1] = transfer[from] * pIm + transfer[from + 1] * pRe + transfer[from + 2] * uIm + transfer[from + 3] * uRe;
    above[at + 2] = transfer[from + 4] * pRe - transfer[from + 5] * pIm + transfer[from + 6] * uRe - transfer[from + 7] * uIm;
    above[at + 3] = transfer[from + 4] * pIm + transfer[from + 5] * pRe + transfer[from + 6] * uIm + transfer[from + 7] * uRe;
  }
}
