import { heardFrom } from '../acoustics';
import { chartedPattern, isSameFingers, noteOf, type FingerId, type Fingering, type Instrument, type NoteId, type Pattern } from '../fingering';
import { handsNamed, readFinger, readHoles, wordsOf, type ReadFingers } from './finger-words';
import { notesMeant, readNote } from './note-words';

/** What a line of a handout came to. */
export type Proof =
  | { readonly kind: 'right'; readonly note: NoteId; readonly fingering: Fingering }
  | { readonly kind: 'right-on-other-model'; readonly note: NoteId; readonly model: string; readonly pattern: Pattern }
  | { readonly kind: 'right-for-another'; readonly wanted: readonly NoteId[]; readonly note: NoteId; readonly pattern: Pattern }
  /** No charted fingering; `near` is the note that it sounds nearest to. */
  | { readonly kind: 'unknown'; readonly wanted: readonly NoteId[]; readonly near: NoteId; readonly pattern: Pattern }
  | { readonly kind: 'ambiguous'; readonly word: string; readonly choices: readonly FingerId[] }
  | { readonly kind: 'unread'; readonly word: string }
  | { readonly kind: 'empty' };

export interface ProofLine {
  /** From 1. */
  readonly line: number;
  readonly text: string;
  readonly proof: Proof;
}

/** More lines than a handout has. */
export const mostLines = 2000;

/**
 * Reads each line of a handout against a chart. A line is a note and the holes that it covers ("E: thumb 1 2 3 4 5"), or a note and
 * what changes from another one ("B: like A with the second finger off", "lift the ring finger" from the line before). Nothing is
 * called right that the chart does not have under that note.
 * @param other the other model of the same instrument, if there is one
 */
export function proofread(instrument: Instrument, text: string, other?: Instrument): readonly ProofLine[] {
  let before: NoteId | undefined;
  return text
    .split(/\r?\n/)
    .slice(0, mostLines)
    .map((line, index) => {
      const proof = proofOf(instrument, line, before, other);
      if (proof.kind === 'right' || proof.kind === 'right-on-other-model') before = proof.note;
      return { line: index + 1, text: line, proof };
    });
}

function proofOf(instrument: Instrument, line: string, before: NoteId | undefined, other: Instrument | undefined): Proof {
  const isSecond = secondOctave.test(line);
  const text = line.replace(secondOctave, '').trim();
  if (text === '') return { kind: 'empty' };
  const step = /^from\s+(.+?)\s+to\s+(.+?)[\s:,]+((?:lift|raise|take|put|add|lower|close|open|cover|uncover|drop)\b.*)$/i.exec(text);
  const [name, rest] = step === null ? fromNamed(split(text)) : [step[2], `like ${step[1]}, ${step[3]}`];
  const read = readNote(name);
  const named = read !== undefined && isSecond ? { ...read, octave: 'second' } : read;
  if (named === undefined) {
    // No note is named: a change from the line before, whose note is then to be found.
    if (before === undefined || !isChange(text)) return { kind: 'unread', word: name };
    const changed = readChange(instrument, chartedPattern(instrument, before), text);
    return changed.kind === 'read' ? judged(instrument, undefined, changed.value, other) : changed;
  }
  const meant = notesMeant(instrument, named).map(({ id }) => id);
  if (meant.length === 0) return { kind: 'unread', word: name };
  const fingers = readFingering(instrument, rest, before);
  return fingers.kind === 'read' ? judged(instrument, meant, fingers.value, other) : fingers;
}

const secondOctave = /,?\s*\b(?:in|of) the (?:second|upper|higher) (?:octave|register)\b/i;

/** "E from D" before a colon: the note, and what changes from the other. */
function fromNamed([name, rest]: readonly [name: string, rest: string]): readonly [name: string, rest: string] {
  const from = /^(.+?)\s+from\s+(.+)$/i.exec(name);
  if (from === null || readNote(from[1]) === undefined || readNote(from[2]) === undefined) return [name, rest];
  return [from[1], `like ${from[2]}, ${rest}`];
}

/** The note before a colon, an equals sign, a dash or "is"; without one, as many words from the front as name a note. */
function split(text: string): readonly [name: string, rest: string] {
  const match = /^([^:=]{1,24}?)\s*(?:->|→|:|=|\s[-–]\s|\sis\s)\s*(.*)$/i.exec(text);
  if (match !== null) return [match[1], match[2]];
  const listed = /^([^,]{1,14}),\s*(.*)$/.exec(text);
  if (listed !== null && readNote(listed[1]) !== undefined) return [listed[1], listed[2]];
  const words = text.split(/\s+/);
  for (const count of [3, 2, 1]) {
    const name = words.slice(0, count).join(' ');
    if (words.length > count && readNote(name) !== undefined) return [name, words.slice(count).join(' ')];
  }
  return [words[0], words.slice(1).join(' ')];
}

const changeWords = /\b(lift|raise|take off|off|add|put down|close|open|lower|cover|uncover|without|drop)\b/i;
const isChange = (text: string): boolean => changeWords.test(text);

/** Holes one by one, or a change from a named note. */
function readFingering(instrument: Instrument, rest: string, before: NoteId | undefined): ReadFingers<Pattern> {
  const other = fromOther(rest.trim());
  const like =
    /^(?:is\s+)?(?:just\s+)?(?:the same as|same as|like|as for|as|from)\s+(.+?)(?:(?:\s*,\s*|\s+)(?:but|with|and|plus|minus|without|then)\s+(.*)|\s*,\s*(.*))?$/i.exec(
      other,
    );
  if (like !== null) {
    const named = readNote(like[1]);
    const meant = named === undefined ? [] : notesMeant(instrument, named);
    if (meant.length === 0) return { kind: 'unread', word: like[1] };
    const pattern = chartedPattern(instrument, meant[0].id);
    const change = like[2] ?? like[3];
    if (change === undefined) return { kind: 'read', value: pattern };
    // "without 2" and "plus 2" say with their own word what happens to the finger.
    if (/\s(?:minus|without)\s/i.test(rest)) return readChange(instrument, pattern, `${change} off`);
    return readChange(instrument, pattern, /\splus\s/i.test(rest) ? `${change} on` : change);
  }
  if (before !== undefined && /^(?:lift|raise|take off|add|put down|lower|uncover|drop)\b/i.test(rest.trim()))
    return readChange(instrument, chartedPattern(instrument, before), rest);
  return readHoles(instrument, rest);
}

/** "D without the bottom finger" is said as "like D without the bottom finger"; all else stays as it is. */
function fromOther(rest: string): string {
  const match = /^(.{1,16}?)\s+(?:without|minus|plus|with|but)\s/i.exec(rest);
  return match !== null && readNote(match[1]) !== undefined ? `like ${rest}` : rest;
}

/** Each clause begins with what its fingers do ("lift L3, R4, lower R1"), or ends with it ("L3 off, R1 on"). */
const clauseStarts = /(?:[;,.]|\band\b|\bthen\b|\s)+(?=\b(?:lift|raise|take off|add|put (?:down|on)|lower|close|cover|uncover|drop)\b(?! hand))/i;
const clauseEnds = /(?<=\b(?:off|on|up|down))\s*(?:[;,.]|\band\b|\bthen\b)+/i;

/** Fingers that go off and on, from a pattern. */
function readChange(instrument: Instrument, from: Pattern, text: string): ReadFingers<Pattern> {
  const whole = readClause(instrument, from, text);
  if (whole.kind !== 'unread') return whole;
  for (const seam of [clauseStarts, clauseEnds]) {
    const clauses = text.split(seam).filter((clause) => clause.trim() !== '');
    if (clauses.length < 2) continue;
    const all = clauses.reduce<ReadFingers<Pattern>>((read, clause) => (read.kind === 'read' ? readClause(instrument, read.value, clause) : read), {
      kind: 'read',
      value: from,
    });
    if (all.kind !== 'unread') return all;
  }
  return whole;
}

/** Fingers that all go off, or all go on. */
function readClause(instrument: Instrument, from: Pattern, text: string): ReadFingers<Pattern> {
  const words = wordsOf(
    handsNamed(instrument, text)
      .replace(/take off/g, 'lift')
      .replace(/put (down|on)/g, 'add'),
  );
  const isOff = words.some((word) => ['off', 'lift', 'lifted', 'raise', 'raised', 'open', 'uncover', 'up', 'without', 'minus'].includes(word));
  const isOn = words.some((word) => ['add', 'added', 'on', 'down', 'close', 'closed', 'lower', 'cover', 'plus', 'drop'].includes(word));
  if (isOff === isOn) return { kind: 'unread', word: text.trim() };
  const skipped =
    /^(off|lift|lifted|raise|raised|open|uncover|up|without|minus|add|added|on|down|close|closed|lower|cover|plus|drop|too|also|and|the|your|finger|fingers|hole|holes|with|from|hand)$/;
  const coveredNow = (id: FingerId): boolean => instrument.holes.some((hole, index) => hole.finger === id && from[index] > 0);
  const possible = instrument.fingers.map(({ id }) => id).filter((id) => coveredNow(id) === isOff);
  let pattern = from;
  let count = 0;
  for (let at = 0; at < words.length; at += 1) {
    if (skipped.test(words[at])) continue;
    const finger = readFinger(instrument, words, at, possible);
    if (finger.kind !== 'read') return finger;
    at += finger.value.words - 1;
    count += 1;
    pattern = pattern.map((coverage, hole) => (instrument.holes[hole].finger === finger.value.finger ? Number(!isOff) : coverage));
  }
  return count === 0 ? { kind: 'unread', word: text.trim() } : { kind: 'read', value: pattern };
}

/** Compares what was read with the chart; `wanted` is absent where the line names no note. */
function judged(instrument: Instrument, wanted: readonly NoteId[] | undefined, pattern: Pattern, other: Instrument | undefined): Proof {
  const charted = instrument.fingerings.filter((fingering) => isSameFingers(fingering.pattern, pattern));
  const right = charted.find((fingering) => wanted === undefined || wanted.includes(fingering.note));
  if (right !== undefined) return { kind: 'right', note: right.note, fingering: right };
  const elsewhere = other?.fingerings.find((fingering) => isSameFingers(fingering.pattern, pattern) && wanted?.includes(fingering.note) === true);
  if (elsewhere !== undefined) return { kind: 'right-on-other-model', note: elsewhere.note, model: other?.model ?? '', pattern };
  const notes = wanted ?? [];
  // What a model only proposes is nobody's slip.
  const taught = charted.find(({ source }) => source !== 'model');
  if (taught !== undefined) return { kind: 'right-for-another', wanted: notes, note: taught.note, pattern };
  return { kind: 'unknown', wanted: notes, near: heardFrom(instrument, pattern).note, pattern };
}

/** A proof as a sentence. */
export function proofText(instrument: Instrument, proof: Proof): string {
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const label = (id: FingerId): string => instrument.fingers.find((finger) => finger.id === id)?.label ?? id;
  switch (proof.kind) {
    case 'right':
      return proof.fingering.rank === 1
        ? `Right: ${name(proof.note)}.`
        : `Right: ${name(proof.note)}, an alternate${proof.fingering.remark === undefined ? '' : ` (${proof.fingering.remark})`}.`;
    case 'right-on-other-model':
      return `Right for the ${proof.model} model, but not for this one.`;
    case 'right-for-another':
      return `These fingers are ${name(proof.note)}${proof.wanted.length === 0 ? '' : `, not ${proof.wanted.map(name).join(' or ')}`}.`;
    case 'unknown':
      return `No chart has this fingering${proof.wanted.length === 0 ? '' : ` for ${proof.wanted.map(name).join(' or ')}`}; it sounds close to ${name(proof.near)}.`;
    case 'ambiguous':
      return `Which finger is “${proof.word}”: ${proof.choices.map(label).join(' or ')}?`;
    case 'unread':
      return `“${proof.word}” cannot be read.`;
    default:
      return '';
  }
}
