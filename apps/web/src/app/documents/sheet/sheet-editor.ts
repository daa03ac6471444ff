import { computed, inject, Injectable } from '@angular/core';
import { sheetLimits, type MusicItemInput, type Review, type SheetDetail, type WordsItemInput } from '@zelpit/contract';
import { count } from '@zelpit/core/words';
import { KeptDocument } from '../../kernel/saving/kept-document';
import type { DraftLine } from './line-input';
import type { PlannedItem } from './planned-lines';
import { sheetKind, type SheetDraft } from './sheet-kind';
import { SheetsService } from './sheets.service';

const empty: SheetDraft = { title: '', note: '', lines: [], review: null };

/** One sheet under the hand. Belongs to a page. */
@Injectable()
export class SheetEditor extends KeptDocument<SheetDraft, SheetDetail> {
  protected readonly kind = sheetKind(inject(SheetsService));

  readonly shown = computed(() => this.draft() ?? empty);
  private readonly codes = computed(() => new Map((this.stored()?.lines ?? []).map((line) => [line.id, line.code])));

  /** The lines with their codes, as they go onto paper and into files. */
  readonly linesOut = computed(() => this.shown().lines.map((line) => ({ ...line, code: this.codeOf(line) })));

  /** Empty until the line was saved. */
  codeOf(line: DraftLine): string {
    return this.codes().get(line.id) ?? '';
  }

  setTitle(title: string): void {
    this.edit((draft) => ({ ...draft, title }), 'the title', 'title');
  }

  setNote(note: string): void {
    this.edit((draft) => ({ ...draft, note }), 'the message at the top', 'note');
  }

  editLine(id: string, change: Partial<MusicItemInput> | Partial<WordsItemInput>, text: string): void {
    const field = `${id} ${Object.keys(change).join(' ')}`;
    this.edit((draft) => ({ ...draft, lines: draft.lines.map((line) => (line.id === id ? ({ ...line, ...change } as DraftLine) : line)) }), text, field);
  }

  /** Adds lines at the end, in one step to undo, and gives them back. */
  addAll(lines: readonly PlannedItem[]): readonly DraftLine[] {
    const added = lines.map((line) => ({ ...line, id: crypto.randomUUID() }));
    this.edit((draft) => ({ ...draft, lines: [...draft.lines, ...added] }), `${count(added.length, 'line')} added`);
    return added;
  }

  takeOff(id: string): void {
    this.edit((draft) => ({ ...draft, lines: draft.lines.filter((line) => line.id !== id) }), 'a line taken off');
  }

  /** Changes what comes first, or the day; nothing where it is no review. */
  editReview(change: Partial<Review>, text: string, field = ''): void {
    this.edit((draft) => (draft.review == null ? draft : { ...draft, review: { ...draft.review, ...change } }), text, field);
  }

  /** Takes an item off a review and keeps it beside, with the reason. */
  strikeOut(id: string, reason: string): void {
    this.edit((draft) => {
      const item = draft.lines.find((line) => line.id === id);
      if (item === undefined || draft.review == null) return draft;
      const struck = [...draft.review.struck, { item, reason }].slice(-sheetLimits.lines);
      return { ...draft, lines: draft.lines.filter((line) => line.id !== id), review: { ...draft.review, struck } };
    }, 'an item struck out');
  }

  /** Puts what was struck out back at its end. */
  bringBack(place: number): void {
    this.edit((draft) => {
      const found = draft.review?.struck.at(place);
      if (found === undefined || draft.review == null) return draft;
      const item = { ...found.item, id: found.item.id ?? crypto.randomUUID() } as DraftLine;
      return { ...draft, lines: [...draft.lines, item], review: { ...draft.review, struck: draft.review.struck.filter((each) => each !== found) } };
    }, 'an item brought back');
  }

  move(from: number, to: number): void {
    if (to < 0 || to >= this.shown().lines.length || from === to) return;
    this.edit((draft) => {
      const lines = [...draft.lines];
      lines.splice(to, 0, ...lines.splice(from, 1));
      return { ...draft, lines };
    }, 'the order of the lines');
  }
}
