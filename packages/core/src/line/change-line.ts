import type { TuneChange } from '../tune';
import { adviceFor, changeBetween, outcomesOf, troubleOf, troubleWeight, type Advice, type Change, type Trouble } from '../change';
import { noteOf, type Instrument, type NoteId } from '../fingering';

/** One exercise line: a change there and back, eight times. */
export interface ChangeLine {
  readonly home: NoteId;
  readonly other: NoteId;
}

/** A line is four bars of four quarter notes, home-other-home-other. */
export const lineBars = 4;
export const lineBeats = 16;
/** How often the change there is played in one line. */
export const changesInLine = 8;
export const lineCountInBeats = 4;

/** The notes of a line in their order, home first. */
export function lineNotes(line: ChangeLine): readonly NoteId[] {
  return Array.from({ length: lineBeats }, (_, index) => (index % 2 === 0 ? line.home : line.other));
}

/** A note's letter in ABC; a natural says so where the note beside it has the same letter with a sign. */
function letterOf(instrument: Instrument, note: NoteId, beside: NoteId): string {
  const [{ abc }, other] = [noteOf(instrument, note), noteOf(instrument, beside)];
  const isSameLine = other.abc.replace(/^[_^]/, '') === abc && other.abc !== abc;
  return isSameLine ? `=${abc}` : abc;
}

/** The key under which an instrument's letters are written; without letters of its own, every sign is written out. */
const keyOf = ({ ownKeys }: Instrument): string => ownKeys[0] ?? 'C';

/**
 * The music of a line in ABC, without header.
 * @throws ZelpitFault `unknown-note`
 * @example lineMusic(practiceChanter, { home: 'c', other: 'e' }) // 'c e c e | c e c e | c e c e | c e c e |]'
 */
export function lineMusic(instrument: Instrument, line: ChangeLine): string {
  const [home, other] = [
    [line.home, line.other],
    [line.other, line.home],
  ].map(([note, beside]) => letterOf(instrument, note, beside));
  const bar = `${home} ${other} ${home} ${other}`;
  return `${Array.from({ length: lineBars }, () => bar).join(' | ')} |]`;
}

/**
 * A line's name, as it is said.
 * @throws ZelpitFault `unknown-note`
 * @example lineTitle(practiceChanter, { home: 'low-a', other: 'c' }) // 'low A to C'
 */
export function lineTitle(instrument: Instrument, line: ChangeLine): string {
  return `${noteOf(instrument, line.home).schoolName} to ${noteOf(instrument, line.other).schoolName}`;
}

/** What is said and drawn beside a line: its change there, and what goes wrong in it. */
export interface DescribedLine extends ChangeLine {
  readonly title: string;
  readonly change: Change;
  readonly trouble: Trouble;
  readonly advice: Advice;
}

/** @throws ZelpitFault `unknown-note` */
export function describedLine(instrument: Instrument, { home, other }: ChangeLine): DescribedLine {
  const change = changeBetween(instrument, home, other);
  const trouble = troubleOf(instrument, change);
  return { home, other, title: lineTitle(instrument, { home, other }), change, trouble, advice: adviceFor(instrument, change, trouble) };
}

/** One line as ABC that an engraver can draw by itself, without title. */
export function lineAbc(instrument: Instrument, line: ChangeLine): string {
  return `X:1\nM:4/4\nL:1/4\nK:${keyOf(instrument)}\n${lineMusic(instrument, line)}\n`;
}

export interface AbcLine extends ChangeLine {
  readonly tempo: number | null;
  readonly point: string;
}

/** Lines as a book of ABC, one tune a line; `tempo` null means free. Text is kept on one line so that no field is broken. */
export function linesAsAbc(instrument: Instrument, title: string, lines: readonly AbcLine[]): string {
  const plain = (text: string): string => text.replace(/[\r\n%]+/g, ' ').trim();
  const key = keyOf(instrument);
  return lines
    .map((line, index) => {
      const tempo = line.tempo === null ? [] : [`Q:1/4=${line.tempo}`];
      const point = plain(line.point) === '' ? [] : [`N:${plain(line.point)}`];
      const head = [`X:${index + 1}`, `T:${lineTitle(instrument, line)}`, `T:${plain(title)}`, 'R:exercise', 'M:4/4', 'L:1/4', ...tempo, ...point, `K:${key}`];
      return `${[...head, lineMusic(instrument, line)].join('\n')}\n`;
    })
    .join('\n');
}

/** A pace to begin with: crosses that pop want no click at first; the fewer fingers move, the quicker. */
export function startingTempo(instrument: Instrument, line: ChangeLine): number | null {
  const change = changeBetween(instrument, line.home, line.other);
  const { kind } = troubleOf(instrument, change);
  if (kind === 'pop') return null;
  return change.movers.length > 2 || kind === 'run' ? 48 : 60;
}

/** What one change adds to the trouble of a tune: its weight times its occurrences. */
export function troubleOfTuneChange(instrument: Instrument, change: TuneChange): number {
  return troubleWeight(instrument, change.trouble) * change.occurrences;
}

/** The trouble of both directions of a line, for choosing the home note: the worse direction comes first. */
export function homeFirst(instrument: Instrument, one: NoteId, other: NoteId): ChangeLine {
  const weight = (from: NoteId, to: NoteId): number => {
    const change = changeBetween(instrument, from, to);
    return troubleWeight(instrument, troubleOf(instrument, change, outcomesOf(instrument, change)));
  };
  return weight(other, one) > weight(one, other) ? { home: other, other: one } : { home: one, other };
}
