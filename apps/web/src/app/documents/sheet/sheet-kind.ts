import type { Review, SheetDetail } from '@zelpit/contract';
import { map } from 'rxjs';
import type { DocumentKind } from '../../kernel/saving/document-kind';
import { lineInput, type DraftLine } from './line-input';
import type { SheetsService } from './sheets.service';

export interface SheetDraft {
  readonly title: string;
  readonly note: string;
  readonly lines: readonly DraftLine[];
  /** What makes it a review; null for a sheet that is none, absent in work that was kept before there were reviews. */
  readonly review?: Review | null;
}

export function isSameLine(one: DraftLine, other: DraftLine): boolean {
  return JSON.stringify(lineInput(one)) === JSON.stringify(lineInput(other));
}

export const isSameReview = (one: Review | null | undefined, other: Review | null | undefined): boolean =>
  JSON.stringify(one ?? null) === JSON.stringify(other ?? null);

/** How sheets are fetched, saved and compared. */
export function sheetKind(sheets: SheetsService): DocumentKind<SheetDraft, SheetDetail> {
  return {
    kind: 'sheet',
    load: (id) => sheets.get(id),
    save: (id, { title, note, lines, review }, version, key) =>
      sheets
        .save(id, { title, note, version, lines: lines.map(lineInput), ...(review != null && { review }) }, { key, triesAgain: false })
        .pipe(map((stored) => ({ kind: 'saved', stored }) as const)),
    draftOf: ({ title, note, lines, review }) => ({ title, note, lines: lines.map(lineInput), review }),
    versionOf: ({ version }) => version,
    nameOf: ({ title }) => title,
    savedAt: ({ updatedAt }) => updatedAt,
    isSame: (one, other) =>
      one === other ||
      (one.title === other.title &&
        one.note === other.note &&
        isSameReview(one.review, other.review) &&
        one.lines.length === other.lines.length &&
        one.lines.every((line, index) => isSameLine(line, other.lines[index]))),
  };
}
