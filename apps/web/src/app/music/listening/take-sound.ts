import type { Instrument } from '@zelpit/core/fingering';
import { slowedDown } from '@zelpit/core/listening';
import { playNotes, renderTimeline, type PlayedNote } from '@zelpit/core/sound';

/** Everything that is listened to has this many samples a second: enough for the partials that are looked at. */
export const sampleRate = 22_050;

/** What is played of one change, and what of it slowly, so much before and after the second note begins, in ms. */
const around = { whole: [350, 450], slow: [90, 90] } as const;
const slowTimes = 20;
/** What a take is brought to, so that it is heard beside what is computed; and silence between two, in s. */
const [fullest, pause] = [0.4, 0.35];
const cleanTempo = 80;

/** All channels of a file as one, at `sampleRate`. */
export async function decodedFile(file: Blob): Promise<Float32Array> {
  // Decoding brings it to the sampling rate of its context.
  return monoOf(await new OfflineAudioContext(1, 1, sampleRate).decodeAudioData(await file.arrayBuffer()));
}

/** What was recorded, at `sampleRate`. */
export async function resampled(samples: Float32Array, rate: number): Promise<Float32Array> {
  if (rate === sampleRate || samples.length === 0) return samples;
  const context = new OfflineAudioContext(1, Math.max(1, Math.ceil((samples.length * sampleRate) / rate)), sampleRate);
  const buffer = context.createBuffer(1, samples.length, rate);
  buffer.copyToChannel(Float32Array.from(samples), 0);
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.connect(context.destination);
  source.start();
  return (await context.startRendering()).getChannelData(0);
}

function monoOf(decoded: AudioBuffer): Float32Array {
  const mixed = new Float32Array(decoded.length);
  for (let channel = 0; channel < decoded.numberOfChannels; channel += 1) {
    const samples = decoded.getChannelData(channel);
    for (let index = 0; index < mixed.length; index += 1) mixed[index] += samples[index] / decoded.numberOfChannels;
  }
  return mixed;
}

/** How one change of a take is heard: as it was, twenty times slower without change of pitch, or with a clean one after it. */
export type Hearing = 'as played' | 'slow' | 'beside clean';

/** Notes as they would sound clean, each a beat long. */
export interface CleanNotes {
  readonly instrument: Instrument;
  readonly notes: readonly Pick<PlayedNote, 'note' | 'graceNotes'>[];
}

/** @param at when the second note begins, in ms */
export function changeSound(samples: Float32Array, at: number, hearing: Hearing, clean: CleanNotes) {
  return (rate: number): Float32Array<ArrayBuffer> => {
    const [before, after] = hearing === 'slow' ? around.slow : around.whole;
    const piece = samples.slice(Math.max(0, placeOf(at - before)), placeOf(at + after));
    if (hearing === 'slow') return atRate(slowedDown(piece, sampleRate, slowTimes), rate);
    const played = atRate(piece, rate);
    if (hearing === 'as played') return played;
    const notes = clean.notes.map((note, index): PlayedNote => ({ ...note, beats: 1, index, isTied: false }));
    const settings = { tempo: cleanTempo, beatsInBar: 2, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
    const computed = evened(renderTimeline(clean.instrument, playNotes(clean.instrument, notes, settings), { sampleRate: rate }));
    return oneAfterOther(played, computed, rate);
  };
}

/** One place of a take, and after it the same place of another one. @param at when it begins, in ms */
export function besideSound(take: { readonly samples: Float32Array; readonly at: number }, other: { readonly samples: Float32Array; readonly at: number }) {
  const [before, after] = around.whole;
  return (rate: number): Float32Array<ArrayBuffer> => {
    const [one, next] = [take, other].map(({ samples, at }) => atRate(samples.slice(Math.max(0, placeOf(at - before)), placeOf(at + after)), rate));
    return oneAfterOther(one, next, rate);
  };
}

/** All of it, as it was. */
export const wholeSound =
  (samples: Float32Array) =>
  (rate: number): Float32Array<ArrayBuffer> =>
    atRate(samples, rate);

/** Two pieces, with silence between them. */
function oneAfterOther(one: Float32Array, next: Float32Array, rate: number): Float32Array<ArrayBuffer> {
  const both = new Float32Array(one.length + Math.round(pause * rate) + next.length);
  both.set(one);
  both.set(next, both.length - next.length);
  return both;
}

const placeOf = (ms: number): number => Math.round((ms / 1000) * sampleRate);

/** Brought to one level, so that neither of two is heard as the better one for being louder. */
function evened(samples: Float32Array): Float32Array<ArrayBuffer> {
  const loudest = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 1e-6);
  return Float32Array.from(samples, (sample) => (sample * fullest) / loudest);
}

/** Read at another rate, evenly between two samples. */
function atRate(samples: Float32Array, rate: number): Float32Array<ArrayBuffer> {
  const step = sampleRate / rate;
  const read = Float32Array.from({ length: Math.max(1, Math.floor((samples.length - 1) / step)) }, (_, index) => {
    const at = index * step;
    const first = Math.floor(at);
    return samples[first] + (samples[first + 1] - samples[first]) * (at - first);
  });
  return evened(read);
}
