import { logbookOf, logbookText, type LoggedAttempt } from './logbook';

const at = (text: string): number => Date.parse(`${text}Z`);
const now = at('2026-12-01T18:00');
const attempt = (when: string, change: Partial<LoggedAttempt> = {}): LoggedAttempt => ({
  ...{ item: 'l1', title: 'B to E', kind: 'line', at: at(when), seconds: 120, tempo: 60, rating: 'clean', by: 'student', cleanTempos: [] },
  ...change,
});

describe('a logbook', () => {
  it('has the fastest clean tempo of each week, weeks from Monday', () => {
    const [item] = logbookOf(
      [attempt('2026-11-22T10:00', { tempo: 54 }), attempt('2026-11-23T10:00'), attempt('2026-11-29T10:00', { tempo: 72, rating: 'not-yet' })],
      now,
    ).items;
    expect(item.weeks).toEqual([
      { week: at('2026-11-16T00:00'), best: 54 },
      { week: at('2026-11-23T00:00'), best: 60 },
    ]);
    expect(item).toMatchObject({ best: 60, tries: 3, clean: 2, isOwnEar: true, isStale: false });
  });

  it('takes the clean rungs of a ladder, and never what nobody judged', () => {
    const ladder = attempt('2026-11-30T10:00', { tempo: 66, rating: 'not-yet', cleanTempos: [48, 54, 60] });
    expect(logbookOf([ladder], now).items[0].best).toBe(60);
    expect(logbookOf([attempt('2026-11-30T10:00', { rating: 'unjudged' })], now).items[0]).toMatchObject({ best: undefined, isOwnEar: false });
  });

  it('is no own ear where a teacher heard the best', () => {
    const items = logbookOf([attempt('2026-11-30T10:00'), attempt('2026-11-30T11:00', { by: 'teacher' })], now).items;
    expect(items[0].isOwnEar).toBe(false);
  });

  it('counts minutes by day, days without practice too, and says what has gone stale', () => {
    const { days, items } = logbookOf(
      [attempt('2026-11-05T10:00', { item: 'old' }), attempt('2026-12-01T09:00', { seconds: 290 }), attempt('2026-12-01T10:00')],
      now,
      7,
    );
    expect(days.map(({ minutes }) => minutes)).toEqual([0, 0, 0, 0, 0, 0, 7]);
    expect(items.map(({ item, isStale }) => [item, isStale])).toEqual([
      ['l1', false],
      ['old', true],
    ]);
  });

  it('moves days by the place where it is read', () => {
    const late = [attempt('2026-11-30T23:30', { seconds: 600 })];
    expect(logbookOf(late, now, 2).days.map(({ minutes }) => minutes)).toEqual([10, 0]);
    expect(logbookOf(late, now, 2, 60).days.map(({ minutes }) => minutes)).toEqual([0, 10]);
  });

  it('is empty where nothing was practised', () => {
    expect(logbookOf([], now, 3)).toMatchObject({ items: [], days: [{ minutes: 0 }, { minutes: 0 }, { minutes: 0 }] });
  });

  it('says how much, and what moved most', () => {
    const log = [attempt('2026-11-12T10:00', { tempo: 48 }), attempt('2026-11-30T10:00'), attempt('2026-12-01T10:00', { item: 'l2', title: 'C to E' })];
    expect(logbookText(logbookOf(log, now), 'Pim')).toEqual({
      first: '4 minutes in the last seven days, on 2 days.',
      second: 'Moved most: B to E, from 48 to 60.',
    });
    expect(logbookText(logbookOf([], now), 'Pim').first).toBe('Nothing is logged of Pim yet.');
    expect(logbookText(logbookOf([attempt('2026-10-01T10:00')], now), 'Pim')).toEqual({
      first: 'Pim logged no practice in the last seven days.',
      second: 'No tempo was judged clean in two different weeks yet.',
    });
  });
});
