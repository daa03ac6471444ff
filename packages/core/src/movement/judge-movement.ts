import { chartedPattern, patternKey, withFingers, type FingerId, type Instrument, type NoteId, type Pattern } from '../fingering';
import { nearestNote, tablePitch } from '../acoustics';
import { hertz } from '../pitch';
import type { FingerEvent } from '../playing';
import type { CompiledMovement, MovementStep } from './compile';
import { timedSteps, usualPace, type MovementPace } from './movement-time';

/** Shorter than this, a pattern between two elements is fingers on their way, in ms. */
const onTheWayMs = 12;
/** An element this many times as long as it is meant, or as short, is uneven. */
const unevenTimes = 2;

/** One element as it was played. */
export interface PlayedElement {
  /** Its place in the movement, from 0. */
  readonly index: number;
  /** How long it stood, in ms; 0 where it is missing. */
  readonly ms: number;
  /** How long it is meant to be, against the other elements of this playing, in ms. */
  readonly meantMs: number;
  readonly verdict: 'there' | 'missing' | 'too-short' | 'too-long';
}

/** What stood between elements and belongs to none. */
export interface StrayPattern {
  readonly note: NoteId;
  readonly ms: number;
  /** Before which element it stood; the number of elements for the theme note. */
  readonly before: number;
  /** True for an element that was played again, false for fingers that did not go together. */
  readonly isExtra: boolean;
  /** The element that came before the grace note ahead of it had closed: the two overlapped. */
  readonly overlaps?: number;
}

export interface JudgedMovement {
  readonly elements: readonly PlayedElement[];
  readonly strays: readonly StrayPattern[];
  readonly isClean: boolean;
  readonly totalMs: number;
}

/**
 * Judges finger events against a movement: elements missing, extra, uneven, or with something between them. The note before stands when the events begin; the
 * last event reaches the theme note. Lengths are compared among themselves, so that the movement may be played at any speed. Undefined where the theme note
 * was not reached.
 */
export function judgeMovement(
  instrument: Instrument,
  movement: CompiledMovement,
  events: readonly FingerEvent[],
  pace: MovementPace = usualPace,
): JudgedMovement | undefined {
  if (movement.kind === 'unplayable' || movement.before === null || events.length === 0) return undefined;
  const segments = segmentsOf(instrument, chartedPattern(instrument, movement.before), events);
  const after = patternKey(chartedPattern(instrument, movement.after));
  if (segments.last !== after) return undefined;
  const wanted = movement.steps.map(({ pattern }) => patternKey(pattern));
  const places = aligned(
    segments.stood.map(({ key }) => key),
    wanted,
  );
  const stoodFor = wanted.map((_, index) => segments.stood.reduce((sum, { ms }, at) => (places[at] === index ? sum + ms : sum), 0));
  const msOf = parted(stoodFor, wanted);
  const meant = timedSteps(movement, pace).map(({ lengthMs }) => lengthMs);
  const played = msOf.reduce((sum, ms) => sum + ms, 0);
  const scale =
    played /
    Math.max(
      1,
      meant.reduce((sum, ms, index) => (msOf[index] > 0 ? sum + ms : sum), 0),
    );
  const elements = wanted.map((_, index): PlayedElement => {
    const meantMs = meant[index] * scale;
    return { index, ms: msOf[index], meantMs, verdict: verdictOf(msOf[index], meantMs) };
  });
  const strays = segments.stood.flatMap(({ key, pattern, ms }, at): StrayPattern[] => {
    if (places[at] !== undefined) return [];
    const next = places.slice(at).find((place) => place !== undefined) ?? wanted.length;
    const overlaps = overlapping(instrument, movement.steps, key);
    const isExtra = overlaps === undefined && (wanted.includes(key) || key === after);
    const isHeard = isExtra || overlaps !== undefined || ms > onTheWayMs;
    const note = soundOf(instrument, pattern, movement.after);
    return isHeard ? [{ note, ms, before: overlaps ?? next, isExtra, ...(overlaps !== undefined && { overlaps }) }] : [];
  });
  return {
    elements,
    strays,
    isClean: strays.length === 0 && elements.every(({ verdict }) => verdict === 'there'),
    totalMs: events[events.length - 1].ms - events[0].ms,
  };
}

/** The tap or grace note that a pattern is with the grace note before it still open; undefined where it is none. */
function overlapping(instrument: Instrument, steps: readonly MovementStep[], key: string): number | undefined {
  let open: readonly FingerId[] = [];
  for (const [index, { kind, pattern, fingers }] of steps.entries()) {
    const isOrnament = kind !== 'note' && kind !== 'low';
    if (isOrnament && open.length > 0 && patternKey(withFingers(instrument, pattern, open, 0)) === key && patternKey(pattern) !== key) return index;
    if (kind === 'opener' || kind === 'grace') open = fingers;
  }
  return undefined;
}

/** Where what parts two like elements is missing they run together: both are there, half of it each. */
function parted(ms: readonly number[], wanted: readonly string[]): readonly number[] {
  const all = [...ms];
  for (let index = 1; index + 1 < all.length; index += 1) {
    const [before, after] = [index - 1, index + 1];
    if (ms[index] > 0 || wanted[before] !== wanted[after] || ms[before] > 0 === ms[after] > 0) continue;
    const both = ms[before] + ms[after];
    all[before] = both / 2;
    all[after] = both / 2;
  }
  return all;
}

function verdictOf(ms: number, meantMs: number): PlayedElement['verdict'] {
  if (ms === 0) return 'missing';
  if (ms > unevenTimes * meantMs) return 'too-long';
  return ms < meantMs / unevenTimes ? 'too-short' : 'there';
}

interface Stood {
  readonly key: string;
  readonly pattern: Pattern;
  readonly ms: number;
}

/** The patterns that stood from the first event to the last, and the one that stands at the end. */
function segmentsOf(instrument: Instrument, first: Pattern, events: readonly FingerEvent[]): { readonly stood: readonly Stood[]; readonly last: string } {
  let pattern = first;
  const stood: Stood[] = [];
  events.forEach(({ finger, isDown }, index) => {
    pattern = pattern.map((coverage, hole) => (instrument.holes[hole].finger === finger ? Number(isDown) : coverage));
    const next = events[index + 1];
    if (next !== undefined && next.ms > events[index].ms) stood.push({ key: patternKey(pattern), pattern, ms: next.ms - events[index].ms });
  });
  return { stood, last: patternKey(pattern) };
}

/** Which element each pattern is, in their order: the longest common sequence; undefined for one that is none. */
function aligned(stood: readonly string[], wanted: readonly string[]): readonly (number | undefined)[] {
  const lengths = Array.from({ length: stood.length + 1 }, () => new Array<number>(wanted.length + 1).fill(0));
  for (let at = stood.length - 1; at >= 0; at -= 1)
    for (let to = wanted.length - 1; to >= 0; to -= 1)
      lengths[at][to] = stood[at] === wanted[to] ? lengths[at + 1][to + 1] + 1 : Math.max(lengths[at + 1][to], lengths[at][to + 1]);
  const places = new Array<number | undefined>(stood.length).fill(undefined);
  let [at, to] = [0, 0];
  while (at < stood.length && to < wanted.length) {
    if (stood[at] === wanted[to]) {
      places[at] = to;
      at += 1;
      to += 1;
    } else if (lengths[at + 1][to] >= lengths[at][to + 1]) at += 1;
    else to += 1;
  }
  return places;
}

function soundOf(instrument: Instrument, pattern: Pattern, otherwise: NoteId): NoteId {
  const pitch = tablePitch(instrument, pattern)?.hertz;
  return pitch === undefined ? otherwise : nearestNote(instrument, hertz(pitch));
}
