import * as fc from 'fast-check';
import { changeBetween } from '../change';
import { instrumentById, instruments, practiceChanter, type Instrument } from '../fingering';
import { writeAbc } from '../score';
import { readTune, type Tune } from '../tune';
import { chainOf, chunkOf, joined, marked, type Chunk } from '.';
import { changeSentences, scriptOf, scriptText } from '../script';
import { countOfTune, usualRange, type ChunkRange } from '../form';
import { excerptOf, excerptTitle, hardestPair, rowsOf, rowsOfExcerpt, tuneAtRow, tuneOfExcerpt } from '../excerpt';

const march = `X:1
T:The Paper Lighthouse
R:march
M:2/4
L:1/8
K:HP
|:{g}e|{ag}a>f {gef}e{gcd}c|{Gdc}d>B {gde}d>f|{g}e>c {GdG}c>A|{gBd}B2 {e}B:|
|:{g}e|{g}a>f e>c|{g}A2 c2|[1 {g}d2 B2:|[2 {GdG}A4|]
`;
const tuneOf = (abc: string, instrument: Instrument = practiceChanter): Tune => readTune(instrument, abc);
const chunkFrom = (tune: Tune, range: ChunkRange, instrument: Instrument = practiceChanter): Chunk => {
  const found = chunkOf(instrument, tune, range);
  if (found.kind === 'none') throw new Error(found.reason);
  return found.chunk;
};
const musicOf = (tune: Tune): string => writeAbc(tune.score).trimEnd().split('\n').at(-1) ?? '';
const bars = (from: number, to = from): ChunkRange => ({ kind: 'bars', from, to });

describe('chunks', () => {
  const tune = tuneOf(march);

  it('takes a bar with its lead-in', () => {
    const chunk = chunkFrom(tune, bars(1));
    expect(chunk.title).toBe('Bar 1');
    expect(chunk.leadIn).toBe(1);
    expect(musicOf(chunk.tune)).toBe('{g}e|{ag}a3/2f/ {gef}e{gcd}c|]');
    expect(chunk.sources).toEqual([0, 1, 2, 3, 4]);
  });

  it('takes the last note of the bar before where nothing leads in', () => {
    const chunk = chunkFrom(tune, bars(3, 4));
    expect(chunk.title).toBe('Bars 3 and 4');
    expect(musicOf(chunk.tune)).toBe('f/|{g}e3/2c/ {GdG}c3/2A/|{gBd}B2 {e}B|]');
  });

  it('counts what stands after a repeat sign to the next bar', () => {
    expect(musicOf(chunkFrom(tune, bars(4)).tune)).toBe('A/|{gBd}B2 {e}B|]');
    expect(musicOf(chunkFrom(tune, bars(5)).tune)).toMatch(/^\{g\}e\|\{g\}a/);
  });

  it('goes over the end of a repeat, and keeps the last of two endings', () => {
    const over = chunkFrom(tune, bars(4, 5));
    expect(over.tune.playedBars).toHaveLength(over.tune.bars.length);
    const endings = chunkFrom(tune, bars(6, 8));
    expect(endings.leftOut).toEqual(['Bar 7 is an earlier ending and left out.']);
    expect(musicOf(endings.tune)).toContain('{GdG}A4');
  });

  it('takes half a bar, and a bar of many notes half a bar at a time', () => {
    expect(musicOf(chunkFrom(tune, { kind: 'half', bar: 1, half: 'first' }).tune)).toBe('{g}e|{ag}a3/2f/|]');
    expect(musicOf(chunkFrom(tune, { kind: 'half', bar: 1, half: 'second' }).tune)).toBe('f/ {gef}e{gcd}c|]');
    const busy = tuneOf('X:1\nT:Busy\nM:6/8\nL:1/16\nK:HP\nABcdef ABcdef|A6 B6|]\n');
    expect(usualRange(busy, 1)).toEqual({ kind: 'half', bar: 1, half: 'first' });
    expect(usualRange(busy, 2)).toEqual(bars(2));
  });

  it('takes a marked stretch, with ties, slurs and triplets closed that the cut breaks', () => {
    const recorder = instrumentById('recorder-soprano-baroque');
    const cut = tuneOf('X:1\nT:Cut\nM:4/4\nL:1/8\nK:C\n(CD EF) (3GAG F2-|F2 E2 D2 C2|]\n', recorder);
    const chunk = chunkFrom(cut, { kind: 'notes', first: 2, last: 5 }, recorder);
    expect(tuneOf(writeAbc(chunk.tune.score), recorder).findings.filter(({ kind }) => kind === 'passed-over')).toEqual([]);
    expect(chunk.tune.notes.map(({ duration }) => Math.round(duration * 24))).toEqual([3, 3, 3, 2, 2]);
  });

  it('marks a stretch by its notes, and names it by them', () => {
    const { sources, leadIn } = chunkFrom(tune, bars(1));
    const own = sources.slice(leadIn);
    const begun = marked(own, 'first', own[1]);
    expect(chunkFrom(tune, begun)).toMatchObject({ title: 'F to C in bar 1', leadIn: 1 });
    expect(chunkFrom(tune, marked([own[1], own[3]], 'last', own[2])).title).toBe('F to E in bar 1');
    expect(marked(own, 'last', own[0])).toEqual({ kind: 'notes', first: own[0], last: own[0] });
    expect(marked([own[0], own[1]], 'first', own[3])).toEqual({ kind: 'notes', first: own[3], last: own[3] });
    expect(chunkFrom(tune, { kind: 'notes', first: own[3], last: own[3] + 1 }).title).toMatch(/^C in bar 1 to .+ in bar 2$/);
  });

  it('joins halves to their bar, marked notes to their bars, bars to the next', () => {
    expect(joined(tune, { kind: 'half', bar: 2, half: 'second' })).toEqual(bars(2));
    expect(joined(tune, { kind: 'notes', first: 3, last: 7 })).toEqual(bars(tune.notes[3].bar, tune.notes[7].bar));
    expect(joined(tune, bars(1))).toEqual(bars(1, 2));
    expect(joined(tune, bars(8))).toBeUndefined();
  });

  it('says what is not there', () => {
    expect(chunkOf(practiceChanter, tune, { kind: 'notes', first: 900, last: 903 })).toEqual({ kind: 'none', reason: 'There are no notes in this place.' });
    expect(chunkOf(practiceChanter, tune, bars(40))).toEqual({ kind: 'none', reason: 'There is no bar 40 with notes: the tune has 8.' });
    const quiet = 'X:1\nT:Quiet\nM:2/4\nL:1/8\nK:HP\n';
    expect(chunkOf(practiceChanter, tuneOf(`${quiet}z4|z4|]\n`), bars(1))).toEqual({ kind: 'none', reason: 'Bar 1: only rests. No finger moves.' });
    expect(chunkOf(practiceChanter, tuneOf(`${quiet}C,4|D,4|]\n`), bars(1, 2))).toMatchObject({
      reason: expect.stringMatching(/^Bars 1 and 2: none of its notes/) as string,
    });
    expect(usualRange(tuneOf('X:1\nT:Free\nL:1/8\nK:HP\nABcdefga|]\n'), 1)).toEqual(bars(1));
    expect(chunkOf(practiceChanter, tuneOf('X:1\nT:Empty\nM:2/4\nK:HP\n'), bars(1)).kind).toBe('none');
  });

  it('chains bars: 1, then 2, 1+2, then 3, 1+2+3', () => {
    expect(chainOf(tune, 1, 3)).toEqual([bars(1), bars(2), bars(1, 2), bars(3), bars(1, 3)]);
  });
});

describe('rows', () => {
  it('gives the first bar of a march its four rows', () => {
    const { rows } = rowsOf(practiceChanter, chunkFrom(tuneOf(march), bars(1)).tune);
    expect(rows.map(({ number, kind, tune }) => [number, kind, musicOf(tune)])).toEqual([
      [1, 'bare', 'e|a3/2f/ ec|]'],
      [2, 'one', '{g}e|a3/2f/ {g}e{g}c|]'],
      [3, 'full', '{g}e|{ag}a3/2f/ {gef}e{gcd}c|]'],
      [4, 'count', '{g}e|{ag}a3/2f/ {gef}e{gcd}c|]'],
    ]);
  });

  it('has rows 1 and 4 where there are no grace notes', () => {
    const plain = tuneOf('X:1\nT:Plain\nM:3/4\nL:1/4\nK:HP\nA c a|e2 f|]\n');
    expect(rowsOf(practiceChanter, plain).rows.map(({ number }) => number)).toEqual([1, 4]);
  });

  it('keeps a note at the layer that was chosen for it, in every fuller row', () => {
    const { tune } = chunkFrom(tuneOf(march), bars(1));
    const { rows } = rowsOf(practiceChanter, tune, new Map([[3, 'one']]));
    expect(rows.map(({ tune: row }) => musicOf(row)).at(-1)).toBe('{g}e|{ag}a3/2f/ {g}e{gcd}c|]');
  });
});

describe('scripts', () => {
  const first = chunkFrom(tuneOf(march), bars(1));

  it('names one finger for E to low A', () => {
    expect(changeSentences(practiceChanter, changeBetween(practiceChanter, 'e', 'low-a'))).toEqual([
      'The lower hand does nothing.',
      'Left ring lands.',
      'Everything else stays.',
    ]);
  });

  it('says for C to high A who lands, who lifts and who stays', () => {
    const text = changeSentences(practiceChanter, changeBetween(practiceChanter, 'c', 'high-a')).join(' ');
    expect(text).toBe('Both hands. Thumb, left index, middle and right little lift; right middle and ring land. Left ring and right index stay down.');
  });

  it('says in 3/4 where the beats of the tune fall', () => {
    const tune = tuneOf('X:1\nT:In three\nM:3/4\nL:1/8\nK:HP\n{g}A2 c>e {ag}a2|]\n');
    const beats = scriptOf(practiceChanter, chunkFrom(tune, bars(1))).find(({ kind }) => kind === 'beats');
    expect(beats?.sentences[0]).toBe('One on low A, two on C and three on high A.');
    expect(
      countOfTune(tune)
        .filter(({ isBeat }) => isBeat)
        .map(({ note }) => note),
    ).toEqual([0, 1, 3]);
  });

  it('takes a movement apart element by element, with something simpler for it', () => {
    const { decorated } = rowsOf(practiceChanter, first.tune);
    const doubling = scriptOf(practiceChanter, first, { decorated }).find(({ title }) => title === 'Doubling on E');
    expect(doubling?.sentences).toEqual([
      '3 elements before E.',
      '1: G grace note, left index lifts; left middle lands.',
      '2: E, left index lands.',
      '3: F grace note, left middle lifts.',
      'Then E, left middle lands.',
    ]);
    expect(doubling?.lead).toContain('the G grace note');
  });

  it('is plain text, a paragraph a step', () => {
    const steps = scriptOf(practiceChanter, first);
    expect(scriptText(steps).split('\n')).toHaveLength(steps.length);
    expect(scriptText(steps)).toContain('E leads in: it stands before the bar line.');
  });

  /** Fingers in a sentence by what they do, read from its words alone. */
  function readMovers(instrument: Instrument, sentence: string): string[] {
    const ids = new Map(instrument.fingers.map(({ id, spoken }) => [spoken, id]));
    return sentence
      .replace(/\.$/, '')
      .toLowerCase()
      .split('; ')
      .flatMap((part) => {
        const [, names, verb] = /^(.*) (lifts?|lands?)( to half| on half the hole)?$/.exec(part) ?? ['', '', ''];
        let hand = '';
        return names.split(/, | and /).map((name) => {
          const own = /^(left|right) /.exec(name)?.[1];
          hand = own ?? hand;
          const id = ids.get(name) ?? ids.get(`${hand} ${name}`);
          return `${id ?? name} ${verb.startsWith('lift') ? 'lift' : 'lower'}`;
        });
      });
  }

  it('names exactly the movers of every change, on every instrument and in generated tunes', () => {
    const notesOf = (instrument: Instrument): fc.Arbitrary<string[]> =>
      fc.array(fc.constantFrom(...instrument.notes.map(({ abc }) => abc)), { minLength: 2, maxLength: 12 });
    const anything = fc.constantFrom(...instruments).chain((instrument) => notesOf(instrument).map((letters) => ({ instrument, letters })));
    fc.assert(
      fc.property(anything, ({ instrument, letters }) => {
        const tune = readTune(
          instrument,
          `X:1\nT:Generated\nM:none\nL:1/4\nK:${instrument.ownKeys[0] ?? 'C'}\n${letters.map((letter) => (instrument.ownKeys.length > 0 ? letter : letter.replace(/^(?![_^=])/, '='))).join(' ')} |]\n`,
        );
        for (const step of scriptOf(instrument, { tune, leadIn: 0 })) {
          if (step.kind !== 'change' || step.change === undefined || step.change.movers.length === 0) continue;
          const wanted = step.change.movers.map(({ finger, direction }) => `${finger} ${direction}`).sort();
          expect(readMovers(instrument, step.sentences[1]).sort()).toEqual(wanted);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('a piece on a sheet', () => {
  const chunk = chunkFrom(tuneOf(march), bars(1));
  const excerpt = excerptOf('The Paper Lighthouse', chunk.title, chunk.tune, new Map([[4, 'bare']]));

  it('is read as it was: notes, lengths and rows', () => {
    expect(excerptTitle(excerpt)).toBe('Bar 1 of The Paper Lighthouse');
    const read = tuneOfExcerpt(practiceChanter, excerpt);
    expect(read.notes.map(({ written, duration, beat }) => [written, duration, beat])).toEqual(
      chunk.tune.notes.map(({ written, duration, beat }) => [written, duration, beat]),
    );
    expect(rowsOfExcerpt(practiceChanter, excerpt).rows.map(({ kind }) => kind)).toEqual(['bare', 'one', 'full', 'count']);
    expect(musicOf(tuneAtRow(practiceChanter, excerpt, 'count'))).toBe('{g}e|{ag}a3/2f/ {gef}ec|]');
  });

  it('is known by its hardest change, and answers for one note and for rests', () => {
    expect(hardestPair(practiceChanter, chunk.tune)).toEqual(['e', 'c']);
    expect(hardestPair(practiceChanter, tuneOf('X:1\nT:One\nM:4/4\nL:1/4\nK:HP\nA4|]\n'))).toEqual(['low-a', 'low-a']);
    expect(hardestPair(practiceChanter, tuneOf('X:1\nT:Rests\nM:4/4\nL:1/4\nK:HP\nz4|]\n'))).toEqual(['low-g', 'low-g']);
  });

  it('comes back from its text whatever bars are taken of a generated tune', () => {
    const bar = fc.constantFrom('{g}A>c {gcd}c2', 'e<e (3fed', '{GdG}A4', 'z2 {g}e2', 'a4-', '[Ac]2 d2', 'A/B/c/d/ e2');
    fc.assert(
      fc.property(fc.array(bar, { minLength: 1, maxLength: 8 }), fc.nat(7), fc.nat(3), (music, from, more) => {
        const tune = tuneOf(`X:1\nT:Generated\nM:2/4\nL:1/8\nK:HP\n${music.join('|')}|]\n`);
        const found = chunkOf(practiceChanter, tune, bars(1 + (from % music.length), 1 + (from % music.length) + more));
        if (found.kind === 'none') return;
        const read = tuneOfExcerpt(practiceChanter, excerptOf('Generated', found.chunk.title, found.chunk.tune));
        expect(read.notes.map(({ written, graceNotes, duration }) => [written, graceNotes, duration.toFixed(6)])).toEqual(
          found.chunk.tune.notes.map(({ written, graceNotes, duration }) => [written, graceNotes, duration.toFixed(6)]),
        );
      }),
      { numRuns: 100 },
    );
  });
});
