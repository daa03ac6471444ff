import { Injectable } from '@angular/core';
import { createStore, del, delMany, entries, get, set, type UseStore } from 'idb-keyval';
import type { History } from './history';

/** The name of a kind of document: "sheet". */
export type KindOfWork = string;

/** What this browser keeps of a document: where one was, what is not saved, and the way back. */
export interface KeptWork<D = unknown, S = unknown> {
  readonly person: string;
  readonly kind: KindOfWork;
  readonly id: string;
  /** As the server had it when it was last heard of. */
  readonly base: Base<D>;
  readonly stored: S;
  readonly history: History<D>;
  /** A save that was sent and not answered: it is sent again as it was, with its own key. */
  readonly outstanding: Outstanding<D> | null;
  /** True where something is not saved. */
  readonly isPending: boolean;
  /** In ms since 1970. */
  readonly at: number;
}

/** A version that the server had. */
export interface Base<D> {
  readonly version: number;
  readonly draft: D;
}

/** A save that was sent. */
export interface Outstanding<D> {
  readonly key: string;
  readonly version: number;
  readonly draft: D;
}

/** A kept work with where it lies. */
export interface FoundWork {
  readonly place: string;
  readonly work: KeptWork;
}

const windowKey = 'zelpit.window';
const leavingKey = 'zelpit.leaving|';
const longestLeaving = 20;
const keptMs = 30 * 24 * 3600 * 1000;

/**
 * Work kept in the browser, in IndexedDB. Each window writes in its own place, so that two windows on one document never
 * overwrite each other; what a closed window has left is taken over.
 */
@Injectable({ providedIn: 'root' })
export class WorkStore {
  private readonly store: UseStore | undefined = typeof indexedDB === 'undefined' ? undefined : createStore('zelpit', 'work');
  private readonly memory = new Map<string, KeptWork>();
  private readonly window = this.nameWindow();
  /** What IndexedDB has not confirmed yet. */
  private readonly unconfirmed = new Map<string, KeptWork>();
  private readonly ready = this.takeLeavings();

  constructor() {
    window.addEventListener('pagehide', () => this.leave());
  }

  async find(person: string, kind: KindOfWork, id: string): Promise<KeptWork | undefined> {
    await this.ready;
    const place = await this.placeOf(person, kind, id);
    const own = await this.read(place);
    if (own !== undefined) return withLabels(own);
    const left = (await this.abandoned(person)).filter(({ work }) => work.kind === kind && work.id === id);
    const latest = left.sort((one, other) => Number(other.work.isPending) - Number(one.work.isPending) || other.work.at - one.work.at)[0];
    if (latest === undefined) return undefined;
    await this.write(place, latest.work);
    await this.drop(latest.place);
    return withLabels(latest.work);
  }

  async keep(work: KeptWork): Promise<void> {
    await this.write(await this.placeOf(work.person, work.kind, work.id), work);
  }

  /** Writes a found work back where it lies. */
  replace({ place, work }: FoundWork): Promise<void> {
    return this.write(place, work);
  }

  /** Unsaved work of this person that no open window looks after. */
  async pending(person: string): Promise<FoundWork[]> {
    return (await this.abandoned(person, true)).filter(({ work }) => work.isPending);
  }

  async drop(place: string): Promise<void> {
    this.memory.delete(place);
    if (this.store !== undefined) await del(place, this.store).catch(() => undefined);
  }

  /** Forgets what is saved anyway: at signing out, for whoever sits here next, and what is old. */
  async clearSaved(person: string, now: number, olderThanMs = 0): Promise<void> {
    const all = await this.all();
    const old = all.filter(({ work }) => work.person === person && !work.isPending && now - work.at >= olderThanMs).map(({ place }) => place);
    for (const place of old) this.memory.delete(place);
    if (this.store !== undefined) await delMany(old, this.store).catch(() => undefined);
  }

  clearOld(person: string, now: number): Promise<void> {
    return this.clearSaved(person, now, keptMs);
  }

  private async placeOf(person: string, kind: KindOfWork, id: string): Promise<string> {
    return `${await this.window}|${person}|${kind}|${id}`;
  }

  /** Kept work of windows that are closed; with `withOwn`, of this window too. */
  private async abandoned(person: string, withOwn = false): Promise<FoundWork[]> {
    const open = await openWindows();
    const own = await this.window;
    if (withOwn) open.delete(own);
    return (await this.all()).filter(({ place, work }) => work.person === person && !open.has(place.split('|')[0]));
  }

  private async all(): Promise<FoundWork[]> {
    if (this.store === undefined) return [...this.memory].map(([place, work]) => ({ place, work }));
    const found = await entries<string, KeptWork>(this.store).catch(() => []);
    return found.map(([place, work]) => ({ place, work }));
  }

  private async read(place: string): Promise<KeptWork | undefined> {
    if (this.store === undefined) return this.memory.get(place);
    return get<KeptWork>(place, this.store).catch(() => this.memory.get(place));
  }

  private async write(place: string, work: KeptWork): Promise<void> {
    if (this.store === undefined) {
      this.memory.set(place, work);
      return;
    }
    this.unconfirmed.set(place, work);
    try {
      await set(place, work, this.store);
    } catch {
      this.memory.set(place, work);
    }
    if (this.unconfirmed.get(place) === work) this.unconfirmed.delete(place);
  }

  /** A page that goes has no time for IndexedDB: what that has not confirmed is written at once, without the way back and forward if that is too long. */
  private leave(): void {
    for (const [place, work] of this.unconfirmed) {
      const { past, present, future } = work.history;
      const histories = [
        { past: past.slice(-longestLeaving), present, future: future.slice(0, longestLeaving) },
        { past: [], present, future: [] },
      ];
      const isWritten = (history: KeptWork['history']): boolean => {
        try {
          localStorage.setItem(`${leavingKey}${place}`, JSON.stringify({ ...work, history }));
          return true;
        } catch {
          return false;
        }
      };
      histories.some(isWritten);
    }
  }

  /** What a page wrote as it went comes to the rest. */
  private async takeLeavings(): Promise<void> {
    for (const key of Object.keys(localStorage).filter((each) => each.startsWith(leavingKey))) {
      const work = JSON.parse(localStorage.getItem(key) ?? 'null') as KeptWork | null;
      if (work !== null) await this.write(key.slice(leavingKey.length), work);
      localStorage.removeItem(key);
    }
  }

  /** The window's name holds over a reload; a copied window takes a new one. */
  private async nameWindow(): Promise<string> {
    const before = sessionStorage.getItem(windowKey);
    if (before !== null && (await holdName(before))) return before;
    const fresh = crypto.randomUUID();
    await holdName(fresh);
    sessionStorage.setItem(windowKey, fresh);
    return fresh;
  }
}

/** Work that an earlier version kept has the labels of its steps under another name. */
function withLabels(work: KeptWork): KeptWork {
  const steps = (all: History<unknown>['past']): History<unknown>['past'] =>
    all.map((step) => ({ draft: step.draft, label: step.label ?? (step as unknown as { readonly said: string }).said }));
  const { past, present, future } = work.history;
  return { ...work, history: { past: steps(past), present, future: steps(future) } };
}

const lockOf = (window: string): string => `zelpit-window-${window}`;

const patienceMs = 3000;

/** Holds a name for as long as this window is open; false where another window holds it. The page before, on its way out, may hold it for a moment. */
function holdName(name: string): Promise<boolean> {
  const { locks } = navigator as { locks?: LockManager };
  if (locks === undefined) return Promise.resolve(true);
  return new Promise((resolve) => {
    const held = (): Promise<never> => {
      resolve(true);
      return new Promise(() => undefined);
    };
    locks.request(lockOf(name), { signal: AbortSignal.timeout(patienceMs) }, held).catch(() => resolve(false));
  });
}

/** Runs a piece of work in one window only; in the others nothing happens. */
export async function inOneWindow(name: string, run: () => Promise<void>): Promise<void> {
  const { locks } = navigator as { locks?: LockManager };
  if (locks === undefined) return run();
  await locks.request(`zelpit-${name}`, { ifAvailable: true }, (lock) => (lock === null ? undefined : run()));
}

async function openWindows(): Promise<Set<string>> {
  const { locks } = navigator as { locks?: LockManager };
  const held = locks === undefined ? [] : ((await locks.query()).held ?? []);
  return new Set(held.flatMap(({ name }) => (name?.startsWith('zelpit-window-') === true ? [name.slice('zelpit-window-'.length)] : [])));
}
