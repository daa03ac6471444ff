import type { SheetDetail } from '@zelpit/contract';
import { map } from 'rxjs';
import type { DocumentKind } from '../../kernel/saving/document-kind';
import { lineInput, type DraftLine } from './line-input';
import type { SheetsService } from './sheets.service';

export interface SheetDraft {
  readonly title: string;
  readonly note: string;
  readonly lines: readonly DraftLine[];
}

export function isSameLine(one: DraftLine, other: DraftLine): boolean {
  return JSON.stringify(lineInput(one)) === JSON.stringify(lineInput(other));
}

/** How sheets are fetched, saved and compared. */
export function sheetKind(sheets: SheetsService): DocumentKind<SheetDraft, SheetDetail> {
  return {
    kind: 'sheet',
    load: (id) => sheets.get(id),
    save: (id, { title, note, lines }, version, key) =>
      sheets
        .save(id, { title, note, version, lines: lines.map(lineInput) }, { key, triesAgain: false })
        .pipe(map((stored) => ({ kind: 'saved', stored }) as const)),
    draftOf: ({ title, note, lines }) => ({ title, note, lines: lines.map(lineInput) }),
    versionOf: ({ version }) => version,
    nameOf: ({ title }) => title,
    savedAt: ({ updatedAt }) => updatedAt,
    isSame: (one, other) =>
      one === other ||
      (one.title === other.title &&
        one.note === other.note &&
        one.lines.length === other.lines.length &&
        one.lines.every((line, index) => isSameLine(line, other.lines[index]))),
  };
}
