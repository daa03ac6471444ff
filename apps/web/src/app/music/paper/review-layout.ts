import { describedLine, lineAbc } from '@zelpit/core/line';
import { itemMinutes, reviewItemText, reviewItemTitle, watchText } from '@zelpit/core/review';
import { figureSize } from '../lines/change-figure.component';
import {
  figureTop,
  numberText,
  paperMargin,
  qrSize,
  textLeft,
  titleSizes,
  withStaff,
  type PaperPage,
  type PlacedText,
  type ReviewOnPaper,
  type SheetOnPaper,
  type UnplacedRow,
} from './paper-page';
import type { PaperSize } from './paper-size';
import { wrapText, type Measure } from './wrap-text';

/** On what it is laid out, and how texts are measured. */
interface On {
  readonly size: PaperSize;
  readonly measure: Measure;
}

const dayWidth = 25;
const minutesWidth = 74;
/** So many notes of a piece stand on one staff. */
const mostOnStaff = 24;
const plainLeft = paperMargin + 50;

/** The head of a review: whose it is and until when, its code, and the frame with what comes first. */
export function reviewHead(sheet: SheetOnPaper, review: ReviewOnPaper, { size, measure }: On): Pick<PaperPage, 'head' | 'headEnd' | 'frame' | 'code'> {
  const width = size.width - 2 * paperMargin - qrSize - 20;
  const titleSize = [46, 38, 30].find((each) => measure(sheet.title, each, 800) <= width) ?? 26;
  const head: PlacedText[] = [];
  let y = 88;
  for (const text of wrapText(measure, sheet.title, { size: titleSize, weight: 800, width, most: 2 })) {
    head.push({ x: paperMargin, y, text, size: titleSize, weight: 800 });
    y += titleSize * 1.1;
  }
  y += 32 - titleSize * 1.1;
  for (const part of [sheet.about, sheet.note])
    for (const text of wrapText(measure, part, { size: 18, weight: 500, width, most: 3 })) {
      head.push({ x: paperMargin, y, text, size: 18, weight: 500 });
      y += 24;
    }
  const after = Math.max(y, 52 + qrSize + 34);
  if (review.priority === '') return { head, headEnd: after, code: review.code };
  const inner = { x: paperMargin + 20, width: size.width - 2 * paperMargin - 40 };
  let line = after + 34;
  for (const text of wrapText(measure, `First of all: ${review.priority}`, { size: 25, weight: 800, width: inner.width, most: 3 })) {
    head.push({ x: inner.x, y: line, text, size: 25, weight: 800 });
    line += 30;
  }
  for (const text of wrapText(measure, review.sentence, { size: 18, weight: 500, width: inner.width, most: 3 })) {
    head.push({ x: inner.x, y: line, text, size: 18, weight: 500 });
    line += 24;
  }
  const height = line - after - 4;
  return { head, headEnd: after + height + 16, frame: { y: after, height }, code: review.code };
}

/** The head of its other pages: the frame, small. */
export function reviewNextHead(sheet: SheetOnPaper, { priority }: ReviewOnPaper, { size, measure }: On): Pick<PaperPage, 'head' | 'headEnd' | 'frame'> {
  const width = size.width - 2 * paperMargin - 32;
  const [title] = wrapText(measure, sheet.title, { size: 24, weight: 800, width, most: 1 });
  const head: PlacedText[] = [{ x: paperMargin, y: 68, text: title ?? '', size: 24, weight: 800 }];
  if (priority === '') return { head, headEnd: 84 };
  const [text] = wrapText(measure, `First of all: ${priority}`, { size: 18, weight: 700, width, most: 1 });
  return { head: [...head, { x: paperMargin + 16, y: 107, text: text ?? '', size: 18, weight: 700 }], headEnd: 138, frame: { y: 84, height: 36 } };
}

/** An item: its figure and its music where it has some, what it says, a box for each day. Never broken over two pages. */
export function reviewRows(sheet: SheetOnPaper, { days }: ReviewOnPaper, index: number, { size, measure }: On): readonly UnplacedRow[] {
  const item = sheet.lines[index];
  const { instrument } = sheet;
  const hasFigure = item.kind === 'line' || item.kind === 'movement';
  const left = hasFigure ? textLeft : plainLeft;
  const minutes = itemMinutes(item);
  const right = size.width - paperMargin;
  const daysLeft = right - minutesWidth - days.length * dayWidth;
  const texts: PlacedText[] = [numberText(index)];
  const title = reviewItemTitle(instrument, item);
  const titleWidth = (minutes > 0 ? daysLeft : right) - left - 14;
  const titleSize = titleSizes.find((each) => measure(title, each, 800) <= titleWidth) ?? titleSizes[titleSizes.length - 1];
  let y = 42;
  const put = (text: string, style: { readonly size: number; readonly weight: number; readonly width?: number; readonly most: number }, step: number): void => {
    for (const each of wrapText(measure, text, { width: right - left, ...style })) {
      texts.push({ x: left, y, text: each, size: style.size, weight: style.weight });
      y += step;
    }
  };
  put(title, { size: titleSize, weight: 800, width: titleWidth, most: 3 }, titleSize + 4);
  if (minutes > 0) y = Math.max(y, 62);
  const { watch, tooFast } = watchText(instrument, item);
  put(watch, { size: 18, weight: 700, most: 4 }, 23);
  put(`${reviewItemText(item)}.`, { size: 17, weight: 500, most: 3 }, 22);
  if (tooFast !== '') put(`Too fast? ${tooFast}`, { size: 17, weight: 500, most: 3 }, 22);
  for (const said of [item.details?.musical, item.details?.physical, item.details?.praise])
    if (said !== undefined) put(said, { size: 17, weight: 500, most: 3 }, 22);
  const boxes = minutes === 0 ? [] : days.map((letter, day) => ({ x: daysLeft + day * dayWidth, y: 18, letter }));
  if (minutes > 0) {
    const number = String(minutes);
    texts.push({ x: right - measure(' min', 17, 500) - measure(number, 26, 800) - 2, y: 38, text: number, size: 26, weight: 800 });
    texts.push({ x: right - measure('min', 17, 500), y: 38, text: 'min', size: 17, weight: 500 });
  }
  const described = item.kind === 'words' || !hasFigure ? undefined : describedLine(instrument, item);
  const height = Math.max(y + 4, described === undefined ? 0 : figureTop + figureSize.height + 6);
  const row: UnplacedRow = { ...{ index, described, goesOn: false, texts, boxes: [], code: '', staves: [], height }, days: boxes };
  if (item.kind === 'words') return [row];
  const isShort = item.excerpt == null || (item.kind === 'chunk' && (item.excerpt.abc.match(/[a-gA-G]/g) ?? []).length <= 4 * mostOnStaff);
  if (!isShort || item.kind === 'tune' || item.kind === 'part') return [row];
  // A change's music stands beside its figure.
  const beside = item.kind === 'line' && item.exercise == null ? { left: textLeft, top: y + 2 } : {};
  return [withStaff(row, lineAbc(instrument, item, sheet.words), size, beside)];
}
