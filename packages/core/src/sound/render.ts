import { heardFrom, loudnessAt } from '../acoustics';
import { ZelpitFault } from '../fault';
import { patternKey, type Instrument, type Pattern } from '../fingering';
import { droneHertz } from './drone';
import { hertz } from '../pitch';
import { toneTable } from './tone-table';
import { tableSize } from './reed-tone';
import type { Click, Timeline } from './timeline';

export interface RenderSettings {
  /** Samples a second, 8 000 to 192 000. */
  readonly sampleRate: number;
  /** Pitch of the instrument's reference note; its own by default. */
  readonly referenceHertz?: number;
  /** False gives every note the same loudness; as the instrument is reported to sound by default. */
  readonly hasBalance?: boolean;
  /** A held tone under everything, an octave or two under the instrument's own; none by default. */
  readonly hasDrone?: boolean;
}

/** No sample is ever larger. */
export const levelCap = 0.5;
const toneLevel = 0.26;
const clickLevel = 0.2;
const droneLevel = 0.05;
/** Time in which pitch and level glide from one pattern to the next, centred on the change. */
const glideMs = 0.8;
/** Time in which the first tone comes up from silence, and any tone goes back to it. */
const fadeMs = 12;

interface Voice {
  readonly stepSize: number;
  readonly level: number;
}

/**
 * Computes a timeline as samples, one channel, -levelCap to +levelCap. One oscillator runs through all patterns, so its
 * phase never jumps; pitch and level glide over less than a millisecond.
 * @throws ZelpitFault `out-of-range` for a sampling rate outside 8 000 to 192 000
 */
export function renderTimeline(instrument: Instrument, timeline: Timeline, settings: RenderSettings): Float32Array<ArrayBuffer> {
  const { sampleRate } = settings;
  if (!(sampleRate >= 8000 && sampleRate <= 192_000)) {
    throw new ZelpitFault('out-of-range', `A sampling rate must lie between 8000 and 192000; ${sampleRate} came.`, { sampleRate });
  }
  const samples = new Float32Array(Math.ceil((timeline.length / 1000) * sampleRate) + Math.ceil((fadeMs / 1000) * sampleRate));
  renderTone(samples, instrument, timeline, settings);
  if (settings.hasDrone === true) addDrone(samples, instrument, settings);
  for (const click of timeline.clicks) addClick(samples, click, sampleRate);
  for (let index = 0; index < samples.length; index += 1) samples[index] = Math.max(-levelCap, Math.min(levelCap, samples[index]));
  return samples;
}

function renderTone(samples: Float32Array, instrument: Instrument, timeline: Timeline, settings: RenderSettings): void {
  const { sampleRate } = settings;
  const reference = hertz(settings.referenceHertz ?? instrument.reference.hertz);
  const highest = reference * Math.max(...instrument.notes.map((note) => note.ratio));
  const table = toneTable(instrument.family, highest, sampleRate);
  const voices = new Map<string, Voice>();
  const voiceOf = (pattern: Pattern, register: number | undefined): Voice => {
    const key = `${register ?? ''} ${patternKey(pattern)}`;
    const known = voices.get(key);
    if (known !== undefined) return known;
    const heard = heardFrom(instrument, pattern, { reference, register });
    const decibels = settings.hasBalance === false ? 0 : (loudnessAt(instrument, (heard.pitch * instrument.reference.hertz) / reference) ?? 0);
    const level = toneLevel * 10 ** (decibels / 20);
    const voice = { stepSize: (heard.pitch / sampleRate) * tableSize, level };
    voices.set(key, voice);
    return voice;
  };
  const half = glideMs / 2000;
  const glide = Math.max(1, Math.round(sampleRate * half * 2));
  const fade = Math.round((sampleRate * fadeMs) / 1000);
  let phase = 0;
  let stepSize = 0;
  let level = 0;
  let written = 0;
  const runTo = (end: number, target: Voice, ramp: number): void => {
    const stepChange = (target.stepSize - stepSize) / ramp;
    const levelChange = (target.level - level) / ramp;
    const rampEnd = Math.min(end, written + ramp);
    for (; written < end; written += 1) {
      if (written < rampEnd) {
        stepSize += stepChange;
        level += levelChange;
      } else if (written === rampEnd) {
        stepSize = target.stepSize;
        level = target.level;
      }
      const whole = phase | 0;
      const low = table[whole];
      samples[written] = level * (low + (phase - whole) * (table[whole + 1] - low));
      phase += stepSize;
      if (phase >= tableSize) phase -= tableSize;
    }
  };
  for (const [index, step] of timeline.steps.entries()) {
    const next = timeline.steps[index + 1];
    const isGlidingOut = next !== undefined && next.role !== 'rest' && step.role !== 'rest';
    const endMs = step.start + step.length - (isGlidingOut ? glideMs / 2 : 0);
    const begin = Math.round((step.start / 1000) * sampleRate);
    if (level === 0 && written < begin) written = begin;
    const end = Math.min(samples.length, Math.round((endMs / 1000) * sampleRate));
    if (step.role === 'rest') {
      runTo(end, { stepSize, level: 0 }, fade);
      continue;
    }
    const voice = voiceOf(step.pattern, step.register);
    if (level === 0) stepSize = voice.stepSize;
    runTo(end, voice, level === 0 ? fade : glide);
  }
  runTo(Math.min(samples.length, written + fade), { stepSize, level: 0 }, fade);
}

/** The drone comes up and goes with the whole, so that it begins and ends without a noise. */
function addDrone(samples: Float32Array, instrument: Instrument, { sampleRate, referenceHertz }: RenderSettings): void {
  const reference = referenceHertz ?? instrument.reference.hertz;
  const fade = Math.round((sampleRate * 4 * fadeMs) / 1000);
  for (const pitch of droneHertz(instrument, reference)) {
    const table = toneTable(instrument.family, pitch, sampleRate);
    const stepSize = (pitch / sampleRate) * tableSize;
    let phase = 0;
    for (let index = 0; index < samples.length; index += 1) {
      const edge = Math.min(1, index / fade, (samples.length - 1 - index) / fade);
      const whole = phase | 0;
      samples[index] += droneLevel * edge * (table[whole] + (phase - whole) * (table[whole + 1] - table[whole]));
      phase += stepSize;
      if (phase >= tableSize) phase -= tableSize;
    }
  }
}

/** Clicks between the beats are so much softer. */
const divisionShare = 0.4;

/** A short, soft wooden tick: two damped partials; higher on the accented beat. */
function addClick(samples: Float32Array, click: Click, sampleRate: number): void {
  const start = Math.round((click.at / 1000) * sampleRate);
  const length = Math.round(sampleRate * 0.04);
  const pitch = click.isAccented ? 1560 : 1170;
  for (let index = 0; index < length && start + index < samples.length; index += 1) {
    const time = index / sampleRate;
    const attack = Math.min(1, time / 0.001);
    const decay = Math.exp(-time / 0.008);
    const wave = Math.sin(2 * Math.PI * pitch * time) + 0.4 * Math.sin(2 * Math.PI * pitch * 2.76 * time);
    samples[start + index] += clickLevel * (click.isDivision === true ? divisionShare : 1) * attack * decay * wave * 0.7;
  }
}
