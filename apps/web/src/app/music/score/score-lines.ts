import type { Tune } from '@zelpit/core';

/** One line of music of a tune: its own small ABC, and the notes in it. */
export interface ScoreLine {
  readonly abc: string;
  /** Notes from `first` up to, not including, `end`. */
  readonly first: number;
  readonly end: number;
  /** Indices into the tune's bars. */
  readonly bars: readonly number[];
}

/** Room for a theme note, for a grace note, for a bar line and for clef and meter, in px. */
const [noteWidth, graceNoteWidth, barWidth, clefWidth] = [72, 24, 14, 70];

/**
 * Breaks a tune into lines that fit a width: the same number of bars in each, four at most, fewer where the music is
 * dense; a new part starts a new line; a lead-in stands with its first bar.
 */
export function scoreLines(tune: Tune, abc: string, width: number): readonly ScoreLine[] {
  const parts = partsOf(tune);
  for (let barsInLine = 4; barsInLine > 1; barsInLine -= 1) {
    if (barsInLine === 3) continue;
    const lines = parts.flatMap((part) => cut(tune, part, barsInLine));
    if (lines.every((line) => widthOf(tune, line) <= width)) return lines.map((line, index) => toLine(tune, abc, line, index === 0));
  }
  return parts.flatMap((part) => cut(tune, part, 1)).map((line, index) => toLine(tune, abc, line, index === 0));
}

function partsOf(tune: Tune): readonly (readonly number[])[] {
  const parts: number[][] = [[]];
  tune.bars.forEach((bar, index) => {
    parts[parts.length - 1].push(index);
    if (bar.endsPart && index < tune.bars.length - 1) parts.push([]);
  });
  return parts;
}

function cut(tune: Tune, part: readonly number[], barsInLine: number): readonly (readonly number[])[] {
  const lines: number[][] = [];
  let count = barsInLine;
  part.forEach((barIndex, position) => {
    const isShort = lengthOf(tune, barIndex) < tune.meter.bar - 1e-6;
    const isLeadIn = isShort && position === 0;
    if (count >= barsInLine && !(isShort && position > 0 && position === part.length - 1)) {
      lines.push([]);
      count = 0;
    }
    lines[lines.length - 1].push(barIndex);
    if (!isLeadIn) count += 1;
  });
  return lines;
}

function lengthOf(tune: Tune, barIndex: number): number {
  const bar = tune.bars[barIndex];
  return tune.notes.slice(bar.first, bar.end).reduce((sum, note) => sum + note.duration, 0);
}

function widthOf(tune: Tune, bars: readonly number[]): number {
  return bars.reduce((sum, index) => {
    const bar = tune.bars[index];
    const notes = tune.notes.slice(bar.first, bar.end);
    return sum + barWidth + notes.reduce((all, note) => all + noteWidth + note.graceNotes.length * graceNoteWidth, 0);
  }, clefWidth);
}

function toLine(tune: Tune, abc: string, bars: readonly number[], isFirst: boolean): ScoreLine {
  const first = tune.bars[bars[0]];
  const last = tune.bars[bars[bars.length - 1]];
  const music = abc
    .slice(first.source.start, last.source.end)
    .replace(/%.*$/gm, '')
    .replace(/^\s*K:\s*(.*)$/gm, '[K:$1]')
    .replace(/^\s*[A-Za-z+]:.*$/gm, '')
    .replace(/\\?\s*\n\s*/g, ' ')
    .replace(/([|\]])\s*\[?\d[\d,-]*\s*$/, '$1')
    .replace(/::\s*$/, ':|')
    .trim();
  const opener = first.opensRepeat && !/^(\|:|:\|?:|\[\|:)/.test(music) ? '|:' : '';
  const ending = first.passes.length > 0 && !/^\[?\|?\[?\d/.test(music) ? `[${first.passes.join(',')} ` : '';
  const head = [
    'X:1',
    ...(isFirst ? [`M:${field(abc, 'M') ?? tune.meter.text}`] : []),
    `L:${unitLength(tune, abc)}`,
    `K:${keyInForce(abc, first.source.start)}`,
  ];
  return { abc: `${head.join('\n')}\n${opener}${ending}${music}\n`, first: first.first, end: last.end, bars };
}

function field(abc: string, letter: string): string | undefined {
  return new RegExp(`^${letter}:\\s*(.*?)\\s*(?:%.*)?$`, 'm').exec(abc)?.[1];
}

/** Standard 2.1: without `L:` a sixteenth where the meter is under 3/4 as a fraction, else an eighth. */
function unitLength(tune: Tune, abc: string): string {
  return field(abc, 'L') ?? (tune.meter.bar < 0.75 ? '1/16' : '1/8');
}

function keyInForce(abc: string, position: number): string {
  const before = abc.slice(0, position);
  const keys = [...before.matchAll(/^K:\s*(.*?)\s*(?:%.*)?$|\[K:\s*([^\]]*)\]/gm)];
  const last = keys.at(-1);
  return last?.[1] ?? last?.[2] ?? 'HP';
}
