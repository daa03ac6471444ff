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

/**
 * What sounds in a take, from its samples alone: for each moment how well each note of the instrument fits by its partials, and the likeliest way through all moments;
 * then once more through a shorter window wherever one note gives way to another.
 * @param samples one channel
 */
export function decodeTake(instrument: Instrument, samples: Float32Array, sampleRate: number): DecodedTake {
  const bank = instrument.notes.map(({ id }) => soundingPitch(instrument, id));
  const size = Math.round((windowMs / 1000) * sampleRate);
  const hop = Math.round((hopMs / 1000) * sampleRate);
  const count = Math.max(0, Math.floor((samples.length - size) / hop) + 1);
  const levels = Array.from({ length: count }, (_, frame) => levelOf(samples, frame * hop, size));
  const loudest = Math.max(...levels, 1e-9);
  const floor = loudest * 10 ** (-silenceDecibels / 20);
  const frames: readonly number[] = levels.flatMap((level, frame) => (level > floor * 4 ? [frame] : []));
  // By the golden section: what is looked at evenly falls on the beat of somebody who keeps time, and is one grace note after the other.
  const looked = Array.from({ length: Math.min(lookedAtForTuning, frames.length) }, (_, index) => frames[Math.floor(((index * golden) % 1) * frames.length)]);
  const look = new Window(samples, sampleRate, size);
  const tuning = best(tunings, (cents) => looked.reduce((sum, frame) => sum + Math.max(...look.fitsAt(frame * hop, tuned(bank, cents)).fits), 0));
  const pitches = tuned(bank, tuning);
  const heard = withoutNoise(sparsely(count, (frame) => (levels[frame] > floor ? look.fitsAt(frame * hop, pitches) : undefined)));
  const evidence = heard.map((each) => evidenceOf(each, bank.length));
  const times = { hop: (hop / sampleRate) * 1000, lead: (size / sampleRate) * 500 };
  const rough = stretchesOf(instrument, likeliest(evidence), evidence, times);
  const parted = new Seams(instrument, samples, sampleRate, pitches).lookedAt(rough);
  const stretches = new OffChart(instrument, samples, sampleRate, pitches).named(parted);
  return { tuning, stretches: acrossDropouts(stretches, dropoutsIn(samples, sampleRate), windowMs) };
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
