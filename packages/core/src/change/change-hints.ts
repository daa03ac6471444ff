import { noteOf, type Instrument, type NoteId } from '../fingering';
import { listed } from '../words';
import type { Change } from './change';
import { changeHints, type ChangeHint } from './change-hints.data';
import { physicalHints } from './hand-shape';
import type { Trouble } from './trouble';

/** What to listen for, and one hint for hands, lips or air; the hint is empty where none is known. */
export interface Hints {
  readonly listen: string;
  readonly physical: string;
}

/**
 * What a teacher says with a change beside who leads: what to listen for, and one physical hint.
 * @throws ZelpitFault `unknown-note`
 */
export function hintsFor(instrument: Instrument, change: Change, trouble: Trouble): Hints {
  const own = changeHints.find((hint) => fits(instrument, hint, change));
  const listen = listenFor(instrument, change, trouble);
  return {
    listen: isOctave(instrument, change) ? `${listen} The octave is true only when the breath stays steady.` : listen,
    physical: own?.text ?? physicalHints(change)[0] ?? '',
  };
}

function fits(instrument: Instrument, { families, from, to, isBothWays }: ChangeHint, change: Change): boolean {
  if (!families.includes(instrument.family)) return false;
  const semitones = (id: NoteId): number => noteOf(instrument, id).writtenSemitone - instrument.notes[0].writtenSemitone;
  const isOneOf = (notes: readonly (NoteId | number)[] | undefined, id: NoteId): boolean =>
    notes === undefined || notes.some((note) => (typeof note === 'number' ? note === semitones(id) : note === id));
  const isSo = isOneOf(from, change.from) && isOneOf(to, change.to);
  return isSo || (isBothWays === true && isOneOf(from, change.to) && isOneOf(to, change.from));
}

function listenFor(instrument: Instrument, change: Change, trouble: Trouble): string {
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const [from, to] = [name(change.from), name(change.to)];
  switch (trouble.kind) {
    case 'pop':
      return `Listen for ${name(trouble.note)} between ${from} and ${to}: it must not be there.`;
    case 'run':
      return `Listen for ${listed(trouble.notes.map(name))} on the way: ${from}, then ${to}, and nothing else.`;
    case 'stop':
      return `Listen for a moment of silence between ${from} and ${to}: the sound goes on.`;
    case 'blur':
      return `Listen to the join: ${to} is clear from its start.`;
    case 'none':
      return `Listen to both notes: ${from} to its end, ${to} from its start.`;
  }
}

const isOctave = (instrument: Instrument, { from, to }: Change): boolean =>
  Math.abs(noteOf(instrument, from).writtenSemitone - noteOf(instrument, to).writtenSemitone) === 12;
