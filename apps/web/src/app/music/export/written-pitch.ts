import { noteOf, type Instrument, type NoteId } from '@zelpit/core/fingering';

export interface WrittenPitch {
  readonly step: string;
  /** 1 sharp, -1 flat. */
  readonly alter: number;
  readonly octave: number;
}

/** Letters that the pipes' own key makes sharp without a sign. */
const sharpOnPipes = new Set(['C', 'F']);
const middleOctave = 4;

/** Whether an instrument's music is written in the pipes' own key. */
const hasPipesKey = ({ ownKeys }: Instrument): boolean => ownKeys.length > 0;

/** A note of an instrument as it is written on the staff. */
export function writtenPitch(instrument: Instrument, note: NoteId): WrittenPitch {
  const { abc } = noteOf(instrument, note);
  const [, sign, letter, marks] = /^([_^=]*)([A-Ga-g])([,']*)$/.exec(abc) as unknown as readonly [string, string, string, string];
  const step = letter.toUpperCase();
  const raised = [...marks].reduce((sum, mark) => sum + (mark === "'" ? 1 : -1), 0);
  const ofKey = hasPipesKey(instrument) && sharpOnPipes.has(step) && sign === '' ? 1 : 0;
  const alter = { '^': 1, _: -1 }[sign] ?? ofKey;
  return { step, alter, octave: middleOctave + (letter === step ? 0 : 1) + raised };
}
