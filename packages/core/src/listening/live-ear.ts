import { soundingPitch, type Instrument, type NoteId } from '../fingering';
import { decodeTake } from './decode-take';
import { finePitch } from './fine-pitch';
import { judgeTake, type HeardChange } from './judge-take';
import { Window } from './window';
import { windowShape } from './window-shape';

/** What sounds now: a note of the instrument, and how far from it, in cents. */
export interface LivePitch {
  readonly note: NoteId;
  readonly cents: number;
  /** In ms from the beginning. */
  readonly at: number;
}

/** So much is kept and looked at for the last change, for the pitch, and for the name of the note, in ms. Our own choices. */
const [keptMs, pitchMs, nameMs] = [1400, 100, 18];
/** Quieter than this is nothing, in root of the mean square of full scale; so is what has less than this share on the partials of any note. */
const [quietest, leastShare] = [0.004, 0.3];
/** The name is looked for at so many places of the last piece; it counts where most of them agree. */
const looks = 5;

/** Listens while somebody plays: what sounds now, and how the last change went. Nothing older than a second and a half is kept. */
export class LiveEar {
  private readonly kept: Float32Array;
  /** Samples that have come in so far. */
  private heard = 0;
  private readonly pitches: readonly number[];
  private readonly shape: Float32Array;
  private readonly windowed: Float32Array;
  private readonly naming: Window;

  constructor(
    private readonly instrument: Instrument,
    private readonly sampleRate: number,
  ) {
    this.kept = new Float32Array(Math.round((keptMs / 1000) * sampleRate));
    this.pitches = instrument.notes.map(({ id }) => soundingPitch(instrument, id));
    const size = Math.round((pitchMs / 1000) * sampleRate);
    this.shape = windowShape(size);
    this.windowed = new Float32Array(size);
    this.naming = new Window(this.kept, sampleRate, Math.round((nameMs / 1000) * sampleRate));
  }

  /** Takes what came in since. */
  hear(piece: Float32Array): void {
    const { kept } = this;
    const newest = piece.subarray(Math.max(0, piece.length - kept.length));
    kept.copyWithin(0, newest.length);
    kept.set(newest, kept.length - newest.length);
    this.heard += piece.length;
  }

  /** What sounds now; undefined for silence, and for what is no steady tone of the instrument. */
  pitch(): LivePitch | undefined {
    const { kept, shape, windowed, sampleRate } = this;
    const from = kept.length - windowed.length;
    let sum = 0;
    for (let index = 0; index < windowed.length; index += 1) {
      const sample = kept[from + index];
      sum += sample * sample;
      windowed[index] = sample * shape[index];
    }
    if (Math.sqrt(sum / windowed.length) < quietest) return undefined;
    const name = this.nameFrom(from);
    if (name === undefined) return undefined;
    const at = Math.round((this.heard / sampleRate) * 1000 - pitchMs / 2);
    return { note: this.instrument.notes[name].id, cents: finePitch(windowed, sampleRate, this.pitches[name]), at };
  }

  /**
   * The last change between two notes that follow each other in what was asked for; undefined before there is one.
   * @param notes of the change: the one and the other
   */
  lastChange(notes: readonly [NoteId, NoteId]): HeardChange | undefined {
    const known = Math.min(this.heard, this.kept.length);
    const { stretches } = decodeTake(this.instrument, this.kept.slice(this.kept.length - known), this.sampleRate);
    const first = stretches.find(({ note, start, end }) => note !== null && notes.includes(note) && end - start > pitchMs)?.note;
    const order = first === notes[1] ? [notes[1], notes[0]] : notes;
    const wanted = Array.from({ length: mostNotes }, (_, index) => order[index % 2]);
    const change = judgeTake(this.instrument, wanted, stretches).changes.at(-1);
    const before = ((this.heard - known) / this.sampleRate) * 1000;
    return change === undefined ? undefined : { ...change, at: Math.round(change.at + before) };
  }

  /** Index of the note on which most of the looks agree. */
  private nameFrom(from: number): number | undefined {
    const last = this.kept.length - Math.round((nameMs / 1000) * this.sampleRate);
    const counts = new Map<number, number>();
    for (let look = 0; look < looks; look += 1) {
      const { fits, share } = this.naming.fitsAt(Math.round(from + ((last - from) * look) / (looks - 1)), this.pitches);
      if (share < leastShare) continue;
      const best = fits.indexOf(Math.max(...fits));
      counts.set(best, (counts.get(best) ?? 0) + 1);
    }
    return [...counts].find(([, count]) => count > looks / 2)?.[0];
  }
}

/** More notes are not in what is kept. */
const mostNotes = 24;
