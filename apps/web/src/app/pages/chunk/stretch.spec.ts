import type { ChunkRange } from '@zelpit/core/form';
import { besides, rangeOf, stretchOf } from './stretch';

const ranges: readonly ChunkRange[] = [
  { kind: 'bars', from: 1, to: 1 },
  { kind: 'bars', from: 3, to: 12 },
  { kind: 'half', bar: 6, half: 'first' },
  { kind: 'half', bar: 6, half: 'second' },
  { kind: 'notes', first: 0, last: 0 },
  { kind: 'notes', first: 11, last: 19 },
];

describe('a stretch in an address', () => {
  it.each(ranges)('comes back as it was: %j', (range) => {
    expect(rangeOf(stretchOf(range))).toEqual(range);
  });

  it('is turned the right way round', () => {
    expect(rangeOf('7-2')).toEqual({ kind: 'bars', from: 2, to: 7 });
    expect(rangeOf('n9-5')).toEqual({ kind: 'notes', first: 4, last: 8 });
  });

  it.each(['', 'bar', '6c', 'n5', '1-2-3', '-1', '99999999-1'])('is bar 1 where it is none: %s', (text) => {
    expect(rangeOf(text)).toEqual({ kind: 'bars', from: 1, to: 1 });
  });

  it('goes to what stands beside it', () => {
    expect(besides({ kind: 'half', bar: 6, half: 'second' }, 1, 8)).toEqual({ kind: 'half', bar: 7, half: 'first' });
    expect(besides({ kind: 'bars', from: 3, to: 4 }, 1, 5)).toEqual({ kind: 'bars', from: 5, to: 5 });
    expect(besides({ kind: 'bars', from: 1, to: 2 }, -1, 8)).toBeUndefined();
    expect(besides({ kind: 'notes', first: 2, last: 4 }, 1, 8)).toBeUndefined();
  });
});
