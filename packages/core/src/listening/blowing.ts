import { noteOf, soundingPitch, type Instrument, type NoteId } from '../fingering';
import { hertz } from '../pitch';
import { amplitudeAt } from './goertzel';
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
/** The first and last of a stretch are the change's, in ms. */
const edgeMs = 50;
const partials = 5;
/** So far from the note it is looked for, in cents. */
const reach = 70;
const golden = (Math.sqrt(5) - 1) / 2;
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
  return stretches.flatMap(({ note, start, end }) => {
    if (note === null) return [];
    const pitch = soundingPitch(instrument, note) * 2 ** (tuning / 1200);
    const found: PitchMoment[] = [];
    for (let at = start + edgeMs; at + windowMs <= end - edgeMs; at += hopMs) {
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

/** Where the partials of a pitch hold most, by golden section: between two neighbours there is one top. */
function finePitch(windowed: Float32Array, sampleRate: number, pitch: number): number {
  const fit = (cents: number): number => {
    const shifted = hertz(pitch * 2 ** (cents / 1200));
    let sum = 0;
    for (let partial = 1; partial <= partials && partial * shifted < sampleRate / 2; partial += 1)
      sum += amplitudeAt(windowed, (2 * Math.PI * partial * shifted) / sampleRate);
    return sum;
  };
  // The top is found roughly first, so that the section does not end on a side lobe.
  let best = -reach;
  for (let cents = -reach; cents <= reach; cents += 10) if (fit(cents) > fit(best)) best = cents;
  let [low, high] = [best - 10, best + 10];
  while (high - low > 0.5) {
    const [one, other] = [high - golden * (high - low), low + golden * (high - low)];
    if (fit(one) > fit(other)) high = other;
    else low = one;
  }
  return (low + high) / 2;
}

function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((one, other) => one - other);
  return sorted[Math.min(sorted.length - 1, Math.round(share * (sorted.length - 1)))];
}
