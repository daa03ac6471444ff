import abcjs from 'abcjs';
import type { LineWords } from '../excerpt';
import { practiceChanter as chanter } from '../fingering';
import { movementById, pipeMovements, usualMovementSettings, type MovementDefinition } from '../movement';
import { drillOf, movementExercises, movementLines, type MovementExercise } from '.';
import { exerciseSchema, layeredNotes, lineAbc, lineAtLayer, notesOfLine, shortNotes, withLayer, wordRows, type Exercise } from '../line';

const lines = (id: MovementDefinition['id'], kind: MovementExercise, before = 'e', after = 'c') =>
  movementLines(chanter, { kind, movement: movementById(id), before, after, settings: usualMovementSettings });
const abc = (...wanted: Parameters<typeof lines>): string =>
  lines(...wanted)
    .lines.map((line) => lineAbc(chanter, line).split('\n')[4])
    .join(' ');

describe('lines of a movement', () => {
  it('the grace note scale goes up with G, thumb into high G, nothing into high A, and down with the thumb on F', () => {
    expect(abc('grace-note', 'scale')).toBe(
      '{g}G2 {g}A2 | {g}B2 {g}c2 | {g}d2 {g}e2 | {g}f2 {a}g2 | a4 |] a2 g2 | {a}f2 {g}e2 | {g}d2 {g}c2 | {g}B2 {g}A2 | {g}G4 |]',
    );
  });

  it('a doubling from every note leaves out the note itself and says so', () => {
    const { lines: made, leftOut } = lines('doubling', 'from-every-note');
    expect(leftOut).toEqual(['from C itself: the same note before and after']);
    const notes = made.flatMap((line) => notesOfLine(chanter, line));
    expect(notes.filter(({ note }) => note === 'c')).toHaveLength(8);
    expect(notes.at(-1)?.graceNotes?.join(' ')).toBe('c d');
  });

  it('the same note before and after is the first drill of what leaves its note and comes back', () => {
    for (const [id, after] of [
      ['taorluath', 'low-a'],
      ['taorluath', 'b'],
      ['taorluath', 'c'],
      ['birl', 'low-a'],
      ['grip', 'e'],
    ] as const) {
      const { lines: made, leftOut } = lines(id, 'from-every-note', 'e', after);
      const [first, second] = notesOfLine(chanter, made[0]);
      expect([first.note, second.note, second.movement]).toEqual([after, after, id]);
      expect(leftOut.join()).not.toContain('itself');
    }
    expect(lines('doubling', 'from-every-note').leftOut.join()).toContain('from C itself');
    expect(lines('light-strike', 'from-every-note', 'e', 'd').leftOut.join()).toContain('from D itself');
  });

  it('no line begins in the middle of what belongs together', () => {
    for (const kind of ['from-every-note', 'opened-and-back'] as const)
      for (const line of lines('taorluath', kind, 'e', 'low-a').lines) expect(notesOfLine(chanter, line)[0].movement).not.toBe('taorluath');
    for (const line of lines('tap', 'taps').lines) expect(notesOfLine(chanter, line)[0].movement).not.toBe('tap');
  });

  it('a scale of a movement that ends on one note is that note from every other', () => {
    expect(lines('light-throw', 'scale').lines[0].exercise?.title).toMatch(/^Throw on D on D from every note/);
    expect(abc('light-throw', 'scale')).toContain('{dc}d2');
  });

  it('a taps scale leaves out low G; a movement that cannot be says why', () => {
    expect(lines('tap', 'scale').leftOut).toContain('on low G');
    expect(lines('taorluath', 'repeated', 'e', 'f')).toMatchObject({ lines: [], leftOut: [expect.stringContaining('can only end on low A, B, C')] });
  });

  it('is within what a sheet holds and is engraved without a fault', () => {
    for (const id of ['doubling', 'strike', 'taorluath', 'crunluath', 'birl', 'doubling-strike'] as const) {
      for (const line of lines(id, 'scale').lines) {
        expect(exerciseSchema.safeParse(line.exercise).success).toBe(true);
        expect(abcjs.parseOnly(lineAbc(chanter, line))[0].warnings ?? []).toEqual([]);
      }
    }
  });
});

describe('exercises', () => {
  it('the taorluath scale: each note with its opener, then back to low A, B or C', () => {
    expect(abc('taorluath', 'opened-and-back', 'e', 'low-a')).toMatch(
      /^{g}G2 {dGe}A2 \| {g}A2 {GdGe}A2 \| {g}B2 {GdGe}A2 \| {g}c2 {GdGe}A2 \|\] {g}d2 {GBGe}A2/,
    );
    expect(abc('taorluath', 'opened-and-back', 'e', 'low-a')).toContain('{a}g2 {GdGe}A2');
    expect(abc('taorluath', 'opened-and-back', 'e', 'c')).toContain('{g}d2 {GBGe}c2');
    expect(lines('taorluath', 'opened-and-back', 'e', 'd')).toMatchObject({ lines: [] });
  });

  it('a throw from low A and from every other note, D left out', () => {
    const { lines: made, leftOut } = lines('light-throw', 'from-every-note', 'e', 'd');
    expect(leftOut.join()).toContain('from D itself');
    expect(made.flatMap((line) => notesOfLine(chanter, line)).filter(({ movement }) => movement === 'light-throw')).toHaveLength(8);
  });

  it('the strike scale goes over every note that can be struck', () => {
    expect(abc('strike', 'scale')).toContain('{gAG}A2 {gBG}B2 | {gcG}c2 {gdG}d2 | {geA}e2');
    expect(lines('strike', 'scale').leftOut).toContain('on low G');
  });

  it('a grip goes both ways', () => {
    expect(abc('grip', 'both-ways', 'd', 'low-a')).toContain('{GBG}A2 {GdG}d2');
  });

  it('the top-hand grip is on E, F, high G and high A, each with its own opener, then from high A without', () => {
    const { leftOut } = lines('grip', 'same-note');
    expect(abc('grip', 'same-note')).toBe(
      '{g}e2 {GdG}e2 | {g}f2 {GdG}f2 | {a}g2 {GdG}g2 | a2 {GdG}a2 |] a2 e2 | {GdG}e4 | a2 f2 | {GdG}f4 |] a2 g2 | {GdG}g4 | a2 {GdG}a2 |]',
    );
    expect(leftOut).toEqual(expect.arrayContaining([expect.stringMatching(/^on B: the lower hand/), expect.stringMatching(/^on D:/)]));
  });

  it('the taps exercise: note with its grace note, the tap’s note, the note, tapped, twice; then one grace note and three taps', () => {
    const text = abc('tap', 'taps');
    expect(text).toContain('{g}A G A {G}A | {g}A G A {G}A | {g}A {G}A {G}A {G}A');
    expect(text).toContain('{g}e A e {A}e');
    const titles = lines('tap', 'taps').lines.map(({ exercise }) => exercise?.title);
    expect(titles).toEqual(['low A', 'B', 'C', 'heavy D', 'light D', 'E', 'F', 'high G', 'high A'].map((name) => `Taps on ${name}`));
    expect(text).toContain('{g}d G d {G}d');
    expect(text).toContain('{g}d c d {c}d');
    expect(text).toContain('{a}g f g {f}g');
    expect(lines('tap', 'taps').leftOut).toEqual(['on low G: it cannot be tapped']);
  });

  it('G, D and E grace notes in a row drop what a note does not allow, and say so', () => {
    const { leftOut } = lines('grace-note', 'runs');
    expect(abc('grace-note', 'runs')).toContain('{g}A {d}A {e}A A |');
    expect(abc('grace-note', 'runs')).toContain('{g}d {e}d d2');
    expect(leftOut).toContain('on D: D');
  });

  it('every exercise of every movement is within what a sheet holds and is engraved without a fault (property)', () => {
    for (const { id } of pipeMovements)
      for (const kind of movementExercises)
        for (const line of lines(id, kind, 'e', 'low-a').lines) {
          expect(exerciseSchema.safeParse(line.exercise).error).toBeUndefined();
          expect(abcjs.parseOnly(lineAbc(chanter, line))[0].warnings ?? []).toEqual([]);
        }
  });
});

describe('layers of a line', () => {
  const [line] = lines('doubling', 'repeated').lines;
  const exercise = line.exercise as Exercise;

  it('one note of it stands at another layer, and comes back', () => {
    const [{ index, layers }] = layeredNotes(chanter, exercise.notes);
    const bare = withLayer(exercise, index, layers[0]);
    expect(bare.notes[index].graceNotes).toEqual([]);
    expect(layeredNotes(chanter, bare.notes)[0].standsAt?.kind).toBe('bare');
    const full = layers.find(({ kind }) => kind === 'full');
    expect(withLayer(bare, index, full ?? layers[0])).toEqual(exercise);
  });

  it('all of it stands at a layer, or at the fullest below that a note has', () => {
    const one = lineAtLayer(chanter, exercise, 'one');
    expect(layeredNotes(chanter, one.notes).map(({ standsAt }) => standsAt?.kind)).toEqual(['one', 'one', 'one', 'one']);
    const fromHighA = lines('doubling', 'repeated', 'high-a', 'c').lines[0].exercise as Exercise;
    expect(layeredNotes(chanter, lineAtLayer(chanter, fromHighA, 'one').notes)[0].standsAt?.kind).toBe('bare');
    expect(lineAtLayer(chanter, lineAtLayer(chanter, exercise, 'bare'), 'full')).toEqual(exercise);
  });

  it('a note too short at a tempo is named with the layers that fit', () => {
    expect(shortNotes(chanter, exercise.notes, 60)).toEqual([]);
    const [short] = shortNotes(chanter, exercise.notes, 500);
    expect(short).toMatchObject({ noteMs: 240, leastMs: 300 });
    expect(short.fits.map(({ kind }) => kind)).toEqual(['bare', 'one', 'simpler']);
  });

  it('the first note of a second line stands where it was written, as if the line before went on', () => {
    const [, second] = lines('doubling', 'scale').lines;
    expect(layeredNotes(chanter, second.exercise?.notes ?? []).map(({ standsAt }) => standsAt?.kind)).toEqual(Array(9).fill('full'));
  });

  it('a movement that is known no more is left alone', () => {
    expect(layeredNotes(chanter, [{ note: 'c', twelfths: 12, movement: 'gone' }])).toEqual([]);
  });
});

describe('words under a line', () => {
  const [line] = lines('doubling', 'repeated').lines;

  it('letters, or a syllable for each element; nothing under what goes on from a tied note', () => {
    const under = (words: LineWords): readonly string[] => lineAbc(chanter, line, words).trimEnd().split('\n').slice(5);
    expect(under({ kind: 'none' })).toEqual([]);
    expect(under({ kind: 'letters' })).toEqual(['w:E C E C E C E C']);
    const rows = under({ kind: 'syllables', set: { 'high-g': { note: '', grace: 'hi' }, d: { note: '', grace: 'di da' } } });
    expect(rows.map((row) => row.slice(0, 8))).toEqual(['w:E hi E', 'w:* C * ', 'w:* di~d', 'w:* C * ']);
    const tied = [
      { note: 'c', twelfths: 36 },
      { note: 'e', twelfths: 36 },
    ];
    expect(wordRows(chanter, tied, { kind: 'letters' })).toEqual([['C', 'E', '']]);
  });

  it('are read by an engraver without a fault, whatever a teacher types', () => {
    const set = { c: { note: '-_*|%', grace: '' }, e: { note: 'a\\b', grace: '' } };
    expect(abcjs.parseOnly(lineAbc(chanter, line, { kind: 'syllables', set }))[0].warnings ?? []).toEqual([]);
  });
});

describe('speeds', () => {
  it('three speeds go from half to full, a drill in six small steps', () => {
    expect(drillOf('three-speeds', 80).speeds).toEqual([40, 60, 80]);
    const { speeds, tempo } = drillOf('speed-drill', 80);
    expect(speeds).toHaveLength(6);
    expect(speeds).toEqual([...(speeds ?? [])].sort((one, other) => one - other));
    expect([tempo, speeds?.at(0), speeds?.at(-1)]).toEqual([40, 40, 80]);
    expect(drillOf('as-it-is', 80)).toMatchObject({ tempo: 80, speeds: null });
  });

  it.each([0, 39, 301, Number.NaN])('%d beats a minute are refused', (full) => {
    expect(() => drillOf('three-speeds', full)).toThrow(/between 40 and 300/);
  });
});
