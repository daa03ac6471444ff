import { instrumentById, instruments, pattern, type Instrument, type NoteId } from '../fingering';
import { compileOrnament, cutFinger, neighbourOrnaments, ornamentKinds, tapChoices, tapFinger, trillBetween, usualOrnaments, type OrnamentKind } from '.';

const whistle = instrumentById('whistle-d');
const scale: readonly NoteId[] = ['d5', 'e5', 'fs5', 'g5', 'a5', 'b5', 'cs6'];
const finger = (found: ReturnType<typeof cutFinger>): string => ('finger' in found ? found.finger : found.reason);
const steps = (kind: OrnamentKind, note: NoteId, eighthMs = 250) => {
  const made = compileOrnament(whistle, kind, note, { ...usualOrnaments, eighthMs });
  return made.kind === 'compiled'
    ? made.steps.map((step) => [step.kind, step.fingers.join(), Number(step.start.toFixed(3)), Number(step.length.toFixed(3))])
    : made.reason;
};

describe('cuts and taps of the whistle', () => {
  it('cuts with the nearest finger: D R3, E R2, F sharp R1, G L3, A L2, B L1; not on C sharp', () => {
    expect(scale.slice(0, 6).map((note) => finger(cutFinger(whistle, note, usualOrnaments)))).toEqual(['R3', 'R2', 'R1', 'L3', 'L2', 'L1']);
    expect(finger(cutFinger(whistle, 'cs6', usualOrnaments))).toBe('On C sharp no finger is down, so none can cut.');
  });

  it('or with the same two: D to G L3, A and B L1', () => {
    expect(scale.slice(0, 6).map((note) => finger(cutFinger(whistle, note, { ...usualOrnaments, cuts: 'fixed' })))).toEqual([
      'L3',
      'L3',
      'L3',
      'L3',
      'L1',
      'L1',
    ]);
  });

  it('leaves C natural to the teacher, whose choice is taken', () => {
    expect(finger(cutFinger(whistle, 'c6', usualOrnaments))).toMatch(/choose the finger that cuts/);
    expect(finger(cutFinger(whistle, 'c6', { ...usualOrnaments, cutOn: { c6: 'L2' } }))).toBe('L2');
    expect(() => cutFinger(whistle, 'c6', { ...usualOrnaments, cutOn: { c6: 'R9' } })).toThrow(/no finger R9/);
  });

  it('taps E R3, F sharp R2, G R1, A L3, B L2, C sharp L1; not on D, and not on a closed-fingered chanter', () => {
    expect(scale.slice(1).map((note) => finger(tapFinger(whistle, note, usualOrnaments)))).toEqual(['R3', 'R2', 'R1', 'L3', 'L2', 'L1']);
    expect(finger(tapFinger(whistle, 'd5', usualOrnaments))).toMatch(/Play a cran instead/);
    const irish = instrumentById('irish-chanter-d');
    expect(finger(tapFinger(irish, irish.notes[3].id, usualOrnaments))).toMatch(/the teacher chooses the finger that taps/);
  });

  it.each([
    ['G', 'R index, or R middle'],
    ['A', 'L ring (closes every hole: a stop)'],
    ['C', 'L index, or R middle'],
  ])('on the Irish chanter taps of %s are offered as the teacher’s choice', (name, offered) => {
    const irish = instrumentById('irish-chanter-d');
    const note = irish.notes.find(({ schoolName }) => schoolName === name)!;
    expect(finger(tapFinger(irish, note.id, usualOrnaments))).toBe(`With closed fingering the teacher chooses the finger that taps. On ${name}: ${offered}.`);
    const [{ finger: chosen }] = tapChoices(irish, note.id);
    expect(compileOrnament(irish, 'tap', note.id, { ...usualOrnaments, tapOn: { [note.id]: chosen } }).kind).toBe('compiled');
  });
});

describe('the second register', () => {
  const whistle = instrumentById('whistle-d');
  const finger = (found: object): unknown => ('finger' in found ? found.finger : undefined);

  it('cuts and taps with the same fingers as the first, from E to B', () => {
    const [low, high] = [
      ['e5', 'fs5', 'g5', 'a5', 'b5'],
      ['e6', 'fs6', 'g6', 'a6', 'b6'],
    ];
    low.forEach((note, place) => {
      expect(finger(cutFinger(whistle, high[place], usualOrnaments))).toBe(finger(cutFinger(whistle, note, usualOrnaments)));
      expect(finger(tapFinger(whistle, high[place], usualOrnaments))).toBe(finger(tapFinger(whistle, note, usualOrnaments)));
    });
  });

  it('cuts high D with R3 though its first hole may be open, and taps it no more than the low one', () => {
    expect(cutFinger(whistle, 'd6', usualOrnaments)).toEqual({ finger: 'R3' });
    expect(tapFinger(whistle, 'd6', usualOrnaments)).toEqual({ reason: 'high D is fingered as the lowest note, so no tap is possible.' });
  });

  it('a trill of the recorder from C to D moves only the thumb, one of the ocarina from A to B one finger', () => {
    const recorder = instrumentById('recorder-soprano-baroque');
    expect(trillBetween(recorder, 'c6', 'd6')?.movers).toBe(1);
    const ocarina = instruments.find(({ family }) => family === 'ocarina') ?? whistle;
    const [a, b] = ['A', 'B'].map((name) => ocarina.notes.find(({ writtenName }) => writtenName === name)?.id ?? '');
    expect(trillBetween(ocarina, a, b)?.movers).toBe(1);
  });
});

describe('rolls and crans', () => {
  it('a short roll: cut at 0, tap at 1, on two eighths; a long one: cut at 1, tap at 2, on three', () => {
    expect(steps('short-roll', 'e5')).toEqual([
      ['cut', 'R2', 0, 0.2],
      ['note', '', 0.2, 0.8],
      ['tap', 'R3', 1, 0.2],
      ['note', '', 1.2, 0.8],
    ]);
    expect(steps('long-roll', 'g5')).toEqual([
      ['note', '', 0, 1],
      ['cut', 'L3', 1, 0.2],
      ['note', '', 1.2, 0.8],
      ['tap', 'R1', 2, 0.2],
      ['note', '', 2.2, 0.8],
    ]);
  });

  it('a cut lasts 50 ms where a fifth of an eighth is longer', () => {
    expect(steps('cut', 'a5', 500)).toEqual([
      ['cut', 'L2', 0, 0.1],
      ['note', '', 0.1, 0.9],
    ]);
  });

  it('a cran cuts the lowest note with different fingers; a roll there is refused', () => {
    expect(steps('short-cran', 'd5')).toEqual([
      ['cut', 'L3', 0, 0.2],
      ['note', '', 0.2, 0.8],
      ['cut', 'R1', 1, 0.2],
      ['note', '', 1.2, 0.8],
    ]);
    expect((steps('three-cut-cran', 'd5') as unknown[][]).filter(([kind]) => kind === 'cut').map(([, by, at]) => [by, at])).toEqual([
      ['L3', 0],
      ['R1', 0.667],
      ['R2', 1.333],
    ]);
    expect(steps('long-roll', 'd5')).toMatch(/no tap is possible. Play a cran instead/);
    expect(steps('three-cut-cran', 'b5')).toMatch(/belongs to the lowest note/);
  });

  it('a slide begins with the tap finger closed; only the knee stops a chanter', () => {
    const slide = compileOrnament(whistle, 'slide', 'e5');
    expect(slide.kind === 'compiled' && slide.steps[0]).toMatchObject({ kind: 'slide', pattern: pattern('XXX XXX') });
    expect(compileOrnament(whistle, 'stop', 'e5').kind).toBe('unplayable');
    const irish = instrumentById('irish-chanter-d');
    expect(compileOrnament(irish, 'stop', irish.notes[2].id).kind).toBe('compiled');
  });

  it('fills its eighths without a hole on every whistle and note, and refuses an eighth that nobody plays', () => {
    for (const kind of ornamentKinds) {
      for (const { id } of whistle.notes) {
        const made = compileOrnament(whistle, kind, id);
        if (made.kind === 'unplayable') continue;
        let at = 0;
        for (const step of made.steps) {
          expect(step.start).toBeCloseTo(at, 9);
          at += step.length;
        }
        expect(at).toBeCloseTo(made.eighths, 9);
      }
    }
    expect(() => compileOrnament(whistle, 'cut', 'a5', { ...usualOrnaments, eighthMs: 5 })).toThrow(/60 to 2000 ms, not 5/);
  });
});

describe('trills', () => {
  const recorder = instrumentById('recorder-soprano-baroque');

  it('take the pair with the fewest moving fingers that stays in tune', () => {
    const trill = trillBetween(recorder, 'g5', 'a5')!;
    expect(trill.movers).toBe(1);
    for (const cents of trill.cents) expect(Math.abs(cents ?? 0)).toBeLessThanOrEqual(30);
  });

  it('always move a finger, and are refused for a note that is none', () => {
    for (const [index, { id }] of recorder.notes.slice(0, -1).entries()) {
      const trill = trillBetween(recorder, id, recorder.notes[index + 1].id);
      if (trill !== undefined) expect(trill.movers).toBeGreaterThan(0);
    }
    expect(() => trillBetween(recorder, 'x', 'a5')).toThrow(/not “x”/);
  });
});

describe('triplet and flutter', () => {
  const whistle = instrumentById('whistle-d');

  it('a triplet is three tongued notes in the time of two; a chanter without a tongue says what it is there', () => {
    const made = compileOrnament(whistle, 'triplet', 'a5');
    expect(made.kind === 'compiled' && made.steps.filter(({ kind }) => kind === 'tongue')).toHaveLength(3);
    expect(made.kind === 'compiled' && made.steps.reduce((sum, { length }) => sum + length, 0)).toBeCloseTo(2, 9);
    expect(compileOrnament(instrumentById('irish-chanter-d'), 'triplet', 'a4')).toMatchObject({ reason: expect.stringContaining('three notes of the scale') });
  });

  it('a flutter is two cuts by different fingers, on the beat; where one finger lies it cannot be', () => {
    const made = compileOrnament(whistle, 'flutter', 'g5');
    const cuts = made.kind === 'compiled' ? made.steps.filter(({ kind }) => kind === 'cut') : [];
    expect(cuts.map(({ start }) => start)).toEqual([0, cuts[0].length]);
    expect(new Set(cuts.flatMap(({ fingers }) => fingers)).size).toBe(2);
    expect(compileOrnament(whistle, 'flutter', 'b5').kind).toBe('unplayable');
  });
});

describe('ornaments with a neighbour', () => {
  const recorder = instrumentById('recorder-soprano-baroque');
  const naturals = (instrument: Instrument): readonly NoteId[] => instrument.notes.map(({ id }) => id).filter((id) => /^[a-g]\d$/.test(id));
  const scale = naturals(recorder);

  it('trill, mordents and grace note of a note, each on the easiest pair in tune', () => {
    const ways = neighbourOrnaments(recorder, scale[3], scale);
    expect(ways.map(({ kind }) => kind)).toEqual(['trill', 'upper-mordent', 'lower-mordent', 'grace-note']);
    for (const { sequence } of ways) expect(sequence[sequence.length - 1].note).toBe(scale[3]);
    expect(ways[2].pair.upper.note).toBe(scale[2]);
    expect(ways[3].sequence).toHaveLength(2);
  });

  it('the lowest note has no lower mordent, the highest no trill', () => {
    expect(neighbourOrnaments(recorder, scale[0], scale).map(({ kind }) => kind)).not.toContain('lower-mordent');
    expect(neighbourOrnaments(recorder, scale[scale.length - 1], scale).map(({ kind }) => kind)).not.toContain('trill');
  });

  it('every pair of every recorder and ocarina moves a finger and stays within 30 cents (property)', () => {
    for (const each of instruments.filter(({ family }) => family === 'recorder' || family === 'ocarina')) {
      const notes = naturals(each);
      for (const note of notes)
        for (const { pair } of neighbourOrnaments(each, note, notes)) {
          expect(pair.movers).toBeGreaterThan(0);
          for (const cents of pair.cents) expect(Math.abs(cents ?? 0)).toBeLessThanOrEqual(30);
        }
    }
  });
});

describe('fingers that a teacher chose', () => {
  it('come before the rule where they can do it, and say where they cannot', () => {
    const chosen = (settings: object) => ({ ...usualOrnaments, ...settings });
    expect(cutFinger(whistle, 'g5', chosen({ cutOn: { g5: 'L2' } }))).toEqual({ finger: 'L2' });
    expect(cutFinger(whistle, 'g5', chosen({ cutOn: { g5: 'R1' } }))).toEqual({ reason: 'On G the R index finger is already up, so it cannot cut here.' });
    expect(tapFinger(whistle, 'g5', chosen({ tapOn: { g5: 'R2' } }))).toEqual({ finger: 'R2' });
    expect(tapFinger(whistle, 'g5', chosen({ tapOn: { g5: 'L1' } }))).toEqual({ reason: 'On G the L index finger is already down, so it cannot tap here.' });
    const irish = instrumentById('irish-chanter-d');
    expect('reason' in tapFinger(irish, 'a4', usualOrnaments)).toBe(true);
  });
});

describe('crans and slides that a teacher chose', () => {
  it('take the fingers in the order chosen, and the length', () => {
    const cran = compileOrnament(whistle, 'three-cut-cran', 'd5', { ...usualOrnaments, cranFingers: ['R2', 'R1', 'L3'] });
    expect(cran.kind === 'compiled' && cran.steps.flatMap(({ kind, fingers }) => (kind === 'cut' ? fingers : []))).toEqual(['R2', 'R1', 'L3']);
    const slide = compileOrnament(whistle, 'slide', 'g5', { ...usualOrnaments, eighthMs: 500, slideMs: 200 });
    expect(slide.kind === 'compiled' && slide.steps[0].length).toBe(0.4);
  });
});
