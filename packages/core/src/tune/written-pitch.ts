import { noteOf, type Instrument, type Note, type NoteId } from '../fingering';
import { abcLetter, letterOf, semitoneOf, type Key, type ScorePitch } from '../score';
import type { WrittenNote } from './tune';

interface Lookup {
  readonly bySemitone: ReadonlyMap<number, Note>;
  readonly byLetter: ReadonlyMap<string, Note>;
}

/** The notes of an instrument by their place on the page, kept: every note of every tune asks. */
const lookups = new WeakMap<Instrument, Lookup>();

function lookupOf(instrument: Instrument): Lookup {
  const known = lookups.get(instrument);
  if (known !== undefined) return known;
  const reversed = [...instrument.notes].reverse();
  const lookup = { bySemitone: new Map(reversed.map((note) => [note.writtenSemitone, note])), byLetter: new Map(reversed.map((note) => [note.abc, note])) };
  lookups.set(instrument, lookup);
  return lookup;
}

/** The instrument's note for a pitch on the page; under the instrument's own key the letter alone decides, unless an accidental says otherwise. */
export function writtenNote(instrument: Instrument, pitch: ScorePitch, isOwnKey: boolean): WrittenNote {
  const { bySemitone, byLetter } = lookupOf(instrument);
  const semitone = semitoneOf(pitch);
  if (isOwnKey) {
    const note = byLetter.get(abcLetter(pitch.step));
    if (pitch.accidental === undefined || note?.writtenSemitone === semitone)
      return note === undefined ? outsideOwnKey(instrument, pitch.step) : { kind: 'note', note: note.id };
  }
  const note = bySemitone.get(semitone);
  if (note !== undefined) return { kind: 'note', note: note.id };
  return { kind: 'outside', semitone, text: outsidePhrase(instrument, nameOf(instrument, pitch, semitone), semitone) };
}

const alterNames: Readonly<Record<number, string>> = { [-2]: ' double flat', [-1]: ' flat', 0: '', 1: ' sharp', 2: ' double sharp' };

function nameOf(instrument: Instrument, { step, alter, accidental }: ScorePitch, semitone: number): string {
  const isNatural = alter === 0 && (accidental === 'natural' || needsNatural(instrument, step, semitone));
  return `${letterOf(step)}${isNatural ? ' natural' : alterNames[alter]}`;
}

/** A letter in an octave that the instrument does not reach; it stands for the instrument's own note of that letter. */
function outsideOwnKey(instrument: Instrument, step: number): WrittenNote {
  const plain = semitoneOf({ step, alter: 0 });
  const own = instrument.notes.find((note) => note.writtenName === letterOf(step));
  const raised = own === undefined ? 0 : (((own.writtenSemitone - plain) % 12) + 12) % 12;
  const semitone = plain + raised;
  return { kind: 'outside', semitone, text: outsidePhrase(instrument, letterOf(step), semitone) };
}

function outsidePhrase(instrument: Instrument, name: string, semitone: number): string {
  const lowest = instrument.notes[0];
  const highest = instrument.notes[instrument.notes.length - 1];
  if (semitone < lowest.writtenSemitone) return `${name} below ${lowest.schoolName}`;
  if (semitone > highest.writtenSemitone) return `${name} above ${highest.schoolName}`;
  return name;
}

/** True where the chart has the same letter a semitone away, so that "natural" tells the two apart. */
function needsNatural(instrument: Instrument, step: number, semitone: number): boolean {
  return instrument.notes.some((note) => note.writtenName === letterOf(step) && Math.abs(note.writtenSemitone - semitone) === 1);
}

const signsInAbc: Readonly<Record<string, number>> = { '^': 1, _: -1, '=': 0 };
const lettersInScale = 'CDEFGAB';

/**
 * Where an instrument's note is written under a key: the other way round of `writtenNote`.
 * @throws ZelpitFault `unknown-note`
 */
export function pitchOfNote(instrument: Instrument, note: NoteId, key: Key): ScorePitch {
  const { abc } = noteOf(instrument, note);
  const [, sign, letter, octaves] = /^([\^_=]?)([A-Ga-g])([,']*)$/.exec(abc) ?? ['', '', 'C', ''];
  const isUpper = letter === letter.toUpperCase();
  const up = [...octaves].reduce((sum, mark) => sum + (mark === "'" ? 7 : -7), isUpper ? 0 : 7);
  const step = lettersInScale.indexOf(letter.toUpperCase()) + up;
  // Under the instrument's own key the letter alone decides.
  const alter = instrument.ownKeys.includes(key.name) ? (key.alters.get(letter.toUpperCase()) ?? 0) : (signsInAbc[sign] ?? 0);
  return { step, alter, accidental: undefined, isTiedOn: false, isTiedFromPrevious: false };
}
