import { noteOf, type Instrument, type NoteId } from '../fingering';
import { notesMeant, readNote } from '../proof';
import { capital } from '../words';
import { compileMovement, type CompiledMovement } from '../movement';
import { usualMovementSettings, type MovementDefinition, type MovementSettings } from '../movement';
import { findMovements, movementsOf } from '../movement';
import { MovementReader } from '../movement';

interface Studio {
  readonly own: readonly MovementDefinition[];
  readonly settings: MovementSettings;
}

const usualStudio: Studio = { own: [], settings: usualMovementSettings };

/** What a line about a movement came to. */
export type MovementProof = { readonly kind: 'right'; readonly text: string } | { readonly kind: 'wrong'; readonly text: string };

const graceName = (instrument: Instrument, id: NoteId): string =>
  instrument.graceNotes.find(({ written }) => written === id)?.name ?? noteOf(instrument, id).schoolName;

/**
 * Reads a line about a movement and judges it against the compiler: "{GdGe}A from D", "C doubling: G grace note to C, D grace note to C". Undefined where the line
 * speaks of no movement.
 * @param studio its own movements and how it plays
 */
export function proofreadMovement(instrument: Instrument, line: string, studio: Studio = usualStudio): MovementProof | undefined {
  if (movementsOf(instrument, studio.own).length === 0) return undefined;
  const text = line.trim();
  const written = /^\{([GABcdefga]+)\}([GABcdefga])(?:\s+from\s+(.+))?$/.exec(text);
  if (written !== null) return proofOfWritten(instrument, studio, { group: written[1], theme: written[2], from: written[3] });
  const [head, ...rest] = text.split(':');
  if (rest.length === 0) return undefined;
  return proofOfWords(instrument, studio, head, rest.join(':'));
}

const noteOfAbc = (instrument: Instrument, letter: string): NoteId | undefined => instrument.notes.find(({ abc }) => abc === letter)?.id;

/** The one note that words mean; undefined where they mean none or several. */
function noteNamed(instrument: Instrument, words: string): NoteId | undefined {
  const named = readNote(words.trim());
  const meant = named === undefined ? [] : notesMeant(instrument, named);
  return meant.length === 1 ? meant[0].id : undefined;
}

interface Written {
  readonly group: string;
  readonly theme: string;
  readonly from: string | undefined;
}

function proofOfWritten(instrument: Instrument, { own, settings }: Studio, { group, theme, from }: Written): MovementProof | undefined {
  const letters = [...group].map((letter) => noteOfAbc(instrument, letter));
  const after = noteOfAbc(instrument, theme);
  if (after === undefined || !letters.every((each) => each !== undefined)) return undefined;
  const before = from === undefined ? null : noteNamed(instrument, from);
  if (before === undefined) return { kind: 'wrong', text: `“${from?.trim() ?? ''}” is not one note of the ${instrument.name}.` };
  const found = new MovementReader(instrument, own).read(before, letters, after);
  if (found.kind === 'none') return { kind: 'wrong', text: 'No known movement is written like this.' };
  if (found.kind === 'unknown')
    return { kind: 'wrong', text: `Not a known movement. The nearest is the ${nameOf(found.nearest)}, ${found.nearest.written}: ${found.differs}.` };
  const [first] = found.candidates;
  const wanted = compileMovement(instrument, first.movement, before, after, settings);
  const given = `{${group}}${theme}`;
  const isSo = found.candidates.some((each) => sameForm(compileMovement(instrument, each.movement, before, after, settings), given));
  if (isSo || wanted.kind === 'unplayable') return { kind: 'right', text: `Right: ${nameOf(first)} to ${noteOf(instrument, after).schoolName}.` };
  return {
    kind: 'wrong',
    text: `The ${nameOf(first)} from ${noteOf(instrument, before ?? after).schoolName} is ${wanted.written}. ${wanted.text.join(' ')}`.trim(),
  };
}

const sameForm = (compiled: CompiledMovement, given: string): boolean => compiled.kind === 'compiled' && compiled.written === given;
const nameOf = ({ movement }: CompiledMovement): string => movement.names[0];

/** "C doubling", "doubling on C", "taorluath to low A from D". */
function proofOfWords(instrument: Instrument, { own, settings }: Studio, head: string, elements: string): MovementProof | undefined {
  const from = /\bfrom\s+(.+)$/i.exec(head);
  const rest = from === null ? head : head.slice(0, from.index);
  const on = /^(.+?)\s+(?:on|to|into)\s+(.+)$/i.exec(rest.trim());
  const [noteWords, name] = on === null ? splitNote(instrument, rest.trim()) : [on[2], on[1]];
  const after = noteNamed(instrument, noteWords);
  const [movement] = findMovements(instrument, name, own);
  if (movement === undefined || !/[a-z]{3}/i.test(name) || (after === undefined && noteWords !== '')) return undefined;
  const before = from === null ? null : noteNamed(instrument, from[1]);
  if (before === undefined) return { kind: 'wrong', text: `“${from?.[1].trim() ?? ''}” is not one note of the ${instrument.name}.` };
  if (after === undefined) return proofWithoutArrival(instrument, { movement, before, settings }, elements);
  const compiled = compileMovement(instrument, movement, before, after, settings);
  if (compiled.kind === 'unplayable') return { kind: 'wrong', text: compiled.reason };
  const given = lettersOf(instrument, elements);
  if (given === undefined) return unreadElement;
  const wanted = [...compiled.steps.map(({ written }) => written), after];
  const other = wanted.findIndex((each, index) => each !== given[index]);
  // The head has named the note on which it ends already.
  const isWithoutEnd = other === compiled.steps.length && given.length === compiled.steps.length;
  if (isWithoutEnd || (other === -1 && given.length === wanted.length)) return { kind: 'right', text: `Right: ${compiled.written}.` };
  if (other === -1) return { kind: 'wrong', text: `It ends earlier: ${compiled.written}.` };
  const isArrival = other === wanted.length - 1;
  const step = compiled.steps[other];
  const expected =
    isArrival || step.kind === 'low' || step.kind === 'note' ? noteOf(instrument, wanted[other]).schoolName : graceName(instrument, wanted[other]);
  const came = given[other] === undefined ? 'nothing' : noteOf(instrument, given[other]).schoolName;
  const why = compiled.text.length === 0 ? '' : ` ${compiled.text.join(' ')}`;
  return { kind: 'wrong', text: `${isArrival ? 'It ends on' : `Element ${other + 1} is the`} ${expected}, not ${came}: ${compiled.written}.${why}` };
}

const unreadElement: MovementProof = { kind: 'wrong', text: 'One part cannot be read. Write each part like “G grace note to C”.' };

/** The letters of all elements; undefined where one of them cannot be read. */
function lettersOf(instrument: Instrument, elements: string): readonly NoteId[] | undefined {
  const given = elements.split(/,|;|\bthen\b/i).flatMap((element) => lettersOfElement(instrument, element));
  return given.length > 0 && given.every((each) => each !== undefined) ? given : undefined;
}

interface Unarrived {
  readonly movement: MovementDefinition;
  readonly before: NoteId | null;
  readonly settings: MovementSettings;
}

/** "Taorluath: low G, D grace note, low G, E grace note": no note is named on which it ends, so it is right where it is right for some note. */
function proofWithoutArrival(instrument: Instrument, { movement, before, settings }: Unarrived, elements: string): MovementProof {
  const given = lettersOf(instrument, elements);
  if (given === undefined) return unreadElement;
  const forms = instrument.notes.flatMap(({ id }) => {
    const compiled = compileMovement(instrument, movement, before, id, settings);
    return compiled.kind === 'compiled' && !compiled.isDegenerate ? [{ id, compiled, letters: compiled.steps.map(({ written }) => written) }] : [];
  });
  const isGiven = ({ letters, id }: { letters: readonly NoteId[]; id: NoteId }): boolean =>
    [letters, [...letters, id]].some((each) => each.join(' ') === given.join(' '));
  const right = forms.filter(isGiven);
  const names = right.map(({ id }) => noteOf(instrument, id).schoolName).join(', ');
  if (right.length > 0)
    return { kind: 'right', text: `Right: ${nameOf(right[0].compiled)} on ${right.length === instrument.notes.length ? 'every note' : names}.` };
  if (forms.length === 0) return { kind: 'wrong', text: `The ${movement.names[0]} cannot be played from there.` };
  return {
    kind: 'wrong',
    text: `${capital(movement.names[0])} is written otherwise: ${forms
      .slice(0, 3)
      .map(({ compiled }) => compiled.written)
      .join(', ')}.`,
  };
}

/** "C doubling" as its note and its name: the longest beginning that is a note. */
function splitNote(instrument: Instrument, words: string): readonly [note: string, name: string] {
  const parts = words.split(/\s+/);
  for (let count = Math.min(3, parts.length - 1); count > 0; count -= 1) {
    const note = parts.slice(0, count).join(' ');
    if (noteNamed(instrument, note) !== undefined) return [note, parts.slice(count).join(' ')];
  }
  return ['', words];
}

/** "G grace note to C" is the grace note and the note that it leads to; "low G" is a note; "tap to C" a tap's return. */
function lettersOfElement(instrument: Instrument, element: string): readonly (NoteId | undefined)[] {
  const text = element.trim().replace(/\.$/, '');
  if (text === '') return [];
  const grace = /^(.+?)\s+grace\s*note(?:\s+(?:to|on|into)\s+(.+))?$/i.exec(text);
  if (grace === null) return [noteNamed(instrument, text.replace(/^to\s+/i, ''))];
  const name = grace[1].trim().toLowerCase();
  const own = instrument.graceNotes.find(
    (rule) => rule.name.toLowerCase() === `${name} grace note` || noteOf(instrument, rule.written).schoolName.toLowerCase() === name,
  );
  return [own?.written, ...(grace[2] === undefined ? [] : [noteNamed(instrument, grace[2])])];
}
