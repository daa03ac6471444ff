import * as z from 'zod';
import { ZelpitFault } from '../fault';
import { patternKey, type Instrument, type Pattern } from '../fingering';
import { milliseconds } from '../pitch';
import type { Timeline, TimelineStep } from '../sound';

/** What fingers, or the breath, did at one moment. */
export type HoleEvent =
  | {
      /** In ms from the beginning. */
      readonly at: number;
      /** From 1, in the order of the instrument's holes: the thumb's first. */
      readonly hole: number;
      readonly covers: boolean;
    }
  | {
      readonly at: number;
      /** True where the tone begins, false where it ends. */
      readonly breath: boolean;
    };

/** What fingers did, moment by moment. Every hole is covered and the tone sounds until something else is said. */
export interface FingerStream {
  readonly events: readonly HoleEvent[];
}

/** How a stream names itself in its file. */
export const fingerFormat = 'zelpit-fingers';
const [mostEvents, longestMs] = [200_000, 1_200_000];

const at = z.number().min(0).max(longestMs);
const streamSchema = z.strictObject({
  format: z.literal(fingerFormat),
  version: z.literal(1),
  events: z
    .array(z.union([z.strictObject({ at, hole: z.number().int().min(1), covers: z.boolean() }), z.strictObject({ at, breath: z.boolean() })]))
    .max(mostEvents),
});

/**
 * Reads finger events from JSON (`{ "format": "zelpit-fingers", "version": 1, "events": [{ "at": 0, "hole": 8, "covers": false }, { "at": 900, "breath": false }] }`) or
 * from CSV (`ms,hole,covers`, a line for each; `breath` in place of a hole).
 * @param text of a file
 * @throws ZelpitFault `unreadable-fingers` with the line, or the event, that cannot be read
 */
export function readFingerStream(text: string): FingerStream {
  const events = text.trimStart().startsWith('{') ? ofJson(text) : ofCsv(text);
  if (events.length === 0) throw unreadable('There are no finger events in this file.');
  return { events: [...events].sort((one, other) => one.at - other.at) };
}

const unreadable = (message: string, data: Readonly<Record<string, unknown>> = {}): ZelpitFault => new ZelpitFault('unreadable-fingers', message, data);

function ofJson(text: string): readonly HoleEvent[] {
  let content: unknown;
  try {
    content = JSON.parse(text);
  } catch {
    throw unreadable('This file begins as JSON but cannot be read as such; perhaps it is cut off.');
  }
  const read = streamSchema.safeParse(content);
  if (read.success) return read.data.events;
  const [issue] = read.error.issues;
  const [list, place] = issue.path;
  if (list === 'events' && typeof place === 'number')
    throw unreadable(
      `Event ${place + 1} of this file cannot be read: it needs a time in ms (at most ${longestMs / 60_000} minutes), and a hole with what covers it or the breath.`,
      { place },
    );
  if (list === 'events') throw unreadable(`A file has a list of events, at most ${mostEvents}.`);
  throw unreadable(`This is no file of finger events: it says format “${fingerFormat}” and version 1.`);
}

function ofCsv(text: string): readonly HoleEvent[] {
  const lines = text.split(/\r?\n/);
  if (lines.length > mostEvents) throw unreadable(`A file has at most ${mostEvents} finger events.`);
  return lines.flatMap((line, index): HoleEvent[] => {
    const cells = line.split(/[,;\t]/).map((cell) => cell.trim());
    if (line.trim() === '' || (index === 0 && cells[0].toLowerCase() === 'ms')) return [];
    const [time, hole, value] = cells;
    const moment = Number(time);
    const isOn = { '1': true, '0': false }[value];
    if (time === '' || cells.length !== 3 || !at.safeParse(moment).success || isOn === undefined) throw badLine(index, line);
    if (hole.toLowerCase() === 'breath') return [{ at: moment, breath: isOn }];
    if (!/^[1-9]\d?$/.test(hole)) throw badLine(index, line);
    return [{ at: moment, hole: Number(hole), covers: isOn }];
  });
}

const badLine = (index: number, line: string): ZelpitFault =>
  unreadable(`Line ${index + 1}, “${line.slice(0, 40)}”, cannot be read: it needs a time in ms, a hole (or “breath”), and 1 or 0.`, { line: index + 1 });

/** The last pattern sounds on for so long, in ms. */
const lastMs = 500;

/**
 * The fingers' patterns over time.
 * @throws ZelpitFault `unreadable-fingers` for a hole that the instrument does not have
 */
export function timelineOfFingers(instrument: Instrument, { events }: FingerStream): Timeline {
  const holes = instrument.holes.length;
  const far = events.find((event) => 'hole' in event && event.hole > holes);
  if (far !== undefined && 'hole' in far) throw unreadable(`Hole ${far.hole} was named; this instrument has ${holes}.`, { hole: far.hole });
  const steps: TimelineStep[] = [];
  let [pattern, blows, from]: [Pattern, boolean, number] = [instrument.holes.map(() => 1), true, events[0].at];
  const until = (moment: number): void => {
    const last = steps.at(-1);
    const sounds = blows ? pattern : [];
    if (moment <= from) return;
    if (last !== undefined && patternKey(last.pattern) === patternKey(sounds)) steps[steps.length - 1] = { ...last, length: milliseconds(moment - last.start) };
    else steps.push({ pattern: sounds, start: milliseconds(from), length: milliseconds(moment - from), role: blows ? 'theme' : 'rest', note: 0 });
    from = moment;
  };
  for (const event of events) {
    until(event.at);
    if ('breath' in event) blows = event.breath;
    else pattern = pattern.map((coverage, hole) => (hole === event.hole - 1 ? Number(event.covers) : coverage));
  }
  until(from + lastMs);
  return { steps, clicks: [], length: milliseconds(from) };
}
