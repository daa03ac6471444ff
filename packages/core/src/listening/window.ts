// Whoever takes in this source has to find the types of the package too, which has none.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./fft.d.ts" />
import FFT from 'fft.js';
import { windowShape } from './window-shape';

/** Of each note so many partials are looked at, none above this, in Hz. Our own choices. */
const [partials, highest] = [8, 9000];
/** The transform is so much longer than the window, so that its neighbours lie close beside what is looked for. */
const padding = 4;

/** How well each note fits what sounds in one moment. */
export interface Fits {
  readonly fits: readonly number[];
  /** Of the best one: how much of all that sounds lies on its partials, 0 to 1. */
  readonly share: number;
}

/** A piece of a take, shaped so that its ends do not count. */
export class Window {
  private readonly shape: Float32Array;
  private readonly windowed: Float32Array;
  private readonly fft: FFT;
  private readonly spectrum: number[];
  private readonly padded: number[];

  /**
   * @param size in samples
   * @param falling how much less a partial counts than the one below it: by its number to this power. 1 keeps octaves apart; less tells neighbours apart in a short window, since their high partials lie further from each other
   */
  constructor(
    private readonly samples: Float32Array,
    private readonly sampleRate: number,
    private readonly size: number,
    private readonly falling = 1,
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
    const fits = pitches.map((pitch) => {
      const { fit, energy } = this.fitOf(pitch);
      if (fit > most) [most, held] = [fit, energy];
      return fit;
    });
    // A steady tone holds a third of its samples times its energy in one frequency.
    return { fits, share: all === 0 ? 0 : Math.min(1, (3 * held) / (size * all)) };
  }

  /** How much of what sounds lies on the partials of a pitch, the low ones counting more: an octave above or below fits worse. */
  private fitOf(pitch: number): { readonly fit: number; readonly energy: number } {
    let [sum, weights, energy] = [0, 0, 0];
    for (let partial = 1; partial <= partials && partial * pitch < Math.min(highest, this.sampleRate / 2); partial += 1) {
      const amplitude = this.amplitudeAt(partial * pitch);
      sum += amplitude / partial ** this.falling;
      energy += amplitude * amplitude;
      weights += 1 / partial ** (2 * this.falling);
    }
    return { fit: sum / Math.sqrt(weights), energy };
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
