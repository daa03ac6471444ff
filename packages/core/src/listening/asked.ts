import { heardFrom } from '../acoustics';
import { soundingPitch, type Instrument, type NoteId } from '../fingering';
import { graceSteps } from '../movement';
import { centsBetween } from '../pitch';

/** A note that was asked for, in the order of playing. */
export interface AskedNote {
  /** Null for a rest. */
  readonly note: NoteId | null;
  readonly graceNotes: readonly NoteId[];
  readonly beats: number;
  /** True where it goes on from a tied note. */
  readonly isTied: boolean;
  /** Bar as counted aloud, 0 for the lead-in; absent where there are none. */
  readonly bar?: number;
  /** What its grace notes are together: "doubling", "grip". */
  readonly movement?: string;
}

/** One thing to be heard: a theme note, or one grace note before it. */
export interface AskedSound {
  readonly kind: 'theme' | 'grace';
  /** As written. */
  readonly note: NoteId;
  /** The notes as which it may be heard: a grace note is fingers over its theme note, and can sound nearer to another. */
  readonly heardAs: readonly NoteId[];
  /** Place among the notes that were asked for. */
  readonly of: number;
  /** True where somebody may begin: the first sound of a bar, or of all. */
  readonly isStart: boolean;
  /** How many notes in a row it stands for: the same note again without a grace note is heard as one, unless the tongue parts them. */
  readonly times: number;
  /** False for a grace note that may sound as the note before or after it does: the ear cannot tell whether it was played. */
  readonly isTellable: boolean;
}

/**
 * A grace note is short and lies between the notes of the chart: as any of those so near to it it may be heard; one so near to a note beside it is heard as that. In
 * cents. Our own choices.
 */
const [graceReach, sameReach] = [150, 75];

/**
 * What is to be heard, one after the other. Rests are not heard; a note that is tied or repeated without a grace note goes on in the one before; a grace note
 * that stops the tone is left out: the ear cannot tell it.
 */
export function askedSounds(instrument: Instrument, notes: readonly AskedNote[]): readonly AskedSound[] {
  const sounds: AskedSound[] = [];
  let bar: number | undefined;
  let wasRest = true;
  notes.forEach(({ note, graceNotes, isTied, bar: here }, of) => {
    if (note === null) {
      wasRest = true;
      return;
    }
    const isStart = sounds.length === 0 || here !== bar;
    const last = sounds.at(-1);
    if (!wasRest && last?.note === note && graceNotes.length === 0) {
      if (!isTied) sounds[sounds.length - 1] = { ...last, times: last.times + 1 };
      return;
    }
    bar = here;
    const first = sounds.length;
    for (const { written, pattern } of graceSteps(instrument, isTied ? [] : graceNotes, note)) {
      const { kind, pitch } = heardFrom(instrument, pattern);
      if (kind === 'silent') continue;
      const isNear = (other: NoteId, reach: number): boolean => Math.abs(centsBetween(soundingPitch(instrument, other), pitch)) <= reach;
      const near = instrument.notes.filter(({ id }) => id !== note && isNear(id, graceReach)).map(({ id }) => id);
      const beside = [...(wasRest ? [] : sounds.slice(-1).map((sound) => sound.note)), ...(written === note ? [] : [note])];
      const isTellable = !beside.some((each) => isNear(each, sameReach));
      const heard = [...new Set([written, ...near])];
      sounds.push({ kind: 'grace', note: written, heardAs: heard, of, isStart: isStart && sounds.length === first, times: 1, isTellable });
    }
    sounds.push({ kind: 'theme', note, heardAs: [note], of, isStart: isStart && sounds.length === first, times: 1, isTellable: true });
    wasRest = false;
  });
  return sounds;
}
