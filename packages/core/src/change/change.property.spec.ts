import * as fc from 'fast-check';
import { heardFrom, liesBelow } from '../acoustics';
import { chartedPattern, fingerCoverage, holesThatDiffer, practiceChanter as chanter, type Pattern } from '../fingering';
import { adviceFor, changeBetween, crossingNoise, heardPhrases, leadOf, moversBetween, outcomesOf, patternsAlong, troubleOf } from '.';

const ids = chanter.notes.map((note) => note.id);
const noteId = fc.constantFrom(...ids);
const holes = fc.array(fc.constantFrom(0, 1, 0.5), { minLength: 8, maxLength: 8 });
const pair = fc.tuple(noteId, noteId).filter(([from, to]) => from !== to);

describe('between any two patterns', () => {
  it('going back swaps lifts and lowers and nothing else', () => {
    fc.assert(
      fc.property(holes, holes, (one, other) => {
        const there = moversBetween(chanter, one, other);
        const back = moversBetween(chanter, other, one);
        const swapped = there.map((mover) => ({ ...mover, direction: mover.direction === 'lift' ? 'lower' : 'lift' }));
        expect(back).toEqual(swapped);
      }),
    );
  });

  it('nobody moves from a pattern to itself, and the movers are exactly the fingers whose cover differs', () => {
    fc.assert(
      fc.property(holes, holes, (one, other) => {
        expect(moversBetween(chanter, one, one)).toEqual([]);
        const differing = chanter.fingers.filter(({ id }) => fingerCoverage(chanter, one, id) !== fingerCoverage(chanter, other, id));
        expect(moversBetween(chanter, one, other).map((mover) => mover.finger)).toEqual(differing.map(({ id }) => id));
      }),
    );
  });
});

describe('between any two notes', () => {
  it('every order of the movers goes one hole at a time and arrives', () => {
    fc.assert(
      fc.property(
        pair.chain(([from, to]) => {
          const change = changeBetween(chanter, from, to);
          const fingers = change.movers.map((mover) => mover.finger);
          return fc.tuple(fc.constant(change), fc.shuffledSubarray(fingers, { minLength: fingers.length, maxLength: fingers.length }));
        }),
        ([change, order]) => {
          const way: Pattern[] = [change.fromPattern, ...patternsAlong(chanter, change, order), change.toPattern];
          expect(way).toHaveLength(order.length + 1);
          way.slice(1).forEach((pattern, index) => expect(holesThatDiffer(pattern, way[index])).toBe(1));
        },
      ),
    );
  });

  it('the lead holds every mover once: lifts by the rule for the direction, landings furthest first', () => {
    fc.assert(
      fc.property(pair, ([from, to]) => {
        const change = changeBetween(chanter, from, to);
        const { lifts, lowers } = leadOf(change);
        expect([...lifts, ...lowers].sort()).toEqual(change.movers.map((mover) => mover.finger).sort());
        const place = (finger: string): number => chanter.fingers.findIndex(({ id }) => id === finger);
        const rises = (fingers: readonly string[]): boolean => fingers.every((finger, index) => index === 0 || place(finger) > place(fingers[index - 1]));
        expect(rises(change.isRising ? lifts : [...lifts].reverse())).toBe(true);
        expect(rises([...lowers].reverse())).toBe(true);
      }),
    );
  });

  it('a crossing noise is lower than both notes and comes only with a cross; the worst way stays for the way back', () => {
    for (const from of ids) {
      for (const to of ids.filter((id) => id !== from)) {
        const change = changeBetween(chanter, from, to);
        const noise = crossingNoise(chanter, change, outcomesOf(chanter, change));
        if (noise !== undefined) {
          expect(change.kind).toBe('cross');
          expect(liesBelow(chanter, noise, from, to)).toBe(true);
        }
        const back = changeBetween(chanter, to, from);
        expect(crossingNoise(chanter, back, outcomesOf(chanter, back))).toBe(noise);
      }
    }
  });

  it('there is one sentence of advice and one of what is heard, and they name only notes of the change or heard in it', () => {
    for (const from of ids) {
      for (const to of ids.filter((id) => id !== from)) {
        const change = changeBetween(chanter, from, to);
        const outcomes = outcomesOf(chanter, change);
        const advice = adviceFor(chanter, change, troubleOf(chanter, change, outcomes));
        expect(advice.todo).toMatch(/^[A-Z][^.]*\.$/);
        expect(advice.otherwise).toMatch(/^[A-Z][^.]*\.$/);
        const phrases = heardPhrases(chanter, change, outcomes);
        expect('loweringFirst' in phrases).toBe(change.kind === 'cross');
        expect('liftingFirst' in phrases).toBe(change.kind === 'cross');
      }
    }
  });
});

describe('heardFrom', () => {
  it('gives a note of the instrument for every pattern, half holes too', () => {
    fc.assert(
      fc.property(holes, (pattern) => {
        const heard = heardFrom(chanter, pattern);
        expect(ids).toContain(heard.note);
        expect(heard.pitch).toBeGreaterThan(150);
        expect(heard.pitch).toBeLessThan(500);
      }),
    );
  });

  it('is the chart where the chart has the pattern', () => {
    for (const id of ids) expect(heardFrom(chanter, chartedPattern(chanter, id))).toMatchObject({ kind: 'charted', note: id });
  });

  it('moves with the reference', () => {
    const pattern = chartedPattern(chanter, 'e');
    expect(heardFrom(chanter, pattern, { reference: 240 as never }).pitch / heardFrom(chanter, pattern, { reference: 232 as never }).pitch).toBeCloseTo(
      240 / 232,
      9,
    );
  });
});
