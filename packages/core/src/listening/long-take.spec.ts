import { practiceChanter, type NoteId } from '../fingering';
import { judgeLongTake, type HeardStretch } from '.';

/** C and E by turns, each 200 ms; low G for so long before every so many of them. */
function toAndFro(changes: number, every: number, ms: number): readonly HeardStretch[] {
  const stretches: HeardStretch[] = [{ note: null, start: 0, end: 500, confidence: 0.9 }];
  for (let index = 0; index <= changes; index += 1) {
    const at = 500 + 200 * index;
    const cuts = index > 0 && index % every === 0;
    const note: NoteId = index % 2 === 0 ? 'c' : 'e';
    if (cuts) stretches.push({ note: 'low-g', start: at, end: at + ms + index / 1000, confidence: 0.9 });
    stretches.push({ note, start: cuts ? at + ms + index / 1000 : at, end: at + 200, confidence: 0.9 });
  }
  return stretches;
}

describe('a long take', () => {
  it('has every change judged once, however many there are', () => {
    const judged = judgeLongTake(practiceChanter, { kind: 'changes', from: 'c', to: 'e' }, toAndFro(3000, 100, 24), 5);
    expect(judged).toMatchObject({ places: 3000, faulty: 30, unsure: 0 });
    expect(judged.worst).toHaveLength(5);
    expect(judged.worst[0].text).toMatch(/^low G sounds for \d\d ms before [CE]$/);
    // Those that last longest come first: here they are among the last ones.
    expect(judged.worst[0].at).toBeGreaterThan(499_000);
  });

  it('begins with either note of the two, and is empty where neither is heard twice', () => {
    const asked = { kind: 'changes', from: 'e', to: 'c' } as const;
    expect(judgeLongTake(practiceChanter, asked, toAndFro(7, 3, 24), 5)).toMatchObject({ places: 7, faulty: 2 });
    expect(judgeLongTake(practiceChanter, asked, toAndFro(0, 3, 24), 5)).toEqual({ places: 0, faulty: 0, unsure: 0, worst: [] });
    expect(judgeLongTake(practiceChanter, { ...asked, from: 'f', to: 'd' }, toAndFro(7, 3, 24), 5).places).toBe(0);
  });

  it('has stops in it, which are no gaps; a short one is', () => {
    const again = (ms: number): readonly HeardStretch[] => {
      const [first] = [toAndFro(7, 3, 24)];
      const { end } = first[first.length - 1];
      const rest = toAndFro(8, 3, 24)
        .slice(1)
        .map((each) => ({ ...each, start: each.start + end + ms - 500, end: each.end + end + ms - 500 }));
      return [...first, { note: null, start: end, end: end + ms, confidence: 0.9 }, ...rest];
    };
    const asked = { kind: 'changes', from: 'c', to: 'e' } as const;
    expect(judgeLongTake(practiceChanter, asked, again(20_000), 9)).toMatchObject({ places: 15, faulty: 4 });
    const gap = judgeLongTake(practiceChanter, asked, again(900), 9);
    expect([gap.places, gap.faulty, gap.worst[0].text]).toEqual([16, 5, 'a gap of 900 ms before C']);
  });

  it('follows notes as often as they are played', () => {
    const notes = (['c', 'e', 'c', 'f'] as const).map((note, index) => ({ note, graceNotes: [], beats: 1, isTied: false, bar: 1 + Math.floor(index / 2) }));
    const stretches = Array.from({ length: 40 }, (_, index): HeardStretch => {
      // The fifth time B sounds for F.
      const note = index === 19 ? 'b' : notes[index % 4].note;
      return { note, start: 300 * index, end: 300 * (index + 1), confidence: 0.9 };
    });
    const judged = judgeLongTake(practiceChanter, { kind: 'piece', notes }, stretches, 3);
    expect(judged).toMatchObject({ places: 40, faulty: 1 });
    expect(judged.worst[0]).toEqual({ at: 300 * 19, text: expect.stringMatching(/^bar 2: .*B/) as string });
  });
});
