// Whoever takes in this source has to find the types of the package too, which has none.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./fft.d.ts" />
import FFT from 'fft.js';
import { windowShape } from './window-shape';

/** Of each note so many partials are looked at, none above this, in Hz. Our own choices. */
const [partials, highest] = [8, 9000];
/** The transform is so much longer than the window, so that its neighbours lie close beside what is looked for. */
const padding = 4;
/** Two notes are an octave apart within half a semitone, in octaves. */
const octaveWithin = 1 / 24;

/** How well each note fits what sounds in one moment. */
export interface Fits {
  readonly fits: readonly number[];
  /** Of the best one: how much of all that sounds lies on its partials, 0 to 1. */
  readonly share: number;
}

/** How a window is looked at. */
export interface Looking {
  /**
   * How much less a partial counts than the one below it: by its number to this power. 1 keeps octaves apart; less tells neighbours apart in a short window, since their high partials
   * lie further from each other.
   */
  readonly falling: number;
  /** True where what lies midway between the partials of a note speaks for the one an octave below it. A short window is too blurred for that. */
  readonly partsOctaves: boolean;
}

/** A piece of a take, shaped so that its ends do not count. */
export class Window {
  private readonly shape: Float32Array;
  private readonly windowed: Float32Array;
  private readonly fft: FFT;
  private readonly spectrum: number[];
  private readonly padded: number[];
  private known: { readonly pitches: readonly number[]; readonly upper: readonly boolean[] } | undefined;

  /**
   * @param size in samples
   * @param looking how it is looked at
   */
  constructor(
    private readonly samples: Float32Array,
    private readonly sampleRate: number,
    private readonly size: number,
    private readonly looking: Looking = { falling: 1, partsOctaves: true },
  ) {
    this.shape = windowShape(size);
    this.windowed = new Float32Array(size);
    const length = 2 ** Math.ceil(Math.log2(size * padding));
    this.fft = new FFT(length);
    this.spectrum = this.fft.createComplexArray();
    this.padded = new Array<number>(length).fill(0);
  }

  /** @param from its first sample */
  fitsAt(from: number, pitches: readonly number[]): Fits {
    const { windowed, shape, samples, size, padded } = this;
    let all = 0;
    for (let index = 0; index < size; index += 1) {
      windowed[index] = (samples[from + index] ?? 0) * shape[index];
      all += windowed[index] * windowed[index];
      padded[index] = windowed[index];
    }
    this.fft.realTransform(this.spectrum, padded);
    let [most, held] = [-1, 0];
    const upper = this.looking.partsOctaves ? this.upperOf(pitches) : [];
    const fits = pitches.map((pitch, index) => {
      const { fit, energy } = this.fitOf(pitch, upper.at(index) === true);
      if (fit > most) [most, held] = [fit, energy];
      return fit;
    });
    // A steady tone holds a third of its samples times its energy in one frequency.
    return { fits, share: all === 0 ? 0 : Math.min(1, (3 * held) / (size * all)) };
  }

  /**
   * How much of what sounds lies on the partials of a pitch, the low ones counting more: an octave above or below fits worse.
   * @param isUpper true where a note an octave below is looked for too: what lies midway between the partials is that one's, however weak its first partial is, as it is on a pipe chanter
   */
  private fitOf(pitch: number, isUpper: boolean): { readonly fit: number; readonly energy: number } {
    let [sum, weights, energy] = [0, 0, 0];
    for (let partial = 1; partial <= partials && partial * pitch < Math.min(highest, this.sampleRate / 2); partial += 1) {
      const amplitude = this.amplitudeAt(partial * pitch);
      const between = isUpper ? this.amplitudeAt((partial - 0.5) * pitch) : 0;
      sum += (amplitude - between) / partial ** this.looking.falling;
      energy += amplitude * amplitude;
      weights += 1 / partial ** (2 * this.looking.falling);
    }
    return { fit: Math.max(0, sum) / Math.sqrt(weights), energy };
  }

  /** Of each pitch, whether another one lies an octave below it. */
  private upperOf(pitches: readonly number[]): readonly boolean[] {
    if (this.known?.pitches !== pitches)
      this.known = { pitches, upper: pitches.map((pitch) => pitches.some((other) => Math.abs(Math.log2(pitch / other) - 1) < octaveWithin)) };
    return this.known.upper;
  }

  /** Between two neighbours of the transform, which lie close, evenly. */
  private amplitudeAt(frequency: number): number {
    const place = (frequency / this.sampleRate) * this.padded.length;
    const first = Math.floor(place);
    const share = place - first;
    return (1 - share) * this.magnitude(first) + share * this.magnitude(first + 1);
  }

  private magnitude(bin: number): number {
    const [real, imaginary] = [this.spectrum[2 * bin], this.spectrum[2 * bin + 1]];
    return Math.sqrt(real * real + imaginary * imaginary);
  }
}
