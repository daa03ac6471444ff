import * as fc from 'fast-check';
import { instrumentById, practiceChanter as chanter } from '../fingering';
import { changeBetween, crossesOf, isGlide, isPinch, kindPhrase, mirrorCheck, physicalHints, leadOf, outcomesOf, troubleOf } from '.';
import { adviceFor, heardPhrases, spokenFingers } from './advice';
import { crossingNoise, patternsAlong } from './in-between';
import { heardFrom } from '../acoustics';
import { withFingers } from '../fingering';

const ids = chanter.notes.map((note) => note.id);
const pairs = ids.flatMap((from) => ids.filter((to) => to !== from).map((to) => [from, to] as const));
const anyPair = fc.constantFrom(...pairs);
const trouble = (from: string, to: string) => troubleOf(chanter, changeBetween(chanter, from, to));

describe('crossesOf', () => {
  it('lists C and D for low A', () => {
    expect(crossesOf(chanter, 'low-a')).toEqual(['c', 'd']);
  });

  it('lists the crosses of every note as the chart gives them', () => {
    expect(crossesOf(chanter, 'low-g')).toEqual([]);
    expect(crossesOf(chanter, 'b')).toEqual(['c', 'd', 'e', 'f', 'high-g', 'high-a']);
    expect(crossesOf(chanter, 'c')).toEqual(['low-a', 'b', 'e', 'f', 'high-g', 'high-a']);
    expect(crossesOf(chanter, 'd')).toEqual(['low-a', 'b', 'e', 'f', 'high-g', 'high-a']);
    expect(crossesOf(chanter, 'e')).toEqual(['b', 'c', 'd', 'high-a']);
    expect(crossesOf(chanter, 'f')).toEqual(['b', 'c', 'd', 'high-a']);
    expect(crossesOf(chanter, 'high-g')).toEqual(['b', 'c', 'd', 'high-a']);
    expect(crossesOf(chanter, 'high-a')).toEqual(['b', 'c', 'd', 'e', 'f', 'high-g']);
  });

  it('counts 0, 2, 6, 6, 6, 4, 4, 4, 6 from low G to high A: 19 of the 36 pairs', () => {
    expect(ids.map((id) => crossesOf(chanter, id).length)).toEqual([0, 2, 6, 6, 6, 4, 4, 4, 6]);
    const unordered = pairs.filter(([from, to]) => ids.indexOf(from) < ids.indexOf(to));
    expect(unordered).toHaveLength(36);
    expect(unordered.filter(([from, to]) => changeBetween(chanter, from, to).kind === 'cross')).toHaveLength(19);
  });
});

describe('changeBetween', () => {
  it('moves one finger from C to D, so it is no cross', () => {
    const change = changeBetween(chanter, 'c', 'd');
    expect(change.movers).toEqual([{ finger: 'R1', hand: 'right', direction: 'lift' }]);
    expect(change.kind).toBe('lift-only');
  });

  it('tells a direct exchange: B to E is left ring up, right ring down', () => {
    const change = changeBetween(chanter, 'b', 'e');
    expect(change.isDirectExchange).toBe(true);
    expect(change.hands).toBe('both');
    expect(kindPhrase(change)).toBe('straight swap across both hands');
  });

  it('names kinds as teachers do', () => {
    expect(kindPhrase(changeBetween(chanter, 'low-a', 'c'))).toBe('cross in the right hand');
    expect(kindPhrase(changeBetween(chanter, 'c', 'e'))).toBe('cross across both hands');
    expect(kindPhrase(changeBetween(chanter, 'low-a', 'high-g'))).toBe('fingers only lift, left hand');
    expect(kindPhrase(changeBetween(chanter, 'e', 'low-g'))).toBe('fingers only land, both hands');
    expect(kindPhrase(changeBetween(chanter, 'e', 'e'))).toBe('no finger moves');
  });

  it('swaps lifts and lowers when it is reversed', () => {
    fc.assert(
      fc.property(anyPair, ([from, to]) => {
        const there = changeBetween(chanter, from, to).movers;
        const back = changeBetween(chanter, to, from).movers;
        expect(back.map((mover) => mover.finger)).toEqual(there.map((mover) => mover.finger));
        there.forEach((mover, index) => expect(back[index].direction).not.toBe(mover.direction));
      }),
    );
  });

  it('leads from the from-pattern to the to-pattern whatever the order of fingers', () => {
    fc.assert(
      fc.property(anyPair, fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })), ([from, to], random) => {
        const change = changeBetween(chanter, from, to);
        const order = change.movers.map((mover) => ({ finger: mover.finger, key: random.next().value as number })).sort((a, b) => a.key - b.key);
        const along = patternsAlong(
          chanter,
          change,
          order.map((each) => each.finger),
        );
        expect(along).toHaveLength(change.movers.length - 1);
        const last = along.at(-1) ?? change.fromPattern;
        const mover = order.at(-1)?.finger ?? '';
        const direction = change.movers.find((each) => each.finger === mover)?.direction;
        expect(withFingers(chanter, last, [mover], direction === 'lift' ? 0 : 1)).toEqual(change.toPattern);
      }),
    );
  });

  it('refuses a note that the instrument does not have, and names those it has', () => {
    expect(() => changeBetween(chanter, 'low-a', 'x')).toThrow(/low G, low A, B.*not “x”/);
  });
});

describe('leadOf', () => {
  it('lets the finger nearest the face lead going up and the furthest going down', () => {
    expect(leadOf(changeBetween(chanter, 'low-a', 'high-g')).lifts).toEqual(['L1', 'L2', 'L3']);
    expect(leadOf(changeBetween(chanter, 'e', 'd')).lifts).toEqual(['R3', 'R2', 'R1']);
  });

  it('lands the furthest first and the nearest last', () => {
    expect(leadOf(changeBetween(chanter, 'high-g', 'low-a')).lowers).toEqual(['L3', 'L2', 'L1']);
  });
});

describe('the shape of the hands', () => {
  it('a mirror shows the lower hand on the note that is reached', () => {
    expect(mirrorCheck(chanter, changeBetween(chanter, 'low-a', 'c'))).toBe('In the mirror, on C: right index and little down, middle and ring up.');
    expect(mirrorCheck(chanter, changeBetween(chanter, 'low-a', 'low-g'))).toBe('In the mirror, on low G: right index, middle, ring and little down.');
  });

  it('knows pinches and glides, and the breath alone', () => {
    const recorder = instrumentById('recorder-soprano-baroque');
    const pinch = changeBetween(recorder, 'e5', 'e6');
    expect([isPinch(pinch), isGlide(pinch), kindPhrase(pinch)]).toEqual([true, true, 'pinch: the thumb alone']);
    const breath = changeBetween(instrumentById('whistle-d'), 'e5', 'e6');
    expect([isPinch(breath), isGlide(breath), kindPhrase(breath)]).toEqual([false, false, 'only the breath']);
    expect(isGlide(changeBetween(chanter, 'b', 'e'))).toBe(false);
  });

  it('three fingers of the lower hand are helped by the wrist, one finger by nothing', () => {
    expect(physicalHints(changeBetween(chanter, 'low-g', 'd'))[0]).toMatch(/wrist/);
    expect(physicalHints(changeBetween(chanter, 'c', 'd'))).toEqual([]);
  });
});

describe('what is heard', () => {
  const low = (from: string, to: string) => {
    const change = changeBetween(chanter, from, to);
    return crossingNoise(chanter, change, outcomesOf(chanter, change));
  };

  it('is low G from low A to C with the little finger first', () => {
    const change = changeBetween(chanter, 'low-a', 'c');
    expect(heardFrom(chanter, withFingers(chanter, change.fromPattern, ['R4'], 1))).toMatchObject({ kind: 'charted', note: 'low-g' });
    expect(low('low-a', 'c')).toBe('low-g');
  });

  it('is low A from B to E with the right ring first', () => {
    const change = changeBetween(chanter, 'b', 'e');
    expect(heardFrom(chanter, withFingers(chanter, change.fromPattern, ['R3'], 1))).toMatchObject({ kind: 'charted', note: 'low-a' });
    expect(low('b', 'e')).toBe('low-a');
  });

  it('is only a blur of B from B to C with the little finger first', () => {
    const change = changeBetween(chanter, 'b', 'c');
    expect(heardFrom(chanter, withFingers(chanter, change.fromPattern, ['R4'], 1))).toMatchObject({ kind: 'coloured', note: 'b' });
    expect(trouble('b', 'c')).toEqual({ kind: 'blur', note: 'b' });
  });

  it('is E from C to F with the left ring before the left middle', () => {
    const change = changeBetween(chanter, 'c', 'f');
    expect(heardFrom(chanter, withFingers(chanter, change.fromPattern, ['L3'], 0)).note).toBe('e');
    expect(outcomesOf(chanter, change).run).toContain('e');
  });

  it('is low A from high A to E with the left ring late', () => {
    const change = changeBetween(chanter, 'high-a', 'e');
    const late = withFingers(chanter, change.toPattern, ['L3'], 1);
    expect(heardFrom(chanter, late)).toMatchObject({ kind: 'charted', note: 'low-a' });
    expect(trouble('high-a', 'e')).toEqual({ kind: 'pop', note: 'low-a' });
  });

  it('is low G from C to E while the little finger is down, low A once it is up', () => {
    const change = changeBetween(chanter, 'c', 'e');
    expect(heardFrom(chanter, withFingers(chanter, change.fromPattern, ['R2', 'R3'], 1)).note).toBe('low-g');
    expect(heardFrom(chanter, withFingers(chanter, withFingers(chanter, change.fromPattern, ['R2', 'R3'], 1), ['R4'], 0)).note).toBe('low-a');
  });

  it('is B from low A to C with the ring finger before the middle', () => {
    const change = changeBetween(chanter, 'low-a', 'c');
    expect(heardFrom(chanter, withFingers(chanter, change.fromPattern, ['R3'], 0)).note).toBe('b');
    expect(outcomesOf(chanter, change).run).toEqual(['b']);
  });

  it('is low G in 10 of the 19 crosses, low A in 5, a blur of the lower one in 4', () => {
    const heard = pairs.filter(([from, to]) => ids.indexOf(from) < ids.indexOf(to) && changeBetween(chanter, from, to).kind === 'cross');
    const noises = heard.map(([from, to]) => low(from, to));
    expect(noises.filter((note) => note === 'low-g')).toHaveLength(10);
    expect(noises.filter((note) => note === 'low-a')).toHaveLength(5);
    const blurred = heard.filter(([from, to]) => low(from, to) === undefined);
    expect(blurred.map((pair) => pair.join(' '))).toEqual(['b c', 'b d', 'f high-a', 'high-g high-a']);
    for (const [from, to] of blurred) {
      expect(outcomesOf(chanter, changeBetween(chanter, from, to)).loweringFirst?.heard).toMatchObject({ kind: 'coloured', note: from });
    }
  });

  it('goes wrong in no lowering-first way where nothing lowers', () => {
    const outcomes = outcomesOf(chanter, changeBetween(chanter, 'low-a', 'e'));
    expect(outcomes).toEqual({ wrongOrder: [], run: [] });
  });
});

describe('trouble and advice', () => {
  it.each([
    ['c', 'e', 'Lift left ring and right little before you land.', 'Land too soon and low G cuts in before E.'],
    ['low-a', 'c', 'Lift right middle and ring before you land right little.', 'Land too soon and low G cuts in before C.'],
    ['b', 'e', 'Lift left ring just before right ring lands.', 'Land too soon and low A cuts in before E.'],
    ['low-a', 'e', 'One finger lifts: left ring.', 'Nothing can cut in.'],
    ['e', 'high-g', 'Left index leads; left middle goes with it.', 'Fingers out of order, and F slips in before high G.'],
    ['e', 'low-g', 'Right little lands first, left ring last.', 'Fingers out of order, and low A slips in before low G.'],
    ['b', 'c', 'Lift right middle just before right little lands.', 'Land too soon and B blurs.'],
  ])('advises %s to %s in plain words', (from, to, todo, otherwise) => {
    expect(adviceFor(chanter, changeBetween(chanter, from, to), trouble(from, to))).toEqual({ todo, otherwise });
  });

  it('says what each way of going wrong sounds', () => {
    const change = changeBetween(chanter, 'c', 'e');
    expect(heardPhrases(chanter, change, outcomesOf(chanter, change))).toEqual({
      loweringFirst: 'low G',
      liftingFirst: 'a gap, then a thin E',
      wrongOrder: 'a blurred C',
    });
  });
});

describe('spokenFingers', () => {
  it('says the hand once where several of its fingers follow each other', () => {
    expect(spokenFingers(chanter, ['R3', 'R2', 'R1'])).toBe('right ring, middle and index');
    expect(spokenFingers(chanter, ['L3', 'R4'])).toBe('left ring and right little');
    expect(spokenFingers(chanter, ['T', 'L1', 'L2', 'R4'])).toBe('thumb, left index, middle and right little');
    expect(spokenFingers(chanter, ['L3'])).toBe('left ring');
  });
});
