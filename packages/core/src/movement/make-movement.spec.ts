import { practiceChanter as chanter, chartedPattern, withFingers } from '../fingering';
import {
  compileMovement,
  lettersOfPatterns,
  movementById,
  movementFile,
  movementFromWritten,
  movementsOf,
  movementTable,
  partText,
  pipeMovements,
  readMovementFile,
  readWrittenForm,
  unknownNotes,
  usualMovementSettings,
  type MovementDefinition,
} from '.';

const made = (written: string, before: string | null, arrives: 'everywhere' | 'here' = 'everywhere'): MovementDefinition =>
  movementFromWritten(chanter, readWrittenForm(chanter, written), before, { id: 'mine', name: 'mine', arrives }, usualMovementSettings);
const written = (definition: MovementDefinition, before: string | null, after: string): string => {
  const compiled = compileMovement(chanter, definition, before, after);
  return compiled.kind === 'compiled' ? compiled.written : compiled.reason;
};
const all = chanter.notes.map(({ id }) => id);

describe('a movement out of one example', () => {
  it.each([
    ['{gcd}c', 'e', 'doubling'],
    ['{gBd}B', 'low-a', 'doubling'],
    ['{cd}c', 'high-a', 'half-doubling'],
    ['{gcG}c', 'e', 'strike'],
    ['{gdc}d', 'e', 'light-strike'],
    ['{gcdcG}c', 'e', 'doubling-strike'],
    ['{GdG}A', 'e', 'grip'],
    ['{GdGe}A', 'e', 'taorluath'],
    ['{Gdc}d', 'e', 'light-throw'],
    ['{GdGc}d', 'e', 'heavy-throw'],
  ])('%s from %s is generalised to the table of the %s', (form, before, id) => {
    const own = made(form, before);
    const { arrivals } = movementById(id);
    for (const start of all)
      for (const after of all.filter((each) => (arrivals ?? all).includes(each) && each !== start)) {
        const wanted = compileMovement(chanter, movementById(id), start, after);
        if (wanted.kind === 'compiled') expect([start, written(own, start, after)]).toEqual([start, wanted.written]);
      }
  });

  it('bends at the edges by the laws, though nobody said so: thumb from high G, no opener from high A', () => {
    const own = made('{gcd}c', 'e');
    expect(written(own, 'high-g', 'c')).toBe('{acd}c');
    expect(written(own, 'high-a', 'c')).toBe('{cd}c');
    expect(written(own, 'c', 'low-g')).toBe('{gGd}G');
  });

  it('only the D inside a grip gives way to B: another grace note on low G keeps its letter from every start', () => {
    const own = made('{GdGeG}A', 'e');
    expect([written(own, 'e', 'b'), written(own, 'd', 'b'), written(own, 'c', 'low-a')]).toEqual(['{GdGeG}B', '{GBGeG}B', '{GdGeG}A']);
  });

  it('cells that break a law say which', () => {
    const own = made('{ed}B', 'e');
    const cells = movementTable(chanter, own).flatMap((row) => row.cells);
    expect(cells.some((cell) => cell.kind === 'compiled')).toBe(true);
    expect(cells.filter((cell) => cell.kind === 'unplayable' && cell.after === 'e')[0]).toMatchObject({ reason: expect.stringContaining('not possible on E') });
  });

  it('an example that the laws would write otherwise stands as the teacher’s own, and the rest follows the laws', () => {
    const own = made('{gcd}c', 'high-g');
    expect(own.cells).toEqual([{ before: 'high-g', after: 'c', graces: ['high-g', 'c', 'd'] }]);
    const compiled = compileMovement(chanter, own, 'high-g', 'c');
    expect(compiled).toMatchObject({ written: '{gcd}c', isOverride: true, text: ['Your own form, not the usual one.'] });
    expect(written(own, 'e', 'c')).toBe('{gcd}c');
    expect(written(own, 'high-g', 'b')).toBe('{aBd}B');
  });

  it('may be kept to the note of its example', () => {
    const own = made('{GdG}A', 'e', 'here');
    expect(compileMovement(chanter, own, 'e', 'b')).toMatchObject({ kind: 'unplayable', reason: 'The mine can only end on low A, not on B.' });
  });

  it('is the movement again that was compiled, for every start and arrival', () => {
    for (const movement of pipeMovements)
      for (const before of all)
        for (const after of all) {
          const compiled = compileMovement(chanter, movement, before, after);
          if (compiled.kind === 'unplayable' || compiled.steps.length === 0) continue;
          const own = made(compiled.written, before);
          expect(written(own, before, after)).toBe(compiled.written);
        }
  });
});

describe('what is typed or played', () => {
  it.each([
    ['gcd c', /in braces/],
    ['{gcd}', /in braces/],
    ['{gxd}c', /“x” is not a note/],
    ['{gcd}h', /“h” is not a note/],
    ['', /in braces/],
  ])('“%s” cannot be read and says why', (text, message) => {
    expect(() => readWrittenForm(chanter, text)).toThrow(message);
  });

  it('finger patterns are read as letters: grace notes on the theme, on the lowest note, notes and taps', () => {
    const on = (note: string, ...open: string[]) => withFingers(chanter, chartedPattern(chanter, note), open, 0);
    const low = chartedPattern(chanter, 'low-g');
    expect(lettersOfPatterns(chanter, [on('c', 'L1'), on('c'), on('c', 'R1')], 'c')).toEqual(['high-g', 'c', 'd']);
    expect(lettersOfPatterns(chanter, [low, on('low-g', 'R1'), low, on('low-a', 'L3')], 'low-a')).toEqual(['low-g', 'd', 'low-g', 'e']);
    expect(lettersOfPatterns(chanter, [on('high-g', 'T')], 'high-g')).toEqual(['high-a']);
  });

  it('a pattern that is nothing of the chanter is named', () => {
    expect(() => lettersOfPatterns(chanter, [[0, 1, 0, 1, 0, 1, 0, 1]], 'c')).toThrow(/Step 1 is not a note/);
  });
});

describe('every element in words', () => {
  it.each(pipeMovements.map((each) => [each.names[0], each] as const))('%s', (_, movement) => {
    for (const part of movement.parts) expect(partText(chanter, part)).toMatch(/^[a-zA-Z].{5,}/);
  });
});

describe('movements as a file', () => {
  const own = { ...made('{gcd}c', 'e'), author: 'Maren' };

  it('is read as it was written', () => {
    expect(readMovementFile(chanter, movementFile([own])).movements).toEqual([own]);
  });

  it('an own movement stands in place of a built-in one with its id, and after the others else', () => {
    const other = { ...movementById('grip'), names: ['our grip'] };
    expect(movementsOf(chanter, [other, own]).map(({ names }) => names[0])).toEqual([
      ...pipeMovements.map(({ id, names }) => (id === 'grip' ? 'our grip' : names[0])),
      'mine',
    ]);
    expect(movementById('grip', [other]).names).toEqual(['our grip']);
  });

  it.each([
    ['no JSON', /not a JSON/],
    ['{"format":"other"}', /format/],
    [movementFile([{ ...own, parts: [] }]), /parts|element/],
    [movementFile([{ ...own, id: 'Not An Id' }]), /small letters/],
    [movementFile([{ ...own, arrivals: ['h'] }]), /names h, which the practice chanter does not have/],
    [movementFile([{ ...own, parts: [{ part: 'somersault' } as never] }]), /part/],
  ])('%.40s is refused with a sentence', (text, message) => {
    expect(() => readMovementFile(chanter, text)).toThrow(message);
  });

  it('names the notes that an instrument does not have', () => {
    expect(unknownNotes(chanter, { ...own, arrivals: ['c', 'z'] })).toEqual(['z']);
  });
});
