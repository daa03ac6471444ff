import { changeBetween, type Mover } from '../change';
import { chartedFingering, isTonguedFamily, patternKey, type Instrument, type NoteId, type Pattern } from '../fingering';
import { graceSteps } from '../movement';
import { milliseconds } from '../pitch';
import { faultPatterns, worstFault, type Timeline, type TimelineStep } from '../sound';
import { eachStep, HandNoise, normalFrom, seededRandom, tongueSilenceMs, usualGraceNoteMs, type TimingParameters } from '../timing';
import type { AskedNote } from './asked';

/** Somebody who does not exist and plays all the same: the same seed plays the same. */
export interface SimulatedPlayer {
  readonly seed: number;
  /** How the fingers keep together. */
  readonly timing: TimingParameters;
  /** Beats a minute at the beginning. */
  readonly tempo: number;
  /** How much faster the end is than the beginning, as a share; negative where it drags. */
  readonly drift: number;
  /** How far a note comes from its beat, as a standard deviation in ms. */
  readonly unevenness: number;
  /** Which share of the grace notes is forgotten. */
  readonly forgotten: number;
  /** What goes wrong on purpose, beside what the fingers do by themselves. */
  readonly faults?: SimulatedFaults;
}

/** Faults by choice. Shares are of all places where the fault can be, 0 to 1; 1 is everywhere. */
export interface SimulatedFaults {
  /** The worst that can cut into a bare change does, for so many ms. */
  readonly crossing?: { readonly share: number; readonly ms: number };
  /** Which share of the notes is left out: the one before goes on. */
  readonly leftOut?: number;
  /** Before which share of the notes somebody stops, for a second. */
  readonly stops?: number;
}

/** Before the first note, and after the last, in ms. */
const silenceMs = 500;
/** A beat never becomes shorter than this share of itself, however uneven. */
const leastShare = 0.5;
/** A stop, in ms. */
const stopMs = 1000;

/** What a simulated player's fingers do with the notes that were asked for: patterns over time, those between two notes among them. */
export function simulatedTimeline(instrument: Instrument, notes: readonly AskedNote[], player: SimulatedPlayer): Timeline {
  const random = seededRandom(player.seed);
  const hands = new Hands(instrument, player.timing, normalFrom(random));
  const all = notes.reduce((sum, { beats }) => sum + beats, 0);
  const normal = normalFrom(random);
  let [at, beat] = [silenceMs, 0];
  const { crossing, leftOut = 0, stops = 0 } = player.faults ?? {};
  // A choice that is not made draws nothing: the same seed plays the same without it.
  const isChosen = (share: number): boolean => share > 0 && random() < share;
  notes.forEach(({ note, graceNotes, beats, isTied }, index) => {
    const beatMs = 60_000 / (player.tempo * (1 + (player.drift * beat) / Math.max(all, 1)));
    const length = beats * beatMs;
    if (index > 0 && isChosen(stops)) {
      hands.silent(at);
      at += stopMs;
    }
    const start = index === 0 ? at : Math.max(at + normal() * player.unevenness, hands.last + leastShare * beatMs * Math.min(1, beats));
    [at, beat] = [at + length, beat + beats];
    if (note === null) hands.silent(start);
    else if (!isTied && !(index > 0 && isChosen(leftOut))) {
      const before = notes[index - 1]?.note ?? null;
      const isAgain = before === note && graceNotes.length === 0;
      if (isAgain && isTonguedFamily(instrument.family)) hands.silent(start - tongueSilenceMs);
      const steps = graceSteps(instrument, graceNotes, note).filter(() => random() >= player.forgotten);
      const each = Math.min(usualGraceNoteMs * (0.8 + 0.4 * random()), length / (2 * Math.max(1, steps.length)));
      steps.forEach(({ pattern }, place) => hands.goTo({ pattern }, start + place * each));
      const next = chartedFingering(instrument, note);
      const slip =
        crossing !== undefined && before !== null && graceNotes.length === 0 && isChosen(crossing.share) ? slipBetween(instrument, before, note) : [];
      if (crossing === undefined || slip.length === 0) hands.goTo(next, start + steps.length * each);
      else hands.slip(slip, next, { at: start, ms: crossing.ms });
    }
  });
  return hands.end(at);
}

/** What cuts in at its worst between two notes; nothing where nothing can. */
function slipBetween(instrument: Instrument, from: NoteId, to: NoteId): readonly Pattern[] {
  const change = changeBetween(instrument, from, to);
  const kind = worstFault(instrument, change);
  return kind === undefined ? [] : faultPatterns(instrument, change, kind);
}

interface Blown {
  readonly pattern: Pattern;
  readonly register?: number;
}

/** Fingers that go from pattern to pattern, none of them quite at its moment. */
class Hands {
  private readonly steps: TimelineStep[] = [];
  private now: Blown | undefined;
  private from = 0;
  /** When the last note began. */
  last = 0;

  constructor(
    private readonly instrument: Instrument,
    private readonly timing: TimingParameters,
    private readonly normal: () => number,
  ) {}

  goTo(next: Blown, at: number): void {
    const before = this.now;
    if (before === undefined) this.sound(next, at);
    else this.move(before, next, at);
    this.last = at;
  }

  /** Other patterns first, in equal parts, then the next one. */
  slip(patterns: readonly Pattern[], next: Blown, { at, ms }: { readonly at: number; readonly ms: number }): void {
    patterns.forEach((pattern, place) => this.sound({ pattern, register: next.register }, at + (place * ms) / patterns.length));
    this.sound(next, at + ms);
    this.last = at + ms;
  }

  silent(at: number): void {
    this.put(at);
    this.now = undefined;
  }

  end(at: number): Timeline {
    this.put(at);
    return { steps: this.steps, clicks: [], length: milliseconds(at + silenceMs) };
  }

  private move(before: Blown, next: Blown, at: number): void {
    const moved = this.instrument.holes.flatMap((_, hole) => (before.pattern[hole] === next.pattern[hole] ? [] : [hole]));
    const movers = moved.map((hole): Mover => {
      const { finger } = this.instrument.holes[hole];
      const hand = this.instrument.fingers.find(({ id }) => id === finger)?.hand ?? 'left';
      return { finger, hand, direction: next.pattern[hole] < before.pattern[hole] ? 'lift' : 'lower' };
    });
    if (moved.length === 0) {
      this.sound(next, at);
      return;
    }
    const moments = Float64Array.from(new HandNoise(movers, this.timing).draw(this.normal));
    // The moment of the change is the middle of its fingers': nobody is late as a whole.
    const middle = moments.reduce((sum, moment) => sum + moment, 0) / moments.length;
    eachStep(moments, (mask, begin) => {
      const pattern = before.pattern.map((coverage, hole) => {
        const place = moved.indexOf(hole);
        return place >= 0 && ((mask >> place) & 1) === 1 ? next.pattern[hole] : coverage;
      });
      this.sound({ pattern, register: next.register }, at + begin - middle);
    });
    this.sound(next, at + Math.max(...moments) - middle);
  }

  private sound(next: Blown, at: number): void {
    this.put(at);
    this.now = next;
    this.from = Math.max(this.from, at);
  }

  /** What sounded until now becomes a step. */
  private put(at: number): void {
    const { now, from } = this;
    if (now === undefined || at <= from) {
      this.from = Math.max(this.from, at);
      return;
    }
    const last = this.steps.at(-1);
    const isSame = last !== undefined && patternKey(last.pattern) === patternKey(now.pattern) && Math.abs(last.start + last.length - from) < 1e-6;
    if (isSame) this.steps[this.steps.length - 1] = { ...last, length: milliseconds(at - last.start) };
    else this.steps.push({ ...now, start: milliseconds(from), length: milliseconds(at - from), role: 'theme', note: 0 });
    this.from = at;
  }
}

/** Where, and on what, it is played. */
export interface SimulatedRoom {
  /** How loud the room answers, 0 for none: 0.3 is a kitchen. */
  readonly echo: number;
  /** Noise under the loudest, in decibels; infinite for none. */
  readonly noiseDecibels: number;
}

/** Comb filters of these lengths in ms, which ring for a third of a second. */
const combs = [29.7, 37.1, 41.1, 43.7];
const ringSeconds = 0.35;

/** The same samples as they come to a microphone in a room. @param seed of the noise */
export function inRoom(samples: Float32Array, sampleRate: number, { echo, noiseDecibels }: SimulatedRoom, seed: number): Float32Array<ArrayBuffer> {
  const heard = Float32Array.from(samples);
  for (const ms of echo > 0 ? combs : []) {
    const delay = Math.round((ms / 1000) * sampleRate);
    const feedback = 10 ** ((-3 * ms) / 1000 / ringSeconds);
    const line = new Float32Array(samples.length);
    for (let index = 0; index < samples.length; index += 1) {
      const back = index >= delay ? line[index - delay] : 0;
      line[index] = samples[index] + feedback * back;
      heard[index] += (echo / combs.length) * back;
    }
  }
  if (noiseDecibels === Number.POSITIVE_INFINITY) return heard;
  const random = seededRandom(seed);
  const loudest = heard.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);
  const level = loudest * 10 ** (-noiseDecibels / 20);
  return heard.map((sample) => sample + level * (2 * random() - 1));
}

/** How it is blown. */
export interface SimulatedBreath {
  /** Standard deviation of the pitch from its middle, in cents: 2 is steady, 10 a beginner. */
  readonly unsteadyCents: number;
  /** The same of the loudness, as a share. */
  readonly unevenness: number;
}

/** Breath comes and goes this often in a second. Our own choice. */
const breathHertz = [0.37, 0.9, 1.7];

/** The same samples, unsteadily blown: the pitch drifts to and fro, and the loudness with it. @param seed another one drifts otherwise */
export function unsteadily(samples: Float32Array, sampleRate: number, { unsteadyCents, unevenness }: SimulatedBreath, seed: number): Float32Array<ArrayBuffer> {
  const random = seededRandom(seed);
  const waves = breathHertz.map((frequency) => ({ frequency, phase: 2 * Math.PI * random() }));
  const blown = new Float32Array(samples.length);
  let place = 0;
  for (let index = 0; index < blown.length && place < samples.length - 2; index += 1) {
    const seconds = index / sampleRate;
    // Three waves together have this deviation once they are scaled.
    const drift = waves.reduce((sum, { frequency, phase }) => sum + Math.sin(2 * Math.PI * frequency * seconds + phase), 0) / Math.sqrt(waves.length / 2);
    blown[index] = between(samples, place) * Math.max(0, 1 + unevenness * drift);
    place += 2 ** ((unsteadyCents * drift) / 1200);
  }
  return blown;
}

/** A sample between samples, by the curve through the four around it. Source: Catmull and Rom (1974). */
function between(samples: Float32Array, place: number): number {
  const at = Math.floor(place);
  const share = place - at;
  const [before, one, other, after] = [samples[Math.max(0, at - 1)], samples[at], samples[at + 1], samples[Math.min(samples.length - 1, at + 2)]];
  const slope = (other - before) / 2;
  const last = (after - one) / 2;
  return one + share * (slope + share * (3 * (other - one) - 2 * slope - last + share * (2 * (one - other) + slope + last)));
}
