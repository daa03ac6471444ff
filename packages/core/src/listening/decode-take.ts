import { soundingPitch, type Instrument, type NoteId } from '../fingering';
import { hertz } from '../pitch';
import { amplitudeAt } from './goertzel';

/** A stretch of a take in which one note sounds, or none. */
export interface HeardStretch {
  /** Null for silence. */
  readonly note: NoteId | null;
  /** In ms from the beginning of the take. */
  readonly start: number;
  readonly end: number;
  /** How much better this note fits than the next best, 0 to 1. */
  readonly confidence: number;
}

export interface DecodedTake {
  readonly stretches: readonly HeardStretch[];
  /** How far the whole take is from the instrument's own pitch, in cents. */
  readonly tuning: number;
}

/** Short enough for a noise of a dozen ms, long enough to tell a tone from the next by its upper partials. Our own choices, in ms. */
const [windowMs, hopMs] = [18, 2];
const partials = 8;
/** Above this no partial is looked at, in Hz. */
const highest = 9000;
/** Quieter than the loudest by so many decibels is silence. Our own choice. */
const silenceDecibels = 38;
/** What a change of state costs, in units of evidence: about five ms of a clear tone. Our own choice. */
const changeCost = 4;
/** How sharply a better fit counts. Our own choice. */
const sharpness = 5;
/** Tunings that are tried against the take, in cents. */
const tunings = Array.from({ length: 25 }, (_, index) => (index - 12) * 5);
const lookedAtForTuning = 30;

/**
 * What sounds in a take, from its samples alone: for each moment how well each note of the instrument fits by its partials, and the likeliest way through all moments.
 * @param samples one channel
 */
export function decodeTake(instrument: Instrument, samples: Float32Array, sampleRate: number): DecodedTake {
  const size = Math.round((windowMs / 1000) * sampleRate);
  const hop = Math.round((hopMs / 1000) * sampleRate);
  const count = Math.max(0, Math.floor((samples.length - size) / hop) + 1);
  const shape = Float32Array.from({ length: size }, (_, index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * index) / size));
  const levels = Array.from({ length: count }, (_, frame) => levelOf(samples, frame * hop, size));
  const loudest = Math.max(...levels, 1e-9);
  const floor = loudest * 10 ** (-silenceDecibels / 20);
  const frames: readonly number[] = levels.flatMap((level, frame) => (level > floor * 4 ? [frame] : []));
  const looked = frames.filter((_, index) => index % Math.max(1, Math.floor(frames.length / lookedAtForTuning)) === 0);
  const bank = instrument.notes.map(({ id }) => soundingPitch(instrument, id));
  const windowed = new Float32Array(size);
  const fitsAt = (frame: number, tuning: number): number[] => {
    for (let index = 0; index < size; index += 1) windowed[index] = samples[frame * hop + index] * shape[index];
    return bank.map((pitch) => fitOf(windowed, sampleRate, hertz(pitch * 2 ** (tuning / 1200))));
  };
  const tuning = best(tunings, (cents) => looked.reduce((sum, frame) => sum + Math.max(...fitsAt(frame, cents)), 0));
  const evidence = sparsely(count, (frame) => evidenceOf(levels[frame] > floor ? fitsAt(frame, tuning) : undefined, bank.length));
  return { tuning, stretches: stretchesOf(instrument, likeliest(evidence), evidence, { hop: (hop / sampleRate) * 1000, lead: (size / sampleRate) * 500 }) };
}

/** What is looked at first: every so many frames, less than the shortest noise. The frames between two that say the same are taken for the same, the others looked at too. */
const stride = 4;

function sparsely(count: number, look: (frame: number) => readonly number[]): readonly (readonly number[])[] {
  const found = new Array<readonly number[]>(count);
  for (let frame = 0; frame < count; frame += stride) found[frame] = look(frame);
  const top = (all: readonly number[]): number => all.indexOf(Math.max(...all));
  for (let first = 0; first < count; first += stride) {
    const next = first + stride;
    const isSteady = next < count && top(found[first]) === top(found[next]);
    for (let frame = first + 1; frame < Math.min(next, count); frame += 1) found[frame] = isSteady ? found[first] : look(frame);
  }
  return found;
}

function levelOf(samples: Float32Array, from: number, size: number): number {
  let sum = 0;
  for (let index = from; index < from + size; index += 1) sum += samples[index] * samples[index];
  return Math.sqrt(sum / size);
}

/** How much of what sounds lies on the partials of a pitch, the low ones counting more: an octave above or below fits worse. */
function fitOf(windowed: Float32Array, sampleRate: number, pitch: number): number {
  let [sum, weights] = [0, 0];
  for (let partial = 1; partial <= partials && partial * pitch < Math.min(highest, sampleRate / 2); partial += 1) {
    sum += amplitudeAt(windowed, (2 * Math.PI * partial * pitch) / sampleRate) / partial;
    weights += 1 / (partial * partial);
  }
  return sum / Math.sqrt(weights);
}

/** The fit of each note against the best one, and of silence, which is the last. */
function evidenceOf(fits: readonly number[] | undefined, notes: number): readonly number[] {
  if (fits === undefined) return [...Array.from({ length: notes }, () => -sharpness), 0];
  const most = Math.max(...fits, 1e-12);
  return [...fits.map((fit) => Math.max(-sharpness, sharpness * Math.log(Math.max(1e-6, fit / most)))), -sharpness];
}

/** Viterbi's way: the states whose evidence together is best, each change of state paid for. */
function likeliest(evidence: readonly (readonly number[])[]): readonly number[] {
  if (evidence.length === 0) return [];
  const states = evidence[0].length;
  let score = [...evidence[0]];
  const from: number[][] = [];
  for (const frame of evidence.slice(1)) {
    const [top] = score.map((_, state) => state).sort((one, other) => score[other] - score[one]);
    const back = Array.from({ length: states }, (_, state) => (score[state] >= score[top] - changeCost ? state : top));
    score = frame.map((value, state) => value + (back[state] === state ? score[state] : score[top] - changeCost));
    from.push(back);
  }
  let state = score.indexOf(Math.max(...score));
  const path = [state];
  for (const back of [...from].reverse()) path.push((state = back[state]));
  return path.reverse();
}

function stretchesOf(
  { notes }: Instrument,
  path: readonly number[],
  evidence: readonly (readonly number[])[],
  { hop, lead }: { readonly hop: number; readonly lead: number },
): readonly HeardStretch[] {
  const found: HeardStretch[] = [];
  let first = 0;
  for (let frame = 1; frame <= path.length; frame += 1) {
    if (frame < path.length && path[frame] === path[first]) continue;
    const state = path[first];
    const margins = evidence.slice(first, frame).map((all) => all[state] - Math.max(...all.filter((_, index) => index !== state)));
    const margin = margins.reduce((sum, each) => sum + each, 0) / margins.length;
    found.push({
      note: notes.at(state)?.id ?? null,
      start: first === 0 ? 0 : lead + first * hop,
      end: lead + frame * hop,
      confidence: 1 - Math.exp(-Math.max(0, margin)),
    });
    first = frame;
  }
  return found;
}

const best = (values: readonly number[], worth: (value: number) => number): number =>
  values.reduce(([most, at], value) => (worth(value) > most ? ([worth(value), value] as const) : ([most, at] as const)), [-Infinity, 0] as readonly [
    number,
    number,
  ])[1];
