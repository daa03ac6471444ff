import { fingerCoverage, type FingerId, type Instrument, type NoteId, type Pattern } from '../fingering';
import { chartedPattern } from '../fingering';
import { graceSteps, hidingGraceNote } from '../movement';

/** A theme note to be drawn: where its head stands and where its grace notes stand. `null` for silence. */
export interface LaneNote {
  readonly x: number;
  readonly note: NoteId | null;
  /** Other fingers than the ones taught first. */
  readonly pattern?: Pattern;
  readonly graceNotes: readonly { readonly x: number; readonly note: NoteId }[];
}

/** A stretch over which a finger's cover stays the same. */
export interface CoverSpan {
  readonly from: number;
  readonly to: number;
  readonly coverage: number;
}

/** Half the width of a hop at a grace note. */
const hopHalfWidth = 7;

interface CoverEvent {
  readonly x: number;
  readonly coverage: number | null;
}

/** Where the seam between two neighbours lies: midway, or at the first grace note. */
export function seamBetween(before: LaneNote, after: LaneNote): number {
  return after.graceNotes[0]?.x ?? (before.x + after.x) / 2;
}

/** How long each finger stays as it is, from `left` to `right`; stretches of open wood and of silence are left out. */
export function coverSpans(instrument: Instrument, notes: readonly LaneNote[], left: number, right: number): ReadonlyMap<FingerId, readonly CoverSpan[]> {
  const events = new Map(instrument.fingers.map((finger) => [finger.id, [] as CoverEvent[]]));
  const put = (x: number, pattern: Pattern | null, only?: (finger: FingerId) => boolean): void => {
    for (const finger of instrument.fingers) {
      if (only !== undefined && !only(finger.id)) continue;
      events.get(finger.id)?.push({ x, coverage: pattern === null ? null : fingerCoverage(instrument, pattern, finger.id) });
    }
  };
  notes.forEach((note, index) => {
    const pattern = note.note === null ? null : (note.pattern ?? chartedPattern(instrument, note.note));
    const before = notes[index - 1];
    if (note.note !== null && note.graceNotes.length > 0) putGraceNotes(instrument, put, before, note, left);
    else put(before === undefined ? left : seamBetween(before, note), pattern);
    if (note.graceNotes.length > 0) {
      const last = note.graceNotes[note.graceNotes.length - 1].x;
      put(last + Math.min(hopHalfWidth, Math.abs(note.x - last) / 2), pattern);
    }
  });
  return new Map([...events].map(([finger, list]) => [finger, spansOf(list, left, right)]));
}

type Put = (x: number, pattern: Pattern | null, only?: (finger: FingerId) => boolean) => void;

function putGraceNotes(instrument: Instrument, put: Put, before: LaneNote | undefined, note: LaneNote, left: number): void {
  if (note.note === null) return;
  const steps = graceSteps(
    instrument,
    note.graceNotes.map((grace) => grace.note),
    note.note,
  );
  const [first] = note.graceNotes;
  const hiding = before === undefined || before.note === null ? undefined : hidingGraceNote(instrument, before.note, steps);
  if (before === undefined) put(left, chartedPattern(instrument, note.note));
  const open = first.x - Math.min(hopHalfWidth, before === undefined ? hopHalfWidth : Math.abs(first.x - before.x) / 2);
  if (hiding === undefined) put(open, steps[0].pattern);
  else {
    put(open, steps[0].pattern, (finger) => hiding.fingers.includes(finger));
    put(first.x, steps[0].pattern);
  }
  steps.slice(1).forEach((step, index) => put((note.graceNotes[index].x + note.graceNotes[index + 1].x) / 2, step.pattern));
}

function spansOf(events: readonly CoverEvent[], left: number, right: number): readonly CoverSpan[] {
  const spans: CoverSpan[] = [];
  let from = left;
  let coverage: number | null = null;
  const close = (to: number): void => {
    if (coverage !== null && coverage > 0 && to > from) spans.push({ from, to, coverage });
  };
  for (const event of events) {
    if (event.coverage === coverage) continue;
    close(event.x);
    from = event.x;
    coverage = event.coverage;
  }
  close(right);
  return spans;
}
