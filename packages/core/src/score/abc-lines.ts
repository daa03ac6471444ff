/** A line of ABC text, without its comment. */
export interface AbcLine {
  readonly kind: 'field' | 'music' | 'directive' | 'empty';
  /** Letter of a field; "+" where it goes on with the field before. Empty for other lines. */
  readonly letter: string;
  /** What stands after the letter and its colon, after `%%`, or the line itself. */
  readonly text: string;
  /** Where `text` begins in the whole text. */
  readonly start: number;
  /** From 1. */
  readonly number: number;
}

const field = /^([A-Za-z+]):(?![|:])/;
const beginsText = /^begin(text|ps|svg|ml|abc)?\b/i;
const endsText = /^%%\s*end/i;

/** The lines of a text in their order. What stands between `%%begintext` and `%%endtext` is no music and is left out. */
export function abcLines(text: string): readonly AbcLine[] {
  const lines: AbcLine[] = [];
  let start = 0;
  let number = 0;
  let isInText = false;
  for (const raw of text.split('\n')) {
    number += 1;
    const line = raw.endsWith('\r') ? raw.slice(0, -1) : raw;
    if (isInText) {
      if (endsText.test(line)) isInText = false;
    } else {
      const read = readLine(line, start, number);
      isInText = read.kind === 'directive' && beginsText.test(read.text);
      lines.push(read);
    }
    start += raw.length + 1;
  }
  return lines;
}

function readLine(line: string, start: number, number: number): AbcLine {
  if (line.startsWith('%%')) return { kind: 'directive', letter: '', text: line.slice(2).trim(), start: start + 2, number };
  const found = field.exec(line);
  if (found !== null) {
    const [head, letter] = found;
    if (letter === 'I') return { kind: 'directive', letter: '', text: withoutComment(line.slice(head.length)).trim(), start: start + head.length, number };
    return { kind: 'field', letter, text: withoutComment(line.slice(head.length)), start: start + head.length, number };
  }
  const music = withoutComment(line);
  return { kind: music.trim() === '' ? 'empty' : 'music', letter: '', text: music, start, number };
}

/** Up to the first `%` that is not written `\%`. */
function withoutComment(text: string): string {
  const at = text.search(/(?<!\\)%/);
  return at === -1 ? text : text.slice(0, at);
}
