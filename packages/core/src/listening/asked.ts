import { heardFrom } from '../acoustics';
import { soundingPitch, type Instrument, type NoteId, type Pattern } from '../fingering';
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
}

/**
 * What is to be heard, one after the other. Rests are not heard; a note that is tied or repeated without a grace note goes on in the one before; a grace note
 * that stops the tone or sounds as its theme note does is left out: the ear cannot tell it.
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
    wasRest = false;
    const first = sounds.length;
    for (const { written, pattern } of graceSteps(instrument, isTied ? [] : graceNotes, note)) {
      const heard = heardAs(instrument, written, pattern).filter((each) => each !== note || written === note);
      // What stops the tone, or sounds as its theme note, cannot be told by ear.
      if (heard.length > 0) sounds.push({ kind: 'grace', note: written, heardAs: heard, of, isStart: isStart && sounds.length === first, times: 1 });
    }
    sounds.push({ kind: 'theme', note, heardAs: [note], of, isStart: isStart && sounds.length === first, times: 1 });
  });
  return sounds;
}

/** A grace note is short and lies between the notes of the chart: as any of those so near to it it may be heard, in cents. Our own choice. */
const graceReach = 150;

function heardAs(instrument: Instrument, written: NoteId, pattern: Pattern): readonly NoteId[] {
  const { kind, pitch } = heardFrom(instrument, pattern);
  if (kind === 'silent') return [];
  const near = instrument.notes.filter(({ id }) => Math.abs(centsBetween(soundingPitch(instrument, id), pitch)) <= graceReach);
  return [...new Set([written, ...near.map(({ id }) => id)])];
}
