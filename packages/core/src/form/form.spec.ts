import * as fc from 'fast-check';
import { practiceChanter } from '../fingering';
import { instrumentById } from '../fingering';
import { readTune } from '../tune';
import { countAloud, formOf, formText, likenessText, measuresOf, meterText, readForm, roundOf } from '.';

const recorder = instrumentById('recorder-soprano-baroque');
const tuneOf = (music: string, head = 'M:2/4\nL:1/8\nK:C'): ReturnType<typeof readTune> => readTune(recorder, `X:1\nT:Made up\n${head}\n${music}\n`);
const formFor = (music: string, head?: string): ReturnType<typeof formOf> => formOf(recorder, tuneOf(music, head));

const a = 'CDEF | GFED | CDEF | G2G2 | AGFE | DEFG | AGFE | D2D2';
const b = 'cBAG | FGAB | cBAG | F2F2 | EFGA | BAGF | EDCD | C2C2';
const bOtherEnd = 'cBAG | FGAB | cBAG | F2F2 | EFGA | BAGF | EDCD | C2G2';

describe('form', () => {
  it('finds A B B in a tune written out without repeat signs, with another last bar', () => {
    const form = formFor(`${a} | ${b} | ${bOtherEnd} |`);
    expect(form.order).toBe('ABB');
    expect(form.parts[2].again?.differing).toEqual([23]);
    expect(form.sentences.join(' ')).toContain('B again in bars 17 to 24 but for its last bar.');
  });

  it('plays repeats out: two repeated parts are AABB', () => {
    const form = formFor(`|: ${a} :: ${b} :|`);
    expect(form.order).toBe('AABB');
    expect(form.sections.map(({ number }) => number)).toEqual([1, 2, 3, 4]);
    expect(form.sentences[0]).toBe('AABB: 2 parts of 8 bars, 4 parts played.');
  });

  it('names part one again at the end', () => {
    expect(formFor(`${a} || ${b} || ${a} |]`).sentences).toContain('At the end part one again: bars 17 to 24.');
  });

  it('names a last section of B that recalls A', () => {
    const form = formFor(`|: ${a} :: cBAG | FGAB | cBAG | F2F2 | AGFE | DEFG | AGFE | C2C2 :|`);
    expect(likenessText(form, form.sections[3])).toBe('4 is 2 but for its last bar');
    expect(form.sentences).toContain('The end of part B recalls part A: 4 is 2 but for its last bar.');
  });

  it('says which bars differ, first, last or by number', () => {
    const sections = 'CDEF | GFED | CDEF | G2G2 | CDEF | GFED | AAAA | F2F2';
    const form = formFor(`${sections} || ${b} |]`);
    expect(likenessText(form, form.sections[1])).toBe('2 is 1 but for bars 7 and 8');
  });

  it('has first and second endings in one part', () => {
    const form = formFor('|: CDEF | GFED | CDEF |1 G2G2 :|2 C2C2 || cBAG | FGAB | cBAG | F2F2 |]');
    expect(form.order).toBe('AAB');
    expect(form.parts[1].again?.differing).toHaveLength(1);
  });

  it('counts bars that a lead-in cuts once, and does not hear another lead-in as another bar', () => {
    const tune = readTune(practiceChanter, 'X:1\nT:Led in\nM:2/4\nL:1/8\nK:HP\ne | Acea | fecA | Acea | f2e :: c | aecA | Bcde | aecA | B2A :|\n');
    expect(measuresOf(tune).map(({ number }) => number)).toEqual([1, 2, 3, 4, 1, 2, 3, 4, 5, 6, 7, 8, 5, 6, 7, 8]);
    const form = formOf(practiceChanter, tune);
    expect(form.order).toBe('AABB');
    expect(form.sentences).toContain('Lead-in: E, ½ beat before bar 1.');
  });

  it('takes a last bar for the same where only what leads on differs', () => {
    const head = 'M:2/4\nL:1/8\nK:C';
    const form = formFor(`G | CDEF | GFED | CDEF | G2GA | CDEF | GFED | CDEF | G2G |]`, head);
    expect(form.order).toBe('AA');
    expect(form.parts[1].again?.differing).toEqual([]);
  });

  it('reads a form as a teacher corrects it, and says what does not add up', () => {
    const tune = tuneOf(`${a} | ${b} |`);
    const form = formOf(recorder, tune, readForm('A4 B4 A4 C4', 16));
    expect(form.order).toBe('ABAC');
    expect(formText(form)).toBe('A4 B4 A4 C4');
    expect(readForm('  ', 16)).toBeUndefined();
    expect(() => readForm('A4 B4', 16)).toThrow('These parts have 8 bars together; the tune has 16 as it is played, repeats counted.');
    expect(() => readForm('A8 8B', 16)).toThrow('“8B” is no part');
  });

  it('answers for tunes of one note, of rests, without a meter and without bars', () => {
    expect(formFor('C8 |]').order).toBe('A');
    expect(formFor('z4 | z4 | z4 | z4 |]').order).toMatch(/^A+$/);
    expect(formFor('CDEF | GFED |]', 'M:none\nL:1/8\nK:C').order).toMatch(/^[AB]+$/);
    expect(formFor('', 'M:2/4\nL:1/8\nK:C').sentences).toEqual(['There is no bar with notes.']);
  });

  it('gives every measure to exactly one part, whatever is written', () => {
    const bars = fc.array(fc.constantFrom('CDEF', 'GFED', 'G2G2', 'z4', 'C4'), { minLength: 1, maxLength: 40 });
    const lines = fc.constantFrom('|', '||', ':|', '|:', '::');
    fc.assert(
      fc.property(bars, fc.array(lines, { minLength: 40, maxLength: 40 }), (music, signs) => {
        const form = formFor(`${music.map((bar, index) => `${bar} ${signs[index]}`).join(' ')} C4 |]`);
        expect(form.parts.flatMap(({ first, end }) => Array.from({ length: end - first }, (_, at) => first + at))).toEqual(
          form.measures.map((_, index) => index),
        );
        for (const { first, end, like } of form.sections) for (const measure of like?.differing ?? []) expect(measure >= first && measure < end).toBe(true);
        expect(readForm(formText(form), form.measures.length)?.length).toBe(form.parts.length);
      }),
      { numRuns: 60 },
    );
  });
});

describe('rounds', () => {
  const four = formFor('CDEC | CDEC | EFG2 | EFG2 | GAGF | GAGF | C2G2 | C4 |]');

  it('shares a tune out among four voices', () => {
    const round = roundOf(four, 4);
    expect(round.kind === 'round' && round.entries.map(({ bar }) => bar)).toEqual([1, 3, 5, 7]);
  });

  it('lets voices enter after a chosen section', () => {
    const round = roundOf(formFor(`${a} |]`), 2, 1);
    expect(round.kind === 'round' && round.entries.map(({ bar }) => bar)).toEqual([1, 5]);
  });

  it('refuses parts of different length, too many voices and a section that is not there', () => {
    expect(roundOf(four, 3)).toMatchObject({ kind: 'none', reason: expect.stringContaining('different lengths') as string });
    expect(roundOf(four, 13)).toMatchObject({ reason: 'A round has 2 to 12 voices, not 13.' });
    expect(roundOf(four, 2, 9)).toMatchObject({ reason: expect.stringContaining('no section 9') as string });
  });
});

describe('counting', () => {
  const { meter: two } = tuneOf('C4 |');
  const { meter: six } = tuneOf('C6 |', 'M:6/8\nL:1/8\nK:C');
  const spoken = (words: ReturnType<typeof countAloud>): string => words.map(({ text }) => text).join(' ');

  it('divides a beat as its notes need', () => {
    expect(spoken(countAloud(two, [0, 1 / 8, 1 / 4]))).toBe('one and two');
    expect(spoken(countAloud(two, [0, 3 / 16, 1 / 4, 3 / 8]))).toBe('one e and a two and');
    expect(spoken(countAloud(two, [0, 1 / 12, 2 / 12, 1 / 4]))).toBe('one trip let two');
    expect(
      countAloud(two, [0, 3 / 16])
        .filter(({ isSounded }) => isSounded)
        .map(({ text }) => text),
    ).toEqual(['one', 'a']);
  });

  it('counts 6/8 in two and in six, with and without subdivisions', () => {
    const eighths = [0, 1, 2, 3, 4, 5].map((at) => at / 8);
    expect(spoken(countAloud(six, eighths))).toBe('one and a two and a');
    expect(spoken(countAloud(six, eighths, { in: 'beats', detail: 'undivided' }))).toBe('one two');
    expect(spoken(countAloud(six, eighths, { in: 'six', detail: 'divided' }))).toBe('one two three four five six');
    expect(spoken(countAloud(six, [0, 1 / 16, 1 / 8], { in: 'six', detail: 'divided' }))).toBe('one and two three four five six');
  });

  it('counts a lead-in from where it begins', () => {
    expect(spoken(countAloud(two, [3 / 8], undefined, 3 / 8))).toBe('and');
  });

  it('says a meter as it is counted', () => {
    expect(meterText(two)).toBe('2/4: two beats in a bar, one and two and.');
    expect(meterText(six)).toBe('6/8: two beats in a bar, one and a two and a.');
    expect(meterText(six, { in: 'six', detail: 'divided' })).toContain('six beats in a bar, one and two and');
  });
});
