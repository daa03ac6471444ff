import abcjs from 'abcjs';
import { instrumentById, practiceChanter as chanter, type Instrument } from '../fingering';
import { MovementReader, usualMovementSettings } from '../movement';
import { movementsOfTune, proposeSeparations, readTune, withGraceNotes, type Density, type ParsedAbc, type Tune } from '.';

const tuneOf = (instrument: Instrument, text: string): Tune => readTune(instrument, abcjs.parseOnly(text)[0] as unknown as ParsedAbc);

describe('movements of a tune', () => {
  const text = 'X:1\nT:Three Lamps\nM:4/4\nL:1/8\nQ:1/4=60\nK:HP\ne4{gcd}c4|e4{gcd}c/2e/2e3|e4{gcx}c4|e4{gfcb}c4|{g}e4-e4|\n'
    .replace('{gcx}', '{gce}')
    .replace('{gfcb}', '{gfcB}');
  const movements = (tempo: number) => movementsOfTune(chanter, tuneOf(chanter, text), new MovementReader(chanter), { tempo, settings: usualMovementSettings });

  it('each group is named, or its nearest with how it differs', () => {
    const [first, , third] = movements(60);
    expect(first).toMatchObject({ written: '{gcd}c', recognised: { kind: 'known' }, fits: undefined });
    expect(third.recognised).toMatchObject({ kind: 'unknown' });
  });

  it('a note too short at the tempo is flagged with the layers that fit', () => {
    const [long, short] = movements(60);
    expect([long.noteMs, short.noteMs]).toEqual([2000, 250]);
    expect(short.fits?.map(({ kind }) => kind)).toEqual(['bare', 'one', 'simpler']);
    expect(movements(30)[1].fits).toBeUndefined();
  });

  it('a note counts with what is tied to it', () => {
    expect(movements(60).at(-1)?.noteMs).toBe(4000);
  });
});

describe('a wrong start', () => {
  const head = 'X:1\nT:Four Tin Roofs\nM:4/4\nL:1/8\nQ:1/4=60\nK:HP\n';
  const read = (abc: string) => movementsOfTune(chanter, tuneOf(chanter, abc), new MovementReader(chanter), { tempo: 60, settings: usualMovementSettings });
  const found = (music: string) => read(`${head}${music}|\n`).at(-1);

  it.each([
    ['g4{gcd}c4', '{acd}c'],
    ['a4{gcd}c4', '{cd}c'],
    ['d4{GdG}e4', '{GBG}e'],
    ['d4{GdGe}A4', '{GBGe}A'],
    ['g4{g}e4', '{a}e'],
    ['a4{g}e4', 'e'],
  ])('%s is found, and its right form is %s', (music, right) => {
    expect(found(music)?.right).toMatchObject({ written: right, isWrongStart: true });
    expect(found(music)?.right?.text).not.toBe('');
  });

  it.each(['e4{gcd}c4', 'g4{acd}c4', 'a4{cd}c4', 'd4{GBG}e4', 'G4{dG}e4', 'G4{GdG}e4', 'g4{a}e4', 'c4{g}e4', 'z4{gcd}c4'])(
    '%s starts as it should',
    (music) => {
      expect(found(music)?.recognised.kind).toBe('known');
      expect(found(music)?.right).toBeUndefined();
    },
  );

  it('a wrong element has its right form too', () => {
    expect(found('e4{gbd}B4')?.right).toMatchObject({ written: '{gBd}B', isWrongStart: false });
    expect(found('e4{gce}c4')?.right?.written).toBe('{gcd}c');
  });

  it('is written right into the text, and then is none; nothing else of the text changes', () => {
    const abc = `${head}|:"A"g4 {gcd}!accent!c4|a4{g}e4|d2 {GdG} e2 (3{g}ABc :|\n% a remark {gcd}\n`;
    for (const wanted of [0, 1, 2]) {
      const movement = read(abc).filter(({ right }) => right !== undefined)[wanted];
      const changed = withGraceNotes(chanter, abc, movement.note, movement.right?.graces ?? []);
      const again = read(changed);
      expect(again.filter(({ right }) => right !== undefined)).toHaveLength(2);
      expect(tuneOf(chanter, changed).notes.map(({ written, duration }) => [written, duration])).toEqual(
        tuneOf(chanter, abc).notes.map(({ written, duration }) => [written, duration]),
      );
      expect(changed.replace(/\{[^}]*\}/g, '').replace(/\s/g, '')).toBe(abc.replace(/\{[^}]*\}/g, '').replace(/\s/g, ''));
    }
  });

  it('leaves a text alone in which nothing stands before the note', () => {
    const [first] = tuneOf(chanter, `${head}A4 {g}c4|\n`).notes;
    expect(withGraceNotes(chanter, `${head}A4 {g}c4|\n`, first, ['high-g'])).toBe(`${head}A4 {g}c4|\n`);
  });
});

describe('what parts repeated notes', () => {
  const whistle = instrumentById('whistle-d');
  const text = 'X:1\nT:Wet Slates\nM:4/4\nL:1/8\nK:D\nAAAF G2GG|E3F GGFE|DDD2 FFAA|A3B AAFD|AAAF G2GG|E3F GGFE|DDD2 FFAA|D3E D4|\n';
  const tune = tuneOf(whistle, text);
  const proposed = (density: Density, instrument = whistle) => proposeSeparations(instrument, tune, { density });
  const ornaments = (density: Density): number => proposed(density).filter(({ kind }) => kind !== 'tongue').length;

  it('plain: every repeated note is parted by the tongue, and nothing else is touched', () => {
    expect(new Set(proposed('plain').map(({ kind }) => kind))).toEqual(new Set(['tongue']));
    const repeated = tune.notes.filter(({ written }, index) => index > 0 && JSON.stringify(written) === JSON.stringify(tune.notes[index - 1].written));
    expect(proposed('plain').map(({ note }) => note.index)).toEqual(repeated.map(({ index }) => index));
  });

  it('a few: two ornaments in a phrase of four bars; a session: five', () => {
    expect([ornaments('plain'), ornaments('a-few'), ornaments('session')]).toEqual([0, 4, 10]);
  });

  it('every repeated note is parted in every density (property)', () => {
    const plain = new Set(proposed('plain').map(({ note }) => note.index));
    for (const density of ['a-few', 'session'] as const) {
      const all = new Set(proposed(density).map(({ note }) => note.index));
      for (const index of plain) expect(all.has(index)).toBe(true);
    }
  });

  it('on the lowest note no roll is possible, so a cran stands in; each says why', () => {
    const onLowest = proposed('session').filter(({ note, kind }) => note.written.kind === 'note' && note.written.note === 'd5' && kind !== 'tongue');
    for (const { kind } of onLowest) expect(kind).not.toMatch(/roll|tap/);
    for (const { text } of proposed('session')) expect(text).toMatch(/\.$/);
  });

  it('pipes part by a stop; other instruments have no proposals', () => {
    const pipes = instrumentById('irish-chanter-d');
    expect(proposeSeparations(pipes, tuneOf(pipes, text), { density: 'plain' }).every(({ kind }) => kind === 'stop')).toBe(true);
    expect(proposeSeparations(chanter, tuneOf(chanter, 'X:1\nT:a\nM:4/4\nL:1/4\nK:HP\nAAAA|\n'), { density: 'session' })).toEqual([]);
  });
});
