import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import type { SheetDetail, SheetLine, SheetLineInput } from '@zelpit/contract';
import { ApiFault, saidBy } from '../api/api.service';
import { SheetsService } from './sheets.service';

/** A line as it is edited; `key` stays while `id` and `code` come with the first save. */
export interface DraftLine extends SheetLineInput {
  readonly key: string;
  readonly code: string;
}

export interface Draft {
  readonly title: string;
  readonly note: string;
  readonly lines: readonly DraftLine[];
}

/** `refused`: the server does not take it as it is; what is wrong stands in `said`. */
export type SaveState = 'opening' | 'saved' | 'unsaved' | 'saving' | 'waiting' | 'conflict' | 'refused' | 'missing';

const quietMs = 500;
const retryMs = 4000;

/** One sheet under the hand: every edit saves itself. Belongs to a page. */
@Injectable()
export class SheetEditor implements OnDestroy {
  private readonly sheets = inject(SheetsService);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private version = 0;
  private nextKey = 1;
  /** Grows with every edit, so that a save knows whether it holds the latest. */
  private edits = 0;
  private isUnderway = false;

  readonly sheet = signal<SheetDetail | undefined>(undefined);
  readonly draft = signal<Draft>({ title: '', note: '', lines: [] });
  readonly state = signal<SaveState>('opening');
  /** What went wrong, as a sentence. */
  readonly said = signal('');
  private readonly savedAt = signal('');

  readonly stateSaid = computed(() => {
    switch (this.state()) {
      case 'saved':
        return `Saved ${this.savedAt()}`;
      case 'unsaved':
      case 'saving':
        return 'Saving …';
      case 'waiting':
        return 'Not saved: waiting for the server';
      case 'conflict':
        return 'Changed elsewhere';
      case 'refused':
        return 'Not saved';
      default:
        return '';
    }
  });

  ngOnDestroy(): void {
    clearTimeout(this.timer);
    if (this.state() === 'unsaved' || this.state() === 'waiting') this.send();
  }

  open(id: string): void {
    this.state.set('opening');
    this.sheets.get(id).subscribe({
      next: (sheet) => this.take(sheet),
      error: (error: unknown) => {
        this.said.set(saidBy(error));
        this.state.set('missing');
      },
    });
  }

  edit(change: (draft: Draft) => Draft): void {
    this.draft.update(change);
    this.edits += 1;
    if (this.state() === 'conflict') return;
    this.state.set('unsaved');
    this.sendIn(quietMs);
  }

  editLine(key: string, change: Partial<SheetLineInput>): void {
    this.edit((draft) => ({ ...draft, lines: draft.lines.map((line) => (line.key === key ? { ...line, ...change } : line)) }));
  }

  newLine(line: Omit<SheetLineInput, 'id'>): DraftLine {
    return { ...line, key: this.freshKey(), code: '' };
  }

  move(from: number, to: number): void {
    if (to < 0 || to >= this.draft().lines.length || from === to) return;
    this.edit((draft) => {
      const lines = [...draft.lines];
      lines.splice(to, 0, ...lines.splice(from, 1));
      return { ...draft, lines };
    });
  }

  /** After a conflict: what stands here goes over what is there. */
  keepMine(): void {
    const id = this.sheet()?.id;
    if (id === undefined) return;
    this.sheets.get(id).subscribe({
      next: ({ version }) => {
        this.version = version;
        this.state.set('unsaved');
        this.send();
      },
      error: (error: unknown) => this.said.set(saidBy(error)),
    });
  }

  /** After a conflict: what stands here is given up. */
  takeTheirs(): void {
    const id = this.sheet()?.id;
    if (id !== undefined) this.open(id);
  }

  private take(sheet: SheetDetail): void {
    this.sheet.set(sheet);
    this.version = sheet.version;
    this.draft.set({ title: sheet.title, note: sheet.note, lines: sheet.lines.map((line) => this.draftOf(line)) });
    this.showSaved(sheet);
  }

  private draftOf(line: SheetLine): DraftLine {
    return { ...line, key: this.freshKey() };
  }

  private freshKey(): string {
    return `line-${this.nextKey++}`;
  }

  private showSaved(sheet: SheetDetail): void {
    this.savedAt.set(new Date(sheet.updatedAt).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }));
    this.said.set('');
    this.state.set('saved');
  }

  private sendIn(delayMs: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.send(), delayMs);
  }

  /** One save at a time; edits made meanwhile go with the next. */
  private send(): void {
    const id = this.sheet()?.id;
    if (id === undefined || this.isUnderway) return;
    const { title, note, lines } = this.draft();
    const sent = this.edits;
    this.isUnderway = true;
    this.state.set('saving');
    const input = lines.map(({ id: lineId, home, other, repetitions, tempo, point }) => ({ id: lineId, home, other, repetitions, tempo, point }));
    this.sheets.save(id, { title, note, version: this.version, lines: input }).subscribe({
      next: (sheet) => {
        this.isUnderway = false;
        this.sheet.set(sheet);
        this.version = sheet.version;
        this.learnCodes(lines, sheet.lines);
        if (sent === this.edits) this.showSaved(sheet);
        else this.send();
      },
      error: (error: unknown) => {
        this.isUnderway = false;
        this.failed(error);
      },
    });
  }

  /** Lines that were new have ids and codes now. */
  private learnCodes(sent: readonly DraftLine[], saved: readonly SheetLine[]): void {
    const known = new Map(sent.map((line, index) => [line.key, saved[index]]));
    this.draft.update((draft) => ({
      ...draft,
      lines: draft.lines.map((line) => {
        const stored = known.get(line.key);
        return stored === undefined ? line : { ...line, id: stored.id, code: stored.code };
      }),
    }));
  }

  private failed(error: unknown): void {
    const status = error instanceof ApiFault ? error.status : -1;
    this.said.set(saidBy(error));
    if (status === 409) this.state.set('conflict');
    else if (status === 0 || status >= 500) {
      this.state.set('waiting');
      this.sendIn(retryMs);
    } else this.state.set('refused');
  }
}
