import { crossesOf } from '../change';
import { instrumentById, practiceChanter } from '../fingering';
import { coverageOf, linesOf } from '.';

describe('sets of lines on the chanter', () => {
  it('have nineteen crosses once each, thirty-eight by note, and each note’s own', () => {
    expect(linesOf(practiceChanter, { kind: 'crosses-once' }).lines).toHaveLength(19);
    const byNote = linesOf(practiceChanter, { kind: 'crosses-by-note' }).lines;
    expect(byNote).toHaveLength(38);
    for (const { id } of practiceChanter.notes) {
      const own = linesOf(practiceChanter, { kind: 'crosses-with', note: id }).lines.map(({ other }) => other);
      expect(own).toEqual(crossesOf(practiceChanter, id));
      expect(byNote.filter(({ home }) => home === id).map(({ other }) => other)).toEqual(own);
    }
    expect(linesOf(practiceChanter, { kind: 'crosses-with', note: 'low-g' }).lines).toEqual([]);
  });

  it('lift from the first note of a lift-only line, and land in a lower-only one; with the crosses they are all 72', () => {
    const lifts = linesOf(practiceChanter, { kind: 'lift-only' }).lines;
    const lands = linesOf(practiceChanter, { kind: 'lower-only' }).lines;
    expect(lifts).toContainEqual({ home: 'low-a', other: 'e' });
    expect(lands).toContainEqual({ home: 'e', other: 'low-a' });
    expect(lifts.length + lands.length + 38).toBe(72);
  });

  it('leave out and name what the breath alone changes', () => {
    const whistle = instrumentById('whistle-d');
    const { leftOut } = linesOf(whistle, { kind: 'neighbours' });
    expect(leftOut).toEqual([]);
    expect(linesOf(whistle, { kind: 'lift-only' }).lines.some(({ home, other }) => home === 'e5' && other === 'e6')).toBe(false);
  });
});

describe('coverage', () => {
  const wanted = linesOf(practiceChanter, { kind: 'crosses-with', note: 'low-a' }).lines;

  it('names what is missing and what stands twice, whichever note comes first', () => {
    expect(coverageOf(wanted, [])).toEqual({ missing: wanted, doubled: [] });
    const there = [
      { home: 'c', other: 'low-a' },
      { home: 'low-a', other: 'c' },
    ];
    expect(coverageOf(wanted, there)).toEqual({ missing: [{ home: 'low-a', other: 'd' }], doubled: [{ home: 'low-a', other: 'c' }] });
  });
});
