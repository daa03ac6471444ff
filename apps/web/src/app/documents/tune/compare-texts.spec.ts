import fc from 'fast-check';
import { firstChoices } from '../../kernel/saving/pieces';
import { compareTexts } from './compare-texts';

const text = (...lines: string[]) => ({ abc: lines.join('\n') });
const compare = (old: string[], own: string[], other: string[]) => compareTexts(text(...old), text(...own), text(...other));

describe('compareTexts', () => {
  it('joins what was changed on one side only, wherever it stands', () => {
    const both = compare(['X:1', 'T:Old', 'M:2/4', 'K:HP', 'A|'], ['X:1', 'T:New', 'M:2/4', 'K:HP', 'A|'], ['X:1', 'T:Old', 'M:2/4', 'K:HP', 'A|', 'B|']);
    expect(both.pieces.map(({ changed }) => changed)).toEqual(['same', 'mine', 'same', 'theirs']);
    expect(both.join(firstChoices(both.pieces))).toEqual(text('X:1', 'T:New', 'M:2/4', 'K:HP', 'A|', 'B|'));
  });

  it('names what both changed, with both wordings', () => {
    const both = compare(['T:Old', 'A|'], ['T:Mine', 'A|'], ['T:Theirs', 'A|']);
    expect(both.pieces[0]).toMatchObject({ name: 'Line 1', mine: 'T:Mine', theirs: 'T:Theirs', changed: 'both' });
    expect(both.join(new Map([['0', 'theirs']]))).toEqual(text('T:Theirs', 'A|'));
  });

  it('shows a line that one side took away and the other changed', () => {
    const both = compare(['a', 'b', 'c'], ['a', 'c'], ['a', 'B', 'c']);
    expect(both.pieces[1]).toMatchObject({ mine: '', theirs: 'B', changed: 'both' });
    expect(both.join(new Map([['1', 'mine']]))).toEqual(text('a', 'c'));
  });

  it('gives each side whole where all is taken from it, and the changed side where only one changed', () => {
    const lines = fc.array(fc.constantFrom('a', 'b', 'c', 'd', ''), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(lines, lines, lines, (old, own, other) => {
        const both = compare(old, own, other);
        const all = (side: 'mine' | 'theirs') => new Map(both.pieces.map(({ key }) => [key, side]));
        expect(both.join(all('mine'))).toEqual(text(...own));
        expect(both.join(all('theirs'))).toEqual(text(...other));
        const alone = compare(old, old, other);
        expect(alone.join(firstChoices(alone.pieces))).toEqual(text(...other));
      }),
    );
  });
});
