import { instrumentById } from '@zelpit/core/fingering';
import { readTune } from '@zelpit/core/tune';
import { scoreLines } from './score-lines';

const chanter = instrumentById('practice-chanter');
const read = (abc: string) => readTune(chanter, abc);
const lines = (abc: string, width = 1080) => scoreLines(read(abc), width);

const twoParts = `X:1
T:Two parts
M:2/4
L:1/8
K:HP
|:{g}e|{g}A>c {gcd}c>e|{Gdc}d>B {gde}d>f|{g}e>c {GdG}c>A|{gBd}B2 {e}B>d|
{g}A>c {gcd}c>e|{gef}e>f {ag}a>e|{g}f>d {gcd}c>B|[1 {gAd}A2 {GdG}A:|[2 {gAd}A2 A2||
|:{g}e|{ag}a>e {gef}e>c|{Gdc}d>e {gfg}f>d % a remark
|{g}e>c {GdG}c>A|{gBd}B2 {e}B:|
`;

describe('scoreLines', () => {
  it('hold all notes of the tune once, in order', () => {
    for (const width of [500, 800, 1080, 2000]) {
      const found = lines(twoParts, width);
      expect(found[0].first).toBe(0);
      expect(found[found.length - 1].end).toBe(read(twoParts).notes.length);
      found.slice(1).forEach((line, index) => expect(line.first).toBe(found[index].end));
    }
  });

  it('engrave exactly the notes that they say, so that columns can stand under noteheads', () => {
    for (const width of [500, 1080, 2000]) {
      for (const line of lines(twoParts, width)) {
        const own = read(line.abc);
        expect(own.notes.map((note) => note.written)).toEqual(
          read(twoParts)
            .notes.slice(line.first, line.end)
            .map((note) => note.written),
        );
        expect(own.notes.map((note) => note.graceNotes)).toEqual(
          read(twoParts)
            .notes.slice(line.first, line.end)
            .map((note) => note.graceNotes),
        );
      }
    }
  });

  it('start a new line with each part and keep at most four bars', () => {
    const found = lines(twoParts, 5000);
    const tune = read(twoParts);
    const partStart = tune.bars.findIndex((bar) => bar.endsPart) + 1;
    expect(found.some((line) => line.bars[0] === partStart)).toBe(true);
    for (const line of found) expect(new Set(line.bars.map((index) => tune.bars[index].number)).size).toBeLessThanOrEqual(5);
  });

  it('carry the key in force into every line', () => {
    const changed = 'X:1\nT:k\nM:4/4\nL:1/4\nK:D\nd e f g|a g f e|\nK:A\nA B c d|e f a g|\nA B c d|e f a e|\n';
    const tune = read(changed);
    const last = lines(changed, 600).at(-1);
    expect(last?.abc).toContain('K:A');
    expect(read(last?.abc ?? '').notes.map((note) => note.written)).toEqual(tune.notes.slice(last?.first, last?.end).map((note) => note.written));
  });

  describe('where not even one bar fits', () => {
    const dense = 'X:1\nT:Dense\nM:2/4\nL:1/8\nK:HP\n{g}e|{gcd}c{Gdc}d {gde}d"say {what}"{GdGe}A|{g}A>c {g}c>e|\n';
    const words = (line: { readonly abc: string }) => line.abc.match(/\{[^}]*\}/g) ?? [];

    it('folds movements of two grace notes and more, and leaves notes, single grace notes and words', () => {
      const tune = read(dense);
      const [first, last] = scoreLines(tune, 300, { room: 300 });
      expect([...first.folded]).toEqual([1, 2, 3, 4]);
      expect(words(first)).toEqual(['{g}', '{what}']);
      expect(read(first.abc).notes.map(({ written }) => written)).toEqual(tune.notes.slice(first.first, first.end).map(({ written }) => written));
      expect(last.folded.size).toBe(0);
      expect(words(last)).toEqual(['{g}', '{g}']);
    });

    it('leaves the bar that was opened, and all of them where there is room', () => {
      const tune = read(dense);
      expect(scoreLines(tune, 300, { room: 300, openBar: 1 })[0].folded.size).toBe(0);
      expect(scoreLines(tune, 300, { room: 700 })[0].folded.size).toBe(0);
    });
  });
});
