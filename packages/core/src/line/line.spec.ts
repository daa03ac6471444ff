import { changeName } from '../change';
import { chartedPattern, chosenOf, instrumentById, type ChosenFingering } from '../fingering';
import { changesOfTune, readTune } from '../tune';
import { lineOfChange, tenMinuteSheet } from '../plan';
import { asFingered, assertLine, describedLine, lineTitle, pairKey, pairsOfLine, startingTempo } from '.';
import { coverageOf } from '../line-sets';

const recorder = instrumentById('recorder-soprano-baroque');
/** Another way of B flat, in which other fingers lie. */
const [other] = recorder.fingerings.filter(
  ({ note, rank }) => rank === 2 && recorder.notes.some(({ id, writtenName }) => id === note && /^(B♭|A♯)/.test(writtenName)),
);
const fingering: readonly ChosenFingering[] = chosenOf([other]);
const home = recorder.notes.find(({ id }) => id !== other.note)?.id ?? '';
const plain = { home, other: other.note };
const chosen = { ...plain, fingering };

describe('a line in chosen fingers', () => {
  it('is drawn, told and judged in them', () => {
    const [described, usual] = [describedLine(recorder, chosen), describedLine(recorder, plain)];
    expect(described.change.toPattern).toEqual(other.pattern);
    expect(chartedPattern(described.instrument, other.note)).toEqual(other.pattern);
    expect(usual.change.toPattern).not.toEqual(other.pattern);
    expect(described.change.movers).not.toEqual(usual.change.movers);
  });

  it('says so in its name, and the plain line does not', () => {
    expect(lineTitle(recorder, chosen)).toContain('fingering 2');
    expect(lineTitle(recorder, plain)).not.toContain('fingering 2');
    expect(lineTitle(asFingered(recorder, chosen), chosen)).toBe(lineTitle(recorder, plain));
  });

  it('is another pair than the same notes as taught first', () => {
    expect(pairKey(chosen)).not.toBe(pairKey(plain));
    expect(pairKey({ home: chosen.other, other: chosen.home, fingering })).toBe(pairKey(chosen));
    expect(pairsOfLine(chosen).map(pairKey)).toEqual([pairKey(chosen)]);
    expect(coverageOf([plain], [chosen]).missing).toHaveLength(1);
    expect(coverageOf([plain, chosen], [plain, chosen])).toEqual({ missing: [], doubled: [] });
  });

  it('has the pace of its own fingers', () => {
    expect(startingTempo(recorder, chosen)).toBe(startingTempo(asFingered(recorder, chosen), plain));
  });

  it('is refused where its fingers are of a note that it does not play, or of another instrument', () => {
    expect(() => assertLine(recorder, chosen)).not.toThrow();
    const third = recorder.notes.find(({ id }) => id !== home && id !== other.note)?.id ?? '';
    expect(() => assertLine(recorder, { home, other: third, fingering })).toThrow(/does not play it/);
    expect(() => assertLine(recorder, { ...plain, fingering: [{ note: other.note, pattern: [1, 0, 1] }] })).toThrow(/with 3 came/);
  });
});

describe('the ten-minute sheet', () => {
  /** A tune back and forth between two notes, fingered as taught first in its first half and in another way in its second. */
  const changes = (() => {
    const names = [home, other.note].map((id) => recorder.notes.find((note) => note.id === id)?.abc ?? '');
    const bar = `${names[0]} ${names[1]} ${names[0]} ${names[1]}|`;
    const tune = readTune(recorder, `X:1\nT:t\nM:4/4\nL:1/4\nK:C\n${bar.repeat(4)}\n`);
    const half = tune.notes.filter(({ index, written }) => index >= 8 && written.kind === 'note' && written.note === other.note);
    return changesOfTune(recorder, tune, 'slurred', new Map(half.map(({ index }) => [index, other]))).open;
  })();

  it('practises what is fingered in two ways in two lines, each in its own fingers', () => {
    const troubled = changes.filter(({ trouble }) => trouble.kind !== 'none');
    const ways = new Set(troubled.map(({ change }) => changeName(recorder, change).split(' to ').sort().join()));
    const { lines } = tenMinuteSheet(recorder, changes);
    expect(ways.size).toBeGreaterThan(0);
    expect(new Set(lines.map(pairKey)).size).toBe(lines.length);
    for (const { fingering: own } of lines.filter((line) => line.fingering != null)) expect(own).toEqual(fingering);
    expect(
      tenMinuteSheet(
        recorder,
        changes.filter(({ fingering: own }) => own.length > 0),
      ).lines.map(({ fingering: own }) => own),
    ).toEqual([fingering]);
  });

  it('takes the fingers of a change into its line', () => {
    const lines = changes.map(lineOfChange);
    expect(lines.filter((line) => line.fingering != null).map((line) => line.fingering)).toEqual(expect.arrayContaining([fingering]));
    expect(lines.filter((line) => line.fingering === undefined).length).toBeGreaterThan(0);
  });
});
