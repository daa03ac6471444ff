import { practiceChanter } from '../fingering';
import { askedOfLine, judgeAsked, pieceText, type HeardStretch } from '.';

const line = { home: 'c', other: 'e' };

describe('a line as what is asked for', () => {
  it('has four bars of four notes, to and fro', () => {
    const asked = askedOfLine(practiceChanter, line);
    expect(asked.map(({ note }) => note).slice(0, 4)).toEqual(['c', 'e', 'c', 'e']);
    expect(asked.map(({ bar }) => bar)).toEqual([1, 1, 1, 1, 2, 2, 2, 2, 3, 3, 3, 3, 4, 4, 4, 4]);
  });

  it('is judged bar by bar, played twice through too', () => {
    const asked = askedOfLine(practiceChanter, line);
    const heard = [...asked, ...asked].map(({ note }, index): HeardStretch => ({ note, start: index * 600, end: (index + 1) * 600, confidence: 0.9 }));
    expect(pieceText(practiceChanter, judgeAsked(practiceChanter, asked, heard))).toBe('Eight of eight bars clean.');
    // In bar 2 low G cuts in before the second note.
    const cut: HeardStretch[] = [
      ...heard.slice(0, 5),
      { ...heard[5], end: heard[5].end - 24 },
      { note: 'low-g', start: heard[5].end - 24, end: heard[5].end, confidence: 0.9 },
      ...heard.slice(6, 16),
    ];
    expect(pieceText(practiceChanter, judgeAsked(practiceChanter, asked, cut))).toBe('Three of four bars clean. Bar 2: low G sounds for 24 ms before C.');
  });

  it('has the bars of an excerpt with what leads into it', () => {
    const abc = 'X:1\nT:Stile\nM:4/4\nL:1/4\nK:HP\nA | {g}c e {gef}e c | A4 |]\n';
    const asked = askedOfLine(practiceChanter, { ...line, excerpt: { tune: 'Stile', place: 'Bar 1', abc } });
    expect(asked.map(({ note, bar }) => `${note} ${bar}`)).toEqual(['low-a 0', 'c 1', 'e 1', 'e 1', 'c 1', 'low-a 2']);
    expect(asked[3].graceNotes).toEqual(['high-g', 'e', 'f']);
  });
});
