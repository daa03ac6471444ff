import type { Base, Outstanding } from './work-store.service';

/** What the machine has to know of a kind of document. `D` is what a person edits, `S` what the server keeps. */
export interface SavedKind<D, S> {
  readonly draftOf: (stored: S) => D;
  readonly versionOf: (stored: S) => number;
  readonly isSame: (one: D, other: D) => boolean;
}

/** What holds in every state. */
interface Held<D, S> {
  /** What stands under the hand now. */
  readonly draft: D;
  /** As the server had it when it was last heard of. */
  readonly base: Base<D>;
  readonly stored: S;
  /** A save that was sent and not answered: it is sent again as it was, with its own key, before anything else. */
  readonly outstanding: Outstanding<D> | null;
}

/**
 * Where the saving of one document stands.
 * - `untouched`: nothing was typed since it was opened · `waiting`: typed, and sent in a quiet moment · `saving`: sent, not answered ·
 *   `saved`: the server has all of it
 * - `away`: the server cannot be reached, tried again by itself · `signed-out`: waits until somebody signs in again
 * - `conflict`: changed somewhere else too, `theirs` is undefined until it was fetched · `refused`: not taken as it is · `missing`: not there any more
 */
export type Saving<D, S> = Held<D, S> &
  (
    | { readonly kind: 'untouched' | 'waiting' | 'saving' | 'saved' }
    | { readonly kind: 'away' | 'signed-out' | 'refused' | 'missing'; readonly message: string }
    | { readonly kind: 'conflict'; readonly theirs: S | undefined }
  );

export type SavingEvent<D, S> =
  | { readonly kind: 'edited'; readonly draft: D }
  /** The time to send has come, or the way to the server is free again. */
  | { readonly kind: 'due' }
  /** The save with this key was answered. */
  | { readonly kind: 'answered'; readonly key: string; readonly stored: S }
  | { readonly kind: 'refused'; readonly key: string; readonly message: string }
  /** The save with this key was not answered, or not with a success. */
  | { readonly kind: 'failed'; readonly key: string; readonly failure: Failure }
  /** What somebody else saved was fetched, or could not be. */
  | { readonly kind: 'theirs'; readonly stored: S }
  | { readonly kind: 'theirs-failed'; readonly failure: Failure }
  /** Somebody has chosen between two versions. */
  | { readonly kind: 'resolved'; readonly draft: D };

export interface Failure {
  readonly kind: 'away' | 'signed-out' | 'conflict' | 'missing' | 'refused';
  readonly message: string;
}

/** What is to be done after a step, in order. */
export type SavingEffect<D> =
  { readonly kind: 'send'; readonly save: Outstanding<D> } | { readonly kind: 'wait'; readonly ms: number } | { readonly kind: 'look' };

export interface Step<D, S> {
  readonly state: Saving<D, S>;
  readonly effects: readonly SavingEffect<D>[];
}

/** Typing is sent after so much quiet. */
export const quietMs = 500;
/** Where the server is away, it is tried again after so long. */
export const retryMs = 4000;

const wait = (ms: number): SavingEffect<never> => ({ kind: 'wait', ms });

/** True where something is not known to be saved. */
export function isPending<D, S>(kind: SavedKind<D, S>, { outstanding, draft, base }: Held<D, S>): boolean {
  return outstanding !== null || !kind.isSame(draft, base.draft);
}

/** A document as it comes from the server, with nothing typed. */
export function startSaving<D, S>(kind: SavedKind<D, S>, stored: S): Saving<D, S> {
  const draft = kind.draftOf(stored);
  return { kind: 'untouched', draft, base: { version: kind.versionOf(stored), draft }, stored, outstanding: null };
}

/**
 * A document that was left with something unsaved, and what the server has of it now; undefined where it cannot be asked.
 * What was typed goes on where nothing came between, else it is asked about.
 */
export function resumeSaving<D, S>(kind: SavedKind<D, S>, left: Held<D, S>, stored: S | undefined, message = ''): Step<D, S> {
  const held = { draft: left.draft, base: left.base, stored: stored ?? left.stored, outstanding: left.outstanding };
  if (stored === undefined) return { state: { ...held, kind: 'away', message }, effects: [wait(retryMs)] };
  const isBehind = left.outstanding === null && left.base.version !== kind.versionOf(stored);
  if (isBehind) return { state: compared(kind, held, stored), effects: [] };
  return { state: { ...held, kind: 'waiting' }, effects: [wait(0)] };
}

/**
 * One step of saving. Pure: the same state and event give the same step.
 * @param freshKey for a save that has none yet; each call brings a new one
 */
export function nextSaving<D, S>(kind: SavedKind<D, S>, state: Saving<D, S>, event: SavingEvent<D, S>, freshKey: string): Step<D, S> {
  switch (event.kind) {
    case 'edited':
      return edit(state, event.draft);
    case 'due':
      return send(kind, state, freshKey);
    case 'resolved':
      return resolve(kind, state, event.draft);
    case 'theirs':
      if (state.kind !== 'conflict') return stay(state);
      return stay(compared(kind, heldOf(state), event.stored));
    case 'theirs-failed':
      return state.kind === 'conflict' ? failLooking(state, event.failure) : stay(state);
    default:
      // An answer to a save that this document no longer waits for says nothing about it.
      return state.outstanding?.key === event.key ? answered(kind, state, state.outstanding, event, freshKey) : stay(state);
  }
}

const stay = <D, S>(state: Saving<D, S>): Step<D, S> => ({ state, effects: [] });

const heldOf = <D, S>({ draft, base, stored, outstanding }: Held<D, S>): Held<D, S> => ({ draft, base, stored, outstanding });

function edit<D, S>(state: Saving<D, S>, draft: D): Step<D, S> {
  switch (state.kind) {
    // Kept, and sent with the next save or once it is known what holds.
    case 'saving':
    case 'conflict':
    case 'missing':
      return stay({ ...state, draft });
    default:
      return { state: { ...heldOf(state), draft, kind: 'waiting' }, effects: [wait(quietMs)] };
  }
}

/** One save at a time; an unanswered one goes again as it was. */
function send<D, S>(kind: SavedKind<D, S>, state: Saving<D, S>, freshKey: string): Step<D, S> {
  if (state.kind === 'saving' || state.kind === 'missing' || state.kind === 'untouched') return stay(state);
  if (state.kind === 'conflict') return state.theirs === undefined ? { state, effects: [{ kind: 'look' }] } : stay(state);
  const { outstanding, draft, base } = state;
  if (outstanding === null && kind.isSame(draft, base.draft)) return stay({ ...heldOf(state), kind: 'saved' });
  const save = outstanding ?? { key: freshKey, version: base.version, draft };
  return { state: { ...heldOf(state), kind: 'saving', outstanding: save }, effects: [{ kind: 'send', save }] };
}

type Answer<D, S> = Extract<SavingEvent<D, S>, { readonly key: string }>;

function answered<D, S>(kind: SavedKind<D, S>, state: Saving<D, S>, sent: Outstanding<D>, event: Answer<D, S>, freshKey: string): Step<D, S> {
  const held = heldOf(state);
  switch (event.kind) {
    case 'answered': {
      const base = { version: kind.versionOf(event.stored), draft: sent.draft };
      return send(kind, { ...held, kind: 'waiting', stored: event.stored, base, outstanding: null }, freshKey);
    }
    case 'refused':
      return refuse(kind, { ...held, outstanding: null }, sent, event.message);
    case 'failed':
      return fail(kind, held, sent, event.failure);
  }
}

function fail<D, S>(kind: SavedKind<D, S>, held: Held<D, S>, sent: Outstanding<D>, { kind: failure, message }: Failure): Step<D, S> {
  const settled = { ...held, outstanding: null };
  switch (failure) {
    // Nobody knows whether it arrived: it stays outstanding.
    case 'away':
      return { state: { ...held, kind: 'away', message }, effects: [wait(retryMs)] };
    case 'signed-out':
      return stay({ ...held, kind: 'signed-out', message });
    case 'conflict':
      return { state: { ...settled, kind: 'conflict', theirs: undefined }, effects: [{ kind: 'look' }] };
    case 'missing':
      return stay({ ...settled, kind: 'missing', message });
    case 'refused':
      return refuse(kind, settled, sent, message);
  }
}

/** What was typed on meanwhile may be taken. */
function refuse<D, S>(kind: SavedKind<D, S>, held: Held<D, S>, sent: Outstanding<D>, message: string): Step<D, S> {
  if (kind.isSame(held.draft, sent.draft)) return stay({ ...held, kind: 'refused', message });
  return { state: { ...held, kind: 'waiting' }, effects: [wait(quietMs)] };
}

/** Two versions that are the same leave nothing to choose. */
function compared<D, S>(kind: SavedKind<D, S>, held: Held<D, S>, theirs: S): Saving<D, S> {
  const draft = kind.draftOf(theirs);
  if (!kind.isSame(held.draft, draft)) return { ...held, kind: 'conflict', theirs };
  return { draft: held.draft, base: { version: kind.versionOf(theirs), draft }, stored: theirs, outstanding: null, kind: 'saved' };
}

function failLooking<D, S>(state: Saving<D, S>, { kind, message }: Failure): Step<D, S> {
  if (kind === 'missing') return stay({ ...heldOf(state), kind: 'missing', message });
  return { state, effects: kind === 'away' ? [wait(retryMs)] : [] };
}

function resolve<D, S>(kind: SavedKind<D, S>, state: Saving<D, S>, draft: D): Step<D, S> {
  if (state.kind !== 'conflict' || state.theirs === undefined) return stay(state);
  const { theirs } = state;
  const base = { version: kind.versionOf(theirs), draft: kind.draftOf(theirs) };
  return { state: { kind: 'waiting', draft, base, stored: theirs, outstanding: null }, effects: [wait(quietMs)] };
}
