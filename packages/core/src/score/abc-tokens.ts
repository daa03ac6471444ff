import type { Accidental } from './score';

/** A letter with its accidental, octave and length, as it is written. */
export interface LetterToken {
  readonly accidental: Accidental | undefined;
  /** Steps of the scale above middle C. */
  readonly step: number;
  /** In units of `L:`. */
  readonly length: number;
  readonly isTied: boolean;
}

/** A piece of a line of music. `start` and `end` are characters of the line. */
export type AbcToken = { readonly start: number; readonly end: number } & (
  | { readonly kind: 'note'; readonly letter: LetterToken }
  | { readonly kind: 'chord'; readonly letters: readonly LetterToken[]; readonly length: number }
  | { readonly kind: 'rest'; readonly isHidden: boolean; readonly length: number; readonly isInBars: boolean }
  | { readonly kind: 'grace'; readonly letters: readonly LetterToken[]; readonly isSlashed: boolean }
  | { readonly kind: 'bar'; readonly sign: string; readonly times: number }
  | { readonly kind: 'ending'; readonly passes: readonly number[] }
  | { readonly kind: 'field'; readonly letter: string; readonly text: string }
  | { readonly kind: 'tuplet'; readonly actual: number; readonly normal: number; readonly notes: number }
  | { readonly kind: 'broken'; readonly dots: number; readonly isLongFirst: boolean }
  | { readonly kind: 'decoration'; readonly name: string }
  | { readonly kind: 'symbol'; readonly letter: string }
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'tie' | 'slur-start' | 'slur-end' | 'overlay' | 'continues' }
  | { readonly kind: 'passed-over'; readonly text: string }
  | { readonly kind: 'fault'; readonly problem: string; readonly expected: string }
);

const note = /(\^\^?|__?|=)?(\/\d?)?([A-Ga-g])([,']*)(\d*)(\/*)(\d*)/y;
const rest = /([zxZX])(\d*)(\/*)(\d*)/y;
const lengthAfter = /(\d*)(\/*)(\d*)/y;
const blank = /[ \t]+/y;
const spacer = /y[\d/]*/y;
const bar = /(?:\[(?=\|)|\.(?=\|))?[|:]+\]?:*/y;
const barStart = /\[?\||:[|:]|\.\|/y;
const timesAfter = /\s?x\s?(\d)(?!\d)/y;
const endingAfterBar = /\[?\s?(\d[\d,-]*)\.?/y;
const ending = /\[\s*(?:(\d[\d,.\s-]*)|"([^"\n]*)")/y;
/** A field in brackets is short: a longer one is looked for in vain at every bracket of a long row. */
const inlineField = /\[([A-Za-z]):([^\]\n]{0,1000})\]/y;
const tuplet = /\((\d+)(?::(\d*))?(?::(\d*))?/y;
const decoration = /!([^!|\n]{1,60})!|\+([A-Za-z][^+|\n]{0,40})\+/y;
const broken = />{1,4}|<{1,4}/y;

const accidentals: Readonly<Record<string, Accidental>> = { '^': 'sharp', '^^': 'double-sharp', _: 'flat', __: 'double-flat', '=': 'natural' };
const stepOf: Readonly<Record<string, number>> = { C: 0, D: 1, E: 2, F: 3, G: 4, A: 5, B: 6 };
const noLength = { problem: 'No note has this length.', expected: 'a length such as 2, 3, /2 or 3/2' };
/** The longest note in units of `L:`, and the longest rest in bars. */
const [longestNote, mostBars] = [1000, 500];

/** The pieces of a line of music. What cannot be read is a `fault`, and the line is read on after it. */
export function* abcTokens(line: string): Generator<AbcToken> {
  let at = 0;
  while (at < line.length) {
    const token = tokenAt(line, at);
    if (token === undefined) {
      at = skipBlank(line, at);
      continue;
    }
    yield token;
    at = token.end;
    if (token.kind === 'bar') {
      const passes = match(endingAfterBar, line, at);
      if (passes !== null) yield { kind: 'ending', passes: passesIn(passes[1]), start: at, end: (at += passes[0].length) };
    }
  }
}

function skipBlank(line: string, at: number): number {
  const found = match(blank, line, at) ?? match(spacer, line, at);
  return at + (found?.[0].length ?? 1);
}

function tokenAt(line: string, at: number): AbcToken | undefined {
  const character = line[at];
  if ((character >= 'A' && character <= 'G') || (character >= 'a' && character <= 'g') || character === '^' || character === '_' || character === '=')
    return noteAt(line, at);
  if (character === '|' || character === ':' || (character === '[' && line[at + 1] === '|') || (character === '.' && line[at + 1] === '|'))
    return barAt(line, at);
  const end = at + 1;
  switch (character) {
    case ' ':
    case '\t':
    case 'y':
      return undefined;
    case 'z':
    case 'x':
    case 'Z':
    case 'X':
      return restAt(line, at);
    case '{':
      return graceAt(line, at);
    case '[':
      return bracketAt(line, at);
    case '"':
      return quotedAt(line, at);
    case '(':
      return tupletAt(line, at) ?? { kind: 'slur-start', start: at, end };
    case ')':
      return { kind: 'slur-end', start: at, end };
    case '-':
      return { kind: 'tie', start: at, end };
    case '&':
      return { kind: 'overlay', start: at, end };
    case '\\':
      return { kind: 'continues', start: at, end };
    case '>':
    case '<': {
      const [sign] = match(broken, line, at) as RegExpExecArray;
      return { kind: 'broken', dots: sign.length, isLongFirst: character === '>', start: at, end: at + sign.length };
    }
    case '!':
    case '+':
      return decorationAt(line, at);
    case '.':
      // A dotted slur or tie is read as what it dots.
      return line[end] === '(' || line[end] === '-'
        ? { kind: 'passed-over', text: '', start: at, end }
        : { kind: 'decoration', name: 'staccato', start: at, end };
    case '~':
      return { kind: 'symbol', letter: '~', start: at, end };
    case '*':
    case '$':
    case '`':
      return { kind: 'passed-over', text: '', start: at, end };
    default:
      return otherAt(line, at);
  }
}

function otherAt(line: string, at: number): AbcToken {
  const character = String.fromCodePoint(line.codePointAt(at) ?? 0);
  const end = at + character.length;
  if (/[H-Wuv]/.test(character)) return { kind: 'symbol', letter: character, start: at, end };
  if (/[#;?@\u00a0\ufeff]/.test(character)) return { kind: 'passed-over', text: character, start: at, end };
  const expected = 'a note letter, a length, a bar line or grace notes in braces';
  if (character === ']' || character === '}') return { kind: 'passed-over', text: character, start: at, end };
  return { kind: 'fault', problem: `“${character}” means nothing in ABC here.`, expected, start: at, end };
}

function noteAt(line: string, at: number): AbcToken {
  const found = match(note, line, at);
  if (found === null) {
    return { kind: 'fault', problem: `“${line[at]}” stands before no note.`, expected: 'a note letter after a sharp, flat or natural', start: at, end: at + 1 };
  }
  const end = at + found[0].length;
  if (found[2] !== undefined) return { kind: 'fault', problem: 'Quarter tones cannot be read.', expected: 'a sharp, flat or natural', start: at, end };
  const letter = letterOf(found, false);
  if (!isLength(letter.length)) return { kind: 'fault', ...noLength, start: at, end };
  return { kind: 'note', letter, start: at, end };
}

function letterOf(found: RegExpExecArray, isTied: boolean): LetterToken {
  const [, sign, , letter, octaves, whole, slashes, part] = found;
  let step = stepOf[letter.toUpperCase()] + (letter >= 'a' ? 7 : 0);
  for (const octave of octaves) step += octave === "'" ? 7 : -7;
  return { accidental: sign === undefined ? undefined : accidentals[sign], step, length: lengthOf(whole, slashes, part), isTied };
}

function lengthOf(whole: string, slashes: string, part: string): number {
  const top = whole === '' ? 1 : Number(whole);
  if (slashes === '') return top;
  return part === '' ? top / 2 ** slashes.length : top / Number(part) / 2 ** (slashes.length - 1);
}

const isLength = (length: number): boolean => length > 0 && length <= longestNote;

function restAt(line: string, at: number): AbcToken {
  const [all, sign, whole, slashes, part] = match(rest, line, at) as RegExpExecArray;
  const length = lengthOf(whole, slashes, part);
  const end = at + all.length;
  const isInBars = sign === 'Z' || sign === 'X';
  if (!isLength(length) || (isInBars && (length > mostBars || !Number.isInteger(length)))) return { kind: 'fault', ...noLength, start: at, end };
  return { kind: 'rest', isHidden: sign === 'x' || sign === 'X', length, isInBars, start: at, end };
}

function graceAt(line: string, at: number): AbcToken {
  const close = line.indexOf('}', at);
  if (close === -1) {
    const problem = 'A group of grace notes starts here and is never closed.';
    return { kind: 'fault', problem, expected: '"}" after the last grace note', start: at, end: line.length };
  }
  const isSlashed = line[at + 1] === '/';
  const letters: LetterToken[] = [];
  let place = at + (isSlashed ? 2 : 1);
  while (place < close) {
    const found = match(note, line, place);
    if (found !== null && found[2] === undefined) {
      letters.push(letterOf(found, false));
      place += found[0].length;
    } else if (/[\s[\]()<>.~/&\-`]/.test(line[place])) place += 1;
    else {
      const problem = `“${line[place]}” means nothing between grace notes.`;
      return { kind: 'fault', problem, expected: 'note letters only, as in {gcd}', start: place, end: close + 1 };
    }
  }
  return { kind: 'grace', letters, isSlashed, start: at, end: close + 1 };
}

function bracketAt(line: string, at: number): AbcToken {
  const field = match(inlineField, line, at);
  if (field !== null) return { kind: 'field', letter: field[1], text: field[2], start: at, end: at + field[0].length };
  const passes = match(ending, line, at);
  if (passes !== null) return { kind: 'ending', passes: passesIn(passes[1] ?? passes[2]), start: at, end: at + passes[0].length };
  return chordAt(line, at);
}

function chordAt(line: string, at: number): AbcToken {
  const letters: LetterToken[] = [];
  let place = at + 1;
  while (place < line.length && line[place] !== ']') {
    const found = match(note, line, place);
    if (found !== null && found[2] === undefined) {
      place += found[0].length;
      const isTied = line[place] === '-';
      letters.push(letterOf(found, isTied));
      if (isTied) place += 1;
      continue;
    }
    const skipped = match(decoration, line, place) ?? match(quotedText, line, place);
    if (skipped !== null) place += skipped[0].length;
    else if (/[\s().~`uvH-W]/.test(line[place])) place += 1;
    else break;
  }
  if (line[place] !== ']') {
    return {
      kind: 'fault',
      problem: 'A chord starts here and is never closed.',
      expected: '"]" after the last note of the chord',
      start: at,
      end: Math.max(place, at + 1),
    };
  }
  const length = match(lengthAfter, line, place + 1) as RegExpExecArray;
  const end = place + 1 + length[0].length;
  const outer = lengthOf(length[1], length[2], length[3]);
  const all = (letters[0]?.length ?? 1) * outer;
  if (!isLength(all)) return { kind: 'fault', ...noLength, start: at, end };
  if (letters.length === 0) return { kind: 'passed-over', text: line.slice(at, end), start: at, end };
  return { kind: 'chord', letters, length: all, start: at, end };
}

const quotedText = /"[^"\n]*"/y;

function quotedAt(line: string, at: number): AbcToken {
  const found = match(quotedText, line, at);
  if (found === null) {
    const problem = 'A text above the staff starts here and is never closed.';
    return { kind: 'fault', problem, expected: 'a second quotation mark', start: at, end: line.length };
  }
  return { kind: 'text', text: found[0].slice(1, -1), start: at, end: at + found[0].length };
}

function tupletAt(line: string, at: number): AbcToken | undefined {
  const found = match(tuplet, line, at);
  if (found === null) return undefined;
  const [all, actual, normal = '', notes = ''] = found;
  const end = at + all.length;
  const [p, q, r] = [actual, normal, notes].map((each) => (each === '' ? 0 : Number(each)));
  if (p < 2 || p > 64 || q > 64 || r > 64) {
    return { kind: 'fault', problem: `No group has ${p} notes.`, expected: 'a number from 2 to 9 after the bracket, for example (3abc', start: at, end };
  }
  return { kind: 'tuplet', actual: p, normal: q, notes: r, start: at, end };
}

function decorationAt(line: string, at: number): AbcToken {
  const found = match(decoration, line, at);
  if (found === null) return { kind: 'passed-over', text: '', start: at, end: at + 1 };
  return { kind: 'decoration', name: (found[1] ?? found[2]).trim(), start: at, end: at + found[0].length };
}

function barAt(line: string, at: number): AbcToken {
  const found = match(barStart, line, at) === null ? null : match(bar, line, at);
  if (found === null) return { kind: 'passed-over', text: line[at], start: at, end: at + 1 };
  const [sign] = found;
  const times = sign.includes(':|') ? match(timesAfter, line, at + sign.length) : null;
  return { kind: 'bar', sign, times: times === null ? 0 : Number(times[1]), start: at, end: at + sign.length + (times?.[0].length ?? 0) };
}

/** "1" -> [1], "1,3" -> [1, 3], "1-3" -> [1, 2, 3]. */
function passesIn(text: string): readonly number[] {
  const passes = text.split(/[,.\s]+/).flatMap((piece) => {
    const [from, to] = piece.split('-').map((each) => Number.parseInt(each, 10));
    if (!Number.isInteger(from)) return [];
    const last = Number.isInteger(to) ? to : from;
    return Array.from({ length: Math.max(0, Math.min(16, last - from + 1)) }, (_, offset) => from + offset);
  });
  return passes.filter((pass) => pass >= 1 && pass <= 16);
}

function match(pattern: RegExp, text: string, at: number): RegExpExecArray | null {
  pattern.lastIndex = at;
  return pattern.exec(text);
}
