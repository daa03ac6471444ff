import { TestBed } from '@angular/core/testing';
import { WorkStore, type KeptWork } from './work-store.service';

/** IndexedDB that never gets to confirming anything. */
jest.mock('idb-keyval', () => ({
  createStore: () => ({}),
  set: () => new Promise(() => undefined),
  get: () => Promise.resolve(undefined),
  entries: () => Promise.resolve([]),
  del: () => Promise.resolve(),
  delMany: () => Promise.resolve(),
}));

const step = (draft: string) => ({ draft, label: `to ${draft}` });
const work = (history: KeptWork['history']): KeptWork => ({
  ...{ person: 'ada', kind: 'tune', id: 'tune-1', stored: {}, outstanding: null, isPending: true, at: 1 },
  ...{ base: { version: 1, draft: 'b' }, history },
});

/** What a page leaves that goes before its last step is confirmed. */
async function leftOf(history: KeptWork['history']): Promise<KeptWork['history']> {
  const store = TestBed.inject(WorkStore);
  void store.keep(work(history));
  await new Promise((resolve) => setTimeout(resolve, 5));
  window.dispatchEvent(new Event('pagehide'));
  const [key] = Object.keys(localStorage).filter((each) => each.startsWith('zelpit.leaving|'));
  return (JSON.parse(localStorage.getItem(key) ?? 'null') as KeptWork).history;
}

describe('a page that goes before its browser has confirmed what it kept', () => {
  beforeAll(() => Object.defineProperty(globalThis, 'indexedDB', { value: {}, configurable: true }));
  afterAll(() => Object.defineProperty(globalThis, 'indexedDB', { value: undefined, configurable: true }));
  beforeEach(() => localStorage.clear());
  afterEach(() => jest.restoreAllMocks());

  it('leaves the way back and the way forward', async () => {
    const history = { past: [step('a')], present: 'b', future: [step('c'), step('d')] };
    expect(await leftOf(history)).toEqual(history);
  });

  it('leaves what was undone at last: one can still do it again', async () => {
    expect((await leftOf({ past: [], present: 'a', future: [step('b')] })).future).toEqual([step('b')]);
  });

  it('leaves at least what stands there, where there is no room for more', async () => {
    const set = Storage.prototype.setItem;
    jest.spyOn(Storage.prototype, 'setItem').mockImplementation(function (this: Storage, key: string, value: string) {
      if (value.includes('"label"')) throw new Error('There is no room.');
      set.call(this, key, value);
    });
    expect(await leftOf({ past: [step('a')], present: 'b', future: [step('c')] })).toEqual({ past: [], present: 'b', future: [] });
  });
});
