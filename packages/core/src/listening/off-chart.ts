import type { Instrument } from '../fingering';
import { centsBetween, hertz, type Hertz } from '../pitch';
import type { HeardStretch } from './heard-stretch';
import { Window } from './window';

/** As long as a moment that is looked at, in ms. */
const windowMs = 18;
/** A stretch of such a length, between two notes, is named by its own pitch where it fits none of them well. In ms. Our own choices. */
const [shortest, longest] = [12, 120];
/** Below this confidence what a stretch is called is looked at once more; a pitch counts where it holds this share of all that sounds. Our own choices. */
const [unsure, leastShare] = [0.6, 0.5];
/** Pitches that are tried: so fine, and so far beyond the lowest and the highest note, in cents. */
const [step, beyond] = [10, 150];
/** So much nearer than the next note makes a name sure: to 1 - 1/e, in cents. */
const nearerBy = 25;

/**
 * Names what lies between the notes of the instrument. A grace note is made with a pattern of holes that no chart has; on another bore it sounds up to half a tone away from every note,
 * fits none of them, and is called silence, or the note that happens to share its partials. So short stretches like these are called by the note that is nearest to their own pitch.
 */
export class OffChart {
  private readonly window: Window;
  private readonly size: number;
  private readonly tried: readonly Hertz[];

  /** @param pitches of the instrument's notes as this take is tuned, in Hz */
  constructor(
    private readonly instrument: Instrument,
    samples: Float32Array,
    private readonly sampleRate: number,
    private readonly pitches: readonly number[],
  ) {
    this.size = Math.round((windowMs / 1000) * sampleRate);
    this.window = new Window(samples, sampleRate, this.size);
    const [low, high] = [hertz(Math.min(...pitches)), hertz(Math.max(...pitches))];
    const count = Math.floor((centsBetween(low, high) + 2 * beyond) / step) + 1;
    this.tried = Array.from({ length: count }, (_, index) => hertz(low * 2 ** ((index * step - beyond) / 1200)));
  }

  named(stretches: readonly HeardStretch[]): readonly HeardStretch[] {
    return stretches.map((stretch, index) => {
      const [before, after] = [stretches.at(index - 1)?.note, stretches.at(index + 1)?.note];
      const lasts = stretch.end - stretch.start;
      if (index === 0 || before == null || after == null || lasts < shortest || lasts > longest) return stretch;
      if (stretch.note !== null && stretch.confidence >= unsure) return stretch;
      const own = this.nameAt((stretch.start + stretch.end) / 2);
      // What sounds like its neighbour is a note that dies away, or begins: nothing between.
      return own === undefined || own.note === before || own.note === after ? stretch : { ...stretch, ...own };
    });
  }

  /** The note nearest to what sounds around a moment, in ms; undefined where that is no tone. */
  private nameAt(at: number): Pick<HeardStretch, 'note' | 'confidence'> | undefined {
    const { fits, share } = this.window.fitsAt(Math.round((at / 1000) * this.sampleRate - this.size / 2), this.tried);
    if (share < leastShare) return undefined;
    const pitch = this.tried[fits.indexOf(Math.max(...fits))];
    const away = this.pitches.map((each) => Math.abs(centsBetween(hertz(each), pitch)));
    const [first, second] = [...away].sort((one, other) => one - other);
    if (first > beyond) return undefined;
    return { note: this.instrument.notes[away.indexOf(first)].id, confidence: 1 - Math.exp((first - second) / nearerBy) };
  }
}
