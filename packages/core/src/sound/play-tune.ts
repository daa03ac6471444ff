import { changeOfFingerings } from '../change';
import { isOverblown, isStopped } from '../acoustics';
import { chartedFingering, type Fingering, type Instrument, type NoteId } from '../fingering';
import { graceSteps } from '../movement';
import { milliseconds } from '../pitch';
import { faultPatterns, worstFault, type FaultKind } from './fault-steps';
import type { Click, Timeline, TimelineStep } from './timeline';
import { tongueSilenceMs } from '../timing';

/** A note to be sounded: what a tune, a line or one change is made of here. */
export interface PlayedNote {
  /** `null` for silence. */
  readonly note: NoteId | null;
  readonly graceNotes: readonly NoteId[];
  /** In beats. */
  readonly beats: number;
  /** Number by which the caller knows it. */
  readonly index: number;
  /** True where it goes on from a tied note. */
  readonly isTied: boolean;
  /** True where the tongue begins it: the tone stops for a moment before, and no finger is heard. */
  readonly isTongued?: boolean;
  /** The way in which it is fingered; the one taught first where nothing is said. */
  readonly fingering?: Fingering;
}

export interface PlaySettings {
  /** Beats a minute, after slowing. */
  readonly tempo: number;
  readonly beatsInBar: number;
  /** Clicks before the first note; 0 for none. */
  readonly countInBeats: number;
  readonly isClickOn: boolean;
  /** Clicks to a beat; 1 where nothing is said. */
  readonly clicksInBeat?: number;
  /** Where in its bar the first note stands, in beats from the bar line. */
  readonly firstBeat: number;
  readonly graceNoteMs: number;
  /** The fault put into every change that allows it; `worst` takes each change's own. */
  readonly fault?: { readonly kind: FaultKind | 'worst'; readonly ms: number };
}

const shareLeftForTheme = 0.4;
const shareLeftBeforeFault = 0.5;
const shareOfTongue = 0.2;

/**
 * Lays notes out in time. Grace notes start on the beat and are taken from the note that follows; their length does not
 * follow the tempo. A fault sounds for its length just before the note that it cuts into, and is taken from the note
 * before. Nothing else moves: the same notes at another tempo give the same patterns.
 */
export function playNotes(instrument: Instrument, notes: readonly PlayedNote[], settings: PlaySettings): Timeline {
  const beatMs = 60_000 / settings.tempo;
  const countInMs = settings.countInBeats * beatMs;
  const steps: TimelineStep[] = [];
  let beat = 0;
  notes.forEach((played, position) => {
    const start = countInMs + beat * beatMs;
    const length = played.beats * beatMs;
    const before = notes[position - 1];
    if (before !== undefined && played.isTongued === true) tongue(steps, played);
    else if (before !== undefined && settings.fault !== undefined) cutIn(instrument, steps, before, played, settings.fault);
    sound(instrument, steps, played, start, length, settings.graceNoteMs);
    beat += played.beats;
  });
  return { steps, clicks: clicksOf(settings, beat, beatMs), length: milliseconds(countInMs + beat * beatMs) };
}

function sound(instrument: Instrument, steps: TimelineStep[], played: PlayedNote, start: number, length: number, graceNoteMs: number): void {
  if (played.note === null) {
    steps.push(step({ pattern: [] }, start, length, 'rest', played.index));
    return;
  }
  const { pattern, register } = blown(instrument, fingeringOf(instrument, played, played.note));
  const graces = played.isTied ? [] : graceSteps(instrument, played.graceNotes, played.note);
  const each = graces.length === 0 ? 0 : Math.min(graceNoteMs, (length * (1 - shareLeftForTheme)) / graces.length);
  graces.forEach((grace, index) => steps.push(step({ pattern: grace.pattern, register }, start + index * each, each, 'grace', played.index)));
  const theme = start + graces.length * each;
  steps.push(step({ pattern, register }, theme, start + length - theme, 'theme', played.index));
}

function cutIn(instrument: Instrument, steps: TimelineStep[], before: PlayedNote, after: PlayedNote, fault: NonNullable<PlaySettings['fault']>): void {
  if (before.note === null || after.note === null || before.note === after.note || after.graceNotes.length > 0) return;
  const change = changeOfFingerings(instrument, fingeringOf(instrument, before, before.note), fingeringOf(instrument, after, after.note));
  const kind = fault.kind === 'worst' ? worstFault(instrument, change) : fault.kind;
  const patterns = kind === undefined ? [] : faultPatterns(instrument, change, kind);
  const previous = steps.pop();
  if (previous === undefined) return;
  const faultMs = patterns.length === 0 ? 0 : Math.min(fault.ms, previous.length * shareLeftBeforeFault);
  const from = previous.start + previous.length - faultMs;
  steps.push({ ...previous, length: milliseconds(previous.length - faultMs) });
  const each = faultMs / patterns.length;
  patterns.forEach((pattern, index) => {
    const isSilent = isStopped(pattern, change.foot);
    steps.push(step({ pattern: isSilent ? [] : pattern, register: change.register }, from + index * each, each, isSilent ? 'rest' : 'fault', after.index));
  });
}

const fingeringOf = (instrument: Instrument, { fingering }: PlayedNote, note: NoteId): Fingering => fingering ?? chartedFingering(instrument, note);

/** The fingers of a note and, where it is overblown, the register. */
function blown(instrument: Instrument, { pattern, register }: Fingering): Blown {
  return isOverblown(instrument) ? { pattern, register } : { pattern };
}

/** Takes the silence of the tongue from the end of the note before. */
function tongue(steps: TimelineStep[], played: PlayedNote): void {
  const previous = steps.pop();
  if (previous === undefined) return;
  const silence = previous.role === 'rest' ? 0 : Math.min(tongueSilenceMs, previous.length * shareOfTongue);
  steps.push({ ...previous, length: milliseconds(previous.length - silence) });
  if (silence > 0) steps.push(step({ pattern: [] }, previous.start + previous.length - silence, silence, 'rest', played.index));
}

type Blown = Pick<TimelineStep, 'pattern' | 'register'>;

function step(blow: Blown, start: number, length: number, role: TimelineStep['role'], note: number): TimelineStep {
  return { ...blow, start: milliseconds(start), length: milliseconds(Math.max(0, length)), role, note };
}

function clicksOf(settings: PlaySettings, beats: number, beatMs: number): readonly Click[] {
  const { countInBeats, beatsInBar, firstBeat, clicksInBeat = 1 } = settings;
  const inBar = (beat: number): number => (((firstBeat + beat) % beatsInBar) + beatsInBar) % beatsInBar;
  const clicks: Click[] = [];
  const offset = Math.ceil(firstBeat - 1e-6) - firstBeat;
  const last = settings.isClickOn ? beats : 0;
  for (let beat = offset - Math.round(countInBeats); beat < last - 1e-6; beat += 1) {
    if (beat + countInBeats < -1e-6) continue;
    clicks.push({ at: milliseconds(Math.max(0, beat + countInBeats) * beatMs), isAccented: inBar(beat) < 1e-6, isCountIn: beat < -1e-6 });
    for (let part = 1; part < clicksInBeat; part += 1) {
      const between = beat + part / clicksInBeat;
      if (between + countInBeats < 0 || between >= last - 1e-6) continue;
      clicks.push({ at: milliseconds((between + countInBeats) * beatMs), isAccented: false, isDivision: true, isCountIn: between < -1e-6 });
    }
  }
  return clicks;
}
