/** A place in ABC text that cannot be read. */
export interface AbcFault {
  /** Line of the file and character of the line, both from 1. */
  readonly line: number;
  readonly column: number;
  readonly problem: string;
  readonly expected: string;
}

interface Known {
  readonly sign: RegExp;
  readonly problem: (message: string, character: string) => string;
  readonly expected: string;
}

const known: readonly Known[] = [
  {
    sign: /Missing the closing '?\}/,
    problem: () => 'A group of grace notes starts here and is never closed.',
    expected: '"}" after the last grace note',
  },
  {
    sign: /Missing the closing quote/,
    problem: () => 'A text above the staff starts here and is never closed.',
    expected: 'a second quotation mark',
  },
  {
    sign: /Unknown character ignored/,
    problem: (_, character) => (character === '' ? 'A character here means nothing in ABC.' : `“${character}” means nothing in ABC here.`),
    expected: 'a note letter, a length, a bar line or grace notes in braces',
  },
  {
    sign: /Duration not representable/,
    problem: () => 'No note has this length.',
    expected: 'a length such as 2, 3, /2 or 3/2',
  },
  { sign: /chord/i, problem: (message) => `${message}.`, expected: '"]" after the last note of the chord' },
  { sign: /tuplet|triplet/i, problem: (message) => `${message}.`, expected: 'as many notes as the number says, for example (3abc' },
];

/** Turns a parser's warning, a text with `line:column`, a message and markup, into plain words. */
export function abcFaultFrom(warning: string, abc: string, firstLine: number): AbcFault {
  const found = /(\d+):(\d+):\s*([^:<]+)/.exec(warning);
  const line = Number(found?.[1] ?? 1);
  const column = Number(found?.[2] ?? 1);
  const message = (found?.[3] ?? warning.replace(/<[^>]*>/g, '')).trim();
  const character = abc.split('\n')[line - 1]?.charAt(column - 1) ?? '';
  const match = known.find((each) => each.sign.test(message));
  return {
    line: firstLine + line - 1,
    column,
    problem: match?.problem(message, character) ?? `${message}.`,
    expected: match?.expected ?? 'ABC as in standard 2.1',
  };
}

/** All faults of a tune, one per place. */
export function abcFaults(warnings: readonly string[], abc: string, firstLine: number): readonly AbcFault[] {
  const byPlace = new Map<string, AbcFault>();
  for (const warning of warnings) {
    const fault = abcFaultFrom(warning, abc, firstLine);
    const place = `${fault.line}:${fault.column}`;
    if (!byPlace.has(place)) byPlace.set(place, fault);
  }
  return [...byPlace.values()];
}
