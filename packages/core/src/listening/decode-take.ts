import { soundingPitch, type Instrument } from '../fingering';
import { hertz } from '../pitch';
import { acrossDropouts, dropoutsIn } from './dropouts';
import type { HeardStretch } from './heard-stretch';
import { levelOf } from './level';
import { OffChart } from './off-chart';
import { Seams } from './seams';
import { Window, type Fits } from './window';

export interface DecodedTake {
  readonly stretches: readonly HeardStretch[];
  /** How far the whole take is from the instrument's own pitch, in cents. */
  readonly tuning: number;
}

/** Short enough for a noise of a dozen ms, long enough to tell a tone from the next by its upper partials. Our own choices, in ms. */
const [windowMs, hopMs] = [18, 2];
/** Quieter than the loudest by so many decibels is silence; so is what has less than this share of its energy on the partials of any note: breath, a room, speech. Our own choices. */
const [silenceDecibels, leastShare] = [38, 0.3];
/** What a change of state costs, in units of evidence: about five ms of a clear tone. Our own choice. */
const changeCost = 4;
/** How sharply a better fit counts. Our own choice. */
const sharpness = 5;
/** Tunings that are tried against the take, in cents. */
const tunings = Array.from({ length: 25 }, (_, index) => (index - 12) * 5);
const lookedAtForTuning = 30;
const golden = (Math.sqrt(5) - 1) / 2;

/** A long take is read in pieces, so that what is kept of each moment is kept for a minute of them only; each begins so much before the end of the one before, in s. Our own choices. */
const [pieceSeconds, sharedSeconds] = [60, 3];

/**
 * What sounds in a take, from its samples alone: for each moment how well each note of the instrument fits by its partials, and the likeliest way through all moments;
 * then once more through a shorter window wherever one note gives way to another.
 * @param samples one channel
 * @param progress is told how much of it was read, 0 to 1
 */
export function decodeTake(
  instrument: Instrument,
  samples: Float32Array,
  sampleRate: number,
  progress: (share: number) => void = () => undefined,
): DecodedTake {
  const size = Math.round((windowMs / 1000) * sampleRate);
  const hop = Math.round((hopMs / 1000) * sampleRate);
  const levels = new Float32Array(Math.max(0, Math.floor((samples.length - size) / hop) + 1)).map((_, frame) => levelOf(samples, frame * hop, size));
  const floor = levels.reduce((most, level) => Math.max(most, level), 1e-9) * 10 ** (-silenceDecibels / 20);
  const bank = instrument.notes.map(({ id }) => soundingPitch(instrument, id));
  const tuning = tuningOf(bank, new Window(samples, sampleRate, size), { levels, floor, hop });
  const reading: Reading = { instrument, sampleRate, size, hop, floor, pitches: tuned(bank, tuning) };
  const framesOf = (seconds: number): number => Math.round((seconds * sampleRate) / hop);
  const [whole, step] = [framesOf(pieceSeconds), framesOf(pieceSeconds - sharedSeconds)];
  let stretches: readonly HeardStretch[] = [];
  for (let first = 0; first === 0 || first + whole - step < levels.length; first += step) {
    // What would be left for a short last piece belongs to this one.
    const isLast = first + whole + step / 2 >= levels.length;
    const end = isLast ? samples.length : (first + whole) * hop;
    const piece = readPiece(samples.subarray(first * hop, end), levels.subarray(first), reading);
    const from = ((first * hop) / sampleRate) * 1000;
    const moved = piece.map((stretch) => ({ ...stretch, start: stretch.start + from, end: stretch.end + from }));
    stretches = first === 0 ? moved : readOn(stretches, moved, from);
    progress(isLast ? 1 : end / samples.length);
    if (isLast) break;
  }
  return { tuning, stretches };
}

interface Reading {
  readonly instrument: Instrument;
  readonly sampleRate: number;
  /** Of a window, and from one to the next, in samples. */
  readonly size: number;
  readonly hop: number;
  /** Quieter than this is silence. */
  readonly floor: number;
  readonly pitches: readonly number[];
}

function readPiece(samples: Float32Array, levels: Float32Array, { instrument, sampleRate, size, hop, floor, pitches }: Reading): readonly HeardStretch[] {
  const count = Math.max(0, Math.floor((samples.length - size) / hop) + 1);
  const look = new Window(samples, sampleRate, size);
  const heard = withoutNoise(sparsely(count, (frame) => (levels[frame] > floor ? look.fitsAt(frame * hop, pitches) : undefined)));
  const evidence = evidencesOf(heard, pitches.length);
  const times = { hop: (hop / sampleRate) * 1000, lead: (size / sampleRate) * 500 };
  const rough = stretchesOf(instrument, likeliest(evidence), evidence, times);
  const parted = new Seams(instrument, samples, sampleRate, pitches).lookedAt(rough);
  const stretches = new OffChart(instrument, samples, sampleRate, pitches).named(parted);
  return acrossDropouts(stretches, dropoutsIn(samples, sampleRate), windowMs);
}

/** One piece after another that begins before its end: they meet within the longest stretch that both have, where neither is in doubt. */
function readOn(before: readonly HeardStretch[], after: readonly HeardStretch[], from: number): readonly HeardStretch[] {
  const shared = before.flatMap(({ start, end }) => (end > from ? [{ start: Math.max(start, from), end }] : []));
  const longest = shared.reduce((most, each) => (each.end - each.start > most.end - most.start ? each : most));
  const cut = (longest.start + longest.end) / 2;
  const ended = before.flatMap((each) => (each.start < cut ? [{ ...each, end: Math.min(each.end, cut) }] : []));
  const begun = after.flatMap((each) => (each.end > cut ? [{ ...each, start: Math.max(each.start, cut) }] : []));
  const [last, first] = [ended[ended.length - 1], begun[0]];
  if (last.note !== first.note) return [...ended, ...begun];
  const both = { ...last, end: first.end, confidence: Math.max(last.confidence, first.confidence) };
  return [...ended.slice(0, -1), both, ...begun.slice(1)];
}

interface Levels {
  readonly levels: Float32Array;
  readonly floor: number;
  readonly hop: number;
}

/** By the golden section: what is looked at evenly falls on the beat of somebody who keeps time, and is one grace note after the other. */
function tuningOf(bank: readonly number[], look: Window, { levels, floor, hop }: Levels): number {
  const frames: number[] = [];
  for (let frame = 0; frame < levels.length; frame += 1) if (levels[frame] > floor * 4) frames.push(frame);
  const looked = Array.from({ length: Math.min(lookedAtForTuning, frames.length) }, (_, index) => frames[Math.floor(((index * golden) % 1) * frames.length)]);
  return best(tunings, (cents) => {
    const pitches = tuned(bank, cents);
    return looked.reduce((sum, frame) => sum + Math.max(...look.fitsAt(frame * hop, pitches).fits), 0);
  });
}

const tuned = (bank: readonly number[], cents: number): readonly number[] => bank.map((pitch) => hertz(pitch * 2 ** (cents / 1200)));

/** What is looked at first: every so many frames, less than the shortest noise. The frames between two that say the same are taken for the same, the others looked at too. */
const stride = 4;

function sparsely(count: number, look: (frame: number) => Fits | undefined): readonly (Fits | undefined)[] {
  const found = new Array<Fits | undefined>(count);
  for (let frame = 0; frame < count; frame += stride) found[frame] = look(frame);
  const top = (each: Fits | undefined): number => (each === undefined ? -1 : each.fits.indexOf(Math.max(...each.fits)));
  for (let first = 0; first < count; first += stride) {
    const next = first + stride;
    const isSteady = next < count && top(found[first]) === top(found[next]);
    for (let frame = first + 1; frame < Math.min(next, count); frame += 1) found[frame] = isSteady ? found[first] : look(frame);
  }
  return found;
}

/** What is no tone of the instrument for so many moments is silence; for a few it is one note giving way to another. */
const noiseMoments = 20;

function withoutNoise(heard: readonly (Fits | undefined)[]): readonly (Fits | undefined)[] {
  const kept = [...heard];
  let first = 0;
  for (let moment = 0; moment <= heard.length; moment += 1) {
    const isTone = moment === heard.length || (heard[moment]?.share ?? 0) >= leastShare;
    if (!isTone) continue;
    if (moment - first >= noiseMoments) kept.fill(undefined, first, moment);
    first = moment + 1;
  }
  return kept;
}

/** Of each moment; moments that were taken for the same share theirs. */
function evidencesOf(heard: readonly (Fits | undefined)[], notes: number): readonly (readonly number[])[] {
  const found: (readonly number[])[] = [];
  for (let moment = 0; moment < heard.length; moment += 1)
    found.push(moment > 0 && heard[moment] === heard[moment - 1] ? found[moment - 1] : evidenceOf(heard[moment], notes));
  return found;
}

/** The fit of each note against the best one, and of silence, which is the last. */
function evidenceOf(heard: Fits | undefined, notes: number): readonly number[] {
  if (heard === undefined) return [...Array.from({ length: notes }, () => -sharpness), 0];
  const { fits } = heard;
  const most = Math.max(...fits, 1e-12);
  return [...fits.map((fit) => Math.max(-sharpness, sharpness * Math.log(Math.max(1e-6, fit / most)))), -sharpness];
}

/** Viterbi's way: the states whose evidence together is best, each change of state paid for. */
function likeliest(evidence: readonly (readonly number[])[]): readonly number[] {
  if (evidence.length === 0) return [];
  const states = evidence[0].length;
  const score = Float64Array.from(evidence[0]);
  // For each moment and state, the state before it.
  const from = new Uint8Array(evidence.length * states);
  for (let moment = 1; moment < evidence.length; moment += 1) {
    const top = topOf(score);
    const changed = score[top] - changeCost;
    for (let state = 0; state < states; state += 1) {
      const isKept = score[state] >= changed;
      from[moment * states + state] = isKept ? state : top;
      score[state] = evidence[moment][state] + (isKept ? score[state] : changed);
    }
  }
  const path = new Array<number>(evidence.length);
  let state = topOf(score);
  for (let moment = evidence.length - 1; moment >= 0; moment -= 1) {
    path[moment] = state;
    state = from[moment * states + state];
  }
  return path;
}

/** The first of the highest. */
function topOf(score: Float64Array): number {
  let top = 0;
  for (let state = 1; state < score.length; state += 1) if (score[state] > score[top]) top = state;
  return top;
}

/** How much better a state fits than the best other one. */
function marginOf(fits: readonly number[], state: number): number {
  let next = -Infinity;
  for (let other = 0; other < fits.length; other += 1) if (other !== state && fits[other] > next) next = fits[other];
  return fits[state] - next;
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
    let margin = 0;
    for (let moment = first; moment < frame; moment += 1) margin += marginOf(evidence[moment], state) / (frame - first);
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
