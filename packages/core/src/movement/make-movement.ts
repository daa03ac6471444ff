import { ZelpitFault } from '../fault';
import { chartedPattern, noteOf, patternKey, scaleDegree, withFingers, type Instrument, type NoteId, type Pattern } from '../fingering';
import { compileMovement } from './compile';
import { notesNamed, type MovementDefinition, type MovementPart, type MovementSettings } from './definition';
import { graceNoteRule } from './grace-steps';
import { allowsGraceNote, openerOf, tapOf } from './laws';
import { openers } from './movements.data';

/** A written form as notes: what stands in braces, and the theme note. */
export interface WrittenForm {
  readonly graces: readonly NoteId[];
  readonly after: NoteId;
}

/**
 * Reads "{gcd}c" by the letters of an instrument.
 * @throws ZelpitFault `unreadable-movement` with what is wrong, in a sentence
 */
export function readWrittenForm(instrument: Instrument, text: string): WrittenForm {
  const found = /^\{([^{}]+)\}\s*(\S+)$/.exec(text.trim());
  if (found === null) throw unreadable('Write the grace notes in braces, then the theme note, for example {gcd}c.', text);
  const noteOfLetter = (letter: string): NoteId => {
    const note = instrument.notes.find(({ abc }) => abc === letter);
    if (note === undefined)
      throw unreadable(`“${letter}” is not a note of the ${instrument.name}. Its letters are ${instrument.notes.map(({ abc }) => abc).join(' ')}.`, text);
    return note.id;
  };
  return {
    graces: found[1]
      .split('')
      .filter((letter) => letter.trim() !== '')
      .map(noteOfLetter),
    after: noteOfLetter(found[2]),
  };
}

const unreadable = (message: string, text: string): ZelpitFault => new ZelpitFault('unreadable-movement', message, { text });

/**
 * The letters of finger patterns as somebody played them before a theme note. A pattern is a note of the chart, a grace note opened on the theme note, on the lowest
 * note or on what was played before, or a tap of the theme note.
 * @throws ZelpitFault `unreadable-movement` naming the step that is none of these
 */
export function lettersOfPatterns(instrument: Instrument, patterns: readonly Pattern[], theme: NoteId): readonly NoteId[] {
  let base = theme;
  return patterns.map((pattern, index) => {
    const key = patternKey(pattern);
    const charted = instrument.fingerings.find((each) => each.rank === 1 && patternKey(each.pattern) === key);
    if (charted !== undefined) {
      base = charted.note;
      return charted.note;
    }
    for (const over of [theme, base, instrument.notes[0].id]) {
      const holes = chartedPattern(instrument, over);
      const rule = instrument.graceNotes.find(
        (each) => allowsGraceNote(instrument, holes, each) && patternKey(withFingers(instrument, holes, each.opens, 0)) === key,
      );
      if (rule !== undefined) return rule.written;
    }
    const tap = (['heavy', 'light'] as const)
      .map((weight) => tapOf(instrument, theme, weight))
      .find((each) => each !== undefined && patternKey(each.pattern) === key);
    if (tap !== undefined) return tap.written;
    throw new ZelpitFault('unreadable-movement', `Step ${index + 1} is not a note, grace note or tap of the ${instrument.name}.`, { step: index });
  });
}

/** What a movement is named, and where it may arrive. */
export interface MovementNaming {
  readonly id: string;
  readonly name: string;
  /** Only the theme note of the example, or every note on which its parts are possible. */
  readonly arrives: 'everywhere' | 'here';
}

/**
 * A movement out of one example: what opens it, what is the theme note, a tap, the lowest note and a grace note on either is told apart, so that the laws can
 * give every other start and arrival. Where the laws would write the example itself otherwise, it is kept as the teacher's own cell.
 * @param before the note before it in the example; null for the start of a phrase
 * @throws ZelpitFault `unreadable-movement`, `unknown-note`
 */
export function movementFromWritten(
  instrument: Instrument,
  { graces, after }: WrittenForm,
  before: NoteId | null,
  { id, name, arrives }: MovementNaming,
  settings: MovementSettings,
): MovementDefinition {
  if (graces.length === 0) throw unreadable('A movement has at least one grace note.', '');
  const definition: MovementDefinition = {
    ...{ id, names: [name], parts: partsOf(instrument, graces, before, after), after: [], simpler: ['grace-note'] },
    ...(arrives === 'here' && { arrivals: [after] }),
    skipsSounding: before === after && graces[0] !== after,
  };
  const byLaw = compileMovement(instrument, definition, before, after, settings);
  const isSo = byLaw.kind === 'compiled' && byLaw.steps.map(({ written }) => written).join(' ') === graces.join(' ');
  return isSo ? definition : { ...definition, cells: [{ before, after, graces }] };
}

/** Inside a grip D gives way to B where the note before is D; other grace notes on the lowest note keep their letter. */
const innerLetters: Readonly<Record<NoteId, readonly NoteId[]>> = { d: ['d', 'b'] };

function partsOf(instrument: Instrument, graces: readonly NoteId[], before: NoteId | null, after: NoteId): readonly MovementPart[] {
  const lowest = instrument.notes[0].id;
  const opener = openerOf(instrument, openers, before, after)?.written;
  /** What sounds under the next grace note: the theme note until another note was sounded. */
  let base = after;
  return graces.map((written, index): MovementPart => {
    if (index === 0 && (written === opener || (openers.includes(written) && graces.length > 1))) return { part: 'opener' };
    const next = graces[index + 1];
    const isTap = index > 0 && base === after && tapOf(instrument, after)?.written === written && (next === undefined || next === after);
    const isLightTap = index > 0 && base === after && tapOf(instrument, after, 'light')?.written === written && (next === undefined || next === after);
    if (isTap) return { part: 'tap' };
    if (isLightTap && scaleDegree(instrument, written) < scaleDegree(instrument, after)) return { part: 'tap', weight: 'light' };
    if (written === after) {
      base = after;
      return { part: 'theme' };
    }
    if (written === lowest) {
      base = lowest;
      return { part: 'low' };
    }
    // On the lowest note: what stands between two of it, or leads from it to the theme note.
    if (base === lowest && graceNoteRule(instrument, written, lowest) !== undefined) {
      if (next !== undefined || after === lowest) return { part: 'inner', from: innerLetters[written] ?? [written] };
      return graceNoteRule(instrument, written, after) === undefined ? { part: 'charted', note: written } : { part: 'grace', written };
    }
    if (graceNoteRule(instrument, written, base) !== undefined) return base === after ? secondOrGrace(written, index) : { part: 'grace', written, over: base };
    base = written;
    return { part: 'charted', note: written };
  });
}

/** A grace note after the theme note goes up with it, as in doublings: D, else E, F, G; a first one keeps its letter. */
function secondOrGrace(written: NoteId, index: number): MovementPart {
  if (index === 0) return { part: 'grace', written };
  return { part: 'second', from: [written, ...['d', 'e', 'f', 'high-g'].filter((each) => each !== written)] };
}

/** Notes that a definition names and an instrument does not have. */
export function unknownNotes(instrument: Instrument, definition: MovementDefinition): readonly NoteId[] {
  const known = new Set(instrument.notes.map(({ id }) => id));
  return notesNamed(definition).filter((id) => !known.has(id));
}

/** An element in words: "a grace note D, or E, F, high G where that is not possible". */
export function partText(instrument: Instrument, part: MovementPart): string {
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const orElse = ([first, ...others]: readonly NoteId[], where: string): string =>
    others.length === 0 ? `the ${name(first)} grace note` : `the ${name(first)} grace note, or ${others.map(name).join(', ')} ${where}`;
  switch (part.part) {
    case 'opener':
      return `the opening grace note: ${openers.map(name).join(', or ')} if the first finger is up; none if both are up`;
    case 'theme':
      return 'the theme note for a moment';
    case 'second':
      return `on the theme note ${orElse(part.from, 'where that is not possible')}`;
    case 'tap':
      return part.weight === 'light'
        ? 'a light tap: one finger of the lower hand'
        : 'a tap: the open holes of the lower hand close, or the upper hand’s first open one';
    case 'low':
      return `${name(instrument.notes[0].id)}, every hole closed`;
    case 'inner':
      return `on ${name(instrument.notes[0].id)} ${orElse(part.from, 'where the note before has that letter')}`;
    case 'charted':
      return `${name(part.note)} as a note`;
    case 'grace':
      return `the ${name(part.written)} grace note${part.over === undefined ? ' on the theme note' : ` on ${name(part.over)}`}`;
  }
}
