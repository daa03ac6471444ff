import * as fc from 'fast-check';
import { practiceChanter as chanter } from '../fingering';
import { linesAsAbc, lineNotes } from '../line';
import { expectedSeconds, tenMinuteSheet } from '../plan';
import { playNotes, type PlayedNote } from '../sound';
import { changesOfTune, readBook, readTune, splitBook, type Tune } from '.';

const letters = ['G', 'A', 'B', 'c', 'd', 'e', 'f', 'g', 'a'];
const idOf = new Map(letters.map((letter, index) => [letter, chanter.notes[index].id]));
const note = fc.tuple(fc.constantFrom(...letters), fc.constantFrom('', '{g}', '{a}', '{gcd}'));
const bar = fc.array(note, { minLength: 4, maxLength: 4 });
const music = fc.array(bar, { minLength: 1, maxLength: 8 });
const abcOf = (bars: (readonly (readonly [string, string])[])[], repeats: boolean): string => {
  const text = bars.map((each) => each.map(([letter, grace]) => `${grace}${letter}`).join(' ')).join(' | ');
  return `X:1\nT:Made\nM:4/4\nL:1/4\nK:HP\n${repeats ? `|: ${text} :|` : `${text} |]`}\n`;
};
const read = (abc: string): Tune => readTune(chanter, abc);

describe('any tune of quarter notes', () => {
  it('is read note for note, in whole bars, each note at its beat', () => {
    fc.assert(
      fc.property(music, fc.boolean(), (bars, repeats) => {
        const tune = read(abcOf(bars, repeats));
        expect(tune.notes.map(({ written }) => written.kind === 'note' && written.note)).toEqual(bars.flat().map(([letter]) => idOf.get(letter)));
        expect(tune.notes.map((each) => [each.bar, each.beat])).toEqual(bars.flatMap((_, index) => [1, 2, 3, 4].map((beat) => [index + 1, beat])));
        expect(tune.bars).toHaveLength(bars.length);
        expect(tune.notices).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('plays each bar once, or twice under a repeat', () => {
    fc.assert(
      fc.property(music, fc.boolean(), (bars, repeats) => {
        const once = bars.map((_, index) => index);
        expect(read(abcOf(bars, repeats)).playedBars).toEqual(repeats ? [...once, ...once] : once);
      }),
      { numRuns: 60 },
    );
  });

  it('counts every neighbouring pair of different notes once, open or under its grace notes', () => {
    fc.assert(
      fc.property(music, (bars) => {
        const notes = bars.flat();
        const pairs = notes.slice(1).map((each, index) => ({ from: notes[index][0], to: each[0], isHidden: each[1] !== '' }));
        const changing = pairs.filter(({ from, to }) => from !== to);
        const { open, underGraceNotes } = changesOfTune(chanter, read(abcOf(bars, false)));
        const sum = (list: typeof open): number => list.reduce((all, each) => all + each.occurrences, 0);
        expect(sum(open)).toBe(changing.filter(({ isHidden }) => !isHidden).length);
        expect(sum(underGraceNotes)).toBe(changing.filter(({ isHidden }) => isHidden).length);
        for (const each of [...open, ...underGraceNotes]) expect(each.places).toHaveLength(each.occurrences);
      }),
      { numRuns: 60 },
    );
  });

  it('gets a ten-minute sheet that keeps its time and holds no more than there is', () => {
    fc.assert(
      fc.property(music, (bars) => {
        const { open } = changesOfTune(chanter, read(abcOf(bars, true)));
        const plan = tenMinuteSheet(chanter, open);
        expect(plan.lines.reduce((sum, line) => sum + expectedSeconds(line), 0)).toBeLessThanOrEqual(600);
        expect(plan.heldMoments).toBeLessThanOrEqual(plan.troubledMoments);
        const keys = plan.lines.map((line) => [line.home, line.other].sort().join());
        expect(new Set(keys).size).toBe(keys.length);
        for (const line of plan.lines) expect(open.some(({ change }) => change.from === line.home && change.to === line.other)).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
});

describe('a book', () => {
  it('splits into as many tunes as were put together, each at its line', () => {
    fc.assert(
      fc.property(fc.array(music, { minLength: 1, maxLength: 6 }), fc.constantFrom('\n', '\r\n'), fc.integer({ min: 1, max: 3 }), (tunes, end, gap) => {
        const texts = tunes.map((bars) => abcOf(bars, false));
        const text = texts.join('\n'.repeat(gap)).replaceAll('\n', end);
        const entries = splitBook(text);
        expect(entries).toHaveLength(tunes.length);
        const lines = text.split(end);
        for (const entry of entries) expect(lines[entry.firstLine - 1]).toBe('X:1');
        expect([...readBook(chanter, text)].every((reading) => reading.kind === 'read')).toBe(true);
      }),
      { numRuns: 25 },
    );
  });
});

describe('every line', () => {
  it('goes out as ABC and comes back as the same notes, for all 72 changes', () => {
    const pairs = chanter.notes.flatMap(({ id: home }) => chanter.notes.filter(({ id }) => id !== home).map(({ id: other }) => ({ home, other })));
    expect(pairs).toHaveLength(72);
    const abc = linesAsAbc(
      chanter,
      'All of them',
      pairs.map((line) => ({ ...line, tempo: 60, point: '' })),
    );
    const back = [...readBook(chanter, abc)];
    expect(back).toHaveLength(72);
    back.forEach((reading, index) => {
      if (reading.kind !== 'read') throw new Error(`Line ${index} was refused.`);
      expect(reading.entry.tune.notes.map(({ written }) => written.kind === 'note' && written.note)).toEqual(lineNotes(pairs[index]));
    });
  });
});

describe('playing', () => {
  const played = fc
    .array(fc.tuple(fc.constantFrom(...chanter.notes.map(({ id }) => id)), fc.constantFrom(0.25, 0.5, 1, 2), fc.boolean()), { minLength: 1, maxLength: 16 })
    .map((notes) =>
      notes.map(([id, beats, hasGrace], index): PlayedNote => ({ note: id, beats, index, graceNotes: hasGrace ? ['high-g'] : [], isTied: false })),
    );
  const settings = { beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 50 };

  it('fills exactly its time at any tempo, and at another tempo sounds the same patterns in the same order', () => {
    fc.assert(
      fc.property(played, fc.integer({ min: 12, max: 240 }), fc.integer({ min: 12, max: 240 }), (notes, tempo, otherTempo) => {
        const one = playNotes(chanter, notes, { ...settings, tempo });
        const other = playNotes(chanter, notes, { ...settings, tempo: otherTempo });
        expect(one.steps.map((step) => [step.note, step.role, step.pattern])).toEqual(other.steps.map((step) => [step.note, step.role, step.pattern]));
        const beats = notes.reduce((sum, each) => sum + each.beats, 0);
        expect(one.length).toBeCloseTo((beats * 60_000) / tempo, 6);
        let at = 0;
        for (const step of one.steps) {
          expect(step.start).toBeCloseTo(at, 6);
          at = step.start + step.length;
        }
        expect(at).toBeCloseTo(one.length, 6);
      }),
    );
  });
});
