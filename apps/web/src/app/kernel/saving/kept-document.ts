import { computed, inject, Injectable, signal, type OnDestroy } from '@angular/core';
import { firstValueFrom, type Observable } from 'rxjs';
import { ApiFault, messageOf } from '../api/api.service';
import { SessionService } from '../session/session.service';
import { edited, pauseMs, redone, startHistory, undone, type History } from './history';
import { WorkStore, type KeptWork, type KindOfWork, type Outstanding } from './work-store.service';

/** What a save came to; a draft may be refused for what stands in it. */
export type SaveResult<S> = { readonly kind: 'saved'; readonly stored: S } | { readonly kind: 'refused'; readonly said: string };

/** How one kind of document is fetched, saved and compared. `D` is what a person edits, `S` what the server keeps. */
export interface DocumentKind<D, S> {
  readonly kind: KindOfWork;
  readonly load: (id: string) => Observable<S>;
  /** One try; the key makes the same save known again. */
  readonly save: (id: string, draft: D, version: number, key: string) => Observable<SaveResult<S>>;
  readonly draftOf: (stored: S) => D;
  readonly versionOf: (stored: S) => number;
  readonly nameOf: (stored: S) => string;
  /** When it was saved last, as an ISO moment; undefined where that is not known. */
  readonly savedAt: (stored: S) => string | undefined;
  readonly isSame: (one: D, other: D) => boolean;
}

/**
 * `waiting`: the server is away and the work waits in this browser. `refused`: the server does not take it as it is; what
 * is wrong stands in `said`. `signed-out`: the work waits until somebody signs in again.
 */
export type SaveState = 'opening' | 'saved' | 'unsaved' | 'saving' | 'waiting' | 'conflict' | 'refused' | 'signed-out' | 'missing';

export interface Conflict<D, S> {
  /** As both knew it. */
  readonly base: D;
  readonly mine: D;
  readonly theirs: D;
  readonly stored: S;
}

/** "14:02", of an ISO moment. */
export const timeOfDay = (moment: string): string => new Date(moment).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

const quietMs = 500;
const retryMs = 4000;

/**
 * One document under the hand: every edit saves itself, can be undone also after a reload, and is kept in this browser
 * until the server has it. Belongs to a page.
 */
@Injectable()
export abstract class KeptDocument<D, S> implements OnDestroy {
  protected abstract readonly kind: DocumentKind<D, S>;
  private readonly store = inject(WorkStore);
  private readonly person = inject(SessionService).person;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private base: { readonly version: number; readonly draft: D } | undefined;
  private outstanding: Outstanding<D> | null = null;
  private isUnderway = false;
  private id = '';
  /** Whose work it is: it stays theirs after the session has ended. */
  private owner = '';
  private lastEdit = { field: '', at: 0 };
  private readonly history = signal<History<D> | undefined>(undefined);

  readonly stored = signal<S | undefined>(undefined);
  readonly state = signal<SaveState>('opening');
  /** What went wrong, as a sentence. */
  readonly said = signal('');
  readonly conflict = signal<Conflict<D, S> | undefined>(undefined);
  private readonly savedAt = signal('');

  readonly draft = computed(() => this.history()?.present);
  readonly undoes = computed(() => this.history()?.past.at(-1)?.said);
  readonly redoes = computed(() => this.history()?.future[0]?.said);

  readonly stateSaid = computed(() => {
    switch (this.state()) {
      case 'saved':
        return this.savedAt() === '' ? 'Saved' : `Saved ${this.savedAt()}`;
      case 'unsaved':
      case 'saving':
        return 'Saving …';
      case 'waiting':
        return 'Waiting for the server; kept in this browser';
      case 'signed-out':
        return 'Signed out; kept in this browser';
      case 'conflict':
        return 'Changed elsewhere';
      case 'refused':
        return 'Not saved yet; kept in this browser';
      default:
        return '';
    }
  });

  private readonly onOnline = (): void => {
    if (this.state() === 'waiting') this.send();
  };

  constructor() {
    window.addEventListener('online', this.onOnline);
  }

  ngOnDestroy(): void {
    window.removeEventListener('online', this.onOnline);
    clearTimeout(this.timer);
    if (this.state() === 'unsaved' || this.state() === 'waiting') this.send();
  }

  /** Fetches the document and puts on it what this browser kept. */
  async open(id: string): Promise<void> {
    clearTimeout(this.timer);
    this.id = id;
    this.owner = this.person()?.id ?? this.owner;
    this.state.set('opening');
    this.conflict.set(undefined);
    const [kept, loaded] = await Promise.all([
      this.store.find(this.owner, this.kind.kind, id) as Promise<KeptWork<D, S> | undefined>,
      firstValueFrom(this.kind.load(id)).then(
        (stored) => ({ stored }),
        (error: unknown) => ({ error }),
      ),
    ]);
    if (this.id !== id) return;
    if ('stored' in loaded) this.take(loaded.stored, kept);
    else if (kept !== undefined && loaded.error instanceof ApiFault && loaded.error.isAway) this.takeKept(kept, loaded.error);
    else this.failOpening(loaded.error);
  }

  edit(change: (draft: D) => D, said: string, field = ''): void {
    const history = this.history();
    if (history === undefined) return;
    const at = Date.now();
    const joins = field !== '' && field === this.lastEdit.field && at - this.lastEdit.at < pauseMs;
    this.lastEdit = { field, at };
    this.goTo(edited(history, change(history.present), said, joins));
  }

  undo(): void {
    this.step(undone);
  }

  redo(): void {
    this.step(redone);
  }

  /** After a conflict: this is what holds. */
  resolve(draft: D, said = 'the choice between two versions'): void {
    const [conflict, history] = [this.conflict(), this.history()];
    if (conflict === undefined || history === undefined) return;
    this.base = { version: this.kind.versionOf(conflict.stored), draft: conflict.theirs };
    this.stored.set(conflict.stored);
    this.conflict.set(undefined);
    this.state.set('unsaved');
    this.goTo(edited(history, draft, said, false));
  }

  private step(to: (history: History<D>) => History<D>): void {
    const history = this.history();
    if (history === undefined) return;
    this.lastEdit = { field: '', at: 0 };
    const moved = to(history);
    if (moved.present !== history.present) this.goTo(moved);
  }

  private goTo(history: History<D>): void {
    this.history.set(history);
    this.keep();
    if (this.state() === 'conflict' || this.state() === 'missing') return;
    this.state.set('unsaved');
    this.sendIn(quietMs);
  }

  private take(stored: S, kept: KeptWork<D, S> | undefined): void {
    const draft = this.kind.draftOf(stored);
    const version = this.kind.versionOf(stored);
    this.stored.set(stored);
    this.said.set('');
    if (kept === undefined) {
      this.outstanding = null;
      this.base = { version, draft };
      this.history.set(startHistory(draft));
      this.showSaved(stored);
      return;
    }
    this.base = kept.base;
    this.outstanding = kept.outstanding;
    this.history.set(kept.history);
    if (kept.isPending) return this.goOn(stored);
    this.outstanding = null;
    this.base = { version, draft };
    // The same state, or one that was made elsewhere: then one can still go back to what was here before.
    const isSame = this.kind.isSame(kept.history.present, draft);
    this.history.set(isSame ? { ...kept.history, present: draft } : edited(kept.history, draft, 'what was changed elsewhere', false));
    this.showSaved(stored);
    if (!isSame) this.keep();
  }

  /** What was typed before and not saved: sent if nothing came between, else asked about. */
  private goOn(stored: S): void {
    if (this.outstanding === null && this.base?.version !== this.kind.versionOf(stored)) this.clash(stored);
    else {
      this.state.set('unsaved');
      this.send();
    }
  }

  private takeKept(kept: KeptWork<D, S>, fault: ApiFault): void {
    this.stored.set(kept.stored);
    this.base = kept.base;
    this.outstanding = kept.outstanding;
    this.history.set(kept.history);
    this.said.set(fault.message);
    this.state.set('waiting');
    this.sendIn(retryMs);
  }

  private failOpening(error: unknown): void {
    this.said.set(messageOf(error));
    this.state.set('missing');
  }

  private clash(stored: S): void {
    const [base, draft] = [this.base, this.draft()];
    if (base === undefined || draft === undefined) return;
    this.conflict.set({ base: base.draft, mine: draft, theirs: this.kind.draftOf(stored), stored });
    this.state.set('conflict');
  }

  private showSaved(stored: S): void {
    const at = this.kind.savedAt(stored) ?? '';
    this.savedAt.set(at === '' ? '' : timeOfDay(at));
    this.said.set('');
    this.state.set('saved');
  }

  private sendIn(delayMs: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.send(), delayMs);
  }

  /** One save at a time, each until it is answered; edits made meanwhile go with the next. */
  private send(): void {
    const [base, draft] = [this.base, this.draft()];
    if (base === undefined || draft === undefined || this.isUnderway) return;
    if (this.outstanding === null) {
      if (this.kind.isSame(draft, base.draft)) return this.rest();
      this.outstanding = { key: crypto.randomUUID(), version: base.version, draft };
      this.keep();
    }
    const { key, version, draft: sent } = this.outstanding;
    this.isUnderway = true;
    this.state.set('saving');
    this.kind.save(this.id, sent, version, key).subscribe({
      next: (result) => {
        this.isUnderway = false;
        this.outstanding = null;
        if (result.kind === 'refused') this.refuse(result.said);
        else this.arrive(result.stored, sent);
      },
      error: (error: unknown) => {
        this.isUnderway = false;
        this.fail(error);
      },
    });
  }

  /** Nothing differs from what the server has. */
  private rest(): void {
    const stored = this.stored();
    this.keep();
    if (stored !== undefined) this.showSaved(stored);
  }

  private arrive(stored: S, sent: D): void {
    this.base = { version: this.kind.versionOf(stored), draft: sent };
    this.stored.set(stored);
    const draft = this.draft();
    this.keep();
    if (draft === undefined || this.kind.isSame(draft, sent)) this.showSaved(stored);
    else this.send();
  }

  private refuse(said: string): void {
    this.said.set(said);
    this.keep();
    // Typed on meanwhile: the next try may be taken.
    if (this.state() === 'unsaved') this.sendIn(quietMs);
    else this.state.set('refused');
  }

  private fail(error: unknown): void {
    const fault = error instanceof ApiFault ? error : new ApiFault(-1, messageOf(error));
    if (fault.status !== 404 && fault.status !== 409) this.said.set(fault.message);
    if (fault.isAway || fault.status === 429 || fault.status >= 500) {
      this.state.set('waiting');
      this.sendIn(retryMs);
    } else if (fault.status === 401) this.state.set('signed-out');
    else {
      this.outstanding = null;
      if (fault.status === 409) this.lookAtTheirs();
      else if (fault.status === 404) this.failOpening(fault);
      else this.refuse(fault.message);
    }
  }

  private lookAtTheirs(): void {
    this.kind.load(this.id).subscribe({ next: (stored) => this.clash(stored), error: (error: unknown) => this.fail(error) });
  }

  /** Writes down in this browser where things stand. */
  private keep(): void {
    const [base, stored, history] = [this.base, this.stored(), this.history()];
    if (base === undefined || stored === undefined || history === undefined) return;
    const isPending = this.outstanding !== null || !this.kind.isSame(history.present, base.draft);
    const place = { person: this.owner, kind: this.kind.kind, id: this.id };
    void this.store.keep({ ...place, base, stored, history, outstanding: this.outstanding, isPending, at: Date.now() });
  }
}
