import { capital, count, listed } from '.';

describe('words', () => {
  it.each([
    [0, 'line', undefined, '0 lines'],
    [1, 'line', undefined, '1 line'],
    [2, 'cross', 'crosses', '2 crosses'],
    [1, 'note is', 'notes are', '1 note is'],
    [3, 'note is', 'notes are', '3 notes are'],
  ])('%i %s is counted', (number, one, many, text) => expect(count(number, one, many)).toBe(text));

  it('lists things as one says them', () => expect([[], ['A'], ['A', 'B'], ['A', 'B', 'C']].map(listed)).toEqual(['', 'A', 'A and B', 'A, B and C']));
  it('begins a sentence', () => expect(capital('low A')).toBe('Low A'));
});
