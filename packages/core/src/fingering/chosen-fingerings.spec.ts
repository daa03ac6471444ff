import { assertChosen, chosenOf, instrumentById, instruments, practiceChanter, wayIdOf, wayName, withChosen } from '.';
import { pattern } from './pattern';

const recorder = instrumentById('recorder-soprano-baroque');
const [other] = recorder.fingerings.filter(({ rank }) => rank === 2);
const [chosen] = chosenOf([other]);

describe('withChosen', () => {
  it('puts the chosen way of every note of every instrument first, and leaves the others in their order', () => {
    for (const instrument of instruments) {
      for (const way of instrument.fingerings.filter(({ rank }) => rank > 1)) {
        const ways = withChosen(instrument, chosenOf([way])).fingerings.filter(({ note }) => note === way.note);
        expect(ways.find(({ rank }) => rank === 1)).toMatchObject({ pattern: way.pattern, note: way.note });
        expect(ways.map(({ rank }) => rank).sort()).toEqual(
          instrument.fingerings
            .filter(({ note }) => note === way.note)
            .map(({ rank }) => rank)
            .sort(),
        );
      }
    }
  });

  it('gives the same instrument for the same choice, and itself for none', () => {
    expect(withChosen(recorder, [chosen])).toBe(withChosen(recorder, [{ ...chosen }]));
    expect(withChosen(recorder, [])).toBe(recorder);
    expect(withChosen(recorder, null)).toBe(recorder);
    expect(withChosen(recorder, undefined)).toBe(recorder);
  });

  it('plays a way that the instrument no longer has', () => {
    const bare = { ...recorder, fingerings: recorder.fingerings.filter((each) => each !== other) };
    const [first] = withChosen(bare, [chosen]).fingerings.filter(({ note, rank }) => note === other.note && rank === 1);
    expect(first.pattern).toEqual(other.pattern);
  });

  it('passes over what does not fit: other holes, a note that it does not have', () => {
    expect(withChosen(practiceChanter, [chosen])).toBe(practiceChanter);
    expect(withChosen(recorder, [{ note: 'nowhere', pattern: chosen.pattern }])).toBe(recorder);
    expect(withChosen(recorder, [{ note: chosen.note, pattern: [1, 0] }])).toBe(recorder);
  });
});

describe('chosenOf', () => {
  it('keeps the ways that are not taught first, each once', () => {
    const first = recorder.fingerings.find(({ note, rank }) => note === other.note && rank === 1);
    expect(chosenOf([other, other, ...(first === undefined ? [] : [first])])).toEqual([{ note: other.note, pattern: other.pattern }]);
  });
});

describe('the name of a way', () => {
  it('is the note’s for the way taught first, and an alternative for another', () => {
    expect(wayName(practiceChanter, { note: 'low-a', pattern: pattern('X XXX XXXO') })).toBe('low A');
    const name = recorder.notes.find(({ id }) => id === other.note)?.schoolName ?? '';
    expect(wayName(recorder, other)).toBe(`${name} (fingering 2)`);
    expect(wayName(withChosen(recorder, [chosen]), other)).toBe(name);
    expect(wayName(recorder, { note: other.note, pattern: recorder.holes.map(() => 0.25) })).toBe(`${name} (fingering 2)`);
  });

  it('counts where there are several', () => {
    const third = instrumentById('whistle-d').fingerings.find(({ rank }) => rank === 3);
    expect(third).toBeDefined();
    expect(wayName(instrumentById('whistle-d'), third ?? other)).toMatch(/ \(fingering 3\)$/);
  });

  it('differs for every two ways of an instrument', () => {
    for (const { fingerings } of instruments) expect(new Set(fingerings.map(wayIdOf)).size).toBe(fingerings.length);
  });
});

describe('assertChosen', () => {
  const played = new Set([chosen.note]);
  it('accepts a way of a note that is played, and none', () => {
    expect(() => assertChosen(recorder, [chosen], played)).not.toThrow();
    expect(() => assertChosen(recorder, null, played)).not.toThrow();
  });

  it('refuses other holes, notes that are not played, two ways of one note and unknown notes', () => {
    expect(() => assertChosen(recorder, [{ ...chosen, pattern: [1, 1] }], played)).toThrow(/with 2 came/);
    expect(() => assertChosen(recorder, [chosen], new Set())).toThrow(/does not play it/);
    expect(() => assertChosen(recorder, [chosen, chosen], played)).toThrow(/Two fingerings/);
    expect(() => assertChosen(recorder, [{ ...chosen, note: 'nowhere' }], played)).toThrow(/not “nowhere”/);
  });
});
