import { instrumentJsonSchema, instrumentProblems, longestInstrumentFile, practiceChanter, readInstrumentFile, writeInstrumentFile, type Instrument } from '.';
import { instruments } from './instruments';

interface Draft {
  format: unknown;
  version: unknown;
  instrument: Record<string, unknown>;
}

const bore = [
  { positionMillimetres: 0, diameterMillimetres: 7.9 },
  { positionMillimetres: 380, diameterMillimetres: 7.9 },
];
const withBore = (change: object): Record<string, unknown> => ({
  ...practiceChanter,
  sound: {
    atHertz: 237.5,
    geometry: {
      excitation: 'reed',
      bore,
      holes: practiceChanter.holes.map(({ id }, index) => ({
        hole: id,
        positionMillimetres: 150 + 20 * index,
        diameterMillimetres: 5,
        chimneyMillimetres: 4,
        halfRadiusFactor: 0.6,
      })),
      outerDiameterMillimetres: 18,
      reedVolumeCubicMillimetres: 900,
      ...change,
    },
  },
});

const edited = (edit: (file: Draft) => void): string => {
  const file = JSON.parse(writeInstrumentFile(practiceChanter)) as Draft;
  edit(file);
  return JSON.stringify(file);
};

describe('an instrument file', () => {
  it.each(instruments.map((instrument) => [instrument.id, instrument] as const))('gives back the %s as it was', (_, instrument) => {
    expect(readInstrumentFile(writeInstrumentFile(instrument))).toEqual(instrument);
  });

  it('is described by a JSON schema that names its parts', () => {
    const schema = JSON.stringify(instrumentJsonSchema());
    for (const part of ['fingerings', 'holes', 'reference', 'geometry', 'justRatios']) expect(schema).toContain(part);
  });

  it.each([
    ['no JSON', 'X:1', 'This is not a JSON file'],
    ['a list', '[]', 'There is no instrument in this file'],
    ['another kind of file', '{"format":"something"}', 'There is no instrument in this file'],
    ['the version after this one', edited((file) => (file.version = 2)), 'This file has version 2; Zelpit reads version 1.'],
    ['no version', edited((file) => (file.version = undefined)), 'This file has version none'],
    ['an unknown field', edited((file) => (file.instrument['colour'] = 'red')), '“colour” is not known to Zelpit'],
    [
      'an unknown field of a hole',
      edited((file) => (file.instrument['holes'] = [{ id: 'T', finger: 'T', depth: 3 }])),
      'hole 1: “depth” is not known to Zelpit',
    ],
    [
      '200 holes',
      edited((file) => (file.instrument['holes'] = Array.from({ length: 200 }, (_, index) => ({ id: `h${index}`, finger: 'T' })))),
      'holes: at most 12 are allowed',
    ],
    ['a missing name', edited((file) => delete file.instrument['name']), 'name is missing'],
    ['HTML in a remark', edited((file) => (file.instrument['checks'] = ['<img src=x onerror=alert(1)>'])), 'check 1: is plain text'],
    ['a megabyte', ' '.repeat(longestInstrumentFile + 1), 'too long for an instrument'],
  ])('with %s is refused in a sentence', (_, text, message) => {
    expect(() => readInstrumentFile(text)).toThrow(message);
  });
});

describe('what contradicts itself', () => {
  const problemsOf = (change: Partial<Instrument>): string => instrumentProblems({ ...practiceChanter, ...change }).join('; ');

  it('nothing in the built-in instruments', () => {
    for (const instrument of instruments) expect(instrumentProblems(instrument)).toEqual([]);
  });

  it('two notes with one pattern in one register', () => {
    const [lowG, lowA, ...rest] = practiceChanter.fingerings;
    expect(problemsOf({ fingerings: [lowG, { ...lowA, pattern: lowG.pattern }, ...rest] })).toContain('low G and low A have the same fingering');
  });

  it('one fingering twice', () => {
    const [lowG] = practiceChanter.fingerings;
    expect(problemsOf({ fingerings: [...practiceChanter.fingerings, { ...lowG, rank: 2 }] })).toContain('low G has the same fingering twice');
  });

  it('a half cover where a hole has none', () => {
    const [lowG, ...rest] = practiceChanter.fingerings;
    expect(problemsOf({ fingerings: [{ ...lowG, pattern: [0.5, 1, 1, 1, 1, 1, 1, 1] }, ...rest] })).toContain('half covers hole T, which has no half cover');
  });

  it('a finger that is not there, and one that covers nothing', () => {
    const holes = practiceChanter.holes.map((hole) => (hole.id === 'R4' ? { ...hole, finger: 'R5' } : hole));
    const text = problemsOf({ holes });
    expect(text).toContain('hole R4 uses the finger R5, which does not exist');
    expect(text).toContain('the finger R4 covers no hole');
  });

  it('a note without a fingering', () => {
    expect(problemsOf({ fingerings: practiceChanter.fingerings.slice(1) })).toContain('low G has no first choice of fingering');
  });

  it('a reference outside its own range', () => {
    expect(problemsOf({ reference: { ...practiceChanter.reference, hertz: 300 } })).toContain('outside its own range');
  });

  it.each([
    ['a bore that folds back', { bore: [...bore, { positionMillimetres: 200, diameterMillimetres: 8 }] }, 'the bore folds back: point 3 lies at 200 mm'],
    ['a bore of no length', { bore: [bore[0], { ...bore[1], positionMillimetres: 0 }] }, 'the bore folds back'],
    ['a hole beyond the foot', { bore: [bore[0], { ...bore[1], positionMillimetres: 250 }] }, 'hole R4 lies outside the bore'],
    ['a bore wider than the tube', { outerDiameterMillimetres: 7 }, 'the bore is wider than the tube'],
    ['holes that the instrument does not have', { holes: [] }, 'holes: at least one is needed'],
  ])('%s', (_, change, text) => {
    expect(instrumentProblems(withBore(change)).join('; ')).toContain(text);
  });

  it('holds together with a straight bore', () => {
    expect(instrumentProblems(withBore({}))).toEqual([]);
  });
});
