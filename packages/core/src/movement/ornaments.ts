import * as z from 'zod';
import { ZelpitFault } from '../fault';
import {
  chartedPattern,
  coverOf,
  fingerCoverage,
  fingerOf,
  noteIdSchema,
  noteOf,
  withFingers,
  type FingerId,
  type Instrument,
  type NoteId,
  type Pattern,
} from '../fingering';

/** Ornaments of whistle and Irish pipes. */
export type OrnamentKind =
  'cut' | 'tap' | 'short-roll' | 'long-roll' | 'short-cran' | 'long-cran' | 'three-cut-cran' | 'slide' | 'triplet' | 'flutter' | 'stop';
export const ornamentKinds: readonly OrnamentKind[] = [
  'cut',
  'tap',
  'short-roll',
  'long-roll',
  'short-cran',
  'long-cran',
  'three-cut-cran',
  'slide',
  'triplet',
  'flutter',
  'stop',
];

const fingersByNote = z.record(noteIdSchema, z.string().min(1).max(24));

/** What a studio chose for one instrument: its school of cuts, fingers by note that come before the rule, notes on which it crans too. */
export const ornamentChoicesSchema = z.strictObject({
  cuts: z.enum(['nearest', 'fixed']).default('nearest'),
  cutOn: fingersByNote.default({}),
  tapOn: fingersByNote.default({}),
  cranOn: z.array(noteIdSchema).max(20).readonly().default([]),
  /** Fingers of a cran's cuts in their order. */
  cranFingers: z.array(z.string().min(1).max(24)).min(3, 'A cran of three cuts needs three fingers.').max(4).readonly().default(['L3', 'R1', 'R2']),
  /** A slide takes so long from closed to open, in ms. */
  slideMs: z.number().int().min(60, 'A slide lasts at least 60 ms.').max(250, 'A slide lasts at most 250 ms.').default(120),
});
export type OrnamentChoices = Readonly<z.infer<typeof ornamentChoicesSchema>>;

export interface OrnamentSettings {
  /** Which finger cuts: the one nearest the open holes, or always the same two. */
  readonly cuts: 'nearest' | 'fixed';
  /** Length of an eighth, in ms. */
  readonly eighthMs: number;
  /** Fingers that a teacher chose to cut or tap with, by note; they come before the rule. */
  readonly cutOn?: Readonly<Record<NoteId, FingerId>>;
  readonly tapOn?: Readonly<Record<NoteId, FingerId>>;
  /** Notes above the lowest on which a teacher crans too. */
  readonly cranOn?: readonly NoteId[];
  /** Fingers of a cran's cuts in their order; L3, R1 and R2 where nothing is said. */
  readonly cranFingers?: readonly FingerId[];
  /** How long a slide takes from closed to open, in ms: 60 to 250, usually 120. */
  readonly slideMs?: number;
}

export const usualOrnaments: OrnamentSettings = { cuts: 'nearest', eighthMs: 250 };

/** One step of an ornament; lengths in eighths. */
export interface OrnamentStep {
  readonly kind: 'note' | 'cut' | 'tap' | 'slide' | 'stop' | 'tongue';
  readonly pattern: Pattern;
  readonly fingers: readonly FingerId[];
  readonly start: number;
  readonly length: number;
}

/** How an ornament is played, in a sentence. */
export const ornamentText: Readonly<Record<OrnamentKind, string>> = {
  cut: 'One finger lifts for an instant: at most 50 ms, and at most a fifth of an eighth note.',
  tap: 'One open finger taps its hole just as briefly, and bounces off by itself.',
  'short-roll': 'Two eighths: a cut on the beat, the note, a tap on the second eighth, the note.',
  'long-roll': 'Three eighths: the note, a cut on the second, a tap on the third, the note.',
  'short-cran': 'Two eighths on the lowest note: a cut on each, by different fingers.',
  'long-cran': 'Three eighths on the lowest note: the note, then a cut on the second and the third, by different fingers.',
  'three-cut-cran': 'Two eighths on the lowest note with three cuts evenly spaced, by three fingers.',
  slide: 'From the next lower note the finger uncovers its hole evenly, starting on the beat.',
  triplet: 'Three tongued notes in the time of two.',
  flutter: 'Two cuts by different fingers one after the other, on the beat.',
  stop: 'All holes closed on the knee for a moment.',
};

export type CompiledOrnament =
  { readonly kind: 'compiled'; readonly steps: readonly OrnamentStep[]; readonly eighths: number } | { readonly kind: 'unplayable'; readonly reason: string };

/** A cut or tap is never longer, in ms; nor longer than this share of an eighth. */
const [longestMs, longestShare] = [50, 0.2];
/** Semitones of an octave, and of C natural above the lowest D. */
const [octave, naturalSeventh] = [12, 10];
const usualSlideMs = 120;
const usualCranFingers: readonly FingerId[] = ['L3', 'R1', 'R2'];

type Found = { readonly finger: FingerId } | { readonly reason: string };

interface Choice {
  readonly name: string;
  readonly does: 'cut' | 'tap';
  readonly pattern: Pattern;
  readonly isPossible: (coverage: number) => boolean;
}

/** A teacher's finger, where it can do it: a cut needs one that lies, a tap one that is up. */
function chosenFinger(instrument: Instrument, finger: FingerId, { name, does, pattern, isPossible }: Choice): Found {
  const { id, label } = fingerOf(instrument, finger);
  if (isPossible(fingerCoverage(instrument, pattern, id))) return { finger: id };
  return { reason: `On ${name} the ${label} finger ${does === 'cut' ? 'is already up' : 'is already down'}, so it cannot ${does} here.` };
}

function stepsAboveLowest(instrument: Instrument, note: NoteId): number {
  return (noteOf(instrument, note).writtenSemitone - instrument.notes[0].writtenSemitone) % octave;
}

/** True for the lowest note, on which every hole is closed and no tap is possible. */
export const isLowestOf = (instrument: Instrument, note: NoteId): boolean => instrument.notes[0].id === note;

/**
 * The finger that cuts a note, the same in every register: the lowest one that lies, or in the other school the upper hand's ring finger, else its index finger.
 * @throws ZelpitFault `unknown-note`
 */
export function cutFinger(instrument: Instrument, note: NoteId, { cuts, cutOn }: OrnamentSettings): Found {
  const chosen = cutOn?.[note];
  const pattern = chartedPattern(instrument, note);
  const name = noteOf(instrument, note).schoolName;
  if (chosen !== undefined) return chosenFinger(instrument, chosen, { name, does: 'cut', isPossible: (coverage) => coverage === 1, pattern });
  const fingers = instrument.fingers.filter(({ thumb }) => !thumb);
  const lying = fingers.filter(({ id }) => fingerCoverage(instrument, pattern, id) === 1);
  if (lying.length === 0) return { reason: `On ${name} no finger is down, so none can cut.` };
  if (stepsAboveLowest(instrument, note) === naturalSeventh && fingerCoverage(instrument, pattern, fingers[0].id) < 1)
    return { reason: `On ${name} the index finger is up: choose the finger that cuts.` };
  if (cuts === 'nearest') return { finger: lying[lying.length - 1].id };
  const ring = lying.find(({ id }) => id === 'L3');
  return { finger: (ring ?? lying[0]).id };
}

/** A finger that can tap a note, and whether every hole is closed then. */
export interface TapChoice {
  readonly finger: FingerId;
  readonly label: string;
  readonly isStop: boolean;
}

/**
 * Every finger that can tap a note, from the face down: on a chanter that is fingered closed the teacher chooses among them.
 * @throws ZelpitFault `unknown-note`
 * @example tapChoices(instrumentById('whistle-d'), 'g5').map(({ finger }) => finger) // ['R1', 'R2', 'R3']
 */
export function tapChoices(instrument: Instrument, note: NoteId): readonly TapChoice[] {
  const pattern = chartedPattern(instrument, note);
  const open = instrument.fingers.filter(({ id, thumb }) => !thumb && fingerCoverage(instrument, pattern, id) < 1);
  return open.map(({ id, label }) => ({ finger: id, label, isStop: withFingers(instrument, pattern, [id], 1).every((coverage) => coverage === 1) }));
}

/**
 * The finger that taps a note: the open one nearest the face. None on the lowest note, and none on a closed-fingered chanter, which a tap would silence.
 * @throws ZelpitFault `unknown-note`
 */
export function tapFinger(instrument: Instrument, note: NoteId, { tapOn }: OrnamentSettings): Found {
  const chosen = tapOn?.[note];
  const name = noteOf(instrument, note).schoolName;
  const pattern = chartedPattern(instrument, note);
  if (chosen !== undefined) return chosenFinger(instrument, chosen, { name, does: 'tap', isPossible: (coverage) => coverage < 1, pattern });
  if (instrument.family === 'irish-pipes') {
    const offered = tapChoices(instrument, note).map(({ label, isStop }) => (isStop ? `${label} (closes every hole: a stop)` : label));
    if (offered.length === 0) return { reason: `No open finger can tap ${name}.` };
    return { reason: `With closed fingering the teacher chooses the finger that taps. On ${name}: ${offered.join(', or ')}.` };
  }
  const open = instrument.fingers.find(({ id, thumb }) => !thumb && fingerCoverage(instrument, pattern, id) < 1);
  // The octaves of the lowest note are tapped no more than it is: the hole that may stand open there only helps it to speak.
  if (stepsAboveLowest(instrument, note) === 0 && !isLowestOf(instrument, note))
    return { reason: `${name} is fingered as the lowest note, so no tap is possible.` };
  return open === undefined ? { reason: `Every hole is closed on ${name}, so no tap is possible. Play a cran instead.` } : { finger: open.id };
}

/**
 * An ornament as steps of fingers over its eighths.
 * @throws ZelpitFault `unknown-note`, `unknown-finger`, `out-of-range` for an eighth outside 60 to 2 000 ms
 */
export function compileOrnament(instrument: Instrument, kind: OrnamentKind, note: NoteId, settings: OrnamentSettings = usualOrnaments): CompiledOrnament {
  const { eighthMs } = settings;
  if (!(eighthMs >= 60 && eighthMs <= 2000)) throw new ZelpitFault('out-of-range', `An eighth note must last 60 to 2000 ms, not ${eighthMs}.`, { eighthMs });
  const pattern = chartedPattern(instrument, note);
  const brief = Math.min(longestMs / eighthMs, longestShare);
  const maker = new StepMaker(pattern, brief);
  const cut = cutFinger(instrument, note, settings);
  const tap = tapFinger(instrument, note, settings);
  const lifted = (finger: FingerId): Pattern => withFingers(instrument, pattern, [finger], 0);
  const closed = (finger: FingerId): Pattern => withFingers(instrument, pattern, [finger], 1);
  const need = (...all: readonly Found[]): string | undefined => all.flatMap((each) => ('reason' in each ? [each.reason] : []))[0];
  const cutStep = (): void => {
    if ('finger' in cut) maker.brief('cut', lifted(cut.finger), cut.finger);
  };
  const tapStep = (): void => {
    if ('finger' in tap) maker.brief('tap', closed(tap.finger), tap.finger);
  };
  const made = (eighths: number, ...needed: readonly Found[]): CompiledOrnament => {
    const reason = need(...needed);
    return reason === undefined ? { kind: 'compiled', steps: maker.until(eighths), eighths } : { kind: 'unplayable', reason };
  };
  switch (kind) {
    case 'cut':
      cutStep();
      return made(1, cut);
    case 'tap':
      tapStep();
      return made(1, tap);
    case 'short-roll':
      cutStep();
      maker.until(1);
      tapStep();
      return made(2, cut, tap);
    case 'long-roll':
      maker.until(1);
      cutStep();
      maker.until(2);
      tapStep();
      return made(3, cut, tap);
    case 'short-cran':
      return cran(instrument, note, maker, { at: [0, 1], eighths: 2, settings });
    case 'long-cran':
      return cran(instrument, note, maker, { at: [1, 2], eighths: 3, settings });
    case 'three-cut-cran':
      return cran(instrument, note, maker, { at: [0, 2 / 3, 4 / 3], eighths: 2, settings });
    case 'slide': {
      if ('finger' in tap) maker.longer('slide', closed(tap.finger), tap.finger, Math.min(0.5, (settings.slideMs ?? usualSlideMs) / eighthMs));
      return made(1, tap);
    }
    case 'triplet':
      return triplet(instrument, maker, brief);
    case 'flutter':
      return flutter(instrument, note, maker, cut);
    case 'stop': {
      if (instrument.family !== 'irish-pipes') return { kind: 'unplayable', reason: 'Only a chanter that stands on the knee can be stopped.' };
      maker.brief(
        'stop',
        pattern.map(() => 1),
      );
      return made(1);
    }
  }
}

/** Three notes in the time of two, each begun by the tongue. */
function triplet(instrument: Instrument, maker: StepMaker, brief: number): CompiledOrnament {
  if (instrument.family !== 'whistle') return { kind: 'unplayable', reason: `The ${instrument.name} is not tongued: its triplet is three notes of the scale.` };
  for (let index = 1; index <= 3; index += 1) {
    maker.longer('tongue', [], undefined, brief / 2);
    maker.until((index * 2) / 3);
  }
  return { kind: 'compiled', steps: maker.until(2), eighths: 2 };
}

/** Two cuts by different fingers one after the other, on the beat: the cut's own finger, and the lying one nearest to it. */
function flutter(instrument: Instrument, note: NoteId, maker: StepMaker, cut: Found): CompiledOrnament {
  if ('reason' in cut) return { kind: 'unplayable', reason: cut.reason };
  const pattern = chartedPattern(instrument, note);
  const order = instrument.fingers.filter(({ thumb }) => !thumb).map(({ id }) => id);
  const place = order.indexOf(cut.finger);
  const others = order
    .filter((id) => id !== cut.finger && fingerCoverage(instrument, pattern, id) === 1)
    .sort((one, other) => Math.abs(order.indexOf(one) - place) - Math.abs(order.indexOf(other) - place));
  const [second] = others;
  if (second === undefined)
    return { kind: 'unplayable', reason: `Only one finger lies on ${noteOf(instrument, note).schoolName}: a second cut needs another.` };
  for (const finger of [cut.finger, second]) maker.brief('cut', withFingers(instrument, pattern, [finger], 0), finger);
  return { kind: 'compiled', steps: maker.until(1), eighths: 1 };
}

interface Cran {
  /** Where its cuts fall, in eighths. */
  readonly at: readonly number[];
  readonly eighths: number;
  readonly settings: OrnamentSettings;
}

function cran(instrument: Instrument, note: NoteId, maker: StepMaker, { at, eighths, settings }: Cran): CompiledOrnament {
  const pattern = chartedPattern(instrument, note);
  const isLowest = pattern.every((coverage) => coverOf(coverage) === 'covered');
  if (!isLowest && settings.cranOn?.includes(note) !== true)
    return {
      kind: 'unplayable',
      reason: `A cran belongs to the lowest note, where no tap is possible; on ${noteOf(instrument, note).schoolName} it is up to the teacher.`,
    };
  const isLying = (finger: FingerId): boolean =>
    instrument.fingers.some(({ id }) => id === finger) &&
    pattern.some((coverage, hole) => instrument.holes[hole].finger === finger && coverOf(coverage) === 'covered');
  const fingers = (settings.cranFingers ?? usualCranFingers).filter(isLying);
  if (fingers.length < at.length)
    return {
      kind: 'unplayable',
      reason: `A cran on ${noteOf(instrument, note).schoolName} needs ${at.length} fingers that lie: it belongs to the lowest note.`,
    };
  at.forEach((start, index) => {
    maker.until(start);
    maker.brief('cut', withFingers(instrument, pattern, [fingers[index]], 0), fingers[index]);
  });
  return { kind: 'compiled', steps: maker.until(eighths), eighths };
}

/** Lays steps one after another. */
class StepMaker {
  private readonly steps: OrnamentStep[] = [];
  private at = 0;

  constructor(
    private readonly pattern: Pattern,
    private readonly briefly: number,
  ) {}

  brief(kind: OrnamentStep['kind'], pattern: Pattern, finger?: FingerId): void {
    this.longer(kind, pattern, finger, this.briefly);
  }

  longer(kind: OrnamentStep['kind'], pattern: Pattern, finger: FingerId | undefined, length: number): void {
    this.steps.push({ kind, pattern, fingers: finger === undefined ? [] : [finger], start: this.at, length });
    this.at += length;
  }

  /** The note up to a place, in eighths. */
  until(eighths: number): readonly OrnamentStep[] {
    if (eighths > this.at + 1e-9) this.longer('note', this.pattern, undefined, eighths - this.at);
    return this.steps;
  }
}
