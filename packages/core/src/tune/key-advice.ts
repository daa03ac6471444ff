import { changeOfFingerings } from '../change';
import { chartedFingering, coverOf, noteOf, type Fingering, type Instrument } from '../fingering';
import { tongueSilenceMs, type Hiding, type RiskTable } from '../timing';
import { count } from '../words';
import { isTongued, type Articulation, type Tune } from './tune';

/** A key for a tune, in the octave in which it lies best on an instrument. */
export interface KeyChoice {
  /** How far the tune is moved, in semitones, positive upwards; 0 as it stands. */
  readonly semitones: number;
  /** "G", "E minor" */
  readonly name: string;
  /** "up a fourth"; empty as it stands. */
  readonly way: string;
  /** Notes of the tune that the instrument does not have then. */
  readonly outside: number;
  readonly halfHoled: number;
  /** Notes with an open hole above a covered one; 0 where the family is fingered so throughout. */
  readonly forked: number;
  /** Of all its changes together; no unit. */
  readonly difficulty: number;
  /** "G, up a fourth: all notes fit, no half holes, easier than now" */
  readonly text: string;
}

/** A half-holed note weighs as much as this much difficulty, a forked one as much as that. Our own choice. */
const [halfHoleWeight, forkWeight] = [4, 0.5];
/** Two octaves either way. */
const farthest = 24;
/** From these shares of today's difficulty on a key is called easier or harder. */
const [easier, harder] = [0.8, 1.25];

const majorNames = ['C', 'D flat', 'D', 'E flat', 'E', 'F', 'F sharp', 'G', 'A flat', 'A', 'B flat', 'B'];
const otherNames = ['C', 'C sharp', 'D', 'E flat', 'E', 'F', 'F sharp', 'G', 'G sharp', 'A', 'B flat', 'B'];
const steps: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
const modeNames: readonly (readonly [RegExp, string])[] = [
  [/^(m$|min|aeo)/i, 'minor'],
  [/^dor/i, 'Dorian'],
  [/^mix/i, 'Mixolydian'],
  [/^phr/i, 'Phrygian'],
  [/^lyd/i, 'Lydian'],
  [/^loc/i, 'Locrian'],
];
const intervals = [
  'a unison',
  'a semitone',
  'a tone',
  'a minor third',
  'a major third',
  'a fourth',
  'a tritone',
  'a fifth',
  'a minor sixth',
  'a major sixth',
  'a minor seventh',
  'a major seventh',
];

const hiddenByTongue: Hiding = { kind: 'tongue', lengthMs: tongueSilenceMs };

/**
 * The keys in which a tune could be played, each in the octave where it lies best, the best first: all notes there, then few half-holed and forked notes and
 * easy changes. None for a tune whose key has no name, as the pipes' own.
 * @param risks of the instrument's changes under a player's timing
 */
export function keyChoices(instrument: Instrument, tune: Tune, articulation: Articulation, risks: RiskTable): readonly KeyChoice[] {
  const key = readKey(tune.key);
  if (key === undefined) return [];
  const { tonic, mode } = key;
  const weigher = new KeyWeigher(instrument, tune, articulation, risks);
  const now = weigher.at(0);
  const best = new Map<number, Weighed>();
  for (let distance = 0; distance <= farthest; distance += 1) {
    for (const semitones of distance === 0 ? [0] : [distance, -distance]) {
      const name = (((tonic + semitones) % 12) + 12) % 12;
      const there = semitones === 0 ? now : weigher.at(semitones);
      const before = best.get(name);
      if (before === undefined || isBetter(there, before)) best.set(name, there);
    }
  }
  const own = ((tonic % 12) + 12) % 12;
  // As it stands it is always among them, even where the same key lies better in another octave.
  const all = [...best, ...(best.get(own) === now ? [] : [[own, now] as const])];
  return all
    .sort(([, one], [, other]) => one.outside - other.outside || costOf(one) - costOf(other) || Math.abs(one.semitones) - Math.abs(other.semitones))
    .map(([pitch, weighed]) => choiceOf(nameAt(pitch, mode), weighed, now));
}

/**
 * A tune's key as it is said: "E minor" for "E m"; empty for one without a name, as the pipes' own.
 * @param semitones how far it is moved
 */
export function keyNameOf(key: string, semitones = 0): string {
  const read = readKey(key);
  return read === undefined ? '' : nameAt((((read.tonic + semitones) % 12) + 12) % 12, read.mode);
}

/** "as written", "up a fourth", "down an octave and a tone". */
export const keyWay = (semitones: number): string => wayText(semitones) || 'as written';

/** First note in semitones above C, and the mode in words; empty for major. */
function readKey(text: string): { readonly tonic: number; readonly mode: string } | undefined {
  const key = /^([A-G])( sharp| flat)?(?:\s+(.*))?$/.exec(text);
  if (key === null) return undefined;
  const [, letter, sign = '', mode = ''] = key;
  const signs: Readonly<Record<string, number>> = { ' sharp': 1, ' flat': -1 };
  return { tonic: steps[letter] + (signs[sign] ?? 0), mode: modeNames.find(([pattern]) => pattern.test(mode))?.[1] ?? '' };
}

const nameAt = (pitch: number, mode: string): string => (mode === '' ? majorNames[pitch] : `${otherNames[pitch]} ${mode}`);

/** The best key with fewer notes outside the instrument than now; undefined where there is none. */
export function keyThatHelps(choices: readonly KeyChoice[], outsideNow: number): KeyChoice | undefined {
  const [best] = choices;
  return best !== undefined && best.outside < outsideNow ? best : undefined;
}

type Weighed = Pick<KeyChoice, 'semitones' | 'outside' | 'halfHoled' | 'forked' | 'difficulty'>;

const costOf = ({ halfHoled, forked, difficulty }: Weighed): number => difficulty + halfHoleWeight * halfHoled + forkWeight * forked;
const isBetter = (one: Weighed, other: Weighed): boolean => one.outside < other.outside || (one.outside === other.outside && costOf(one) < costOf(other));

function choiceOf(name: string, weighed: Weighed, now: Weighed): KeyChoice {
  const { semitones, outside, halfHoled, forked, difficulty } = weighed;
  const ratio = now.difficulty === 0 ? 1 : difficulty / now.difficulty;
  const compared = semitones === 0 || outside > 0 || now.outside > 0 ? '' : comparedText(ratio);
  const facts = [
    outside === 0 ? 'all notes fit' : `${count(outside, 'note does', 'notes do')} not fit`,
    halfHoled === 0 ? 'no half holes' : count(halfHoled, 'half-holed note'),
    forked === 0 ? '' : count(forked, 'forked note'),
    compared,
  ].filter((fact) => fact !== '');
  const way = wayText(semitones);
  return { ...weighed, name, way, text: `${[name, way].filter((part) => part !== '').join(', ')}: ${facts.join(', ')}` };
}

function comparedText(ratio: number): string {
  if (ratio < easier) return 'easier than now';
  return ratio > harder ? 'harder than now' : '';
}

/** "up a fourth", "down an octave and a tone". */
function wayText(semitones: number): string {
  if (semitones === 0) return '';
  const distance = Math.abs(semitones);
  const octaves = ['', 'an octave', 'two octaves'][Math.floor(distance / 12)];
  const rest = distance % 12 === 0 ? '' : intervals[distance % 12];
  return `${semitones > 0 ? 'up' : 'down'} ${[octaves, rest].filter((part) => part !== '').join(' and ')}`;
}

/** Weighs a tune in one key after the other. */
class KeyWeigher {
  private readonly byHeight: ReadonlyMap<number, Fingering>;
  /** Heights of the theme notes on the page, and how often each comes. */
  private readonly heights = new Map<number, number>();
  /** Pairs of heights that follow each other, tongued or not, and how often. */
  private readonly pairs = new Map<string, { readonly from: number; readonly to: number; readonly hiding: Hiding | undefined; count: number }>();
  private readonly hasForks: boolean;

  constructor(
    private readonly instrument: Instrument,
    tune: Tune,
    articulation: Articulation,
    private readonly risks: RiskTable,
  ) {
    this.byHeight = new Map(instrument.notes.map(({ id, writtenSemitone }) => [writtenSemitone, chartedFingering(instrument, id)]));
    this.hasForks = instrument.family === 'whistle' || instrument.family === 'recorder';
    let before: number | undefined;
    for (const note of tune.notes) {
      const { written } = note;
      const height = written.kind === 'rest' ? undefined : heightOf(instrument, written);
      if (height !== undefined && !note.isTiedFromPrevious) {
        this.heights.set(height, (this.heights.get(height) ?? 0) + 1);
        if (before !== undefined && before !== height) this.count(before, height, isTongued(note, articulation) ? hiddenByTongue : undefined);
      }
      before = height;
    }
  }

  at(semitones: number): Weighed {
    const weighed = { semitones, outside: 0, halfHoled: 0, forked: 0, difficulty: 0 };
    for (const [height, count] of this.heights) {
      const fingering = this.byHeight.get(height + semitones);
      if (fingering === undefined) weighed.outside += count;
      else if (this.isHalfHoled(fingering)) weighed.halfHoled += count;
      else if (this.hasForks && this.isForked(fingering)) weighed.forked += count;
    }
    // Where many notes are missing nobody asks how hard the others are.
    if (weighed.outside * 2 > this.heights.size) return { ...weighed, difficulty: Number.POSITIVE_INFINITY };
    for (const { from, to, hiding, count } of this.pairs.values()) {
      const [before, after] = [this.byHeight.get(from + semitones), this.byHeight.get(to + semitones)];
      if (before === undefined || after === undefined) continue;
      weighed.difficulty += count * this.risks.difficultyOf(changeOfFingerings(this.instrument, before, after), hiding).total;
    }
    return weighed;
  }

  private count(from: number, to: number, hiding: Hiding | undefined): void {
    const key = `${from} ${to} ${hiding?.kind ?? ''}`;
    const pair = this.pairs.get(key) ?? { from, to, hiding, count: 0 };
    pair.count += 1;
    this.pairs.set(key, pair);
  }

  /** A front hole covered in part: a pinched thumb is no half hole. */
  private isHalfHoled({ pattern }: Fingering): boolean {
    return this.front(pattern).some((coverage) => coverOf(coverage) === 'half');
  }

  /** An open hole with a covered one further down. The first hole open by itself steadies a high note and is no fork. */
  private isForked({ pattern }: Fingering): boolean {
    const front = this.front(pattern);
    const open = front.findIndex((coverage) => coverage === 0);
    const isVent = open === 0 && front.slice(1).every((coverage) => coverage > 0);
    return open !== -1 && !isVent && front.slice(open).some((coverage) => coverage > 0);
  }

  private front(pattern: readonly number[]): readonly number[] {
    const { fingers, holes } = this.instrument;
    return pattern.filter((_, hole) => fingers.find(({ id }) => id === holes[hole].finger)?.thumb !== true);
  }
}

const heightOf = (
  instrument: Instrument,
  written: { readonly kind: 'note'; readonly note: string } | { readonly kind: 'outside'; readonly semitone: number },
): number => (written.kind === 'note' ? noteOf(instrument, written.note).writtenSemitone : written.semitone);
