import { practiceChanter } from '@zelpit/core/fingering';
import { destinationsFor, groupsFor, type Known } from './destinations';

const known: Known = {
  instrument: practiceChanter,
  movements: [],
  students: [{ id: 's1', alias: 'Pim' }],
  tunes: [
    { id: 't1', title: 'A Pike in the Pond' },
    { id: 't2', title: 'Pim’s Jig' },
  ],
  sheets: [{ id: 'h1', title: 'Ten minutes for Pim' }],
  pages: groupsFor(true, []).flatMap(({ pages }) => pages),
};
const found = (typed: string): readonly string[] => destinationsFor(typed, known).map(({ kind, text }) => `${kind}: ${text}`);

describe('what is typed on the page of all pages', () => {
  it.each(['c to e', 'C→E', ' c - e ', 'c->e'])('“%s” is a change', (typed) => expect(found(typed)[0]).toBe('change: C to E'));
  it('takes a letter for every note that is written so', () => expect(found('a to e')).toEqual(['change: low A to E', 'change: high A to E']));
  it('finds a note by its name', () => expect(found('low g')[0]).toBe('note: low G: fingerings'));
  it('finds students, tunes and sheets, those that begin so first', () =>
    expect(found('pi')).toEqual(['student: Pim', 'tune: Pim’s Jig', 'tune: A Pike in the Pond', 'sheet: Ten minutes for Pim']));
  it('finds a movement by a misspelt name', () => expect(found('torluath')[0]).toBe('movement: taorluath'));
  it('finds a page', () => expect(found('backup')[0]).toBe('page: Backup'));
  it.each(['', '   ', 'zzzz', 'c to c', 'x to y'])('“%s” leads nowhere', (typed) => expect(found(typed)).toEqual([]));
  it('hides what only an owner may see', () => expect(groupsFor(false, []).flatMap(({ pages }) => pages.map(({ name }) => name))).not.toContain('Backup'));
});
