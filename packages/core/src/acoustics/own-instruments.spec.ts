import { instrumentById, noteOf, pattern, practiceChanter, soundingPitch, type BoreGeometry, type Instrument } from '../fingering';
import {
  fitGeometry,
  geometryOf,
  HalfCoverSolver,
  loudnessAt,
  loudnessShown,
  measuredPatterns,
  patternsNear,
  PatternSound,
  scaledGeometry,
  sizeRatio,
  solvedCover,
  startOfCalibration,
  tablePitch,
  unexplained,
  type FitStep,
} from '.';

const whistle = instrumentById('whistle-d');
const lowG = instrumentById('whistle-low-g');
const recorder = instrumentById('recorder-soprano-baroque');
const ocarina = instrumentById('ocarina-12-c-split');
const centsOf = (one: number, other: number): number => 1200 * Math.log2(one / other);
const ownFrom = (instrument: Instrument, geometry: BoreGeometry): Instrument => ({
  ...instrument,
  id: 'own',
  sound: { geometry, atHertz: instrument.reference.hertz },
});

describe('an instrument with a geometry of its own', () => {
  it('sounds by it: a chanter with a lower reed seat sounds lower in every pattern', () => {
    const start = geometryOf(practiceChanter) as BoreGeometry;
    const longer = ownFrom(practiceChanter, {
      ...start,
      ...(start.excitation === 'reed' && { reedVolumeCubicMillimetres: start.reedVolumeCubicMillimetres + 400 }),
    });
    for (const holes of [pattern('X XXX XXXX'), pattern('X XXO XXXO'), pattern('O OOX XXXO')]) {
      const [own, built] = [tablePitch(longer, holes), tablePitch(practiceChanter, holes)];
      expect(centsOf(own?.hertz ?? 0, built?.hertz ?? 1)).toBeLessThan(-5);
    }
  });

  it('scaled from the whistle in D stays within 12 cents of the low G as the model copies it', () => {
    const own = ownFrom(lowG, scaledGeometry(geometryOf(lowG) as BoreGeometry, sizeRatio(lowG)));
    for (const holes of [pattern('XXX XXX'), pattern('XXX OOO'), pattern('XOO OOO')])
      expect(Math.abs(centsOf(tablePitch(own, holes)?.hertz ?? 0, tablePitch(lowG, holes)?.hertz ?? 1))).toBeLessThan(12);
  });

  it('without one that fits its holes is not guessed at', () => {
    const five: Instrument = { ...practiceChanter, id: 'own', madeFrom: 'practice-chanter', holes: practiceChanter.holes.slice(0, 5) };
    expect(new PatternSound(five).answer([1, 1, 1, 1, 1]).kind).toBe('unknown');
    expect(tablePitch(five, [1, 1, 1, 1, 1])).toBeUndefined();
    expect(patternsNear(five, 300, 50, [])).toEqual([]);
  });
});

describe('half covers', () => {
  it('are solved for: the whistle’s half holes give their notes at some share, and none is a guess', () => {
    for (const note of ['eb5', 'f5', 'gs5', 'bb5']) {
      const fingering = whistle.fingerings.find((each) => each.note === note && each.rank === 1);
      if (fingering === undefined) throw new Error(note);
      const cover = solvedCover(whistle, fingering);
      expect(cover).toBeGreaterThan(0.1);
      expect(cover).toBeLessThan(0.95);
      const holes = fingering.pattern.map((each) => (each > 0 && each < 1 ? (cover ?? 0) : each));
      const answer = new PatternSound(whistle).answer(holes);
      if (answer.kind !== 'sounds') throw new Error('silent');
      expect(Math.abs(centsOf(answer.sounding.hertz, soundingPitch(whistle, note)))).toBeLessThan(3);
    }
  });

  it('that cannot give a pitch are not there', () => {
    expect(new HalfCoverSolver(whistle).cover(pattern('XXX XXX'), 5, 2000)).toBeUndefined();
    expect(solvedCover(ocarina, ocarina.fingerings[0])).toBeUndefined();
  });

  it('join the finder where they are wanted, exactly in tune', () => {
    const wanted = soundingPitch(whistle, 'eb5');
    const plain = patternsNear(whistle, wanted, 10, []);
    const halves = patternsNear(whistle, wanted, 10, [], { halves: 'usual' });
    expect(plain.every(({ halfHole }) => halfHole === undefined)).toBe(true);
    const lowest = halves.find(({ halfHole }) => halfHole === 5);
    expect(lowest?.pattern.slice(0, 5)).toEqual([1, 1, 1, 1, 1]);
    expect(lowest?.cents).toBe(0);
  });
});

describe('the finder', () => {
  it('finds fingers in the second register of a flue', () => {
    const found = patternsNear(whistle, soundingPitch(whistle, 'g6'), 20, []);
    expect(found.some(({ pattern: holes, register }) => register === 2 && holes.join('') === '111000')).toBe(true);
  });

  it('finds the recorder’s pinched high E among the usual half covers', () => {
    const found = patternsNear(recorder, soundingPitch(recorder, 'e6'), 30, [], { halves: 'usual' });
    expect(found.some(({ charted }) => charted?.note === 'e6')).toBe(true);
  });

  it('puts the chart’s first, the easiest first, or the best in tune first', () => {
    const wanted = soundingPitch(whistle, 'c6');
    const beside = [pattern('XXO OOO'), pattern('XXO OOO')];
    const bySchool = patternsNear(whistle, wanted, 40, beside, { order: 'school' });
    expect(bySchool[0].charted).toMatchObject({ note: 'c6', rank: 1 });
    const byEase = patternsNear(whistle, wanted, 40, beside, { order: 'ease' });
    const trouble = byEase.map(({ moved, crosses }) => moved + 2 * crosses);
    expect(trouble).toEqual([...trouble].sort((one, other) => one - other));
    const byTuning = patternsNear(whistle, wanted, 40, beside, { order: 'tuning' });
    expect(Math.abs(byTuning[0].cents)).toBeLessThan(5);
  });
});

describe('loudness', () => {
  it('is the reported profile at the notes and between them in proportion', () => {
    const [d, e] = ['d', 'e'].map((note) => soundingPitch(practiceChanter, note));
    expect(loudnessAt(practiceChanter, d)).toBeCloseTo(noteOf(practiceChanter, 'd').loudnessDecibels);
    expect(loudnessAt(practiceChanter, Math.sqrt(d * e))).toBeCloseTo(-1.75);
    expect(loudnessAt(practiceChanter, 20)).toBe(2);
    expect(loudnessAt(practiceChanter, 5000)).toBe(-4);
    expect(loudnessShown(practiceChanter, d)).toBeUndefined();
    expect(loudnessShown(instrumentById('pipe-chanter'), 2 * d)).toBeCloseTo(noteOf(practiceChanter, 'd').loudnessDecibels);
  });

  it('is not made up where none is reported', () => {
    expect(loudnessAt(whistle, 700)).toBeUndefined();
  });
});

describe('calibration', () => {
  const measured = ['low-a', 'c', 'e', 'high-a'].map((note) => ({ note, hertz: soundingPitch(practiceChanter, note) * 2 ** (12 / 1200) }));

  it('explains a chanter that is 12 cents sharp all over', () => {
    let last: FitStep | undefined;
    for (const step of fitGeometry(startOfCalibration(practiceChanter), measuredPatterns(practiceChanter, measured), { measuredWithin: 5 })) last = step;
    expect(last?.rms).toBeLessThan(2);
    expect(unexplained(measured, last as FitStep)).toEqual([]);
  });

  it('names what it cannot explain, the farthest first', () => {
    expect(unexplained(measured, { residuals: [3, -40, 14, 22] })).toEqual([
      { note: 'c', cents: -40 },
      { note: 'high-a', cents: 22 },
    ]);
  });

  it.each([
    [0, 'between 1 and 20000'],
    [-237, 'between 1 and 20000'],
    [10_000_000, 'between 1 and 20000'],
    [Number.NaN, 'between 1 and 20000'],
    [475, 'it can be at most 250 cents away'],
  ])('refuses low A at %d Hz', (hertz, text) => {
    expect(() => measuredPatterns(practiceChanter, [{ note: 'low-a', hertz }, ...measured.slice(1)])).toThrow(text);
  });

  it('needs three notes, and a bore', () => {
    expect(() => measuredPatterns(practiceChanter, measured.slice(0, 2))).toThrow('at least three notes');
    expect(() => startOfCalibration(ocarina)).toThrow('has no bore to fit');
  });
});
