import fc from 'fast-check';
import { instrumentById, pattern, patternKey, type Instrument, type NoteId } from '../fingering';
import { cheapestPath, PathCosts, type PathNote } from '.';

const whistle = instrumentById('whistle-d');
const recorder = instrumentById('recorder-soprano-baroque');
const irish = instrumentById('irish-chanter-d');
const slurred = (...notes: readonly NoteId[]): PathNote[] => notes.map((note) => ({ note, isApart: false }));
const costsOf = new Map([whistle, recorder, irish].map((instrument) => [instrument, new PathCosts(instrument)]));
const costs = (instrument: Instrument): PathCosts => costsOf.get(instrument) as PathCosts;

/** Every path, one by one. */
function exhaustive(all: PathCosts, notes: readonly PathNote[]): readonly { readonly total: number; readonly ways: readonly number[] }[] {
  let paths: { total: number; ways: readonly number[] }[] = [{ total: 0, ways: [] }];
  notes.forEach(({ note, isApart }, index) => {
    paths = paths.flatMap(({ total, ways }) =>
      all.waysOf(note, new Map()).map((way) => ({
        total: total + all.ofWay(way) + (index === 0 || isApart ? 0 : all.ofChange(ways[index - 1], way)),
        ways: [...ways, way],
      })),
    );
  });
  return paths;
}

describe('the cheapest fingerings', () => {
  it('are those that trying all of them finds, and so is what every other way costs', () => {
    fc.assert(
      fc.property(
        fc
          .constantFrom(whistle, recorder, irish)
          .chain((instrument) =>
            fc.tuple(
              fc.constant(instrument),
              fc.array(fc.record({ note: fc.constantFrom(...instrument.notes.map(({ id }) => id)), isApart: fc.boolean() }), { minLength: 1, maxLength: 5 }),
            ),
          ),
        ([instrument, notes]) => {
          const all = exhaustive(costs(instrument), notes);
          const best = Math.min(...all.map(({ total }) => total));
          const { choices, total } = cheapestPath(costs(instrument), notes);
          expect(total).toBeCloseTo(best, 9);
          choices.forEach(({ others }, index) => {
            for (const { fingering, more } of others) {
              const through = all.filter(({ ways }) => costs(instrument).fingering(ways[index]) === fingering).map((path) => path.total);
              expect(more).toBeCloseTo(Math.min(...through) - best, 9);
            }
          });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('of a C natural hang on its neighbours, and name what the next best costs', () => {
    const between = (note: NoteId): string => patternKey(cheapestPath(costs(whistle), slurred(note, 'c6', note)).choices[1].fingering.pattern);
    const used = new Set(whistle.notes.filter(({ id }) => id !== 'c6').map(({ id }) => between(id)));
    expect(used.size).toBeGreaterThan(1);
    const { choices } = cheapestPath(costs(whistle), slurred('a5', 'c6', 'a5'));
    expect(choices[1].others).toHaveLength(3);
    expect(choices[1].others[0].more).toBeGreaterThan(0);
  });

  it('are only of one kind where the teacher pinned it', () => {
    const pins = new Map([['c6', patternKey(pattern('OXX XOX'))]]);
    const { choices, total } = cheapestPath(costs(whistle), slurred('a5', 'c6', 'b5', 'c6'), pins);
    expect([choices[1], choices[3]].map(({ fingering }) => fingering.pattern.join(''))).toEqual(['011101', '011101']);
    expect(total).toBeGreaterThanOrEqual(cheapestPath(costs(whistle), slurred('a5', 'c6', 'b5', 'c6')).total);
  });

  it('are the best by themselves where the tongue parts the notes', () => {
    for (const { id } of whistle.notes) {
      const [, second] = cheapestPath(costs(whistle), [
        { note: 'g5', isApart: true },
        { note: id, isApart: true },
      ]).choices;
      const own = costs(whistle)
        .waysOf(id, new Map())
        .map((way) => costs(whistle).ofWay(way));
      const chosen = whistle.fingerings.indexOf(second.fingering);
      expect(costs(whistle).ofWay(chosen)).toBe(Math.min(...own));
    }
  });

  it('of nothing are nothing; a note that is not there is named', () => {
    expect(cheapestPath(costs(whistle), [])).toEqual({ choices: [], total: 0 });
    expect(() => cheapestPath(costs(whistle), slurred('h9'))).toThrow('not “h9”');
  });
});
