import * as fc from 'fast-check';
import { asksAtEnd, climbed, judgedAtEnd, ladderAt, ladderPlan, ladderScore, ladderText, type Ladder, type RungRating } from './ladder';

const from48 = ladderAt({ start: 48, step: 6, ceiling: 90 });
const after = (...ratings: readonly RungRating[]): Ladder => ratings.reduce(climbed, from48);

describe('the tempo ladder', () => {
  it('scores 60 from 48 by 6 with a slip at 66 after a clean 60', () => {
    const ladder = after('clean', 'clean', 'clean', 'slip');
    expect(ladder.rungs.map(({ tempo }) => tempo)).toEqual([48, 54, 60, 66]);
    expect([ladderScore(ladder), ladder.next]).toEqual([60, undefined]);
    expect(ladderText(ladder)).toBe('Clean at 60, slipped at 66. Next time starts at 42.');
  });

  it('raises nothing where nobody judged', () => {
    const ladder = after('unjudged', 'unjudged', 'slip');
    expect(ladderScore(ladder)).toBeUndefined();
    expect(asksAtEnd(ladder)).toBe(true);
    expect(ladderScore(judgedAtEnd(ladder, true))).toBe(54);
    expect(ladderScore(judgedAtEnd(ladder, false))).toBeUndefined();
    expect(ladderText(after('slip'))).toBe('A slip at 48. Next time from 48 again, or slower.');
  });

  it('plays a rung once more after nearly', () => {
    expect(after('clean', 'nearly').next).toBe(54);
    expect(ladderScore(after('clean', 'nearly', 'clean'))).toBe(54);
  });

  it('begins three rungs under the best, never over the ceiling', () => {
    expect(ladderPlan(90, 66).start).toBe(48);
    expect(ladderPlan(90, undefined).start).toBe(54);
    expect(ladderPlan(60, 200).start).toBe(42);
    expect(ladderPlan(24, 20).start).toBe(20);
  });

  it('never goes past its ceiling, ends once and for all, and scores only what was clean (property)', () => {
    const rating = fc.constantFrom<RungRating>('clean', 'nearly', 'slip', 'unjudged');
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 120 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 20, max: 200 }),
        fc.array(rating, { maxLength: 60 }),
        (best, step, ceiling, ratings) => {
          const plan = ladderPlan(ceiling, best, step);
          let ladder = ladderAt(plan);
          for (const each of ratings) {
            const next = climbed(ladder, each);
            if (ladder.next === undefined) expect(next).toBe(ladder);
            ladder = next;
          }
          for (const { tempo } of ladder.rungs) expect(tempo).toBeLessThanOrEqual(Math.max(ceiling, 20));
          expect(ladder.rungs.filter(({ rating: each }) => each === 'slip').length).toBeLessThanOrEqual(1);
          const score = ladderScore(ladder);
          if (score !== undefined) expect(ladder.rungs).toContainEqual({ tempo: score, rating: 'clean' });
        },
      ),
    );
  });
});
