import { noteOf, soundingPitch, type Instrument, type NoteId } from '../fingering';
import { centsOfRatio } from '../pitch';
import { capital } from '../words';
import { finePitch } from './fine-pitch';
import type { HeardStretch } from './heard-stretch';
import { windowShape } from './window-shape';

/** How steadily a note was blown, over all of its long stretches. */
export interface Blowing {
  readonly note: NoteId;
  /** Its middle pitch against the instrument as the take is tuned, in cents. */
  readonly cents: number;
  /** Nineteen of twenty moments lie within so many cents of that. */
  readonly within: number;
  /** Moments that were looked at. */
  readonly moments: number;
}

/** A moment of a held note: when, in ms, and how far from the note, in cents. */
export interface PitchMoment {
  readonly at: number;
  readonly note: NoteId;
  readonly cents: number;
}

/** A window for one moment, and from one to the next, in ms: long enough for a cent, short enough for an unsteady bag. Our own choices. */
const [windowMs, hopMs] = [100, 50];
/** So many moments say how something was blown: of a long take they lie further apart. Our own choice. */
const mostMoments = 2400;
/** The first and last of a stretch are the change's, in ms. */
const edgeMs = 50;
const fewest = 2;

/**
 * The pitch of every long stretch, moment by moment.
 * @param tuning of the whole take, in cents, as `decodeTake` found it
 */
export function pitchTrace(
  instrument: Instrument,
  stretches: readonly HeardStretch[],
  samples: Float32Array,
  sampleRate: number,
  tuning: number,
): PitchMoment[] {
  const size = Math.round((windowMs / 1000) * sampleRate);
  const shape = windowShape(size);
  const windowed = new Float32Array(size);
  const sounding = stretches.reduce((sum, { note, start, end }) => (note === null ? sum : sum + end - start), 0);
  const hop = Math.max(hopMs, sounding / mostMoments);
  return stretches.flatMap(({ note, start, end }) => {
    if (note === null) return [];
    const pitch = soundingPitch(instrument, note) * 2 ** (tuning / 1200);
    const found: PitchMoment[] = [];
    for (let at = start + edgeMs; at + windowMs <= end - edgeMs; at += hop) {
      const from = Math.round((at / 1000) * sampleRate);
      if (from + size > samples.length) break;
      for (let index = 0; index < size; index += 1) windowed[index] = samples[from + index] * shape[index];
      found.push({ at: at + windowMs / 2, note, cents: finePitch(windowed, sampleRate, pitch) });
    }
    return found;
  });
}

/** How each note was blown that was held long enough, in the order of the instrument. */
export function blowingOf(instrument: Instrument, trace: readonly PitchMoment[]): readonly Blowing[] {
  return instrument.notes.flatMap(({ id }) => {
    const cents = trace.filter(({ note }) => note === id).map((moment) => moment.cents);
    if (cents.length < fewest) return [];
    const middle = quantile(cents, 0.5);
    const away = cents.map((each) => Math.abs(each - middle));
    return [{ note: id, cents: Math.round(middle), within: Math.max(1, Math.round(quantile(away, 0.95))), moments: cents.length }];
  });
}

/** "Blowing: B within 5 cents, E within 7 cents." Empty where no note was held long enough. */
export function blowingText(instrument: Instrument, blowing: readonly Blowing[]): string {
  if (blowing.length === 0) return '';
  const each = blowing.map(({ note, within }) => `${noteOf(instrument, note).schoolName} within ${within} ${within === 1 ? 'cent' : 'cents'}`);
  return `Blowing: ${each.join(', ')}.`;
}

/** Moments amid a note that is held: those whose neighbours are of the same note. */
export const steadyMoments = <M extends PitchMoment>(trace: readonly M[]): readonly M[] =>
  trace.filter(({ note }, index) => trace[index - 1]?.note === note && trace[index + 1]?.note === note);

/** An octave is true within so many cents. Our own choice. */
const trueWithin = 5;

/** "Low A to high A: 12 cents wide." for every octave of which both notes were held; empty where none was. */
export function octaveText(instrument: Instrument, blowing: readonly Blowing[]): string {
  const pitchOf = ({ note, cents }: Blowing): number => soundingPitch(instrument, note) * 2 ** (cents / 1200);
  const name = ({ note }: Blowing): string => noteOf(instrument, note).schoolName;
  const texts = blowing.flatMap((low) =>
    blowing.flatMap((high) => {
      const wide = Math.round(centsOfRatio(pitchOf(high) / pitchOf(low)) - 1200);
      if (Math.abs(wide) > reachOfOctave) return [];
      const amount = Math.abs(wide) <= trueWithin ? 'true' : `${Math.abs(wide)} cents ${wide > 0 ? 'wide' : 'narrow'}`;
      return [`${capital(name(low))} to ${name(high)}: ${amount}.`];
    }),
  );
  return texts.length === 0 ? '' : `Octaves: ${texts.join(' ')}`;
}

/** Notes that are further from an octave apart are none, in cents. */
const reachOfOctave = 80;

function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((one, other) => one - other);
  return sorted[Math.min(sorted.length - 1, Math.round(share * (sorted.length - 1)))];
}
