import { excerptOf } from '@zelpit/core/excerpt';
import { instrumentById } from '@zelpit/core/fingering';
import { readTune } from '@zelpit/core/tune';
import { fontRuns, signsWithoutFont } from './font-runs';
import { paperPages, type SheetOnPaper } from './paper-layout';
import { paperSizes } from './paper-size';
import { qrPath } from './qr-path';
import { wrapText, type Measure } from './wrap-text';

/** Every sign as wide as half its size. */
const measure: Measure = (text, size) => text.length * size * 0.5;
const style = { size: 10, weight: 500, width: 50, most: 9 };

describe('wrapText', () => {
  it('breaks at spaces and loses no word', () => {
    expect(wrapText(measure, 'one two three four', style)).toEqual(['one two', 'three four']);
  });

  it('cuts a word that fits no line', () => {
    expect(wrapText(measure, 'abcdefghijklmnopqrstuvwxyz', style)).toEqual(['abcdefghij', 'klmnopqrst', 'uvwxyz']);
  });

  it('ends with an ellipsis where there are more lines than allowed', () => {
    expect(wrapText(measure, 'one two three four five six', { ...style, most: 2 })).toEqual(['one two', 'three …']);
  });

  it('is empty for nothing', () => {
    expect(wrapText(measure, '  ', style)).toEqual([]);
  });
});

describe('words under the notes', () => {
  const chanter = instrumentById('practice-chanter');
  const notes = Array.from({ length: 8 }, () => ({ note: 'c', twelfths: 24, graceNotes: ['high-g', 'c', 'd'] }));
  const exercise = { title: 'Doublings of a name that is far longer than a line has room', musical: '', physical: '', focus: 'fingers' as const, notes };
  const line = { kind: 'line' as const, home: 'low-g', other: 'low-a', repetitions: 4, tempo: null, point: '', code: 'ABCD', exercise };
  const sheet = (words: SheetOnPaper['words']): SheetOnPaper => ({
    title: 'T',
    note: '',
    about: '',
    instrument: chanter,
    lines: [line, line, line, line],
    words,
  });
  const [a4] = paperSizes;
  const rows = (words: SheetOnPaper['words']) =>
    paperPages(sheet(words), a4, measure).flatMap((page) => page.rows.map((row) => ({ ...row, footTop: page.footTop })));

  it('make room for themselves: a row of letters, a row for each element of syllables', () => {
    const heights = (words: SheetOnPaper['words']): number[] => rows(words).map(({ height }) => height);
    const [bare, letters, syllables] = [heights(undefined)[0], heights({ kind: 'letters' })[0], heights({ kind: 'syllables', set: {} })[0]];
    expect(letters).toBeGreaterThan(bare);
    expect(syllables - letters).toBe(3 * 21);
    for (const { y, height, footTop } of rows({ kind: 'syllables', set: {} })) expect(y + height).toBeLessThanOrEqual(footTop);
  });

  it('a long name of a line is set smaller before it is cut', () => {
    const sizes = rows(undefined)[0]
      .texts.filter(({ text }) => text.startsWith('Doublings'))
      .map(({ size }) => size);
    expect(sizes[0]).toBeLessThan(36);
  });
});

describe('fontRuns', () => {
  it('takes the second file of the font only for the signs that need it', () => {
    const runs = fontRuns('Řezáč');
    expect(runs.map((run) => run.text)).toEqual(['Ř', 'ezá', 'č']);
    expect(runs[0].family).toBe(runs[2].family);
    expect(runs[0].family).not.toBe(runs[1].family);
    expect(runs.map((run) => run.text).join('')).toBe('Řezáč');
  });

  it('takes the signs of music from the font that has them', () => {
    const runs = fontRuns('F♯, B♭');
    expect(runs.map((run) => run.text)).toEqual(['F', '♯', ', B', '♭']);
    expect(runs[1].family).toBe(runs[3].family);
    expect(runs[1].family).toContain('Signs');
    expect(signsWithoutFont('F♯ B♭ C♮')).toEqual([]);
  });

  it('knows which signs it has not', () => {
    expect(signsWithoutFont('Řezáč “x” 3×')).toEqual([]);
    expect(signsWithoutFont('ш🎵ш')).toEqual(['ш', '🎵']);
  });
});

describe('paperPages', () => {
  const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '', code: '4RK7' };
  const sheet = (count: number, change: Partial<SheetOnPaper> = {}): SheetOnPaper => ({
    title: 'Ten minutes for Pim',
    note: '',
    about: 'The Paper Lighthouse, practice chanter.',
    instrument: instrumentById('practice-chanter'),
    lines: Array.from({ length: count }, () => line),
    ...change,
  });

  it.each(paperSizes.map((size) => [size.name, size] as const))('keeps every line whole, in order and above the foot on %s', (_, size) => {
    const pages = paperPages(sheet(11), size, measure);
    expect(pages.flatMap((page) => page.rows.map((row) => row.index))).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
    for (const page of pages) {
      const last = page.rows[page.rows.length - 1];
      expect(last.y + last.height).toBeLessThanOrEqual(page.footTop + 40);
      expect(page.rows[0].y).toBeGreaterThanOrEqual(page.headEnd);
    }
  });

  it('has no text under 11 pt and a staff of more than 7 mm', () => {
    const eleven = (11 / 72) * 96;
    for (const page of paperPages(sheet(4, { note: 'A note', title: 'x'.repeat(120) }), paperSizes[0], measure)) {
      for (const text of [...page.head, ...page.rows.flatMap((row) => row.texts)]) expect(text.size).toBeGreaterThanOrEqual(eleven);
    }
  });

  it('is one page with head and foot for an empty sheet', () => {
    const [page, ...more] = paperPages(sheet(0), paperSizes[1], measure);
    expect(page.rows).toEqual([]);
    expect(more).toEqual([]);
  });

  it('has a box to tick for each time through, and only the number where there are many', () => {
    const rows = (repetitions: number) => paperPages(sheet(1, { lines: [{ ...line, repetitions }] }), paperSizes[0], measure)[0].rows[0];
    expect(rows(3).boxes).toHaveLength(3);
    expect(rows(50).boxes).toEqual([]);
    expect(rows(50).texts.map((text) => text.text)).toContain('50 lines (400 changes)');
  });

  it('a drill is one line with its speeds, and a box for each of them', () => {
    const [row] = paperPages(sheet(1, { lines: [{ ...line, tempo: 40, speeds: [40, 50, 60], repetitions: 1 }] }), paperSizes[0], measure)[0].rows;
    expect(row.texts.map(({ text }) => text)).toEqual(
      expect.arrayContaining(['1 line (8 changes) at each speed', 'click at 40, 50, 60, until the first slip']),
    );
    expect(row.boxes).toHaveLength(3);
  });

  it('has the code of a tune that is a page of its own, where it has one', () => {
    const tune = readTune(instrumentById('practice-chanter'), 'X:1\nT:Six Spoons\nM:4/4\nL:1/4\nK:HP\nA B c d|e4|]');
    const piece = (code: string) =>
      sheet(1, {
        lines: [{ ...line, kind: 'tune' as const, code, excerpt: excerptOf('Six Spoons', '', tune) }],
        isOnePiece: true,
      });
    const rows = (code: string) => paperPages(piece(code), paperSizes[0], measure).flatMap((page) => page.rows);
    expect(rows('').every((row) => row.code === '')).toBe(true);
    expect(rows('4RK7').map(({ code }) => code)).toEqual([...rows('').map(() => ''), '4RK7']);
  });

  it('says what to watch and the pace, as typed', () => {
    const [page] = paperPages(sheet(1, { lines: [{ ...line, point: 'little finger waits', tempo: 52, repetitions: 1 }] }), paperSizes[0], measure);
    const text = page.rows[0].texts.map((text) => text.text);
    expect(text).toEqual(expect.arrayContaining(['C to E', 'Watch for: little finger waits', 'click at 52', '1 line (8 changes)']));
  });
});

describe('qrPath', () => {
  it('draws the three finders and nothing outside its size', () => {
    const path = qrPath('http://127.0.0.1:4280/c/4RK7', 88);
    const numbers = [...path.matchAll(/M([\d.]+) ([\d.]+)/g)].flatMap((found) => [Number(found[1]), Number(found[2])]);
    expect(Math.min(...numbers)).toBe(0);
    expect(Math.max(...numbers)).toBeLessThan(88);
    expect(numbers.length).toBeGreaterThan(300);
  });
});
