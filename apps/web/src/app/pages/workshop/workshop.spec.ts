import { PatternSound } from '@zelpit/core/acoustics';
import { instrumentById, instrumentProblems, instruments, noteOf, readInstrumentFile, writeInstrumentFile, type Instrument } from '@zelpit/core/fingering';
import * as changes from '../../documents/model/model-changes';
import { copiedInstrument } from '../../documents/model/copied-instrument';
import { compareModels } from '../../documents/model/model-kind';

const chanter = copiedInstrument(instrumentById('practice-chanter'), 'Tarn chanter');
const apply = (instrument: Instrument, ...all: readonly ((each: Instrument) => Partial<Instrument>)[]): Instrument =>
  all.reduce((now, change) => ({ ...now, ...change(now) }), instrument);

describe('a copy in the workshop', () => {
  it('of every instrument holds together, goes into a file and comes back, and sounds like it within 15 cents', () => {
    for (const instrument of instruments) {
      const copy = copiedInstrument(instrument, `${instrument.name}, a copy`);
      expect(instrumentProblems(copy)).toEqual([]);
      expect(readInstrumentFile(writeInstrumentFile(copy))).toEqual(copy);
      const pattern = instrument.fingerings[2].pattern;
      const [one, other] = [instrument, copy].map((each) => new PatternSound(each).answer(pattern, 'closed'));
      if (one.kind !== 'sounds' || other.kind !== 'sounds') throw new Error(instrument.id);
      expect([instrument.id, Math.abs(1200 * Math.log2(other.sounding.hertz / one.sounding.hertz)) < 15]).toEqual([instrument.id, true]);
    }
  });

  it('gets a hole more and a hole less, in fingerings and geometry alike', () => {
    const longer = apply(chanter, changes.addHole);
    expect(longer.holes).toHaveLength(9);
    expect(instrumentProblems(longer)).toEqual([]);
    expect(longer.fingerings.every(({ pattern }) => pattern.length === 9)).toBe(true);
    expect(apply(longer, changes.removeHole(8))).toEqual(chanter);
  });

  it('renames a hole in the geometry too', () => {
    const renamed = apply(chanter, changes.changeHole(0, { id: 'Th' }));
    expect(instrumentProblems(renamed)).toEqual([]);
    expect(renamed.sound?.geometry.holes[0].hole).toBe('Th');
  });

  it('gets a finger more, which covers nothing until a hole is its own', () => {
    const more = apply(chanter, changes.addFinger);
    expect(instrumentProblems(more).join()).toContain('covers no hole');
    const given = apply(more, changes.changeHole(7, { finger: more.fingers[8].id }), changes.removeFinger(7));
    expect(instrumentProblems(given).join('; ')).not.toContain('covers no hole');
    expect(apply(chanter, changes.changeFinger(7, { label: 'R pinky' })).fingers[7].label).toBe('R pinky');
  });

  it('gets a note with its fingers, and loses both together', () => {
    const more = apply(chanter, changes.addNote);
    expect(more.notes).toHaveLength(10);
    expect(instrumentProblems(more)).toEqual([]);
    const less = apply(more, changes.removeNote(9));
    expect([less.notes.length, less.fingerings.length]).toEqual([9, chanter.fingerings.length]);
  });

  it('is tuned equal, just again, and by cents', () => {
    const equal = apply(chanter, changes.tuneEqual);
    expect(changes.centsFromEqual(equal, noteOf(equal, 'c'))).toBe(0);
    const just = apply(equal, changes.tuneJust);
    expect(noteOf(just, 'high-g').ratio).toBe(7 / 4);
    expect(changes.centsFromEqual(chanter, noteOf(chanter, 'c'))).toBe(-13.7);
  });

  it('says what a change breaks: a bore that folds back, a hole beyond the foot', () => {
    expect(instrumentProblems(apply(chanter, changes.changeBorePoint(1, 'positionMillimetres', -3)))).not.toEqual([]);
    expect(instrumentProblems(apply(chanter, changes.changeHoleMeasure(7, 'positionMillimetres', 900))).join()).toContain('hole R4 lies outside the bore');
  });

  it('reads half covers by the hole’s own share', () => {
    const whistle = instrumentById('whistle-d');
    expect(changes.typedPattern(whistle, 'hOO OOO')[0]).toBe(whistle.holes[0].half);
    expect(() => changes.typedPattern(whistle, 'XXQ')).toThrow('Write each hole as X, O or h');
  });
});

describe('two versions of a model', () => {
  const renamed = { instrument: { ...chanter, name: 'Skellow chanter' } };
  const retuned = { instrument: apply(chanter, changes.tuneEqual) };
  const { pieces, join } = compareModels({ instrument: chanter }, renamed, retuned);

  it('differ part by part, and are joined as chosen', () => {
    expect(pieces.filter(({ changed }) => changed !== 'same').map(({ name, changed }) => [name, changed])).toEqual([
      ['Name', 'mine'],
      ['Notes and tuning', 'theirs'],
    ]);
    const joined = join(
      new Map([
        ['name', 'mine'],
        ['notes', 'theirs'],
      ] as const),
    ).instrument;
    expect([joined.name, joined.notes]).toEqual(['Skellow chanter', retuned.instrument.notes]);
  });
});
