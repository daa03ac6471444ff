import { practiceChanter } from '../fingering';
import { changesOfTune, readTune } from '../tune';
import { barsToWatch, checkedText, foretoldResult, foretoldTallyText, foretoldText, type JudgedNote, type JudgedPiece } from '.';

// Bar 1 has no cross at all, bar 2 the worst of the chanter again and again, bar 3 one of them.
const tune = readTune(practiceChanter, 'X:1\nT:Three Stiles\nM:4/4\nL:1/4\nK:HP\nA B A B|c e c e|A B c e|]\n');
const { open } = changesOfTune(practiceChanter, tune);
const note = (bar: number, verdict: JudgedNote['verdict']): JudgedNote => ({
  ...{ number: bar, asked: bar, pass: 0, bar, note: 'c', movement: undefined, at: bar * 1000, ms: 400, other: undefined, graces: [], between: [] },
  ...{ off: undefined, verdict },
});
const piece = (...notes: readonly JudgedNote[]): JudgedPiece => ({ notes, passes: [] });

describe('the bars that break first', () => {
  it('are those with the hardest changes, of what is played', () => {
    expect(barsToWatch(open, new Set([1, 2, 3]))).toEqual([2, 3]);
    expect(barsToWatch(open, new Set([1, 3]))[0]).toBe(3);
    expect(barsToWatch([], new Set([1, 2]))).toEqual([]);
    expect(foretoldText([12, 7])).toBe('Bars 7 and 12 will break first.');
    expect(foretoldText([4])).toBe('Bar 4 will break first.');
    expect(foretoldText([])).toBe('');
  });

  it('are checked against the take', () => {
    expect(checkedText([2, 3], piece(note(1, 'clean'), note(2, 'noise'), note(3, 'clean')))).toBe('Bars 2 and 3 were to break first: 2 did, 3 did not.');
    expect(checkedText([2, 3], piece(note(2, 'noise'), note(3, 'elements')))).toBe('Bars 2 and 3 were to break first: both did.');
    expect(checkedText([2, 3], piece(note(2, 'clean'), note(3, 'unsure')))).toBe('Bars 2 and 3 were to break first: neither did.');
    expect(checkedText([2, 3], piece(note(2, 'noise')), new Map([[2, 'clean']]))).toBe('Bar 2 was to break first: it did not.');
    expect(checkedText([2, 3], piece(note(1, 'noise')))).toBe('');
  });

  it('are counted beside the others: how often it was right', () => {
    const heard = piece(note(1, 'clean'), note(2, 'noise'), note(3, 'clean'), { ...note(4, 'other'), pass: 1 }, { ...note(0, 'other') });
    const result = foretoldResult([2, 3, 9], heard);
    expect(result).toEqual({ bars: 2, broke: 1, others: 2, othersBroke: 1 });
    expect(foretoldResult([2, 3], heard, new Map([[2, 'clean']]))?.broke).toBe(0);
    expect(foretoldResult([9], heard)).toBeUndefined();
    expect(foretoldResult([], heard)).toBeUndefined();
    expect(foretoldTallyText([result!, { bars: 1, broke: 1, others: 6, othersBroke: 0 }])).toBe(
      'Foretold bars that broke at the first try so far: 2 of 3; other bars: 1 of 8.',
    );
    expect(foretoldTallyText([])).toBe('');
  });
});
