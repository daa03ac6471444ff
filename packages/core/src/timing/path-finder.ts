import { tablePitch } from '../acoustics';
import { changeOfFingerings } from '../change';
import { coverOf, patternKey, soundingPitch, type Fingering, type Instrument, type NoteId } from '../fingering';
import { difficultyOf } from './difficulty';
import { pathWeights as weights } from './difficulty.data';
import { inBetweenSounds, soundClasses } from './in-between-sounds';
import type { ChangeRisk } from './timing-model';
import { centsOfRatio } from '../pitch';

/** A note to be fingered. */
export interface PathNote {
  readonly note: NoteId;
  /** True where nothing is heard between it and the note before: after a rest, or where the tongue begins it. */
  readonly isApart: boolean;
}

/** Ways that must be taken, by note: `patternKey` of their holes. */
export type Pins = ReadonlyMap<NoteId, string>;

/** How one note of the path is fingered. */
export interface PathChoice {
  readonly fingering: Fingering;
  /** Other ways of the note, and how much more the cheapest path through each costs in all; the cheapest first. */
  readonly others: readonly { readonly fingering: Fingering; readonly more: number }[];
}

export interface FingerPath {
  readonly choices: readonly PathChoice[];
  readonly total: number;
}

/** Costs of an instrument's fingerings and of the changes between them; each is computed when it is first asked for. */
export class PathCosts {
  private readonly all: readonly Fingering[];
  private readonly between: Float64Array;
  private readonly own: Float64Array;

  constructor(readonly instrument: Instrument) {
    this.all = instrument.fingerings;
    this.between = new Float64Array(this.all.length ** 2).fill(Number.NaN);
    this.own = Float64Array.from(this.all, (fingering) => ownCost(instrument, fingering));
  }

  /** Places of a note's ways among the instrument's fingerings; only the pinned one where one is. */
  waysOf(note: NoteId, pins: Pins): readonly number[] {
    const ways = this.all.flatMap((each, index) => (each.note === note ? [index] : []));
    const pinned = ways.filter((index) => patternKey(this.all[index].pattern) === pins.get(note));
    return pinned.length > 0 ? pinned : ways;
  }

  ofWay(way: number): number {
    return this.own[way];
  }

  ofChange(from: number, to: number): number {
    const at = from * this.all.length + to;
    if (Number.isNaN(this.between[at])) this.between[at] = changeCost(this.instrument, this.all[from], this.all[to]);
    return this.between[at];
  }

  fingering(way: number): Fingering {
    return this.all[way];
  }
}

/** Out of tune, taught later, half covered: what a fingering costs by itself. */
function ownCost(instrument: Instrument, { note, pattern, rank, register }: Fingering): number {
  const isHalf = pattern.some((coverage) => coverOf(coverage) === 'half');
  // A half cover is made in tune by ear; a second register is the breath's.
  const pitch = isHalf || register > 1 ? undefined : tablePitch(instrument, pattern)?.hertz;
  const cents = pitch === undefined ? 0 : Math.abs(centsOfRatio(pitch / soundingPitch(instrument, note)));
  return weights.tenCents * (cents / 10) + weights.rank * (rank - 1) + (isHalf ? weights.halfCover : 0);
}

/** How hard the change is, with the share of its in-between patterns in place of probabilities: no simulation, so that all pairs are known at once. */
function changeCost(instrument: Instrument, before: Fingering, after: Fingering): number {
  if (before === after) return 0;
  const change = changeOfFingerings(instrument, before, after);
  const sounds = inBetweenSounds(instrument, change).slice(1, -1);
  const share = (kind: string): number => (sounds.length === 0 ? 0 : sounds.filter((each) => each.kind === kind).length / sounds.length);
  const risk = Object.fromEntries(soundClasses.map((kind) => [kind, { probability: weights.share * share(kind), meanMs: 0 }])) as ChangeRisk;
  return difficultyOf(instrument, change, risk).total;
}

/**
 * The fingerings of a sequence of notes with the least cost in all: of each change, and of each fingering by itself. Dynamic programming (Bellman 1957);
 * the same run backwards gives what every other way would cost.
 * @throws ZelpitFault `unknown-note`
 */
export function cheapestPath(costs: PathCosts, notes: readonly PathNote[], pins: Pins = new Map()): FingerPath {
  if (notes.length === 0) return { choices: [], total: 0 };
  const waysOf = new Map<NoteId, readonly number[]>();
  const ways = notes.map(({ note }) => {
    const known = waysOf.get(note) ?? costs.waysOf(note, pins);
    if (known.length === 0) soundingPitch(costs.instrument, note);
    waysOf.set(note, known);
    return known;
  });
  const forward = sweep(costs, ways, (index) => notes[index].isApart, false);
  const backward = sweep(costs, ways, (index) => index + 1 < notes.length && notes[index + 1].isApart, true);
  const through = (index: number, way: number): number => forward[index][way] + backward[index][way] - costs.ofWay(ways[index][way]);
  const last = notes.length - 1;
  const total = Math.min(...forward[last]);
  const chosen = trace(costs, ways, forward, notes);
  const choices = notes.map((_, index): PathChoice => {
    const others = ways[index]
      .map((way, place) => ({ fingering: costs.fingering(way), more: through(index, place) - total, place }))
      .filter(({ place }) => place !== chosen[index])
      .sort((one, other) => one.more - other.more)
      .map(({ fingering, more }) => ({ fingering, more: Math.max(0, more) }));
    return { fingering: costs.fingering(ways[index][chosen[index]]), others };
  });
  return { choices, total };
}

type Sums = readonly Float64Array[];

/** For each note and way, the least cost from that end of the sequence up to and with it. */
function sweep(costs: PathCosts, ways: readonly (readonly number[])[], isApart: (index: number) => boolean, isBackward: boolean): Sums {
  const sums = ways.map((own) => new Float64Array(own.length));
  const count = ways.length;
  for (let step = 0; step < count; step += 1) {
    const index = isBackward ? count - 1 - step : step;
    const beside = isBackward ? index + 1 : index - 1;
    for (let place = 0; place < ways[index].length; place += 1) {
      let least = step === 0 ? 0 : Infinity;
      if (step > 0) {
        for (let other = 0; other < ways[beside].length; other += 1) {
          const [from, to] = isBackward ? [ways[index][place], ways[beside][other]] : [ways[beside][other], ways[index][place]];
          const cost = sums[beside][other] + (isApart(index) ? 0 : costs.ofChange(from, to));
          if (cost < least) least = cost;
        }
      }
      sums[index][place] = least + costs.ofWay(ways[index][place]);
    }
  }
  return sums;
}

/** The places of the cheapest path, from its end back. Of two that cost the same, the one that is taught first. */
function trace(costs: PathCosts, ways: readonly (readonly number[])[], forward: Sums, notes: readonly PathNote[]): readonly number[] {
  const chosen = new Array<number>(notes.length).fill(0);
  const least = (values: readonly number[]): number => values.reduce((best, value, place) => (value < values[best] - 1e-12 ? place : best), 0);
  chosen[notes.length - 1] = least([...forward[notes.length - 1]]);
  for (let index = notes.length - 1; index > 0; index -= 1) {
    const to = ways[index][chosen[index]];
    const sums = ways[index - 1].map((from, place) => forward[index - 1][place] + (notes[index].isApart ? 0 : costs.ofChange(from, to)));
    chosen[index - 1] = least(sums);
  }
  return chosen;
}
