import type { BarLine } from './score';

/** What a bar line says. */
export interface BarSign {
  /** How often what it closes is played in all; 0 where it closes nothing. */
  readonly closes: number;
  readonly opens: boolean;
  readonly line: BarLine;
  /** Dots of the sign that opened the repeat in hand: `|::` is played three times. */
  readonly openTimes: number;
}

const mostTimes = 16;

/**
 * Reads a bar line as it is written, `:|`, `|:`, `::|`; an empty one cuts a bar without a line.
 * @param times as `:|x3` says it; 0 where nothing does
 * @param openTimes dots of the sign that opened the repeat in hand
 */
export function readBarSign(sign: string, times: number, openTimes: number): BarSign {
  if (sign === '') return { closes: 0, opens: false, line: 'none', openTimes };
  const isAllColons = /^:+$/.test(sign);
  const before = isAllColons ? 1 : (/^:+/.exec(sign)?.[0].length ?? 0);
  const after = isAllColons ? 1 : sign.length - trailingStart(sign);
  let closes = 0;
  if (times > 0) closes = times;
  else if (before > 0) closes = Math.max(before, openTimes) + 1;
  const isOver = closes > 0;
  let next = openTimes;
  if (after > 0) next = after;
  else if (isOver) next = 1;
  return { closes: Math.min(closes, mostTimes), opens: after > 0, line: lineOf(sign), openTimes: next };
}

/** Where the colons at the end begin. By hand: a pattern would look for the end from every colon of a long row. */
function trailingStart(sign: string): number {
  let at = sign.length;
  while (at > 0 && sign[at - 1] === ':') at -= 1;
  return at;
}

function lineOf(sign: string): BarLine {
  if (sign.startsWith('.')) return 'dotted';
  if (sign === '[|]') return 'none';
  if (sign.startsWith('[|')) return 'begin';
  if (sign.includes(']')) return 'end';
  return sign.includes('||') ? 'double' : 'single';
}
