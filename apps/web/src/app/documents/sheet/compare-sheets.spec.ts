import { firstChoices } from '../../kernel/saving/pieces';
import { compareSheets } from './compare-sheets';
import type { DraftLine } from './line-input';
import type { SheetDraft } from './sheet-kind';

const line = (id: string, change: Partial<DraftLine> = {}): DraftLine => ({ id, home: 'c', other: 'e', repetitions: 8, tempo: null, point: '', ...change });
const base: SheetDraft = { title: 'Week 1', note: '', lines: [line('a'), line('b'), line('c')] };
const compare = (mine: Partial<SheetDraft>, theirs: Partial<SheetDraft>) =>
  compareSheets(
    base,
    { ...base, ...mine },
    { ...base, ...theirs },
    ({ id }) => id,
    ({ repetitions }) => `${repetitions} times`,
  );
const joined = (both: ReturnType<typeof compare>) => both.join(firstChoices(both.pieces));

describe('compareSheets', () => {
  it('keeps both changes where they touch different things', () => {
    const both = compare({ title: 'Week 2' }, { lines: [line('a'), line('b', { repetitions: 4 }), line('c')] });
    expect(both.pieces.map(({ key, changed }) => [key, changed])).toEqual([
      ['title', 'mine'],
      ['note', 'same'],
      ['a', 'same'],
      ['b', 'theirs'],
      ['c', 'same'],
    ]);
    expect(joined(both)).toEqual({ title: 'Week 2', note: '', lines: [line('a'), line('b', { repetitions: 4 }), line('c')] });
  });

  it('asks where both changed one line, and says both in words', () => {
    const both = compare({ lines: [line('a', { repetitions: 2 }), line('b'), line('c')] }, { lines: [line('a', { repetitions: 3 }), line('b'), line('c')] });
    expect(both.pieces[2]).toEqual({ key: 'a', name: 'a', mine: '2 times', theirs: '3 times', changed: 'both' });
  });

  it('keeps lines that either side added, each in its place, and leaves out what one side took off', () => {
    const both = compare({ lines: [line('a'), line('new'), line('b'), line('c')] }, { lines: [line('a'), line('c'), line('other')] });
    expect(joined(both).lines.map(({ id }) => id)).toEqual(['a', 'new', 'c', 'other']);
  });

  it('asks about a line that one took off and the other changed', () => {
    const both = compare({ lines: [line('a'), line('b')] }, { lines: [line('a'), line('b'), line('c', { repetitions: 1 })] });
    expect(both.pieces.find(({ key }) => key === 'c')).toMatchObject({ mine: 'not on the sheet', theirs: '1 times', changed: 'both' });
    expect(both.join(new Map([['c', 'theirs']])).lines.map(({ id }) => id)).toEqual(['a', 'b', 'c']);
  });

  it('takes the order from the side that changed it', () => {
    const both = compare({ title: 'Week 2' }, { lines: [line('c'), line('a'), line('b')] });
    expect(both.pieces.at(-1)).toMatchObject({ key: 'order', mine: 'a; b; c', theirs: 'c; a; b', changed: 'theirs' });
    expect(joined(both).lines.map(({ id }) => id)).toEqual(['c', 'a', 'b']);
  });

  it('gives each side whole where all is taken from it', () => {
    const mine = { title: 'M', lines: [line('x'), line('b'), line('a')] };
    const theirs = { note: 'T', lines: [line('c'), line('y'), line('a', { tempo: 60 })] };
    const both = compare(mine, theirs);
    const all = (side: 'mine' | 'theirs') => both.join(new Map(both.pieces.map(({ key }) => [key, side])));
    expect(all('mine')).toEqual({ ...base, ...mine });
    expect(all('theirs')).toEqual({ ...base, ...theirs });
  });
});
