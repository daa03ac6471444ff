import { holdDocument, whileClosed } from './document-locks';
import { withFakeLocks } from './fake-locks.spec-support';

let takeAway = (): void => undefined;
beforeEach(() => (takeAway = withFakeLocks()));
afterEach(() => takeAway());

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
    takeAway();
    expect((await holdDocument('a')).hasWaited).toBe(false);
    expect(await whileClosed('a', () => Promise.resolve('sent'))).toBe('sent');
  });
});
