import { holdDocument, whileClosed } from './document-locks';
import { withFakeLocks } from './fake-locks.spec-support';

let takeAway = (): void => undefined;
beforeEach(() => (takeAway = withFakeLocks()));
afterEach(() => takeAway());

describe('a document', () => {
  it('is held at once by the pages of several windows', async () => {
    const held: (() => void)[] = [];
    for (const holding of [holdDocument('a'), holdDocument('a')]) void holding.then((release) => held.push(release));
    await new Promise((next) => setTimeout(next));
    expect(held).toHaveLength(2);
    expect(await whileClosed('a', () => Promise.resolve('sent'))).toBeUndefined();
    for (const release of held) release();
    await new Promise((next) => setTimeout(next));
    expect(await whileClosed('a', () => Promise.resolve('sent'))).toBe('sent');
  });

  it('is held only when who sends it has finished', async () => {
    let finish = (): void => undefined;
    const sending = whileClosed('a', () => new Promise<string>((resolve) => (finish = () => resolve('sent'))));
    let isHeld = false;
    const holding = holdDocument('a').then(() => (isHeld = true));
    await new Promise((next) => setTimeout(next));
    expect(isHeld).toBe(false);
    finish();
    expect(await sending).toBe('sent');
    expect(await holding).toBe(true);
  });

  it('is held where the browser knows no locks', async () => {
    takeAway();
    (await holdDocument('a'))();
    expect(await whileClosed('a', () => Promise.resolve('sent'))).toBe('sent');
  });
});
