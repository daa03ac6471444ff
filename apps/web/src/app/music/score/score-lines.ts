import { excerptAbc } from '@zelpit/core/score';
import type { Tune } from '@zelpit/core/tune';

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
export function scoreLines(tune: Tune, width: number, folding?: Folding, isOnPaper = false): readonly ScoreLine[] {
  const parts = partsOf(tune, isOnPaper);
  const written = (lines: readonly (readonly number[])[]): readonly ScoreLine[] =>
    lines.map((line, index) => toLine(tune, line, index === 0, { folding, hasWords: isOnPaper }));
  for (let barsInLine = 4; barsInLine > 1; barsInLine -= 1) {
    if (barsInLine === 3) continue;
    const lines = parts.flatMap((part) => cut(tune, part, barsInLine));
    if (lines.every((line) => widthOf(tune, line) <= width)) return written(lines);
  }
  return written(parts.flatMap((part) => cut(tune, part, 1)));
}

/** @param keepsEndings true where a second ending goes on in the line of the first */
function partsOf(tune: Tune, keepsEndings: boolean): readonly (readonly number[])[] {
  const parts: number[][] = [[]];
  tune.bars.forEach((bar, index) => {
    parts[parts.length - 1].push(index);
    const next = tune.bars.at(index + 1);
    if (bar.endsPart && next !== undefined && !(keepsEndings && next.opensEnding)) parts.push([]);
  });
  return parts;
}

function cut(tune: Tune, part: readonly number[], barsInLine: number): readonly (readonly number[])[] {
  const lines: number[][] = [];
  let count = barsInLine;
  part.forEach((barIndex, position) => {
    const bar = tune.bars[barIndex];
    const isShort = bar.length < bar.meter.bar - 1e-6;
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

function widthOf(tune: Tune, bars: readonly number[], note = noteWidth, graceNote = graceNoteWidth): number {
  return bars.reduce((sum, index) => {
    const bar = tune.bars[index];
    const notes = tune.notes.slice(bar.first, bar.end);
    return sum + barWidth + notes.reduce((all, { graceNotes }) => all + note + graceNotes.length * graceNote, 0);
  }, clefWidth);
}

/** Notes whose movements fold because the line has no room for their grace notes. */
function foldedIn(tune: Tune, bars: readonly number[], folding: Folding | undefined): ReadonlySet<number> {
  if (folding === undefined) return new Set();
  const { room, openBar } = folding;
  if (widthOf(tune, bars, tightNote, tightGraceNote) <= room || bars.some((bar) => tune.bars[bar].number === openBar)) return new Set();
  const notes = tune.notes.slice(tune.bars[bars[0]].first, tune.bars[bars[bars.length - 1]].end);
  return new Set(notes.flatMap(({ index, graceNotes, strayGraceNotes }) => (graceNotes.length >= fewestFolded && strayGraceNotes.length === 0 ? [index] : [])));
}

interface LineWish {
  readonly folding: Folding | undefined;
  /** Words under the notes; over them chord symbols stand in any case. */
  readonly hasWords: boolean;
}

function toLine(tune: Tune, bars: readonly number[], isFirst: boolean, { folding, hasWords }: LineWish): ScoreLine {
  const first = tune.bars[bars[0]];
  const last = tune.bars[bars[bars.length - 1]];
  const folded = foldedIn(tune, bars, folding);
  const showsMeter = isFirst || tune.bars[bars[0] - 1]?.meter.text !== first.meter.text;
  return { abc: excerptAbc(tune.voice, bars, showsMeter, { withoutGraceNotes: folded, hasLyrics: hasWords }), first: first.first, end: last.end, bars, folded };
}
