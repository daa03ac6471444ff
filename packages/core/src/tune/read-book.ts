import { ZelpitFault } from '../fault';
import { instruments, type Instrument } from '../fingering';
import { plainText, readAbc, type AbcFault } from '../score';
import { lineInFile, ownText, splitBook, titleOf, type BookEntry } from './abc-book';
import { readTune } from './read-tune';
import type { ReadingChoice, Tune } from './tune';

export interface ReadEntry {
  readonly title: string;
  readonly firstLine: number;
  readonly abc: string;
  readonly tune: Tune;
  /** Id of the instrument that it was read for. */
  readonly instrument: string;
}

export interface RefusedEntry {
  readonly title: string;
  readonly firstLine: number;
  readonly abc: string;
  readonly faults: readonly AbcFault[];
}

export type BookReading = { readonly kind: 'read'; readonly entry: ReadEntry } | { readonly kind: 'refused'; readonly entry: RefusedEntry };

/**
 * Reads a file of tunes one at a time, so that a caller can pause between them. A tune whose notes are uncertain is refused, with every place; the others are read.
 * @param choose which instrument a tune is read for; a tune under another instrument's own key is that one's by default
 * @param from the first tune to read, from 0; those before it are passed over
 * @param choice what is read of each tune
 * @throws ZelpitFault `not-abc-text` for an empty text or for bytes that are no text
 */
export function* readBook(instrument: Instrument, text: string, choose = instrumentForKey, from = 0, choice: ReadingChoice = {}): Generator<BookReading> {
  assertText(text, keyExample(instrument));
  const entries = splitBook(text);
  if (!entries.some((entry) => /^[XTKML]:/m.test(entry.abc))) {
    throw new ZelpitFault(
      'not-abc-text',
      `This is not ABC: no line starts with X:, T: or K:. A tune begins with X:1, then T: and its title, then ${keyExample(instrument)} before the notes.`,
    );
  }
  for (const entry of entries.slice(from)) yield readEntry(choose(instrument, entry.abc), entry, choice);
}

/**
 * The instrument that a text is read for: the wanted one, but where the key is another instrument's own (K:HP), that one, whose letters
 * would mean other notes here.
 */
export function instrumentForKey(wanted: Instrument, abc: string): Instrument {
  const key = /^K:\s*([A-Za-z]+)/m.exec(abc)?.[1] ?? '';
  if (wanted.ownKeys.includes(key)) return wanted;
  return instruments.find(({ ownKeys }) => ownKeys.includes(key)) ?? wanted;
}

/** Longest text of one tune, in characters: at import as when it is saved. */
export const longestTune = 200_000;

/** Longest line of a tune, in characters, and how deep its slurs, tuplets, chords and grace notes may lie in each other. */
const longestLine = 10_000;
const deepestNesting = 30;

/** What is over a limit, before anything is read; undefined where nothing is. */
function overLimit(entry: BookEntry, lines: readonly string[]): AbcFault | undefined {
  if (entry.abc.length > longestTune) {
    const problem = `This tune has ${entry.abc.length} characters; a tune can have at most ${longestTune}.`;
    return { line: entry.firstLine, column: 1, problem, expected: 'a shorter text' };
  }
  for (const [index, line] of lines.entries()) {
    const place = { line: lineInFile(entry, index + 1) };
    if (line.length > longestLine)
      return {
        ...place,
        column: longestLine,
        problem: `This line has ${line.length} characters; a line can have at most ${longestLine}.`,
        expected: 'shorter lines',
      };
    const column = tooDeepAt(line);
    if (column !== undefined) return { ...place, column, problem: `More than ${deepestNesting} brackets are open here.`, expected: 'each bracket closed' };
  }
  return undefined;
}

/** Where in a line of music more brackets are open than may be. What is in quotation marks is text, and "[1" or "[|" opens nothing. */
function tooDeepAt(line: string): number | undefined {
  if (/^[A-Za-z]:|^%/.test(line)) return undefined;
  let depth = 0;
  for (const { 0: sign, index } of line.matchAll(/"[^"]*"|[([{)\]}]/g)) {
    if (sign.length > 1 || (sign === '[' && /[\d|]/.test(line[index + 1] ?? ''))) continue;
    depth = '([{'.includes(sign) ? depth + 1 : Math.max(0, depth - 1);
    if (depth > deepestNesting) return index + 1;
  }
  return undefined;
}

/** How the key of a tune for an instrument is written, by its own key where it has one. */
const keyExample = ({ ownKeys }: Instrument): string => (ownKeys.length === 0 ? 'its key, for example K:D,' : `its key, K:${ownKeys[0]} here,`);

function assertText(text: string, key: string): void {
  if (text.trim() === '')
    throw new ZelpitFault('not-abc-text', `The text is empty. A tune begins with X:1, then T: and its title, then ${key} before the notes.`);
  let strange = 0;
  const sample = text.slice(0, 20_000);
  for (let index = 0; index < sample.length; index += 1) {
    const code = sample.charCodeAt(index);
    if (code === 0xfffd || (code < 32 && code !== 9 && code !== 10 && code !== 13)) strange += 1;
  }
  if (strange > sample.length / 100) throw new ZelpitFault('not-abc-text', 'This is not a text file, so there is no ABC in it.', { strange });
}

function readEntry(instrument: Instrument, entry: BookEntry, choice: ReadingChoice): BookReading {
  const title = plainText(titleOf(entry));
  const refuse = (faults: readonly AbcFault[]): BookReading => ({ kind: 'refused', entry: { title, firstLine: entry.firstLine, abc: ownText(entry), faults } });
  const lines = entry.abc.split('\n');
  const keyLine = lines.findIndex((line) => /^K:/.test(line));
  if (keyLine === -1) {
    const music = lines.findIndex((line) => !/^[A-Za-z]:|^%|^\s*$/.test(line));
    const line = lineInFile(entry, (music === -1 ? lines.length - 1 : music) + 1);
    return refuse([
      { line, column: 1, problem: 'The music starts before a key is given.', expected: `a line with ${keyExample(instrument)} before the first note` },
    ]);
  }
  const over = overLimit(entry, lines);
  if (over !== undefined) return refuse([over]);
  const { score, faults } = readAbc(entry.abc);
  if (faults.length > 0) return refuse(faults.map((fault) => ({ ...fault, line: lineInFile(entry, fault.line) })));
  const tune = readTune(instrument, score, choice);
  if (tune.notes.length === 0) {
    const line = lineInFile(entry, keyLine + 1);
    return refuse([{ line, column: 1, problem: 'No note follows the key.', expected: 'at least one line of music after K:' }]);
  }
  return { kind: 'read', entry: { title, firstLine: entry.firstLine, abc: entry.abc, tune, instrument: instrument.id } };
}

/**
 * A tune that is kept already. Its text is the truth: what a later reader cannot make sure of is named in the findings and refuses nothing.
 */
export function readKept(instrument: Instrument, abc: string, choice: ReadingChoice = {}): ReadEntry {
  const [entry] = splitBook(abc);
  const { score, faults } = readAbc(abc);
  const tune = readTune(instrument, score, choice);
  const unsure = faults.map(({ line, problem }) => ({ kind: 'order' as const, text: `line ${line}: ${problem}`, bar: 0, beat: 1 }));
  const title = entry === undefined ? 'untitled tune' : plainText(titleOf(entry));
  return { title, firstLine: 1, abc, tune: { ...tune, findings: [...unsure, ...tune.findings] }, instrument: instrument.id };
}
