import { Sealer } from './sealer';

describe('Sealer', () => {
  const sealer = new Sealer('a secret of at least thirty-two signs');

  it.each(['', 'Łódź 🎵 http://x/link#abc', 'x'.repeat(10_000)])('opens what it sealed (%#), and shows nothing of it', (text) => {
    const sealed = sealer.seal(text);
    expect(sealer.open(sealed)).toBe(text);
    if (text.length > 3) expect(sealed).not.toContain(text.slice(-6));
    expect(sealer.seal(text)).not.toBe(sealed);
  });

  it('opens nothing with another secret, and nothing that was changed or cut', () => {
    const sealed = sealer.seal('http://x/link#abc');
    expect(new Sealer('another secret of thirty-two signs!!').open(sealed)).toBeUndefined();
    expect(sealer.open(`${sealed.slice(0, -6)}AAAAA=`)).toBeUndefined();
    expect(sealer.open('sealed:')).toBeUndefined();
  });

  it('leaves a text of before as it is', () => {
    expect(sealer.open('Dear Ben')).toBe('Dear Ben');
  });
});
