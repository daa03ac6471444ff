import { pattern, practiceChanter as chanter } from '../fingering';
import { graceNoteRule, graceSteps, hidingGraceNote } from '.';

const letters: Readonly<Record<string, string>> = Object.fromEntries(chanter.notes.map((note) => [note.abc, note.id]));
const steps = (group: string, theme: string) =>
  graceSteps(
    chanter,
    [...group].map((letter) => letters[letter]),
    letters[theme],
  );

describe('graceSteps', () => {
  it.each([
    ['g', 'A', ['X OXX XXXO']],
    ['d', 'A', ['X XXX OXXO']],
    ['e', 'A', ['X XXO XXXO']],
    ['e', 'B', ['X XXO XXOO']],
    ['e', 'c', ['X XXO XOOX']],
    ['f', 'A', ['X XOX XXXO']],
    ['a', 'g', ['O OOO XXXO']],
    ['g', 'a', ['X OOX XXXO']],
    ['ag', 'a', ['O OOX XXXO', 'X OOX XXXO']],
    ['gf', 'g', ['X OOO XXXO', 'X XOO XXXO']],
    ['gcd', 'c', ['X OXX XOOX', 'X XXX XOOX', 'X XXX OOOX']],
    ['Gdc', 'd', ['X XXX XXXX', 'X XXX OOOX', 'X XXX XOOX']],
    ['GdGc', 'd', ['X XXX XXXX', 'X XXX OXXX', 'X XXX XXXX', 'X XXX XOOX']],
    ['GdG', 'd', ['X XXX XXXX', 'X XXX OXXX', 'X XXX XXXX']],
    ['GdGe', 'A', ['X XXX XXXX', 'X XXX OXXX', 'X XXX XXXX', 'X XXO XXXO']],
    ['GdGeAfA', 'e', ['X XXX XXXX', 'X XXX OXXX', 'X XXX XXXX', 'X XXO XXXO', 'X XXX XXXO', 'X XOX XXXO', 'X XXX XXXO']],
    ['gAGAG', 'A', ['X OXX XXXO', 'X XXX XXXO', 'X XXX XXXX', 'X XXX XXXO', 'X XXX XXXX']],
    ['gBdBG', 'B', ['X OXX XXOO', 'X XXX XXOO', 'X XXX OXOO', 'X XXX XXOO', 'X XXX XXXX']],
    ['geA', 'e', ['X OXO XXXO', 'X XXO XXXO', 'X XXX XXXO']],
    ['gdc', 'd', ['X OXX OOOX', 'X XXX OOOX', 'X XXX XOOX']],
  ])('plays {%s}%s as the chart of movements says', (group, theme, patterns) => {
    expect(steps(group, theme).map((step) => step.pattern)).toEqual(patterns.map(pattern));
  });

  it('names the finger, not what sounds', () => {
    expect(steps('a', 'B')[0]).toMatchObject({ name: 'thumb grace note', kind: 'lifting', fingers: ['T'] });
  });
});

describe('graceNoteRule', () => {
  it('follows the table: G on low G to F, D on low G to C, B on low G and low A', () => {
    const notes = (written: string) =>
      chanter.notes
        .filter((note) => graceNoteRule(chanter, written, note.id))
        .map((note) => note.abc)
        .join('');
    expect(notes('high-a')).toBe('GABcdefg');
    expect(notes('high-g')).toBe('GABcdef');
    expect(notes('f')).toBe('GABcde');
    expect(notes('e')).toBe('GABcd');
    expect(notes('d')).toBe('GABc');
    expect(notes('c')).toBe('GAB');
    expect(notes('b')).toBe('GA');
  });
});

describe('hidingGraceNote', () => {
  const hiding = (from: string, group: string, theme: string) => hidingGraceNote(chanter, letters[from], steps(group, theme))?.name;

  it('hides D to low A under a G grace note', () => {
    expect(hiding('d', 'g', 'A')).toBe('G grace note');
  });

  it('does not where the top finger is itself a mover', () => {
    expect(hiding('g', 'g', 'A')).toBeUndefined();
    expect(hiding('a', 'a', 'A')).toBeUndefined();
  });

  it('does not where the group opens with a low G', () => {
    expect(hiding('c', 'GdG', 'A')).toBeUndefined();
  });
});
