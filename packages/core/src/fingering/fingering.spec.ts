import * as fc from 'fast-check';
import { chartedPattern, fingerCoverage, fingerOf, instrumentById, loadInstrument, pattern, practiceChanter as chanter, soundingPitch, withFingers } from '.';
import { centsBetween, hertz } from '../pitch';

describe('the practice chanter', () => {
  it.each([
    ['low-g', 'X XXX XXXX'],
    ['low-a', 'X XXX XXXO'],
    ['b', 'X XXX XXOO'],
    ['c', 'X XXX XOOX'],
    ['d', 'X XXX OOOX'],
    ['e', 'X XXO XXXO'],
    ['f', 'X XOO XXXO'],
    ['high-g', 'X OOO XXXO'],
    ['high-a', 'O OOX XXXO'],
  ])('plays %s as %s', (note, holes) => {
    expect(chartedPattern(chanter, note)).toEqual(pattern(holes));
  });

  it('has an exact octave between low A and high A and a low G of 7/8', () => {
    expect(centsBetween(soundingPitch(chanter, 'low-a'), soundingPitch(chanter, 'high-a'))).toBeCloseTo(1200, 6);
    expect(centsBetween(soundingPitch(chanter, 'low-a'), soundingPitch(chanter, 'low-g'))).toBeCloseTo(-231.17, 1);
    expect(soundingPitch(chanter, 'low-a')).toBe(237.5);
  });

  it('keeps the right hand in the low A shape on every top-hand note', () => {
    const right = (note: string) => chartedPattern(chanter, note).slice(4);
    for (const note of ['e', 'f', 'high-g', 'high-a']) expect(right(note)).toEqual(right('low-a'));
  });
});

describe('loadInstrument', () => {
  const broken = (change: (copy: any) => void) => {
    const copy = structuredClone(chanter) as any;
    change(copy);
    return () => loadInstrument(copy);
  };

  it('accepts what it gave', () => {
    expect(loadInstrument(structuredClone(chanter))).toEqual(chanter);
  });

  it.each([
    ['a finger that is not there', (copy: any) => (copy.holes[0].finger = 'Z'), /finger Z, which does not exist/],
    ['two notes with one pattern', (copy: any) => (copy.fingerings[1].pattern = copy.fingerings[0].pattern), /low G and low A have the same fingering/],
    ['a pattern of the wrong length', (copy: any) => copy.fingerings[2].pattern.pop(), /B has 7 holes instead of 8/],
    ['a note without fingering', (copy: any) => copy.fingerings.pop(), /high A has no first choice of fingering/],
    ['a hole twice', (copy: any) => (copy.holes[1].id = 'T'), /there are two of hole T/],
    ['an unknown field', (copy: any) => (copy.colour = 'black'), /colour/i],
    ['a coverage over 1', (copy: any) => (copy.fingerings[0].pattern[0] = 2), /fingering 1, pattern 1: more than 1/],
    ['a grace note on a note that is not there', (copy: any) => copy.graceNotes[0].on.push('low-x'), /low-x/],
  ])('refuses %s', (_, change, message) => {
    expect(broken(change)).toThrow(message);
  });
});

describe('patterns', () => {
  it('refuse another sign than X, O and h', () => {
    expect(() => pattern('X XQX')).toThrow(/X, O or h, not “Q”/);
  });

  it('count half holes and fingers over two holes', () => {
    const two = { ...chanter, holes: [...chanter.holes.slice(0, 7), { id: 'S', finger: 'R3' }] };
    expect(fingerCoverage(two, pattern('X XXX XXXO'), 'R3')).toBe(0.5);
    expect(pattern('h')).toEqual([0.5]);
    expect(() => fingerCoverage(chanter, pattern('X XXX XXXX'), 'RT')).toThrow(/no finger RT/);
  });

  it('change only the holes of the fingers named', () => {
    fc.assert(
      fc.property(fc.subarray(chanter.fingers.map((finger) => finger.id)), (fingers) => {
        const open = withFingers(chanter, pattern('X XXX XXXX'), fingers, 0);
        open.forEach((coverage, hole) => expect(coverage).toBe(fingers.includes(chanter.holes[hole].finger) ? 0 : 1));
      }),
    );
  });
});

describe('look-ups', () => {
  it('name what is missing', () => {
    expect(() => instrumentById('kazoo')).toThrow(/no instrument "kazoo"/);
    expect(() => fingerOf(chanter, 'Z')).toThrow(/no finger Z/);
  });

  it('check units', () => {
    expect(() => hertz(0)).toThrow(/between 1 and 20000, not 0/);
    expect(() => hertz(Number.NaN)).toThrow();
  });
});
