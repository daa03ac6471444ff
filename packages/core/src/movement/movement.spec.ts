import * as fc from 'fast-check';
import { chartedPattern, fingerCoverage, instrumentById, loadInstrument, pattern, practiceChanter as chanter, type NoteId } from '../fingering';
import {
  compileMovement,
  elementsOf,
  findMovements,
  innerChanges,
  leastTime,
  movementById,
  movementRisk,
  MovementReader,
  movementsOf,
  movementTable,
  openerOf,
  pipeMovements,
  tapOf,
  timedSteps,
  usualMovementSettings,
  type CompiledMovement,
  type MovementDefinition,
  type MovementSettings,
} from '.';
import { writtenVariants } from './recognise';
import { levels, RiskTable } from '../timing';

const ids = chanter.notes.map(({ id }) => id);
const letters: Readonly<Record<string, NoteId>> = Object.fromEntries(chanter.notes.map((note) => [note.abc, note.id]));
const compiled = (id: string, before: string, after: string, settings?: Partial<MovementSettings>): CompiledMovement =>
  compileMovement(chanter, movementById(id), before === '' ? null : letters[before], letters[after], { ...usualMovementSettings, ...settings });
const written = (...wanted: Parameters<typeof compiled>): string => {
  const movement = compiled(...wanted);
  return movement.kind === 'compiled' ? movement.written : movement.reason;
};
const patternsOf = (movement: CompiledMovement) => (movement.kind === 'compiled' ? movement.steps.map((step) => step.pattern) : []);

describe('the catalogue of the Highland chanter', () => {
  it.each([
    ['doubling', 'e', ['{gGd}G', '{gAd}A', '{gBd}B', '{gcd}c', '{gde}d', '{gef}e', '{gfg}f', '{gf}g', '{ag}a']],
    ['doubling', 'g', ['{aGd}G', '{aAd}A', '{aBd}B', '{acd}c', '{ade}d', '{aef}e', '{afg}f', '{gf}g', '{ag}a']],
    ['doubling', 'a', ['{Gd}G', '{Ad}A', '{Bd}B', '{cd}c', '{de}d', '{ef}e', '{fg}f', '{gf}g', '{ag}a']],
    ['half-doubling', 'e', ['{Gd}G', '{Ad}A', '{Bd}B', '{cd}c', '{de}d', '{ef}e', '{fg}f', '{gf}g', '{ag}a']],
  ])('%s from %s', (id, before, expected) => {
    expect([...'GABcdefga'].map((after) => written(id, before, after))).toEqual(expected);
  });

  it.each([
    ['light-throw', 'A', 'd', '{Gdc}d'],
    ['light-throw', 'G', 'd', '{dc}d'],
    ['heavy-throw', 'A', 'd', '{GdGc}d'],
    ['heavy-throw', 'G', 'd', '{dGc}d'],
    ['grip', 'A', 'e', '{GdG}e'],
    ['grip', 'd', 'e', '{GBG}e'],
    ['grip', 'G', 'e', '{dG}e'],
    ['taorluath', 'e', 'A', '{GdGe}A'],
    ['taorluath', 'e', 'B', '{GdGe}B'],
    ['taorluath', 'e', 'c', '{GdGe}c'],
    ['taorluath', 'd', 'A', '{GBGe}A'],
    ['taorluath', 'G', 'A', '{dGe}A'],
    ['crunluath', 'A', 'e', '{GdGeAfA}e'],
    ['crunluath', 'd', 'e', '{GBGeAfA}e'],
    ['crunluath', 'G', 'e', '{dGeAfA}e'],
    ['birl', 'e', 'A', '{AGAG}A'],
    ['birl', 'A', 'A', '{GAG}A'],
    ['opened-birl', 'e', 'A', '{gAGAG}A'],
    ['opened-birl', 'g', 'A', '{aAGAG}A'],
    ['strike', 'e', 'A', '{gAG}A'],
    ['strike', 'e', 'B', '{gBG}B'],
    ['strike', 'e', 'c', '{gcG}c'],
    ['strike', 'e', 'd', '{gdG}d'],
    ['light-strike', 'e', 'd', '{gdc}d'],
    ['strike', 'A', 'e', '{geA}e'],
    ['strike', 'A', 'f', '{gfe}f'],
    ['strike', 'A', 'g', '{agf}g'],
    ['strike', 'a', 'g', '{gf}g'],
    ['strike', 'g', 'B', '{aBG}B'],
    ['strike', 'a', 'B', '{BG}B'],
    ['doubling-strike', 'e', 'B', '{gBdBG}B'],
    ['doubling-strike', 'e', 'c', '{gcdcG}c'],
    ['doubling-strike', 'e', 'd', '{gdedG}d'],
    ['doubling-strike', 'A', 'e', '{gefeA}e'],
    ['doubling-strike', 'A', 'f', '{gfgfe}f'],
    ['grace-note', 'G', 'f', '{g}f'],
    ['grace-note', 'f', 'g', '{a}g'],
    ['grace-note', 'g', 'a', 'a'],
    ['grace-note', 'a', 'g', 'g'],
    ['grace-note', 'g', 'f', '{a}f'],
    ['grace-note', 'f', 'e', '{g}e'],
    ['tap', 'a', 'a', '{g}a'],
  ])('%s from %s to %s is %s', (id, before, after, expected) => {
    expect(written(id, before, after)).toBe(expected);
  });

  it('follows its settings: the full form from low G, classical endings, a plain F coming down, the thumb first into high G', () => {
    expect(written('grip', 'G', 'e', { fromLowest: 'full' })).toBe('{GdG}e');
    expect(written('light-throw', 'G', 'd', { fromLowest: 'full' })).toBe('{Gdc}d');
    expect(written('taorluath', 'e', 'G')).toMatch(/^The taorluath can only end on low A, B, C, not on low G\.$/);
    expect(written('taorluath', 'e', 'G', { classical: true })).toBe('{GdGe}G');
    expect(written('grace-note', 'g', 'f', { thumbDown: 'plain' })).toBe('f');
    expect(patternsOf(compiled('grace-note', 'f', 'g'))).toEqual([pattern('O OOO XXXO')]);
    expect(patternsOf(compiled('grace-note', 'f', 'g', { thumbOverUpper: 'thumb-first' }))).toEqual([pattern('O XOO XXXO')]);
  });

  it('plays the fingers of the chart of movements', () => {
    expect(patternsOf(compiled('doubling', 'e', 'g'))).toEqual(['X OOO XXXO', 'X XOO XXXO'].map(pattern));
    expect(patternsOf(compiled('doubling', 'e', 'a'))).toEqual(['O OOX XXXO', 'X OOX XXXO'].map(pattern));
    expect(patternsOf(compiled('light-throw', 'A', 'd'))).toEqual(['X XXX XXXX', 'X XXX OOOX', 'X XXX XOOX'].map(pattern));
    expect(patternsOf(compiled('heavy-throw', 'A', 'd'))).toEqual(['X XXX XXXX', 'X XXX OXXX', 'X XXX XXXX', 'X XXX XOOX'].map(pattern));
    expect(patternsOf(compiled('taorluath', 'e', 'A')).at(-1)).toEqual(pattern('X XXO XXXO'));
    expect(patternsOf(compiled('taorluath', 'e', 'B')).at(-1)).toEqual(pattern('X XXO XXOO'));
    expect(patternsOf(compiled('taorluath', 'e', 'c')).at(-1)).toEqual(pattern('X XXO XOOX'));
  });

  it('says what stands in and why, and why something cannot be', () => {
    const text = (...wanted: Parameters<typeof compiled>) => {
      const movement = compiled(...wanted);
      return movement.kind === 'compiled' ? movement.text.join(' ') : movement.reason;
    };
    expect(text('doubling', 'g', 'c')).toBe('The index finger is up on high G, so the thumb opens it.');
    expect(text('doubling', 'a', 'c')).toBe('The thumb is up on high A, so there is no opening grace note.');
    expect(text('grip', 'd', 'e')).toBe('After D the grace note inside is B.');
    expect(text('grip', 'G', 'e')).toBe('Low G is sounding already.');
    expect(text('tap', 'A', 'G')).toBe('Low G cannot be tapped: every hole is closed.');
    expect(text('d-grace-note', 'A', 'e')).toMatch(/^The D grace note is not possible on E/);
    expect(compiled('doubling', 'c', 'c')).toMatchObject({ isDegenerate: true });
    expect(() => movementById('pirouette')).toThrow(/no movement "pirouette"/);
  });
});

describe('a single grace note', () => {
  const into = { 'g-grace-note': 'c', 'thumb-grace-note': 'c', 'f-grace-note': 'c', 'e-grace-note': 'A', 'd-grace-note': 'A', 'b-grace-note': 'A' } as const;
  it.each([
    ['g-grace-note', 'ga'],
    ['thumb-grace-note', 'a'],
    ['f-grace-note', 'fga'],
    ['e-grace-note', 'efga'],
    ['d-grace-note', 'defga'],
    ['b-grace-note', 'Bcdefga'],
  ] as const)('%s is refused from %s, where its finger or one nearer the face is up, and from no other note', (id, refused) => {
    for (const { abc } of chanter.notes) {
      const { kind } = compiled(id, abc, into[id]);
      expect([abc, kind]).toEqual([abc, refused.includes(abc) ? 'unplayable' : 'compiled']);
    }
  });

  it('is refused on a note on which it cannot lift', () => {
    for (const [id, arrivals] of [
      ['g-grace-note', 'ga'],
      ['thumb-grace-note', 'a'],
      ['f-grace-note', 'fga'],
      ['e-grace-note', 'efga'],
    ] as const)
      for (const arrival of arrivals) expect(compiled(id, 'c', arrival).kind).toBe('unplayable');
  });

  it('is refused with its reason, its article, and what opens it instead', () => {
    expect(written('g-grace-note', 'g', 'c')).toBe(
      'The G grace note is not possible from high G: its finger, or one above it, is already up. There the thumb grace note opens it.',
    );
    expect(written('e-grace-note', 'f', 'A')).toMatch(/^The E grace note is not possible from F:/);
    expect(written('thumb-grace-note', 'a', 'c')).not.toContain('instead');
  });

  it('can be allowed by a teacher’s own word, which is shown as theirs', () => {
    const own = { ...movementById('g-grace-note'), cells: [{ before: 'high-g', after: 'c', graces: ['high-g'] }] };
    expect(compileMovement(chanter, own, 'high-g', 'c')).toMatchObject({ kind: 'compiled', isOverride: true });
  });

  it.each([
    ['G', 'c', 'A tap needs its own note sounding: from low G there is nothing on C to tap yet.'],
    ['A', 'e', 'A tap needs its own note sounding: from low A there is nothing on E to tap yet.'],
    ['f', 'd', 'A tap needs its own note sounding: from F there is nothing on D to tap yet.'],
    ['c', 'c', '{G}c'],
    ['e', 'e', '{A}e'],
  ])('a tap alone from %s to %s: "%s"', (before, after, text) => {
    expect(written('tap', before, after)).toBe(text);
  });
});

describe('what opens a movement, from every start', () => {
  it('is G where the index finger is down on both notes, the thumb where it is up and the thumb down, none where the thumb is up', () => {
    for (const before of ids) {
      for (const after of ids) {
        const isDown = (finger: string): boolean => [before, after].every((note) => fingerCoverage(chanter, chartedPattern(chanter, note), finger) === 1);
        const expected = { both: 'high-g', thumb: 'high-a', none: undefined }[isDown('T') ? (isDown('L1') ? 'both' : 'thumb') : 'none'];
        expect(openerOf(chanter, ['high-g', 'high-a'], before, after)?.written).toBe(expected);
      }
    }
  });

  it('taps E to low A, F to E, high G to F, light D to C; the lower hand to low G; low G not at all', () => {
    expect(['e', 'f', 'high-g'].map((note) => tapOf(chanter, note)?.written)).toEqual(['low-a', 'e', 'f']);
    expect(['low-a', 'b', 'c', 'd'].map((note) => tapOf(chanter, note)?.written)).toEqual(['low-g', 'low-g', 'low-g', 'low-g']);
    expect(tapOf(chanter, 'd', 'light')?.written).toBe('c');
    expect(tapOf(chanter, 'high-a')?.pattern).toEqual(pattern('X OOX XXXO'));
    expect(tapOf(chanter, 'low-g')).toBeUndefined();
  });
});

describe('an invented chanter on which left index and left middle have changed their parts', () => {
  const swap = <T>(list: readonly T[]): T[] => [list[0], list[2], list[1], ...list.slice(3)];
  const other: Readonly<Record<string, string>> = { L1: 'L2', L2: 'L1' };
  const invented = loadInstrument({
    ...(chanter as object),
    id: 'invented',
    fingerings: chanter.fingerings.map((each) => ({ ...each, pattern: swap(each.pattern) })),
    graceNotes: chanter.graceNotes.map((rule) => ({ ...rule, opens: rule.opens.map((finger) => other[finger] ?? finger) })),
  });
  const at = (id: string, before: string, after: string): string => {
    const movement = compileMovement(invented, movementById(id), letters[before], letters[after]);
    return movement.kind === 'compiled' ? movement.written : movement.reason;
  };

  it('has the exceptions that its own fingerings bring: on its F the index finger is up, so the thumb opens, and no second grace note is possible', () => {
    expect(chartedPattern(invented, 'f')).toEqual(pattern('X OXO XXXO'));
    expect(at('grace-note', 'A', 'f')).toBe('{a}f');
    expect(at('grace-note', 'f', 'A')).toBe('{a}A');
    expect(at('doubling', 'A', 'f')).toBe('{fe}f');
    expect(at('doubling', 'A', 'c')).toBe('{gcd}c');
    expect(at('strike', 'A', 'f')).toBe('{afe}f');
  });
});

describe('the changes inside a movement', () => {
  const risks = new RiskTable(chanter, levels.learner, 2000);

  it('the last low G of a taorluath to its E grace note lets low A slip in: the classic fault', () => {
    const inner = innerChanges(risks, compiled('taorluath', 'e', 'A'));
    const last = inner.find(({ to }) => to === 3)!;
    expect(last.change.movers.map(({ finger }) => finger)).toEqual(['L3', 'R4']);
    expect(last.risk.run.probability + last.risk.low.probability).toBeGreaterThan(0.2);
    expect(movementRisk(inner)).toBeGreaterThan(0.2);
    const toB = innerChanges(risks, compiled('taorluath', 'e', 'B')).find(({ to }) => to === 3)!;
    expect(toB.change.movers.map(({ finger }) => finger)).toEqual(['L3', 'R3', 'R4']);
  });

  it('single grace notes on one note have none', () => {
    expect(innerChanges(risks, compiled('d-grace-note', 'A', 'A'))).toEqual([]);
    expect(movementRisk([])).toBe(0);
    expect(innerChanges(risks, compiled('tap', 'A', 'G'))).toEqual([]);
  });
});

describe('time', () => {
  it('gives grace notes their length, low notes more, and an even movement equal spaces', () => {
    const pace = { graceMs: 50, lowTimes: 2, evenTimes: 2 };
    expect(timedSteps(compiled('grip', 'A', 'e'), pace).map(({ lengthMs }) => lengthMs)).toEqual([100, 50, 100]);
    const onsets = timedSteps(compiled('taorluath', 'e', 'A'), pace).map(({ startMs }) => startMs);
    expect(onsets).toEqual([0, 100, 150, 200]);
    expect(leastTime(compiled('doubling', 'e', 'c'), pace)).toBe(250);
    expect(elementsOf(compiled('taorluath', 'a', 'A'))).toBe(4);
    expect(elementsOf(compiled('tap', 'A', 'G'))).toBe(0);
    expect(() => timedSteps(compiled('grip', 'A', 'e'), { graceMs: 5, lowTimes: 2, evenTimes: 2 })).toThrow(/20 to 150 ms.*these were 5, 2 and 2/);
  });
});

describe('findMovements', () => {
  it.each([
    ['taorluath', 'taorluath'],
    ['torluath', 'taorluath'],
    ['leumluath', 'grip'],
    ['slur', 'strike'],
    ['thumb doubling', 'doubling'],
    ['dubling', 'doubling'],
    ['back grace note', 'thumb-grace-note'],
    ['doubling on C', 'doubling'],
    ['throw', 'light-throw'],
  ])('%s finds %s', (words, id) => {
    expect(findMovements(chanter, words)[0]?.id).toBe(id);
  });

  it('finds a movement by one word of its name, written a little wrong', () => {
    expect(findMovements(chanter, 'sweeep')[0]?.id).toBe('tap');
    expect(findMovements(chanter, 'crunlauth')[0]?.id).toBe('crunluath');
    expect(findMovements(chanter, 'duobling')[0]?.id).toBe('doubling');
  });

  it('finds nothing for what is none, and everything for nothing', () => {
    expect(findMovements(chanter, 'zzzzzzzzz')).toEqual([]);
    expect(findMovements(chanter, '')).toHaveLength(pipeMovements.length);
    expect(movementsOf(instrumentById('ocarina-12-c-split'))).toEqual([]);
  });
});

describe('ways of writing a movement', () => {
  it('are left out only where they make no difference', () => {
    const lowest = chanter.notes[0].id;
    const formOf = (movement: MovementDefinition, before: NoteId | null, after: NoteId, settings: MovementSettings): string => {
      const made = compileMovement(chanter, movement, before, after, settings);
      return made.kind === 'unplayable' ? '' : made.written;
    };
    const missed: string[] = [];
    for (const movement of movementsOf(chanter)) {
      for (const before of [null, ...chanter.notes.map(({ id }) => id)]) {
        for (const { id: after } of chanter.notes) {
          const way = { lowest, movement, before, after };
          const kept = new Set(writtenVariants.filter(({ matters }) => matters(way)).map(({ settings }) => formOf(movement, before, after, settings)));
          const all = writtenVariants.map(({ settings }) => formOf(movement, before, after, settings)).filter((form) => form !== '');
          if (all.some((form) => !kept.has(form))) missed.push(`${movement.id} ${before ?? ''} ${after}`);
        }
      }
    }
    expect(missed).toEqual([]);
  });
});

describe('MovementReader', () => {
  const reader = new MovementReader(chanter);
  const read = (before: string, group: string, after: string) =>
    reader.read(
      before === '' ? null : letters[before],
      [...group].map((letter) => letters[letter]),
      letters[after],
    );

  it.each([
    ['f', 'c', 'd'],
    ['low-a', 'e', 'f'],
    ['d', 'high-g', 'high-a'],
  ])('from %s {%s} before %s is no tap: its note does not sound yet', (before, grace, after) => {
    const found = reader.read(before, [grace], after);
    const names = found.kind === 'known' ? found.candidates.map(({ movement }) => movement.id) : [];
    expect(names).not.toContain('tap');
    const own = reader.read(after, [grace], after);
    expect(own.kind === 'known' && own.candidates[0].movement.id).toBe('tap');
  });

  it('says in which other way than the usual a movement is played', () => {
    const variant = (...wanted: Parameters<typeof read>): string | undefined => {
      const found = read(...wanted);
      return found.kind === 'known' ? found.candidates[0].variant : undefined;
    };
    expect(variant('e', 'gcd', 'c')).toBe('');
    expect(variant('G', 'GdG', 'e')).toBe('in full after the lowest note');
    expect(variant('g', 'gcd', 'c')).toBe('');
    const isWrong = (...wanted: Parameters<typeof read>): boolean | undefined => {
      const found = read(...wanted);
      return found.kind === 'known' ? found.candidates[0].isWrongStart : undefined;
    };
    expect([isWrong('g', 'gcd', 'c'), isWrong('e', 'gcd', 'c'), isWrong('d', 'GdG', 'e'), isWrong('d', 'GBG', 'e')]).toEqual([true, false, true, false]);
    expect(variant('e', 'gdedc', 'd')).toBe('with a light tap');
    expect(variant('e', 'GdGe', 'G')).toBe('with a classical ending');
  });

  it('finds every compiled movement among what is written so, whatever the start, the arrival and the setting (property)', () => {
    for (const movement of pipeMovements) {
      for (const settings of [
        usualMovementSettings,
        { ...usualMovementSettings, fromLowest: 'full' as const },
        { ...usualMovementSettings, classical: true },
      ]) {
        for (const { cells } of movementTable(chanter, movement, settings)) {
          for (const cell of cells) {
            if (cell.kind === 'unplayable' || cell.steps.length === 0) continue;
            const found = reader.read(
              cell.before,
              cell.steps.map((step) => step.written),
              cell.after,
            );
            expect(found.kind === 'known' && found.candidates.map((each) => each.movement.id)).toContain(movement.id);
          }
        }
      }
    }
  });

  it('names what is nearest and how it differs', () => {
    expect(read('e', 'GdG', 'A')).toMatchObject({ kind: 'known', candidates: [{ movement: { id: 'grip' } }] });
    expect(read('e', 'GdGd', 'A')).toMatchObject({ kind: 'unknown', nearest: { movement: { id: 'taorluath' } }, differs: 'element 4 is D, not E' });
    expect(read('e', 'gce', 'c')).toMatchObject({ kind: 'unknown', nearest: { movement: { id: 'doubling' } }, differs: 'element 3 is E, not D' });
    expect(read('e', '', 'A')).toEqual({ kind: 'none' });
    expect(read('e', 'BcBcBcBc', 'A').kind).toBe('none');
  });

  it('reads any letters without failing, the same each time (property)', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...ids), { maxLength: 9 }), fc.constantFrom(...ids), fc.option(fc.constantFrom(...ids)), (group, after, before) => {
        expect(reader.read(before, group, after)).toEqual(new MovementReader(chanter).read(before, group, after));
      }),
      { numRuns: 40 },
    );
  });
});
