import { instrumentById, instruments, loadInstrument, noteOf, pattern, practiceChanter, teachingOrders, type Instrument } from '.';

const waysOf = (instrument: Instrument, note: string) =>
  instrument.fingerings
    .filter((fingering) => fingering.note === note)
    .sort((one, other) => one.rank - other.rank)
    .map((fingering) => fingering.pattern.map((coverage) => (coverage >= 1 ? 'X' : coverage <= 0 ? 'O' : 'h')).join(''));

describe('the catalogue', () => {
  it('has every instrument once, each loaded through the same check', () => {
    expect(new Set(instruments.map(({ id }) => id)).size).toBe(instruments.length);
    expect(instruments.filter(({ family }) => family === 'whistle')).toHaveLength(8);
    expect(instruments.filter(({ family }) => family === 'recorder')).toHaveLength(8);
    expect(instruments.filter(({ family }) => family === 'ocarina')).toHaveLength(2);
    for (const instrument of instruments) expect(loadInstrument(instrument)).toEqual(instrument);
  });

  it.each([
    ['recorder-soprano-baroque', 'f5', ['XXXXXOXX']],
    ['recorder-soprano-german', 'f5', ['XXXXXOOO']],
    ['recorder-soprano-baroque', 'fs5', ['XXXXOXXO']],
    ['recorder-soprano-german', 'fs5', ['XXXXOXXX']],
    ['recorder-soprano-baroque', 'bb5', ['XXOXXOOO', 'XXOXOXXO']],
    ['recorder-soprano-german', 'bb5', ['XXOXOXXO', 'XXOXXOOO']],
    ['recorder-soprano-baroque', 'd6', ['OOXOOOOO', 'hXXXXXXO']],
    ['recorder-soprano-baroque', 'cs5', ['XXXXXXXh']],
    ['recorder-soprano-baroque', 'c7', ['hXOOXXOO']],
    ['recorder-alto-baroque', 'f4', ['XXXXXXXX']],
    ['whistle-d', 'c6', ['OXXOOO', 'OXXXOX', 'hOOOOO', 'OXXXXO']],
    ['whistle-d', 'bb5', ['XhOOOO', 'XOXXXX']],
    ['whistle-d', 'd6', ['OXXXXX', 'XXXXXX']],
    ['whistle-low-d', 'd4', ['XXXXXX']],
    ['irish-chanter-d', 'a4', ['XXXOXXXX', 'XXXOOOXX']],
    ['irish-chanter-d', 'd5', ['OXXXXXXX']],
    ['ocarina-12-c-split', 'a4', ['XXXXXXXXXXXX']],
    ['ocarina-12-c-split', 'f6', ['OOOOOOOOOOOO']],
  ])('%s plays %s with %j', (id, note, ways) => {
    expect(waysOf(instrumentById(id), note)).toEqual(ways);
  });

  it.each([
    ['c7', 'high C'],
    ['d7', 'third D'],
  ])('the whistle has %s, its %s: shrill, proposed by the model and with a caution', (id, name) => {
    expect(noteOf(instrumentById('whistle-d'), id)).toMatchObject({ schoolName: name, caution: expect.stringMatching(/shrill.*ear protection/i) as string });
    const ways = instrumentById('whistle-d').fingerings.filter(({ note }) => note === id);
    expect(ways.map(({ source }) => source)).toEqual(['model', 'model']);
    expect(noteOf(instrumentById('whistle-d'), 'b6').caution).toBeUndefined();
  });

  it('has every semitone of the recorder over two octaves, and of the ocarina but B flat 4', () => {
    const semitones = (id: string): number[] => instrumentById(id).notes.map((note) => note.writtenSemitone);
    expect(semitones('recorder-soprano-baroque')).toEqual(Array.from({ length: 25 }, (_, index) => 60 + index));
    expect(semitones('ocarina-12-c-split')).toEqual(Array.from({ length: 21 }, (_, index) => 69 + index).filter((number) => number !== 70));
  });

  it('refuses the mirror on a recorder with the reason, warns on an ocarina, and allows it on pipes and whistles', () => {
    expect(instrumentById('recorder-tenor-german').mirror).toMatchObject({ kind: 'refused', said: expect.stringContaining('left hand on top') as string });
    expect(instrumentById('ocarina-12-c-right').mirror?.kind).toBe('warned');
    for (const id of ['practice-chanter', 'whistle-d', 'irish-chanter-d']) expect(instrumentById(id).mirror?.kind).toBe('allowed');
  });

  it('has high E flat of a recorder in the second register, and high D in the first but for the pinched way', () => {
    for (const id of ['recorder-soprano-baroque', 'recorder-alto-german']) {
      const { notes, fingerings } = instrumentById(id);
      const registers = (semitones: number): number[] => {
        const note = notes.find(({ writtenSemitone }) => writtenSemitone === notes[0].writtenSemitone + semitones)?.id;
        return fingerings.filter((each) => each.note === note).map(({ register }) => register);
      };
      expect([registers(14), registers(15)]).toEqual([
        [1, 2],
        [2, 2],
      ]);
    }
  });

  it('covers two holes of an ocarina with one finger, by its layout', () => {
    const fingerOf = (id: string, hole: string): string | undefined => instrumentById(id).holes.find((each) => each.id === hole)?.finger;
    expect([fingerOf('ocarina-12-c-split', 'S1'), fingerOf('ocarina-12-c-split', 'S2')]).toEqual(['L2', 'R2']);
    expect([fingerOf('ocarina-12-c-right', 'S1'), fingerOf('ocarina-12-c-right', 'S2')]).toEqual(['R2', 'R3']);
  });

  it('keeps written name, school name and sounding pitch apart', () => {
    const chanter = noteOf(practiceChanter, 'c');
    expect([chanter.writtenName, chanter.schoolName, chanter.ratio]).toEqual(['C', 'C', 5 / 4]);
    const whistle = instrumentById('whistle-c');
    expect(noteOf(whistle, 'c5')).toMatchObject({ writtenName: 'D', writtenSemitone: 62 });
  });
});

describe('teachingOrders', () => {
  it('begins a recorder with B, A, G, then C and high D', () => {
    const [, taught] = teachingOrders(instrumentById('recorder-soprano-baroque'));
    expect(taught.notes.slice(0, 7)).toEqual(['b5', 'a5', 'g5', 'c6', 'd6', 'e5', 'd5']);
  });

  it('has every note of every instrument once in each order', () => {
    for (const instrument of instruments) {
      const scale = instrument.notes.map((note) => note.id).sort();
      for (const { notes } of teachingOrders(instrument)) expect([...notes].sort()).toEqual(scale);
    }
  });
});

describe('loadInstrument', () => {
  it('refuses a half cover where a hole has none', () => {
    const data = {
      ...practiceChanter,
      fingerings: practiceChanter.fingerings.map((each) => (each.note === 'b' ? { ...each, pattern: pattern('X XXX XXhO') } : each)),
    };
    expect(() => loadInstrument(data)).toThrow('B half covers hole R3, which has no half cover');
  });
});
