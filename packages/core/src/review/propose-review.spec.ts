import { instruments, practiceChanter } from '../fingering';
import { lineTitle } from '../line';
import { itemName } from '../practice';
import { itemMinutes, proposeReview, reviewItemTitle, reviewMinutes, type MusicReviewItem, type ReviewFacts, type ReviewItem, type TryInLesson } from '.';

const line = (home: string, other: string, more: Partial<MusicReviewItem> = {}): MusicReviewItem => ({
  ...{ kind: 'line', home, other, repetitions: 4, tempo: 60, point: '' },
  ...more,
});
const words = (text: string, minutes?: number): ReviewItem => ({
  ...{ kind: 'words', text, repetitions: 1, tempo: null, point: '' },
  ...(minutes !== undefined && { details: { minutes } }),
});
const nameOf = (content: ReviewItem): string => itemName({ kind: content.kind, title: reviewItemTitle(practiceChanter, content) });
const set = (...items: readonly ReviewItem[]): ReviewFacts['before'] => items.map((content) => ({ item: nameOf(content), content }));
const tries = (content: ReviewItem, count: number, rating: TryInLesson['rating'], note = '', tempo = 60): TryInLesson[] =>
  Array.from({ length: count }, () => ({ item: nameOf(content), title: reviewItemTitle(practiceChanter, content), kind: content.kind, rating, tempo, note }));

const facts = (change: Partial<ReviewFacts> = {}): ReviewFacts => ({
  ...{
    instrument: practiceChanter,
    today: '2026-12-01',
    dayMinutes: 25,
    standing: null,
    before: [],
    planned: [],
    lesson: [],
    log: [],
    now: Date.parse('2026-12-01'),
  },
  ...change,
});
const titles = (items: readonly ReviewItem[]): string[] => items.map((item) => reviewItemTitle(practiceChanter, item));

const [cToE, aToC, bToE] = [line('c', 'e'), line('low-a', 'c'), line('b', 'e')];

describe('a proposed review', () => {
  it('makes what was heard most the priority, and begins with its drill', () => {
    const lesson = [
      ...tries(cToE, 3, 'clean'),
      ...tries(cToE, 5, 'not-yet', 'Low G cuts in'),
      ...tries(aToC, 2, 'not-yet', 'a gap'),
      ...tries(bToE, 4, 'clean'),
    ];
    const proposal = proposeReview(facts({ before: set(aToC, cToE, bToE), lesson }));
    expect(proposal.priority).toEqual({
      text: 'No low G between C and E.',
      sentence: '3 of 8 tries were clean in the lesson.',
      until: '2026-12-22',
      home: 'c',
      other: 'e',
    });
    expect(titles(proposal.items).slice(0, 2)).toEqual(['C to E', 'low A to C']);
    expect(proposal.items[0]).toMatchObject({ kind: 'line', home: 'c', other: 'e', details: { focus: 'fingers', why: 'Low G cuts in, 5 of 8 tries' } });
    expect(proposal.leftOut).toEqual([expect.objectContaining({ reason: 'clean at 60 in the lesson' })]);
    expect(titles(proposal.leftOut.map(({ item }) => item))).toEqual(['B to E']);
  });

  it.each([
    ['A cuts in', 'No A between C and E.'],
    ['a run slips in', 'No run between C and E.'],
    ['a gap', 'No gap between C and E.'],
    ['cuts in', 'Nothing between C and E.'],
    ['the thumb squeezes', 'The thumb squeezes'],
  ])('puts “%s” into words', (note, text) => {
    expect(proposeReview(facts({ before: set(cToE), lesson: tries(cToE, 1, 'not-yet', note) })).priority.text).toBe(text);
  });

  const standing = { text: 'No low G between C and E.', sentence: 'Slow is fine.', until: '2026-12-08', home: 'c', other: 'e' };

  it('keeps a priority that stands, whatever else was heard', () => {
    const lesson = tries(aToC, 6, 'not-yet', 'a gap');
    for (const today of ['2026-12-01', '2026-12-08']) {
      const proposal = proposeReview(facts({ today, standing, before: set(aToC, cToE), lesson }));
      expect(proposal.priority).toEqual(standing);
      expect(titles(proposal.items)).toEqual(['C to E', 'low A to C']);
    }
  });

  it('lets a priority end on its date', () => {
    const proposal = proposeReview(facts({ today: '2026-12-09', standing, before: set(aToC, cToE), lesson: tries(aToC, 2, 'not-yet', 'a gap') }));
    expect(proposal.priority.text).toBe('No gap between low A and C.');
  });

  it('goes on from the tempo that was clean, and says for how long it has stood there', () => {
    const lesson = [...tries(aToC, 2, 'clean', '', 54), ...tries(aToC, 1, 'nearly', '', 60)];
    const [, carried] = proposeReview(facts({ standing, before: set(cToE, aToC), lesson })).items;
    expect(carried).toMatchObject({ home: 'low-a', tempo: 54 });
    const later = { ...aToC, details: { weeks: 2 } };
    expect(proposeReview(facts({ standing, before: set(cToE, later) })).items[1].details?.weeks).toBe(3);
  });

  it('sets what was planned and not done all the same', () => {
    const proposal = proposeReview(
      facts({ standing, before: set(cToE, aToC), planned: [{ item: nameOf(aToC), title: 'low A to C' }], lesson: tries(cToE, 2, 'nearly') }),
    );
    expect(proposal.items[1].details?.why).toBe('planned, not done in the lesson');
  });

  it('has bars of the tune, a known tune and the speed game last, in that order', () => {
    const log = tries(bToE, 3, 'clean', '', 72).map((each, index) => ({
      ...each,
      at: Date.parse('2026-11-30') + index,
      seconds: 60,
      by: 'student' as const,
      cleanTempos: [],
    }));
    const piece = line('e', 'f', { kind: 'chunk', excerpt: { tune: 'The Paper Lighthouse', place: 'Bar 5', abc: 'X:1\nT:x\nM:4/4\nL:1/4\nK:HP\ne f e f|\n' } });
    const known = line('c', 'd', {
      kind: 'tune',
      repetitions: 1,
      excerpt: { tune: 'The Tin Stile', place: '', abc: 'X:1\nT:x\nM:4/4\nL:1/4\nK:HP\nc d c d|\n' },
    });
    const proposal = proposeReview(facts({ standing, before: set(cToE, bToE), log, piece, known }));
    expect(titles(proposal.items)).toEqual(['C to E', 'B to E', 'Bar 5 of The Paper Lighthouse', 'The Tin Stile', 'B to E']);
    expect(proposal.items.at(-1)).toMatchObject({ tempo: 84, details: { isLadder: true } });
  });

  it('goes on with what was added in the lesson, where it was not clean', () => {
    const lesson = [
      ...tries(words('Posture with the mirror'), 2, 'nearly'),
      ...tries(words('Clap the jig'), 1, 'clean'),
      ...tries(words('Breathe'), 1, 'unjudged'),
    ];
    const proposal = proposeReview(facts({ standing, before: set(cToE), lesson }));
    expect(titles(proposal.items)).toEqual(['C to E', 'Posture with the mirror']);
  });

  it('takes a planned simpler layer for no fault: played clean it is done', () => {
    const abc = 'X:1\nT:x\nM:4/4\nL:1/4\nK:HP\n{gef}e {gdG}c e f|\n';
    const bare = line('e', 'c', {
      kind: 'chunk',
      tempo: null,
      excerpt: { tune: 'The Paper Lighthouse', place: 'Bar 5', abc, layers: { '0': 'bare', '1': 'one' } },
    });
    const proposal = proposeReview(facts({ standing, before: set(cToE, bare), lesson: tries(bare, 3, 'clean') }));
    expect(titles(proposal.items)).toEqual(['C to E']);
    expect(proposal.leftOut).toEqual([{ item: bare, reason: 'clean at 60 in the lesson' }]);
    expect(proposal.priority).toEqual(standing);
  });

  it('begins with long notes where nothing is known of a student', () => {
    const { priority, items } = proposeReview(facts());
    expect(priority.text).toBe('A steady sound on long notes.');
    expect(titles(items)).toEqual(['Long, steady notes']);
  });

  it('never exceeds the day, always begins with the drill, and names what it left out', () => {
    const notes = practiceChanter.notes.map(({ id }) => id);
    const pairs = notes.flatMap((home, index) => notes.slice(index + 1).map((other) => line(home, other)));
    for (let seed = 1; seed <= 60; seed += 1) {
      const before = set(
        ...pairs.filter((_, index) => (index * 7 + seed * 3) % 5 === 0).slice(0, (seed * 5) % 18),
        words('Posture', seed % 4 === 0 ? 9 : undefined),
      );
      const lesson = before.flatMap(({ content }, index) =>
        index % 3 === 0 ? tries(content, 2, 'not-yet', 'a gap') : tries(content, 1, index % 3 === 1 ? 'clean' : 'nearly'),
      );
      const dayMinutes = 5 + (seed % 30);
      const proposal = proposeReview(facts({ before, lesson, dayMinutes, standing: seed % 2 === 0 ? standing : null }));
      expect(reviewMinutes(proposal.items)).toBeLessThanOrEqual(dayMinutes);
      expect(proposal.minutes).toBe(reviewMinutes(proposal.items));
      const { home, other } = proposal.priority;
      if (home !== null && other !== null)
        expect(reviewItemTitle(practiceChanter, proposal.items[0])).toContain(lineTitle(practiceChanter, { home, other }).split(' to ')[0]);
      const named = new Set([...titles(proposal.items), ...titles(proposal.leftOut.map(({ item }) => item))]);
      for (const title of titles(before.map(({ content }) => content))) expect(named).toContain(title);
      for (const { reason } of proposal.leftOut) expect(reason).not.toBe('');
    }
  });

  it('plays a drill less often where the day is shorter than it', () => {
    const long = line('c', 'e', { repetitions: 30 });
    const { items } = proposeReview(facts({ dayMinutes: 5, before: set(long) }));
    expect(itemMinutes(items[0])).toBeLessThanOrEqual(5);
  });

  it.each(instruments.map((instrument) => [instrument.id, instrument] as const))('makes the drill of a fault on the %s', (_, instrument) => {
    const [home, other] = instrument.notes.map(({ id }) => id);
    const before = [{ item: 'x', content: line(home, other) }];
    const lesson: TryInLesson[] = [{ item: 'x', title: 'x', kind: 'line', rating: 'not-yet', tempo: 60, note: 'a gap' }];
    const { priority, items } = proposeReview(facts({ instrument, before, lesson }));
    expect(priority.text).toMatch(/^No gap between .+ and .+\.$/);
    expect(items[0]).toMatchObject({ home, other, kind: 'line' });
  });
});
