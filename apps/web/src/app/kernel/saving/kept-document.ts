import { computed, effect, inject, Injectable, type OnDestroy, type Signal, signal, untracked } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { ApiFault, messageOf } from '../api/api.service';
import { SessionService } from '../session/session.service';
import { sendSave, type DocumentKind } from './document-kind';
import { documentName, holdDocument } from './document-locks';
import { edited, pauseMs, redone, startHistory, undone, type History } from './history';
import { isPending, nextSaving, resumeSaving, startSaving, type Saving, type SavingEffect, type SavingEvent, type Step } from './saving';
import { failureOf } from './saving-failure';
import { WorkStore, type KeptWork } from './work-store.service';

/** Where a document stands: as the machine says, and `opening` before there is one. */
export type SaveState = 'opening' | Saving<unknown, unknown>['kind'];

/** Two versions of a document that somebody has to choose from. */
export interface Conflict<D, S> {
  /** As both knew it. */
  readonly base: D;
  readonly mine: D;
  readonly theirs: D;
  readonly stored: S;
}

/** "14:02", of an ISO moment. */
export const timeOfDay = (moment: string): string => new Date(moment).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

const labels: Readonly<Partial<Record<SaveState, string>>> = {
  waiting: 'Saving …',
  saving: 'Saving …',
  away: 'Waiting for the server; kept in this browser',
  'signed-out': 'Signed out; kept in this browser',
  conflict: 'Changed somewhere else',
  refused: 'Not saved yet; kept in this browser',
};

/**
 * One document under the hand: every edit saves itself, can be undone also after a reload, and is kept in this browser until the server has it.
 * `saving.ts` decides what happens; this does it. Belongs to a page.
 */
@Injectable()
export abstract class KeptDocument<D, S> implements OnDestroy {
  protected abstract readonly kind: DocumentKind<D, S>;
  private readonly store = inject(WorkStore);
  private readonly workOwner = inject(SessionService).workOwner;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private id = '';
  /** Whose work it is: it stays theirs after the session has ended. */
  private owner = '';
  private release = (): void => undefined;
  private isClosed = false;
  /** Requests of this document that are not answered yet. */
  private underway = 0;
  private lastEdit = { field: '', at: 0 };
  private readonly history = signal<History<D> | undefined>(undefined);
  private readonly saving = signal<Saving<D, S> | undefined>(undefined);
  /** Why it could not be opened. */
  private readonly openingFault = signal<string | undefined>(undefined);

  readonly stored = computed(() => this.saving()?.stored);
  readonly state = computed((): SaveState => (this.openingFault() === undefined ? (this.saving()?.kind ?? 'opening') : 'missing'));
  /** What went wrong, as a sentence. */
  readonly message = computed(() => {
    const saving = this.saving();
    return this.openingFault() ?? (saving !== undefined && 'message' in saving ? saving.message : '');
  });
  readonly conflict = computed((): Conflict<D, S> | undefined => {
    const saving = this.saving();
    if (saving?.kind !== 'conflict' || saving.theirs === undefined) return undefined;
    return { base: saving.base.draft, mine: saving.draft, theirs: this.kind.draftOf(saving.theirs), stored: saving.theirs };
  });

  readonly draft = computed(() => this.saving()?.draft);
  readonly undoes = computed(() => this.history()?.past.at(-1)?.label);
  readonly redoes = computed(() => this.history()?.future[0]?.label);

  readonly stateLabel = computed(() => {
    const [state, stored] = [this.state(), this.stored()];
    if (state !== 'saved' && state !== 'untouched') return labels[state] ?? '';
    const at = stored === undefined ? undefined : this.kind.savedAt(stored);
    return at === undefined ? 'Saved' : `Saved ${timeOfDay(at)}`;
  });

  private readonly onOnline = (): void => {
    if (this.state() === 'away') this.dispatch({ kind: 'due' });
  };

  constructor() {
    window.addEventListener('online', this.onOnline);
  }

  ngOnDestroy(): void {
    window.removeEventListener('online', this.onOnline);
    this.sendNow();
    this.isClosed = true;
    this.letGo();
  }

  /** A page that is gone lets its document go as soon as nothing that it asked for is on its way; what stays unsaved then is looked after elsewhere. */
  private letGo(): void {
    if (this.isClosed && this.underway === 0) this.release();
  }

  /** Opens the document that the page's address names, now and whenever it names another. Belongs into a constructor. */
  follow(id: Signal<string>): void {
    effect(() => {
      const named = id();
      untracked(() => void this.open(named));
    });
  }

  /** Fetches the document and puts on it what this browser kept. */
  async open(id: string): Promise<void> {
    this.sendNow();
    this.id = id;
    this.owner = this.workOwner() ?? this.owner;
    this.saving.set(undefined);
    this.history.set(undefined);
    this.openingFault.set(undefined);
    this.release();
    this.release = (): void => undefined;
    const release = await holdDocument(documentName(this.owner, this.kind.kind, id));
    if (this.id !== id || this.isClosed) return release();
    this.release = release;
    const [kept, loaded] = await Promise.all([this.store.find(this.owner, this.kind.kind, id) as Promise<KeptWork<D, S> | undefined>, this.load(id)]);
    if (this.id !== id) return;
    if ('stored' in loaded) this.begin(loaded.stored, kept);
    else if (kept !== undefined && loaded.error instanceof ApiFault && loaded.error.isAway) this.resume(kept, undefined, loaded.error.message);
    else this.openingFault.set(messageOf(loaded.error));
  }

  private load(id: string): Promise<{ readonly stored: S } | { readonly error: unknown }> {
    return firstValueFrom(this.kind.load(id)).then(
      (stored) => ({ stored }),
      (error: unknown) => ({ error }),
    );
  }

  edit(change: (draft: D) => D, label: string, field = ''): void {
    const history = this.history();
    if (history === undefined) return;
    const at = Date.now();
    const joins = field !== '' && field === this.lastEdit.field && at - this.lastEdit.at < pauseMs;
    this.lastEdit = { field, at };
    this.goTo(edited(history, change(history.present), label, joins));
  }

  undo(): void {
    this.step(undone);
  }

  redo(): void {
    this.step(redone);
  }

  /** After a conflict: this is what holds. */
  resolve(draft: D, label = 'the choice between two versions'): void {
    const history = this.history();
    if (this.conflict() === undefined || history === undefined) return;
    this.history.set(edited(history, draft, label, false));
    this.dispatch({ kind: 'resolved', draft });
  }

  /** What waits for a quiet moment goes at once: the page turns to something else. */
  private sendNow(): void {
    clearTimeout(this.timer);
    if (this.state() === 'waiting' || this.state() === 'away') this.dispatch({ kind: 'due' });
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
    this.dispatch({ kind: 'edited', draft: history.present });
  }

  private begin(stored: S, kept: KeptWork<D, S> | undefined): void {
    if (kept?.isPending === true) return this.resume(kept, stored);
    const saving = startSaving(this.kind, stored);
    if (kept === undefined) this.history.set(startHistory(saving.draft));
    else {
      // The same state, or one that was made elsewhere: then one can still go back to what was here before.
      const isSame = this.kind.isSame(kept.history.present, saving.draft);
      this.history.set(isSame ? { ...kept.history, present: saving.draft } : edited(kept.history, saving.draft, 'what was changed elsewhere', false));
    }
    this.saving.set(saving);
    if (kept !== undefined) this.keep(saving);
  }

  private resume(kept: KeptWork<D, S>, stored: S | undefined, message?: string): void {
    this.history.set(kept.history);
    const left = { draft: kept.history.present, base: kept.base, stored: kept.stored, outstanding: kept.outstanding };
    this.take(resumeSaving(this.kind, left, stored, message));
  }

  private dispatch(event: SavingEvent<D, S>): void {
    const saving = this.saving();
    if (saving !== undefined) this.take(nextSaving(this.kind, saving, event, crypto.randomUUID()));
  }

  private take({ state, effects }: Step<D, S>): void {
    this.saving.set(state);
    // Written down before anything is sent, so that a lost answer leads to the same save again and not to another.
    this.keep(state);
    for (const effect of effects) this.perform(effect);
  }

  private perform(effect: SavingEffect<D>): void {
    const id = this.id;
    switch (effect.kind) {
      case 'wait':
        if (this.isClosed) return;
        clearTimeout(this.timer);
        this.timer = setTimeout(() => this.dispatch({ kind: 'due' }), effect.ms);
        return;
      case 'send':
        this.underway += 1;
        sendSave(this.kind, id, effect.save).subscribe((event) => this.hear(id, event));
        return;
      case 'look':
        this.underway += 1;
        this.kind.load(id).subscribe({
          next: (stored) => this.hear(id, { kind: 'theirs', stored }),
          error: (error: unknown) => this.hear(id, { kind: 'theirs-failed', failure: failureOf(error) }),
        });
    }
  }

  /** An answer for the document that was here before comes too late: what it says is learnt when that one is opened again. */
  private hear(id: string, event: SavingEvent<D, S>): void {
    this.underway -= 1;
    if (id === this.id) this.dispatch(event);
    this.letGo();
  }

  /** Writes down in this browser where things stand. */
  private keep(saving: Saving<D, S>): void {
    const history = this.history();
    if (history === undefined) return;
    const { base, stored, outstanding } = saving;
    const place = { person: this.owner, kind: this.kind.kind, id: this.id };
    void this.store.keep({ ...place, base, stored, history, outstanding, isPending: isPending(this.kind, saving), at: Date.now() });
  }
}
