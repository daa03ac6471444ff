import type { MusicItemInput, WordsItemInput } from '@zelpit/contract';
import type { LineWords } from '@zelpit/core/excerpt';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import type { DescribedLine } from '@zelpit/core/line';
import type { Tune } from '@zelpit/core/tune';
import type { PaperSize } from './paper-size';

/** What a review says on paper beside its items. */
export interface ReviewOnPaper {
  /** What comes first and a sentence about it; empty for none. */
  readonly priority: string;
  readonly sentence: string;
  /** A code that opens all of it; empty before it was sent. */
  readonly code: string;
  /** Letters of the seven days from the day after the lesson. */
  readonly days: readonly string[];
}

/** One thing to practise. */
export type SheetItem = MusicItemInput | WordsItemInput;

/** What goes onto paper of a sheet. */
export interface SheetOnPaper {
  readonly title: string;
  readonly note: string;
  /** "The Paper Lighthouse, practice chanter" */
  readonly about: string;
  readonly instrument: Instrument;
  /** What stands under the notes. */
  readonly words?: LineWords;
  readonly lines: readonly (SheetItem & { readonly code: string })[];
  /** True where the page is about one piece, which its title names: no head of its own stands over its rows. */
  readonly isOnePiece?: boolean;
  /** Notes that are new to the player: ringed, with a strip of their own at the top of the page. */
  readonly unknown?: ReadonlySet<NoteId>;
  /** Where the phrases of a whole tune begin, by the index of the bar, as they are called: "A 1", "2". */
  readonly phrases?: ReadonlyMap<number, string>;
  /** What a review says beside its items. */
  readonly review?: ReviewOnPaper;
  /** How large whole tunes are drawn, as close as on a page of their own; where nothing is said they stand as wide as on a screen. */
  readonly tuneScale?: number;
}

/** A line of text at its place; `y` is the baseline. */
export interface PlacedText {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly size: number;
  readonly weight: number;
}

/** A line of music at its place in a row. */
export interface PaperStaff {
  readonly abc: string;
  readonly x: number;
  readonly width: number;
  /** Highest line of the staff, below the row's top. */
  readonly top: number;
  /** How large it is drawn; 1 where nothing is said. */
  readonly scale?: number;
  /** Notes, by their places in it, that are ringed because they are new. */
  readonly rings?: readonly number[];
  /** What stands over notes, by their places in it. */
  readonly marks?: readonly (readonly [place: number, text: string])[];
}

/** A box to tick. */
export interface Box {
  readonly x: number;
  readonly y: number;
}

export interface PaperRow {
  readonly index: number;
  /** Top of the row on its page. */
  readonly y: number;
  /** Its change; undefined for words alone, and for what goes on from the row above. */
  readonly described: DescribedLine | undefined;
  /** True where it goes on from the row above: no rule stands over it. */
  readonly goesOn: boolean;
  readonly texts: readonly PlacedText[];
  /** Boxes to tick, one a time through; empty where there are too many. */
  readonly boxes: readonly Box[];
  /** Boxes of the days, with the letter of each; none where absent. */
  readonly days?: readonly (Box & { readonly letter: string })[];
  /** Empty for none. */
  readonly code: string;
  readonly staves: readonly PaperStaff[];
  /** Finger lanes under its staff, where they stand below the row's top, for the notes that are drawn there. */
  readonly lanes?: { readonly top: number; readonly tune: Tune };
  readonly height: number;
}

export type UnplacedRow = Omit<PaperRow, 'y'>;

export interface PaperPage {
  readonly number: number;
  readonly head: readonly PlacedText[];
  /** Rule under the head. */
  readonly headEnd: number;
  readonly rows: readonly PaperRow[];
  readonly footTop: number;
  /** A frame around what comes first. */
  readonly frame?: { readonly y: number; readonly height: number };
  /** A code for all of it, at the top right; empty for none. */
  readonly code?: string;
}

/** Smallest text on paper: 11 pt is 14.67 px; everything here is larger. */
export const paperMargin = 56;
export const qrSize = 88;
export const textLeft = 320;
export const figureTop = 12;
const staffRoom = 66;
/** A row of words under the notes needs so much more. */
const wordRoom = 21;
/** And the first of them stands so far below the staff. */
const wordsGap = 14;

/** Sizes of a line's name, the largest that its room allows. */
export const titleSizes: readonly number[] = [36, 30, 25, 21];

/** Room that a line of music needs: more where words stand under it. */
export function staffHeight(abc: string): number {
  const words = abc.split('\n').filter((text) => text.startsWith('w:')).length;
  return staffRoom + (words === 0 ? 0 : wordsGap + words * wordRoom);
}

/** A row with a line of music under it, or from another left edge and top beside its figure. */
export function withStaff(row: UnplacedRow, abc: string, size: PaperSize, { left = paperMargin, top = row.height } = {}): UnplacedRow {
  const staff = { abc, x: left, width: size.width - paperMargin - left, top };
  return { ...row, staves: [staff], height: Math.max(row.height, top + staffHeight(abc)) };
}

export const numberText = (index: number): PlacedText => ({ x: paperMargin, y: 48, text: String(index + 1), size: 46, weight: 800 });
