import { attemptInputSchema } from '@zelpit/contract';
import { logbookOf } from '@zelpit/core';
import { demoLog } from './demo-log';
import { demoLearners } from './demo-studio.data';

const now = Date.parse('2026-12-01T12:00:00Z');

describe('the made-up log of the demo', () => {
  it('is the same for the same seed, and can be logged as it is', () => {
    for (const learner of demoLearners) {
      const log = demoLog(learner, now, 7);
      expect(demoLog(learner, now, 7)).toEqual(log);
      expect(log.length).toBeGreaterThan(60);
      for (const each of log) attemptInputSchema.omit({ studentId: true }).parse(each);
      expect(log.every(({ at }) => Date.parse(at) < now)).toBe(true);
    }
  });

  it('shows somebody learning: every item that was practised long enough is faster at its end', () => {
    const [pim] = demoLearners;
    const attempts = demoLog(pim, now, 1).map(({ title, at, seconds, tempo, rating, ladder }) => ({
      ...{ item: title, title, kind: 'line', at: Date.parse(at), seconds, tempo, rating, by: 'student' as const },
      cleanTempos: ladder?.rungs.flatMap((rung) => (rung.rating === 'clean' ? [rung.tempo] : [])) ?? [],
    }));
    const { items } = logbookOf(attempts, now);
    expect(items.map(({ title }) => title).sort()).toEqual(['B to E', 'C to E', 'Grace note scale', 'low A to E']);
    for (const { weeks } of items) expect(weeks[weeks.length - 1].best).toBeGreaterThan(weeks[0].best + 8);
    expect(items.filter(({ isStale }) => isStale).map(({ title }) => title)).toEqual(['Grace note scale']);
  });
});
