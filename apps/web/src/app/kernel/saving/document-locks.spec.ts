import { holdDocument, whileClosed } from './document-locks';

/** The browser's locks, as far as they are used: of one name, shared by many or held by one. */
class FakeLocks {
  private holders: ('shared' | 'exclusive')[] = [];
  private readonly waiting: (() => void)[] = [];

  async request(_: string, { mode = 'exclusive', ifAvailable = false }: LockOptions, run: (lock: object | null) => unknown): Promise<unknown> {
    const isFree = (): boolean => this.holders.length === 0 || (mode === 'shared' && !this.holders.includes('exclusive'));
    if (!isFree() && ifAvailable) return run(null);
    while (!isFree()) await new Promise<void>((next) => this.waiting.push(next));
    this.holders.push(mode);
    try {
      return await run({});
    } finally {
      this.holders.splice(this.holders.indexOf(mode), 1);
      for (const next of this.waiting.splice(0)) next();
    }
  }
}

beforeEach(() => Object.defineProperty(navigator, 'locks', { value: new FakeLocks(), configurable: true }));
afterEach(() => Reflect.deleteProperty(navigator, 'locks'));

describe('a document', () => {
  it('is held at once by the pages of several windows', async () => {
    const [one, other] = [await holdDocument('a'), await holdDocument('a')];
    expect([one.hasWaited, other.hasWaited]).toEqual([false, false]);
    expect(await whileClosed('a', () => Promise.resolve('sent'))).toBeUndefined();
    one.release();
    other.release();
    await new Promise((next) => setTimeout(next));
    expect(await whileClosed('a', () => Promise.resolve('sent'))).toBe('sent');
  });

  it('is held only when who sends it has finished, and says that it had to wait', async () => {
    let finish = (): void => undefined;
    const sending = whileClosed('a', () => new Promise<string>((resolve) => (finish = () => resolve('sent'))));
    let isHeld = false;
    const holding = holdDocument('a').then((held) => {
      isHeld = true;
      return held;
    });
    await new Promise((next) => setTimeout(next));
    expect(isHeld).toBe(false);
    finish();
    expect(await sending).toBe('sent');
    expect((await holding).hasWaited).toBe(true);
  });

  it('is held where the browser knows no locks', async () => {
    Reflect.deleteProperty(navigator, 'locks');
    expect((await holdDocument('a')).hasWaited).toBe(false);
    expect(await whileClosed('a', () => Promise.resolve('sent'))).toBe('sent');
  });
});
