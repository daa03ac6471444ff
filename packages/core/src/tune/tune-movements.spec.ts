import { instrumentById, practiceChanter as chanter, type Instrument } from '../fingering';
import { MovementReader, usualMovementSettings } from '../movement';
import { movementsOfTune, proposeSeparations, readTune, withGraceNotes, writtenOrnaments, type Density, type Tune } from '.';

const tuneOf = (instrument: Instrument, text: string): Tune => readTune(instrument, text);

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

  it('on the lowest note no roll is possible, so a cran is played; each says why', () => {
    const onLowest = proposed('session').filter(({ note, kind }) => note.written.kind === 'note' && note.written.note === 'd5' && kind !== 'tongue');
    for (const { kind } of onLowest) expect(kind).not.toMatch(/roll|tap/);
    for (const { text } of proposed('session')) expect(text).toMatch(/\.$/);
  });

  it('pipes part by a stop; other instruments have no proposals', () => {
    const pipes = instrumentById('irish-chanter-d');
    expect(proposeSeparations(pipes, tuneOf(pipes, text), { density: 'plain' }).every(({ kind }) => kind === 'stop')).toBe(true);
    expect(proposeSeparations(chanter, tuneOf(chanter, 'X:1\nT:a\nM:4/4\nL:1/4\nK:HP\nAAAA|\n'), { density: 'session' })).toEqual([]);
  });

  it('a slow tune has no rolls and no crans', () => {
    const slow = tuneOf(whistle, text.replace('K:D', 'Q:1/4=50\nK:D'));
    const kinds = new Set(proposeSeparations(whistle, slow, { density: 'session' }).map(({ kind }) => kind));
    for (const kind of kinds) expect(kind).not.toMatch(/roll|cran|triplet/);
  });

  it('a high entry is softened by a slide, a repeated quarter filled by a roll or a triplet, and a long one on the lowest note by a cran', () => {
    const kindsOf = (music: string) =>
      new Map(
        proposeSeparations(whistle, tuneOf(whistle, `X:1\nT:One Wet Slate\nM:4/4\nL:1/8\nQ:1/4=120\nK:D\n${music}|\n`), { density: 'session' }).map(
          ({ note, kind }) => [note.index, kind],
        ),
      );
    expect(kindsOf('A2 f2 A2 e2').get(1)).toBe('slide');
    expect(kindsOf('G2 G2 D2 D2').get(1)).toBe('short-roll');
    expect(kindsOf('G2 A G2 G2 F').get(3)).toBe('triplet');
    expect(kindsOf('D3 E D4').get(0)).toBe('long-cran');
  });

  it('what is decorated already is left alone', () => {
    const written = tuneOf(whistle, 'X:1\nT:One Wet Slate\nM:4/4\nL:1/8\nK:D\n~A3 A {B}A2 F2|\n');
    const places = proposeSeparations(whistle, written, { density: 'session' }).map(({ note }) => note.index);
    expect(places).not.toContain(0);
    expect(places).not.toContain(2);
  });

  it('cuts over the thin part of the scale wait for an instrument that speaks cleanly up high', () => {
    const high = tuneOf(whistle, 'X:1\nT:One Wet Slate\nM:4/4\nL:1/8\nQ:1/4=120\nK:D\nB4 BB B2|\n');
    const cuts = (hasThinCuts: boolean) => proposeSeparations(whistle, high, { density: 'session', hasThinCuts }).filter(({ kind }) => kind === 'cut').length;
    expect([cuts(false), cuts(true)]).toEqual([0, expect.any(Number)]);
    expect(cuts(true)).toBeGreaterThan(0);
  });
});

describe('ornaments as they are written', () => {
  const kindsIn = (model: string, music: string): readonly string[] => {
    const instrument = instrumentById(model);
    const tune = tuneOf(instrument, `X:1\nT:Three Wet Slates\nM:4/4\nL:1/8\nK:D\n${music}|\n`);
    return writtenOrnaments(instrument, tune).map(({ note, kind }) => `${note.index} ${kind}`);
  };

  it.each([
    ['a roll sign over two eighths and over three', 'whistle-d', '~G2 ~A3 B2 c', ['0 short-roll', '1 long-roll']],
    ['a roll sign on the lowest note is a cran', 'whistle-d', '~D2 ~D3 E2 F', ['0 short-cran', '1 long-cran']],
    ['a grace note above is a cut, one below a tap', 'whistle-d', '{A}G2 {F}G2 A4', ['0 cut', '1 tap']],
    ['a long roll written out is one', 'whistle-d', 'G{B}G{F}G A2 B2 c', ['0 long-roll']],
    ['a short roll written out is one', 'whistle-d', '{B}G{F}G A2 B2 A2', ['0 short-roll']],
    ['a cran written out is one', 'whistle-d', 'D{A}D{F}D A2 B2 A', ['0 long-cran']],
    ['a slide', 'whistle-d', '!slide!A4 B4', ['0 slide']],
    ['on the Irish chanter too', 'irish-chanter-d', '~G3 A B4', ['0 long-roll']],
    [
      'trills and mordents of the recorder',
      'recorder-soprano-baroque',
      'TG2 MA2 !uppermordent!B2 {d}c2',
      ['0 trill', '1 lower-mordent', '2 upper-mordent', '3 grace-note'],
    ],
    ['nothing where nothing is written', 'whistle-d', 'G2 A2 B2 A2', []],
  ])('%s', (_, model, music, expected) => expect(kindsIn(model, music)).toEqual(expected));

  it('on the Highland pipes groups of grace notes are movements', () => {
    expect(writtenOrnaments(chanter, tuneOf(chanter, 'X:1\nT:a\nM:4/4\nL:1/4\nK:HP\n{g}A {gcd}c e a|\n'))).toEqual([]);
  });
});
