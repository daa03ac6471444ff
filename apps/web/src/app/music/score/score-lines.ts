import type { Tune } from '@zelpit/core';

/** One line of music of a tune: its own small ABC, and the notes in it. */
export interface ScoreLine {
  readonly abc: string;
  /** Notes from `first` up to, not including, `end`. */
  readonly first: number;
  readonly end: number;
  /** Indices into the tune's bars. */
  readonly bars: readonly number[];
  /** Notes whose movement is folded into its name, by index: the line has no room for their grace notes. */
  readonly folded: ReadonlySet<number>;
}

/** When movements fold into their names. */
export interface Folding {
  /** Width of a line in px as if it were drawn at full size: what is drawn smaller has more room. */
  readonly room: number;
  /** Bar whose movements stay open however tight it is, as counted aloud. */
  readonly openBar?: number;
}

/** Room for a theme note, for a grace note, for a bar line and for clef and meter, in px. */
const [noteWidth, graceNoteWidth, barWidth, clefWidth] = [72, 24, 14, 70];
/** The least that a theme note and a grace note need to be read: under it, movements fold. */
const [tightNote, tightGraceNote] = [44, 20];
/** A single grace note is no movement: it stays. */
const fewestFolded = 2;

/**
 * Breaks a tune into lines that fit a width: the same number of bars in each, four at most, fewer where the music is
 * dense; a new part starts a new line; a lead-in stands with its first bar. Where not even one bar fits, its movements fold.
 */
export function scoreLines(tune: Tune, abc: string, width: number, folding?: Folding): readonly ScoreLine[] {
  const parts = partsOf(tune);
  const written = (lines: readonly (readonly number[])[]): readonly ScoreLine[] =>
    lines.map((line, index) => fold(tune, toLine(tune, abc, line, index === 0), folding));
  for (let barsInLine = 4; barsInLine > 1; barsInLine -= 1) {
    if (barsInLine === 3) continue;
    const lines = parts.flatMap((part) => cut(tune, part, barsInLine));
    if (lines.every((line) => widthOf(tune, line) <= width)) return written(lines);
  }
  return written(parts.flatMap((part) => cut(tune, part, 1)));
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

function widthOf(tune: Tune, bars: readonly number[], note = noteWidth, graceNote = graceNoteWidth): number {
  return bars.reduce((sum, index) => {
    const bar = tune.bars[index];
    const notes = tune.notes.slice(bar.first, bar.end);
    return sum + barWidth + notes.reduce((all, { graceNotes }) => all + note + graceNotes.length * graceNote, 0);
  }, clefWidth);
}

/** The line with its movements folded where they have no room: their grace notes leave its ABC. */
function fold(tune: Tune, line: ScoreLine, folding: Folding | undefined): ScoreLine {
  if (folding === undefined) return line;
  const { room, openBar } = folding;
  if (widthOf(tune, line.bars, tightNote, tightGraceNote) <= room || line.bars.some((bar) => tune.bars[bar].number === openBar)) return line;
  const graced = tune.notes.slice(line.first, line.end).filter(({ graceNotes, strayGraceNotes }) => graceNotes.length + strayGraceNotes.length > 0);
  const groups = [...line.abc.matchAll(quotedOrGrace)].filter(([text]) => text.startsWith('{'));
  // A group that belongs to no note would shift all that follow: such a line stays as it is.
  if (groups.length !== graced.length) return line;
  const goes = graced.map(({ graceNotes, strayGraceNotes }) => graceNotes.length >= fewestFolded && strayGraceNotes.length === 0);
  let group = -1;
  const abc = line.abc.replace(quotedOrGrace, (text) => {
    if (!text.startsWith('{')) return text;
    group += 1;
    return goes[group] ? '' : text;
  });
  return { ...line, abc, folded: new Set(graced.filter((_, index) => goes[index]).map(({ index }) => index)) };
}

/** Text in quotes, where braces mean nothing, or a group of grace notes. */
const quotedOrGrace = /"[^"]*"|\{[^}]*\}/g;

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
  return { abc: `${head.join('\n')}\n${opener}${ending}${music}\n`, first: first.first, end: last.end, bars, folded: new Set() };
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
