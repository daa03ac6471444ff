import { corpus, fragmentText, heardOf, scales, type Fragment } from './corpus.spec-support';
import { readAbc, writeAbc } from '.';

const all: readonly Fragment[] = [...corpus, ...scales];

describe('the corpus', () => {
  it('has at least 300 fragments, each once', () => {
    expect(all.length).toBeGreaterThanOrEqual(300);
    expect(new Set(all.map(([, text]) => text)).size).toBe(all.length);
  });

  it.each(all)('%s', (_, text, heard) => {
    const { score, faults } = readAbc(fragmentText(text));
    expect(faults).toEqual([]);
    expect(heardOf(score)).toBe(heard);
  });

  it.each(all)('%s: the same after it was written and read again', (_, text, heard) => {
    const written = writeAbc(readAbc(fragmentText(text)).score);
    const { score, faults } = readAbc(written);
    expect(faults).toEqual([]);
    expect(heardOf(score)).toBe(heard);
  });
});
