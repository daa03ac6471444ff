import * as fc from 'fast-check';
import { practiceChanter } from '../fingering';
import { bentNotes, levelCap, playNotes, roundOfSamples, type Feel, type PlayedNote } from '.';

const note = (beats: number, index: number): PlayedNote => ({ note: 'c', graceNotes: [], beats, index, isTied: false });
const beatsOf = (feel: Feel, lengths: readonly number[], firstBeat = 0): number[] =>
  bentNotes(lengths.map(note), feel, firstBeat).map(({ beats }) => Number(beats.toFixed(4)));

describe('the feel of a play-along', () => {
  it('swings eighths and leaves whole beats where they are', () => {
    expect(beatsOf('swing', [0.5, 0.5, 1])).toEqual([0.62, 0.38, 1]);
    expect(beatsOf('straight', [0.5, 0.5, 1])).toEqual([0.5, 0.5, 1]);
  });

  it('makes dots longer and cuts shorter', () => {
    expect(beatsOf('pointed', [0.75, 0.25])).toEqual([0.85, 0.15]);
    expect(beatsOf('pointed', [0.25, 0.75])).toEqual([0.15, 0.85]);
    expect(beatsOf('pointed', [0.5, 0.5])).toEqual([0.5, 0.5]);
  });

  it('begins where the first note stands in its bar', () => {
    expect(beatsOf('swing', [0.5, 1], 1.5)).toEqual([0.38, 1]);
  });

  it('keeps the length of the whole, and every note sounds (property)', () => {
    const lengths = fc.array(fc.constantFrom(0.25, 0.5, 0.75, 1, 1.5, 2, 1 / 3), { minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(lengths, fc.constantFrom<Feel>('swing', 'pointed'), (all, feel) => {
        const whole = [...all, Math.ceil(all.reduce((sum, each) => sum + each, 0) - 1e-9) - all.reduce((sum, each) => sum + each, 0) + 1];
        const played = bentNotes(whole.map(note), feel);
        expect(played.reduce((sum, { beats }) => sum + beats, 0)).toBeCloseTo(
          whole.reduce((sum, each) => sum + each, 0),
          6,
        );
        for (const { beats } of played) expect(beats).toBeGreaterThan(0);
      }),
    );
  });
});

describe('clicks between the beats', () => {
  it('are softer ones, as many as the beat is divided into', () => {
    const settings = { tempo: 60, beatsInBar: 2, countInBeats: 0, isClickOn: true, firstBeat: 0, graceNoteMs: 60 };
    const { clicks } = playNotes(practiceChanter, [note(2, 0)], { ...settings, clicksInBeat: 2 });
    expect(clicks.map(({ at, isDivision = false }) => [at, isDivision])).toEqual([
      [0, false],
      [500, true],
      [1000, false],
      [1500, true],
    ]);
    expect(playNotes(practiceChanter, [note(2, 0)], settings).clicks).toHaveLength(2);
  });
});

describe('a round in sound', () => {
  it('is one voice several times over, the count-in once', () => {
    const mixed = roundOfSamples(Float32Array.from([0.4, 0.1, 0.1]), [0, 2], 1);
    expect([...mixed].map((each) => Number(each.toFixed(3)))).toEqual([0.4, 0.071, 0.071, 0.071, 0.071]);
    expect(roundOfSamples(Float32Array.from([0.1, 0.2]), [0])).toEqual(Float32Array.from([0.1, 0.2]));
    for (const sample of roundOfSamples(new Float32Array(9).fill(0.4), [0, 1, 2, 3])) expect(sample).toBeLessThanOrEqual(levelCap);
  });
});
