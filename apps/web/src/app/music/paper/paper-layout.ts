import {
  countText,
  describedLine,
  pacesOf,
  lineAbc,
  notesOfLine,
  wordRows,
  type Line,
  type PlannedLine,
  type DescribedLine,
  type Instrument,
  type LineWords,
} from '@zelpit/core';
import { figureSize } from '../lines/change-figure.component';
import type { PaperSize } from './paper-size';
import { wrapText, type Measure } from './wrap-text';

/** What goes onto paper of a sheet. */
export interface SheetOnPaper {
  readonly title: string;
  readonly note: string;
  /** "The Paper Lighthouse, practice chanter" */
  readonly about: string;
  readonly instrument: Instrument;
  /** What stands under the notes. */
  readonly words?: LineWords;
  readonly lines: readonly (PlannedLine & { readonly point: string; readonly code: string })[];
}

/** A line of text at its place; `y` is the baseline. */
export interface PlacedText {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly size: number;
  readonly weight: number;
}

export interface PaperRow {
  readonly index: number;
  /** Top of the row on its page. */
  readonly y: number;
  readonly described: DescribedLine;
  readonly texts: readonly PlacedText[];
  /** Boxes to tick, one a time through; empty where there are too many. */
  readonly boxes: readonly { readonly x: number; readonly y: number }[];
  readonly code: string;
  readonly abc: string;
  /** Highest line of the staff, below the row's top. */
  readonly staffTop: number;
  /** Rows of words under the notes. */
  readonly wordRows: number;
}

export interface PaperPage {
  readonly number: number;
  readonly head: readonly PlacedText[];
  /** Rule under the head. */
  readonly headEnd: number;
  readonly rows: readonly PaperRow[];
  readonly footTop: number;
}

/** Smallest text on paper: 11 pt is 14.67 px; everything here is larger. */
export const paperMargin = 56;
export const qrSize = 88;
const textLeft = 320;
const footHeight = 104;
const staffRoom = 66;
/** A row of words under the notes needs so much more. */
const wordRoom = 21;
/** And the first of them stands so far below the staff. */
const wordsGap = 14;
const figureTop = 12;
const mostBoxes = 10;
const boxWidth = 17;
/** Most that rows are spread out where a page has room left. */
const mostSpread = 26;

/** Lays a sheet out on pages of a size. A row is never cut in two. */
export function paperPages(sheet: SheetOnPaper, size: PaperSize, measure: Measure): readonly PaperPage[] {
  const rows = sheet.lines.map((_, index) => rowOf(sheet, index, size, measure));
  const first = headOf(sheet, size, measure);
  const footTop = size.height - footHeight;
  const pages: PaperPage[] = [];
  let next = 0;
  do {
    const { head, headEnd } = pages.length === 0 ? first : nextHead(sheet, size, measure);
    const fitting: Omit<PaperRow, 'y'>[] = [];
    let used = 0;
    while (next < rows.length && (fitting.length === 0 || headEnd + used + heightOf(rows[next]) <= footTop)) {
      used += heightOf(rows[next]);
      fitting.push(rows[next]);
      next += 1;
    }
    const isFull = next < rows.length || fitting.length > 2;
    const spread = isFull && fitting.length > 0 ? Math.max(0, Math.min(mostSpread, (footTop - headEnd - used) / fitting.length)) : 0;
    let y = headEnd;
    const placed = fitting.map((row) => {
      const at = { ...row, y };
      y += heightOf(row) + spread;
      return at;
    });
    pages.push({ number: pages.length + 1, head, headEnd, rows: placed, footTop });
  } while (next < rows.length);
  return pages;
}

const heightOf = (row: { readonly staffTop: number; readonly wordRows: number }): number =>
  row.staffTop + staffRoom + (row.wordRows === 0 ? 0 : wordsGap + row.wordRows * wordRoom);

function headOf(sheet: SheetOnPaper, size: PaperSize, measure: Measure): Pick<PaperPage, 'head' | 'headEnd'> {
  const width = size.width - 2 * paperMargin - 60;
  const titleSize = [54, 44, 34].find((each) => measure(sheet.title, each, 800) <= width) ?? 28;
  const title = wrapText(measure, sheet.title, { size: titleSize, weight: 800, width, most: 3 });
  const head: PlacedText[] = title.map((text, index) => ({ x: paperMargin, y: 92 + index * titleSize * 1.1, text, size: titleSize, weight: 800 }));
  let y = 92 + (title.length - 1) * titleSize * 1.1 + 34;
  const fullWidth = size.width - 2 * paperMargin;
  for (const part of [sheet.about, sheet.note]) {
    for (const text of wrapText(measure, part, { size: 18, weight: 500, width: fullWidth, most: 4 })) {
      head.push({ x: paperMargin, y, text, size: 18, weight: 500 });
      y += 24;
    }
  }
  return { head, headEnd: y - 10 };
}

function nextHead(sheet: SheetOnPaper, size: PaperSize, measure: Measure): Pick<PaperPage, 'head' | 'headEnd'> {
  const [text] = wrapText(measure, sheet.title, { size: 24, weight: 800, width: size.width - 2 * paperMargin, most: 1 });
  return { head: [{ x: paperMargin, y: 68, text: text ?? '', size: 24, weight: 800 }], headEnd: 84 };
}

const rowsUnder = (sheet: SheetOnPaper, line: Line): number =>
  sheet.words === undefined ? 0 : wordRows(sheet.instrument, notesOfLine(line), sheet.words).length;

/** "no click at first, then with it", "click at 60", "click 40, 60, 80, until the first slip" */
function paceOnPaper(line: PlannedLine): string {
  const paces = pacesOf(line);
  if (paces[0] === null) return 'no click at first, then with it';
  return `click at ${paces.join(', ')}${paces.length > 1 ? ', until the first slip' : ''}`;
}

/** Sizes of a line's name, the largest that its room allows. */
const titleSizes: readonly number[] = [36, 30, 25, 21];

function rowOf(sheet: SheetOnPaper, index: number, size: PaperSize, measure: Measure): Omit<PaperRow, 'y'> {
  const line = sheet.lines[index];
  const described = describedLine(sheet.instrument, line);
  const width = size.width - paperMargin - qrSize - 18 - textLeft;
  const texts: PlacedText[] = [{ x: paperMargin, y: 48, text: String(index + 1), size: 46, weight: 800 }];
  let y = 42;
  const put = (text: string, textSize: number, weight: number, step: number, most: number): void => {
    for (const each of wrapText(measure, text, { size: textSize, weight, width, most })) {
      texts.push({ x: textLeft, y, text: each, size: textSize, weight });
      y += step;
    }
  };
  const titleSize = titleSizes.find((each) => measure(described.title, each, 800) <= width) ?? titleSizes[titleSizes.length - 1];
  put(described.title, titleSize, 800, 34, 1);
  put(described.advice.todo, 19, 700, 24, 3);
  put(described.advice.otherwise, 16.5, 500, 22, 2);
  if (line.point.trim() !== '') put(`Watch for: ${line.point}`, 17, 700, 22, 4);
  y += 8;
  const times = countText(line);
  const count = line.repetitions * pacesOf(line).length;
  texts.push({ x: textLeft, y, text: times, size: 17, weight: 700 });
  const boxesLeft = textLeft + measure(times, 17, 700) + 10;
  const hasBoxes = count <= mostBoxes;
  const boxes = hasBoxes ? Array.from({ length: count }, (_, box) => ({ x: boxesLeft + box * boxWidth, y: y - 12 })) : [];
  const pace = paceOnPaper(line);
  const paceLeft = boxesLeft + boxes.length * boxWidth + (hasBoxes ? 8 : 4);
  const isBeside = paceLeft + measure(pace, 17, 500) <= size.width - paperMargin;
  if (!isBeside) y += 24;
  texts.push({ x: isBeside ? paceLeft : textLeft, y, text: pace, size: 17, weight: 500 });
  const figureEnd = figureTop + figureSize.height;
  return {
    index,
    described,
    texts,
    boxes,
    code: line.code,
    abc: lineAbc(sheet.instrument, line, sheet.words),
    staffTop: Math.max(figureEnd + 10, y + 26),
    wordRows: rowsUnder(sheet, line),
  };
}
