import * as fc from 'fast-check';
import {
  isPending,
  nextSaving,
  resumeSaving,
  startSaving,
  type Failure,
  type SavedKind,
  type Saving,
  type SavingEffect,
  type SavingEvent,
  type Step,
} from './saving';
import type { Outstanding } from './work-store.service';

/** A document that is one text. */
interface Stored {
  readonly text: string;
  readonly version: number;
}
const kind: SavedKind<string, Stored> = { draftOf: ({ text }) => text, versionOf: ({ version }) => version, isSame: (one, other) => one === other };
type State = Saving<string, Stored>;
type Event = SavingEvent<string, Stored>;

const first: Stored = { text: 'as it was', version: 1 };
const run = (state: State, ...events: readonly Event[]): Step<string, Stored> => {
  let step: Step<string, Stored> = { state, effects: [] };
  events.forEach((event, index) => (step = nextSaving(kind, step.state, event, `key ${index}`)));
  return step;
};
const typed = (draft: string): Event => ({ kind: 'edited', draft });
const due: Event = { kind: 'due' };
const failed = (key: string, failure: Failure['kind']): Event => ({ kind: 'failed', key, failure: { kind: failure, message: 'So it is.' } });

describe('the steps of saving', () => {
  it('sends nothing where nothing was typed, or where it was typed back', () => {
    expect(run(startSaving(kind, first), due)).toEqual({ state: startSaving(kind, first), effects: [] });
    const { state, effects } = run(startSaving(kind, first), typed('other'), typed('as it was'), due);
    expect([state.kind, effects]).toEqual(['saved', []]);
  });

  it('waits for a quiet moment, sends what stands there then, and is saved when that is answered', () => {
    const sent = run(startSaving(kind, first), typed('a'), typed('ab'), due);
    expect(sent.effects).toEqual([{ kind: 'send', save: { key: 'key 2', version: 1, draft: 'ab' } }]);
    const answered = nextSaving(kind, sent.state, { kind: 'answered', key: 'key 2', stored: { text: 'ab', version: 2 } }, 'later');
    expect(answered).toMatchObject({ state: { kind: 'saved', base: { version: 2, draft: 'ab' }, outstanding: null }, effects: [] });
  });

  it('sends what was typed meanwhile as soon as the save before it is answered', () => {
    const { state } = run(startSaving(kind, first), typed('a'), due, typed('ab'));
    const next = nextSaving(kind, state, { kind: 'answered', key: 'key 1', stored: { text: 'a', version: 2 } }, 'fresh');
    expect(next.effects).toEqual([{ kind: 'send', save: { key: 'fresh', version: 2, draft: 'ab' } }]);
  });

  it.each(['away', 'signed-out'] as const)('keeps an unanswered save when it is %s, and sends it again as it was', (failure) => {
    const { state } = run(startSaving(kind, first), typed('a'), due, failed('key 1', failure), typed('ab'));
    expect(state.kind).toBe('waiting');
    expect(run(state, due).effects).toEqual([{ kind: 'send', save: { key: 'key 1', version: 1, draft: 'a' } }]);
  });

  it('hears no answer to a save that it does not wait for', () => {
    const { state } = run(startSaving(kind, first), typed('a'), due);
    expect(run(state, { kind: 'answered', key: 'another', stored: { text: 'x', version: 9 } }).state).toBe(state);
    expect(run(state, failed('another', 'missing')).state).toBe(state);
  });

  it('looks at the other version after a conflict, keeps what is typed, and goes on from the choice', () => {
    const clash = run(startSaving(kind, first), typed('mine'), due, failed('key 1', 'conflict'));
    expect(clash).toMatchObject({ state: { kind: 'conflict', outstanding: null }, effects: [{ kind: 'look' }] });
    const shown = run(clash.state, typed('mine too'), { kind: 'theirs', stored: { text: 'theirs', version: 5 } });
    expect(shown.state).toMatchObject({ kind: 'conflict', draft: 'mine too', theirs: { version: 5 } });
    expect(run(shown.state, due).effects).toEqual([]);
    const chosen = run(shown.state, { kind: 'resolved', draft: 'both' }, due);
    expect(chosen.effects).toEqual([{ kind: 'send', save: { key: 'key 1', version: 5, draft: 'both' } }]);
    expect(run(shown.state, { kind: 'resolved', draft: 'theirs' }, due)).toMatchObject({ state: { kind: 'saved' }, effects: [] });
  });

  it('asks nothing where both typed the same', () => {
    const { state } = run(startSaving(kind, first), typed('same'), due, failed('key 1', 'conflict'), { kind: 'theirs', stored: { text: 'same', version: 5 } });
    expect(state).toMatchObject({ kind: 'saved', base: { version: 5 } });
  });

  it('stays with what is refused until something else is typed', () => {
    const { state } = run(startSaving(kind, first), typed(''), due, { kind: 'refused', key: 'key 1', message: 'Enter a title.' });
    expect(state).toMatchObject({ kind: 'refused', draft: '', message: 'Enter a title.', outstanding: null });
    expect(run(state, typed('a'), due).effects).toMatchObject([{ kind: 'send' }]);
  });

  it('resumes what was left: goes on where nothing came between, asks where something did, waits without the server', () => {
    const left = { draft: 'mine', base: { version: 1, draft: 'as it was' }, stored: first, outstanding: null };
    expect(resumeSaving(kind, left, first).state.kind).toBe('waiting');
    expect(resumeSaving(kind, left, { text: 'theirs', version: 2 }).state.kind).toBe('conflict');
    expect(resumeSaving(kind, left, undefined, 'Away.').state).toMatchObject({ kind: 'away', message: 'Away.', draft: 'mine' });
    // A save without an answer may be what made the later version: its key tells.
    const unanswered = { ...left, outstanding: { key: 'k', version: 1, draft: 'mine' } };
    expect(run(resumeSaving(kind, unanswered, { text: 'mine', version: 2 }).state, due).effects).toMatchObject([{ kind: 'send', save: { key: 'k' } }]);
  });
});

/** How one try over the network goes. */
type Luck = 'through' | 'lost on the way' | 'answer lost' | 'signed out';

/** A server that knows each write by its key, and refuses a stale one. */
class Server {
  stored: Stored = first;
  readonly applied: string[] = [];
  private readonly kept = new Map<string, Stored>();

  save({ key, version, draft }: Outstanding<string>): Stored | 'stale' {
    const before = this.kept.get(key);
    if (before !== undefined) return before;
    if (version !== this.stored.version) return 'stale';
    this.stored = { text: draft, version: version + 1 };
    this.applied.push(draft);
    this.kept.set(key, this.stored);
    return this.stored;
  }
}

interface Left {
  readonly draft: string;
  readonly base: State['base'];
  readonly stored: Stored;
  readonly outstanding: Outstanding<string> | null;
  readonly isPending: boolean;
}

let keys = 0;
const freshKey = (): string => `fresh ${(keys += 1)}`;

/** A window on the document, as the page runs it: what it writes down is all that a reload finds. */
class Window {
  state: State;
  left: Left;
  private due = false;
  /** Saves that were sent from here, by key. */
  readonly sent = new Map<string, string>();

  constructor(private readonly server: Server) {
    this.state = startSaving(kind, server.stored);
    this.left = this.written();
  }

  type(draft: string): void {
    this.take(nextSaving(kind, this.state, { kind: 'edited', draft }, freshKey()), 'through');
  }

  /** Time passes. */
  wait(luck: Luck): void {
    if (!this.due && this.state.kind !== 'conflict') return;
    this.due = false;
    this.take(nextSaving(kind, this.state, { kind: 'due' }, freshKey()), luck);
  }

  choose(draft: string): void {
    this.take(nextSaving(kind, this.state, { kind: 'resolved', draft }, freshKey()), 'through');
  }

  reload(isServerThere: boolean): void {
    if (!this.left.isPending) {
      this.state = startSaving(kind, this.server.stored);
      this.left = this.written();
      return;
    }
    this.take(resumeSaving(kind, this.left, isServerThere ? this.server.stored : undefined, 'Away.'), 'through');
  }

  private take({ state, effects }: Step<string, Stored>, luck: Luck): void {
    this.state = state;
    this.left = this.written();
    for (const effect of effects) this.perform(effect, luck);
  }

  private perform(effect: SavingEffect<string>, luck: Luck): void {
    if (effect.kind === 'wait') this.due = true;
    else if (effect.kind === 'look') this.hear({ kind: 'theirs', stored: this.server.stored }, luck);
    else this.hear(this.tried(effect.save, luck), luck);
  }

  private tried(save: Outstanding<string>, luck: Luck): Event {
    const { key } = save;
    const before = this.sent.get(key);
    // One key is one save, always with the same words.
    if (before !== undefined && before !== save.draft) throw new Error(`The key ${key} was used for “${before}” and “${save.draft}”.`);
    this.sent.set(key, save.draft);
    const failure = (what: Failure['kind']): Event => ({ kind: 'failed', key, failure: { kind: what, message: '' } });
    if (luck === 'lost on the way') return failure('away');
    if (luck === 'signed out') return failure('signed-out');
    const stored = this.server.save(save);
    if (luck === 'answer lost') return failure('away');
    return stored === 'stale' ? failure('conflict') : { kind: 'answered', key, stored };
  }

  private hear(event: Event, luck: Luck): void {
    this.take(nextSaving(kind, this.state, event, freshKey()), luck);
  }

  private written(): Left {
    const { draft, base, stored, outstanding } = this.state;
    return { draft, base, stored, outstanding, isPending: isPending(kind, this.state) };
  }
}

interface Move {
  readonly who: 0 | 1;
  readonly what: 'type' | 'type back' | 'wait' | 'reload' | 'choose mine' | 'choose theirs';
  readonly luck: Luck;
}
const moves = fc.array(
  fc.record<Move>({
    who: fc.constantFrom(0, 1),
    what: fc.constantFrom('type', 'type', 'type back', 'wait', 'wait', 'wait', 'reload', 'choose mine', 'choose theirs'),
    luck: fc.constantFrom('through', 'through', 'lost on the way', 'answer lost', 'signed out'),
  }),
  { maxLength: 60 },
);

describe('random sequences of edits, failures, reloads and choices in two windows', () => {
  /** Plays them; every word that is typed is another. Gives the windows with the last words of each that nobody gave up. */
  function play(all: readonly Move[]): { server: Server; windows: readonly Window[]; last: (string | undefined)[] } {
    const server = new Server();
    const windows = [new Window(server), new Window(server)];
    const last: (string | undefined)[] = [undefined, undefined];
    all.forEach(({ who, what, luck }, index) => {
      const window = windows[who];
      if (what === 'type') {
        last[who] = `${who} typed ${index}`;
        window.type(`${who} typed ${index}`);
      } else if (what === 'type back') {
        last[who] = undefined;
        window.type(window.state.base.draft);
      } else if (what === 'wait') window.wait(luck);
      else if (what === 'reload') window.reload(luck === 'through');
      else if (window.state.kind === 'conflict' && window.state.theirs !== undefined) {
        if (what === 'choose theirs') last[who] = undefined;
        window.choose(what === 'choose mine' ? window.state.draft : window.state.theirs.text);
      }
      const words = last[who];
      // At every moment: what was typed last stands on the page and in what a reload would find, or the server has had it.
      if (words !== undefined && !server.applied.includes(words)) {
        expect(window.state.draft).toBe(words);
        expect(window.left).toMatchObject({ draft: words, isPending: true });
      }
      if (window.state.kind === 'saved' || window.state.kind === 'untouched') expect(window.left.isPending).toBe(false);
    });
    return { server, windows, last };
  }

  it('lose nothing that was typed, and send nothing twice', () => {
    fc.assert(
      fc.property(moves, (all) => {
        const { server, windows, last } = play(all);
        // With the server back and everybody signed in, all that was typed arrives once, or stands there to be chosen.
        for (let round = 0; round < 4; round += 1)
          windows.forEach((window) => {
            window.reload(true);
            window.wait('through');
            window.wait('through');
          });
        expect(new Set(server.applied).size).toBe(server.applied.length);
        last.forEach((words, who) => {
          if (words === undefined || server.applied.includes(words)) return;
          expect(windows[who].state).toMatchObject({ kind: 'conflict', draft: words });
        });
      }),
      { numRuns: 2000, seed: 12 },
    );
  });

  it('come to rest: where nobody has to choose, every window is saved and holds what the server has', () => {
    fc.assert(
      fc.property(moves, (all) => {
        const { server, windows } = play(all);
        for (let round = 0; round < 4; round += 1)
          windows.forEach((window) => {
            window.reload(true);
            window.wait('through');
            if (window.state.kind === 'conflict' && window.state.theirs !== undefined) window.choose(window.state.draft);
            window.wait('through');
          });
        for (const window of windows) {
          window.reload(true);
          expect(['untouched', 'saved']).toContain(window.state.kind);
          expect(window.state.draft).toBe(server.stored.text);
        }
      }),
      { numRuns: 1000, seed: 13 },
    );
  });
});
