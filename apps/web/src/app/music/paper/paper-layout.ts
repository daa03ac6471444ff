import type { MusicItemInput } from '@zelpit/contract';
import { changeBetween } from '@zelpit/core/change';
import { rowNames, rowsOfExcerpt, tuneAtRow, underTune, type Excerpt, type LineWords } from '@zelpit/core/excerpt';
import { noteOf, type Instrument } from '@zelpit/core/fingering';
import { laneLayout } from '@zelpit/core/lanes';
import { countText, describedLine, lineAbc, pacesOf } from '@zelpit/core/line';
import { changeSentences } from '@zelpit/core/script';
import type { Tune } from '@zelpit/core/tune';
import { figureSize } from '../lines/change-figure.component';
import { scoreLines } from '../score/score-lines';
import type { PaperSize } from './paper-size';
import {
  figureTop,
  numberText,
  paperMargin,
  qrSize,
  staffHeight,
  textLeft,
  titleSizes,
  withStaff,
  type PaperPage,
  type PlacedText,
  type SheetOnPaper,
  type UnplacedRow,
} from './paper-page';
import { reviewHead, reviewNextHead, reviewRows } from './review-layout';
import { wrapText, type Measure } from './wrap-text';

export { paperMargin, qrSize, type PaperStaff, type SheetItem, type SheetOnPaper } from './paper-page';

const footHeight = 104;
const mostBoxes = 10;
const boxWidth = 17;
/** Most that rows are spread out where a page has room left. */
const mostSpread = 26;

/** Lays a sheet out on pages of a size. A row is never cut in two. */
export function paperPages(sheet: SheetOnPaper, size: PaperSize, measure: Measure): readonly PaperPage[] {
  const { review } = sheet;
  const rows = sheet.lines.flatMap((_, index) =>
    review === undefined ? rowsOf(sheet, index, size, measure) : reviewRows(sheet, review, index, { size, measure }),
  );
  const first = review === undefined ? headOf(sheet, size, measure) : reviewHead(sheet, review, { size, measure });
  const footTop = size.height - footHeight;
  const pages: PaperPage[] = [];
  let next = 0;
  do {
    const later = (): Head => (review === undefined ? nextHead(sheet, size, measure) : reviewNextHead(sheet, review, { size, measure }));
    const top = pages.length === 0 ? first : later();
    const { headEnd } = top;
    const fitting: UnplacedRow[] = [];
    let used = 0;
    // An item of a review is not broken, a row of a sheet is not.
    const needed = (): number => (review === undefined ? rows[next].height : wholeHeight(rows, next));
    while (next < rows.length && (fitting.length === 0 || headEnd + used + needed() <= footTop)) {
      used += rows[next].height;
      fitting.push(rows[next]);
      next += 1;
    }
    const isFull = next < rows.length || fitting.length > 2;
    const spread = isFull && fitting.length > 0 ? Math.max(0, Math.min(mostSpread, (footTop - headEnd - used) / fitting.length)) : 0;
    let y = headEnd;
    const placed = fitting.map((row) => {
      const at = { ...row, y };
      y += row.height + (row.goesOn ? 0 : spread);
      return at;
    });
    pages.push({ number: pages.length + 1, ...top, rows: placed, footTop });
  } while (next < rows.length);
  return pages;
}

/** Height of an item whose first row stands at a place; of a row that goes on, its own. */
function wholeHeight(rows: readonly UnplacedRow[], first: number): number {
  let end = first + 1;
  while (!rows[first].goesOn && rows.at(end)?.goesOn === true) end += 1;
  return rows.slice(first, end).reduce((sum, { height }) => sum + height, 0);
}

type Head = Pick<PaperPage, 'head' | 'headEnd' | 'frame' | 'code'>;

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

/** "no click at first, then with it", "click at 60", "click 40, 60, 80, until the first slip" */
function paceOnPaper(line: Pick<MusicItemInput, 'tempo' | 'speeds'>): string {
  const paces = pacesOf(line);
  if (paces[0] === null) return 'no click at first, then with it';
  return `click at ${paces.join(', ')}${paces.length > 1 ? ', until the first slip' : ''}`;
}

/** An item's rows: what it is with its first music, then what goes on from that, so that a long one can go on over the page. */
function rowsOf(sheet: SheetOnPaper, index: number, size: PaperSize, measure: Measure): readonly UnplacedRow[] {
  const item = sheet.lines[index];
  if (item.kind === 'words') return [wordsRow(item, index, size, measure)];
  const head = headRow(sheet, item, index, size, measure);
  if (item.excerpt == null) return [withStaff(head, lineAbc(sheet.instrument, item, sheet.words), size)];
  const rows = pieceRows(sheet, head, { ...item, excerpt: item.excerpt }, size, measure);
  if (sheet.isOnePiece !== true) return rows;
  // Several play from one page: whose music it is stands over it.
  if (sheet.lines.length > 1) return [namesRow(item.point, index), ...rows.slice(1)];
  return [...newNoteRows(sheet, item.excerpt, index, size, measure), ...rows.slice(1), ...codeRows(item.code, index)];
}

const namesRow = (names: string, index: number): UnplacedRow => ({
  ...{ index, described: undefined, goesOn: false, boxes: [], code: '', staves: [], height: 40 },
  texts: [{ x: paperMargin, y: 30, text: names, size: 24, weight: 800 }],
});

/** The code of a piece that has a page of its own, under its music. */
function codeRows(code: string, index: number): readonly UnplacedRow[] {
  if (code === '') return [];
  const texts = [{ x: paperMargin, y: 46, text: 'On the tablet: the code opens this tune.', size: 17, weight: 500 }];
  return [{ index, described: undefined, goesOn: true, boxes: [], code, texts, staves: [], height: qrSize + 48 }];
}

type Item = SheetOnPaper['lines'][number];
type MusicItem = Exclude<Item, { readonly kind: 'words' }>;

/** Something to do without notes, with its boxes. */
function wordsRow(item: Extract<Item, { readonly kind: 'words' }>, index: number, size: PaperSize, measure: Measure): UnplacedRow {
  const left = paperMargin + 64;
  const width = size.width - paperMargin - left;
  const texts: PlacedText[] = [numberText(index)];
  let y = 42;
  const put = (text: string, textSize: number, weight: number, step: number): void => {
    for (const each of wrapText(measure, text, { size: textSize, weight, width, most: 6 })) {
      texts.push({ x: left, y, text: each, size: textSize, weight });
      y += step;
    }
  };
  put(item.text, 25, 800, 30);
  if (item.point.trim() !== '') put(`Watch for: ${item.point}`, 17, 700, 22);
  const boxes = item.repetitions > mostBoxes ? [] : Array.from({ length: item.repetitions }, (_, box) => ({ x: left + box * boxWidth, y: y - 6 }));
  return { index, described: undefined, goesOn: false, texts, boxes, code: '', staves: [], height: y + 22 };
}

/** A piece of a tune: its rows one under the other, or for a longer piece its lines of music; then what is said of it. */
function pieceRows(
  sheet: SheetOnPaper,
  head: UnplacedRow,
  item: MusicItem & { readonly excerpt: Excerpt },
  size: PaperSize,
  measure: Measure,
): readonly UnplacedRow[] {
  const { instrument, words } = sheet;
  const { excerpt } = item;
  const width = size.width - 2 * paperMargin;
  const goesOn = { index: head.index, described: undefined, goesOn: true, boxes: [], code: '' };
  const learned = rowsOfExcerpt(instrument, excerpt).rows.filter(({ kind }) => excerpt.rows?.includes(kind) === true);
  if (item.kind === 'chunk' && learned.length > 1) {
    const lanesHeight = laneLayout(instrument, paperLanes.pitch).height + paperLanes.below;
    const rows = learned.map(({ number, kind, tune }, index): UnplacedRow => {
      // The fingers of the bare notes stand under the last row, where the count is.
      const hasLanes = index === learned.length - 1;
      const abc = lineAbc(instrument, item, words, kind);
      const staff = { abc, x: paperMargin + rowLabelWidth, width: width - rowLabelWidth, top: 30 };
      const texts = [
        { x: paperMargin, y: 48, text: String(number), size: 28, weight: 800 },
        ...wrapText(measure, rowNames[kind], { size: 15, weight: 700, width: rowLabelWidth - 44, most: 2 }).map((text, line) => ({
          ...{ x: paperMargin + 26, y: 38 + line * 17, text, size: 15, weight: 700 },
        })),
      ];
      const boxes = Array.from({ length: cleanTimes }, (_, box) => ({ x: paperMargin + box * boxWidth, y: 62 }));
      const end = 30 + staffHeight(abc);
      return { ...goesOn, texts, boxes, staves: [staff], ...(hasLanes && { lanes: { top: end, tune } }), height: end + (hasLanes ? lanesHeight : 0) };
    });
    return [head, ...rows, ...scriptRows(goesOn, excerpt, width, measure)];
  }
  const tune = wordsUnder(instrument, tuneAtRow(instrument, excerpt), words);
  const scale = sheet.tuneScale ?? 1;
  const lines = scoreLines(tune, (width / scale) * (sheet.tuneScale === undefined ? 1 : pupilDensity), undefined, true);
  const rows = lines.map(({ abc, first, end, bars }): UnplacedRow => {
    const rings = tune.notes
      .slice(first, end)
      .flatMap(({ written }, place) => (written.kind === 'note' && sheet.unknown?.has(written.note) === true ? [place] : []));
    const marks = bars.flatMap((bar): readonly (readonly [number, string])[] => {
      const name = sheet.phrases?.get(bar);
      return name === undefined ? [] : [[tune.bars[bar].first - first, name]];
    });
    const number = tune.bars[bars[0]].number;
    const texts = number > 1 ? [{ x: paperMargin, y: 9, text: String(number), size: 15, weight: 700 }] : [];
    return { ...goesOn, texts, staves: [{ abc, x: paperMargin, width, top: 24, scale, rings, marks }], height: 24 + staffHeight(abc) * scale };
  });
  return [head, ...rows, ...scriptRows(goesOn, excerpt, width, measure)];
}

/** From one lane to the next on paper, and the room under them for what cuts in. */
export const paperLanes = { pitch: 15, below: 40 } as const;
/** So often clean in a row before the next row is played. */
const cleanTimes = 4;
const rowLabelWidth = 112;

/** The same music with what stands under its notes written under it. */
function wordsUnder(instrument: Instrument, tune: Tune, words: LineWords | undefined): Tune {
  if (words === undefined || words.kind === 'none' || words.kind === 'words') return tune;
  const own = underTune(instrument, tune, words);
  const events = tune.voice.events.map((event, index) => {
    // Letters stand over the words of the tune.
    const rows = [...own[index].map((text) => ({ text, joins: false, holds: false })), ...(own[index].length > 0 ? event.lyrics : [])];
    return { ...event, lyrics: rows };
  });
  return { ...tune, voice: { ...tune.voice, events } };
}

/** A strip for each note that is new: its change from the note before it in the tune, and what the fingers do. */
function newNoteRows(sheet: SheetOnPaper, excerpt: Excerpt, index: number, size: PaperSize, measure: Measure): readonly UnplacedRow[] {
  const { instrument, unknown } = sheet;
  if (unknown === undefined || unknown.size === 0) return [];
  const { notes } = tuneAtRow(instrument, excerpt);
  return [...unknown].slice(0, mostStrips).flatMap((note): UnplacedRow[] => {
    const place = notes.findIndex(({ written }) => written.kind === 'note' && written.note === note);
    const before = notes.slice(0, Math.max(0, place)).findLast(({ written }) => written.kind === 'note' && written.note !== note);
    const after = notes.slice(place + 1).find(({ written }) => written.kind === 'note' && written.note !== note);
    const other = (before ?? after)?.written;
    if (place === -1 || other?.kind !== 'note') return [];
    const line = { home: other.note, other: note };
    const described = describedLine(instrument, line);
    const texts: PlacedText[] = [{ x: textLeft, y: 46, text: `New: ${noteOf(instrument, note).schoolName}`, size: 30, weight: 800 }];
    const sentences = changeSentences(instrument, changeBetween(instrument, other.note, note)).join(' ');
    wrapText(measure, `From ${noteOf(instrument, other.note).schoolName}: ${sentences}`, {
      size: 18,
      weight: 500,
      width: size.width - paperMargin - textLeft,
      most: 4,
    }).forEach((text, line_) => texts.push({ x: textLeft, y: 78 + line_ * 24, text, size: 18, weight: 500 }));
    return [{ index, described, goesOn: false, texts, boxes: [], code: '', staves: [], height: figureTop + figureSize.height + 20 }];
  });
}

/** More new notes than that are for another tune. */
const mostStrips = 2;
/** A pupil's page has so many more notes in a line than a screen: nothing stands beside them. */
const pupilDensity = 1.8;

/** What is said of a piece, two paragraphs beside each other in a row, so that it can go on over the page. */
function scriptRows(
  goesOn: Omit<UnplacedRow, 'texts' | 'staves' | 'height'>,
  { script = '' }: Excerpt,
  width: number,
  measure: Measure,
): readonly UnplacedRow[] {
  const paragraphs = script.split('\n').filter((paragraph) => paragraph.trim() !== '');
  const column = (width - columnGap) / 2;
  const blocks = paragraphs.map((paragraph) => {
    // What stands before the first colon is what it is about.
    const [, title = '', text = paragraph] = /^([^:]{1,60}):\s*(.*)$/.exec(paragraph) ?? [];
    return { title, lines: wrapText(measure, text, { size: 15.5, weight: 500, width: column, most: 14 }) };
  });
  return Array.from({ length: Math.ceil(blocks.length / 2) }, (_, row): UnplacedRow => {
    const pair = blocks.slice(2 * row, 2 * row + 2);
    const texts = pair.flatMap(({ title, lines }, side) => {
      const x = paperMargin + side * (column + columnGap);
      const head = title === '' ? [] : [{ x, y: 20, text: title, size: 18, weight: 800 }];
      return [...head, ...lines.map((text, index) => ({ x, y: (title === '' ? 18 : 40) + index * 19, text, size: 15.5, weight: 500 }))];
    });
    const most = Math.max(...pair.map(({ title, lines }) => (title === '' ? 0 : 22) + lines.length * 19));
    return { ...goesOn, texts, staves: [], height: most + 14 };
  });
}

const columnGap = 34;

/** What a line is, its count and its pace, beside its figure; its music goes below. */
function headRow(sheet: SheetOnPaper, line: MusicItem, index: number, size: PaperSize, measure: Measure): UnplacedRow {
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
    ...{ goesOn: false, code: line.code, staves: [], height: Math.max(figureEnd + 10, y + 26) },
  };
}
