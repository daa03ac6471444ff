import { practiceChanter } from '../fingering';
import {
  itemDetailsSchema,
  itemMinutes,
  reviewItemText,
  stands,
  standsText,
  watchText,
  weeksLater,
  withTempos,
  type MusicReviewItem,
  type ReviewItem,
} from '.';

const item = (more: Partial<MusicReviewItem> = {}): MusicReviewItem => ({ kind: 'line', home: 'c', other: 'e', repetitions: 1, tempo: 60, point: '', ...more });

describe('what an item says', () => {
  it.each<[string, ReviewItem]>([
    ['1 line (8 changes), no click, then click at 60, for the fingers', item({ details: { isFreeFirst: true, focus: 'fingers' } })],
    ['once or twice, no click, for pleasure', item({ tempo: null, details: { isOnceOrTwice: true, focus: 'pleasure' } })],
    ['1 line (8 changes), tempo ladder up to 80, for the timing', item({ tempo: 80, details: { isLadder: true, focus: 'timing' } })],
    ['1 line (8 changes), click at 60, the same tempo, 2 counted in', item({ details: { against: 'same', countIn: 2 } })],
    ['1 line (8 changes), click at 60, page 12 of your book, experiment, we look at it next time', item({ details: { page: '12', mark: 'experiment' } })],
    ['1 line (8 changes), click at 60, an hour or two in all, spread over lessons', item({ details: { isSpread: true } })],
    [
      '4 times, 6 seconds each, for steady blowing',
      { kind: 'words', text: 'long low A', repetitions: 4, tempo: null, point: '', details: { seconds: 6, focus: 'blowing' } },
    ],
    ['once', { kind: 'words', text: 'Sing it in the bath', repetitions: 1, tempo: null, point: '' }],
  ])('%s', (text, each) => {
    expect(reviewItemText(each)).toBe(text);
  });

  it('has the teacher’s point before the instrument’s advice', () => {
    expect(watchText(practiceChanter, item({ point: 'The little finger lands last.' })).watch).toBe('The little finger lands last.');
    expect(watchText(practiceChanter, item()).watch).not.toBe('');
    expect(watchText(practiceChanter, item({ details: { tooFast: 'Stop on C.' } })).tooFast).toBe('Stop on C.');
  });
});

describe('tempos against the item before', () => {
  it('are the same, or a step away, through words too, and none after no click', () => {
    const sing: ReviewItem = { kind: 'words', text: 'Sing', repetitions: 1, tempo: null, point: '' };
    const items = withTempos([
      item(),
      sing,
      item({ tempo: null, details: { against: 'slower' } }),
      item({ details: { against: 'faster' } }),
      item({ tempo: null }),
      item({ details: { against: 'same' } }),
    ]);
    expect(items.map(({ tempo }) => tempo)).toEqual([60, null, 54, 60, null, null]);
  });

  it('stay within what can be played, and the first has its own', () => {
    const slow = withTempos([item({ tempo: 22, details: { against: 'slower' } }), item({ details: { against: 'slower' } })]);
    expect(slow.map(({ tempo }) => tempo)).toEqual([22, 20]);
  });
});

describe('minutes of an item', () => {
  it('are what a teacher says, else what it takes', () => {
    expect(itemMinutes(item({ details: { minutes: 9 } }))).toBe(9);
    expect(itemMinutes(item({ repetitions: 8 }))).toBe(3);
    expect(itemMinutes({ kind: 'words', text: 'Sing', repetitions: 3, tempo: null, point: '' })).toBe(0);
    expect(itemMinutes({ kind: 'words', text: 'Hold', repetitions: 20, tempo: null, point: '', details: { seconds: 6 } })).toBe(2);
  });
});

describe('a priority', () => {
  it('stands up to its last day', () => {
    const priority = { until: weeksLater('2026-12-01', 3) };
    expect(priority.until).toBe('2026-12-22');
    expect([stands(priority, '2026-12-22'), stands(priority, '2026-12-23')]).toEqual([true, false]);
    expect(standsText(priority, '2026-12-08')).toBe('for 2 more weeks');
    expect(standsText(priority, '2026-12-16')).toBe('for 1 more week');
    expect(standsText(priority, '2026-12-22')).toBe('until today');
    expect(standsText(priority, '2026-12-23')).toBe('it has ended');
  });
});

it('details refuse what nobody could play', () => {
  expect(itemDetailsSchema.safeParse({ seconds: 0 }).success).toBe(false);
  expect(itemDetailsSchema.safeParse({ focus: 'fingers', and: 'timing' }).success).toBe(false);
  expect(itemDetailsSchema.safeParse({ minutes: 121 }).success).toBe(false);
});
