import { ZelpitFault } from '../fault';
import {
  asPlayed,
  chartedFingering,
  instrumentById,
  noteOf,
  pattern,
  practiceChanter,
  ratioOf,
  schoolQuestions,
  soundingPitch,
  withKeptFingerings,
  withHands,
  withSchools,
  withTuning,
  type ConfirmedFingering,
} from '.';
import { instruments } from './instruments';

const irish = instrumentById('irish-chanter-d');
const whistle = instrumentById('whistle-d');
const centsOf = (ratio: number, other: number): number => Math.round(1200 * Math.log2(ratio / other));
const own = (change: Partial<ConfirmedFingering>): ConfirmedFingering => ({
  note: 'c6',
  pattern: [...pattern('OXX OXO')],
  isFirst: false,
  isHidden: false,
  remark: '',
  forNow: null,
  by: 'Maren Holt',
  on: '2026-03-09',
  ...change,
});

describe('tuning', () => {
  it('sets high G by the three fractions that tuners use, and leaves the rest', () => {
    const ratioFor = (text: string): number => noteOf(withTuning(practiceChanter, { kind: 'ratios', ratios: { 'high-g': text } }), 'high-g').ratio;
    expect(noteOf(practiceChanter, 'high-g').justRatios).toEqual(['7/4', '16/9', '9/5']);
    expect(['16/9', '9/5'].map((text) => centsOf(ratioFor(text), 7 / 4))).toEqual([27, 49]);
    expect(noteOf(withTuning(practiceChanter, { kind: 'ratios', ratios: { 'high-g': '9/5' } }), 'e').ratio).toBe(3 / 2);
  });

  it('lies 25 and some cents apart in the two low Gs', () => {
    expect(noteOf(practiceChanter, 'low-g').justRatios).toEqual(['7/8', '8/9']);
    expect(centsOf(8 / 9, 7 / 8)).toBe(27);
  });

  it('in equal temperament keeps the octave and moves the C by 14 cents', () => {
    const equal = withTuning(practiceChanter, { kind: 'equal' });
    expect(noteOf(equal, 'high-a').ratio).toBeCloseTo(2);
    expect(centsOf(noteOf(equal, 'c').ratio, 5 / 4)).toBe(14);
  });

  it('takes free cents from equal temperament', () => {
    const free = withTuning(practiceChanter, { kind: 'cents', cents: { e: -10 } });
    expect(centsOf(noteOf(free, 'e').ratio, 2 ** (7 / 12))).toBe(-10);
  });

  it.each(['7', '7/0', '0/4', 'seven', '-7/4', '7/4/2', ''])('refuses “%s” as a fraction', (text) => {
    expect(() => ratioOf(text)).toThrow('Write a ratio as a fraction such as 7/4');
  });

  it('refuses a fraction that is another note, and a note that is not there', () => {
    expect(() => withTuning(practiceChanter, { kind: 'ratios', ratios: { 'high-g': '3/2' } })).toThrow('high G at 3/2 would be 267 cents away from the chart');
    expect(() => withTuning(practiceChanter, { kind: 'equal' })).not.toThrow();
    expect(() => withTuning(practiceChanter, { kind: 'cents', cents: { h: 3 } })).toThrow(ZelpitFault);
  });
});

describe('schools', () => {
  it('put the open A of the Irish pipes first, in both registers', () => {
    const open = withSchools(irish, { a: 'open' });
    expect(chartedFingering(open, 'a4').pattern).toEqual(pattern('X XXO OOXX'));
    expect(chartedFingering(open, 'a5').pattern).toEqual(pattern('X XXO OOXX'));
    expect(chartedFingering(irish, 'a4').pattern).toEqual(pattern('X XXO XXXX'));
  });

  it('keep every fingering and one first of each note, whatever is answered', () => {
    for (const instrument of instruments) {
      for (const { id, answers } of schoolQuestions(instrument)) {
        for (const answer of answers) {
          const played = withSchools(instrument, { [id]: answer.id });
          expect(played.fingerings).toHaveLength(instrument.fingerings.length);
          for (const { id: note } of played.notes) {
            const ranks = played.fingerings.filter((each) => each.note === note).map(({ rank }) => rank);
            expect([...ranks].sort((one, other) => one - other)).toEqual(ranks.map((_, index) => index + 1));
          }
        }
      }
    }
  });

  it('choose any of the whistle’s four C naturals', () => {
    const firsts = ['oxx-ooo', 'oxx-xox', 'half', 'oxx-xxo'].map((answer) => chartedFingering(withSchools(whistle, { 'c-natural': answer }), 'c6').rank);
    const patterns = ['oxx-ooo', 'oxx-xox', 'half', 'oxx-xxo'].map((answer) =>
      chartedFingering(withSchools(whistle, { 'c-natural': answer }), 'c6').pattern.join(''),
    );
    expect(firsts).toEqual([1, 1, 1, 1]);
    expect(new Set(patterns).size).toBe(4);
  });

  it('refuse a question or an answer that is not theirs', () => {
    expect(() => withSchools(whistle, { 'd-throw': 'light' })).toThrow('The whistle in D has no choice');
    expect(() => withSchools(irish, { a: 'ajar' })).toThrow('A: ajar');
  });
});

describe('kept fingerings', () => {
  it('stand beside the built-in ones with author and day', () => {
    const kept = withKeptFingerings(whistle, [own({ remark: 'best between two As' })]);
    const ways = kept.fingerings.filter(({ note }) => note === 'c6');
    expect(ways).toHaveLength(5);
    expect(ways.at(-1)).toMatchObject({ source: 'teacher', rank: 5, confirmed: { by: 'Maren Holt', on: '2026-03-09' }, remark: 'best between two As' });
    expect(chartedFingering(kept, 'c6').rank).toBe(1);
  });

  it('can come first, and then all others move down', () => {
    const kept = withKeptFingerings(whistle, [own({ isFirst: true })]);
    expect(chartedFingering(kept, 'c6').pattern).toEqual(pattern('OXX OXO'));
    expect(kept.fingerings.filter(({ note }) => note === 'c6').map(({ rank }) => rank)).toEqual([2, 3, 4, 5, 1]);
  });

  it('annotate a built-in fingering without a second one', () => {
    const kept = withKeptFingerings(whistle, [own({ pattern: [...pattern('OXX XOX')], remark: 'clear on mine' })]);
    expect(kept.fingerings).toHaveLength(whistle.fingerings.length);
    expect(kept.fingerings.find(({ remark }) => remark === 'clear on mine')?.school).toBe('usual');
  });

  it('hide one, and the next is first then', () => {
    const kept = withKeptFingerings(whistle, [own({ pattern: [...pattern('OXX OOO')], isHidden: true })]);
    expect(kept.fingerings.filter(({ note }) => note === 'c6')).toHaveLength(3);
    expect(chartedFingering(kept, 'c6').pattern).toEqual(pattern('OXX XOX'));
  });

  it('refuse to hide the only one, other fingers’ notes, and a hole too few', () => {
    expect(() => withKeptFingerings(whistle, [own({ note: 'e5', pattern: [...pattern('XXX XXO')], isHidden: true })])).toThrow(
      'E would have no fingering left',
    );
    expect(() => withKeptFingerings(whistle, [own({ note: 'e5', pattern: [...pattern('XXX XOO')] })])).toThrow('These are the fingers of F sharp');
    expect(() => withKeptFingerings(whistle, [own({ pattern: [1, 0] })])).toThrow('has 6 holes, but this fingering of C has 2');
  });
});

describe('hands', () => {
  it('change over on a whistle: the same holes under the other hand', () => {
    const other = withHands(whistle, 'right-on-top');
    expect(other.fingers.map(({ label }) => label)).toEqual(['R index', 'R middle', 'R ring', 'L index', 'L middle', 'L ring']);
    expect(other.fingers.map(({ spoken, hand }) => spoken.startsWith(hand))).toEqual([true, true, true, true, true, true]);
    expect(other.fingerings).toBe(whistle.fingerings);
  });

  it('do not on a recorder, and it says why', () => {
    const settings = { tuning: { kind: 'chart' }, schools: {}, referenceHertz: null, hands: 'right-on-top' } as const;
    expect(() => asPlayed(instrumentById('recorder-alto-german'), settings)).toThrow('cut for the left hand on top');
  });
});

describe('asPlayed', () => {
  it('brings fingers, school and pitch together', () => {
    const played = asPlayed(whistle, { tuning: { kind: 'cents', cents: { a5: 5 } }, schools: { 'c-natural': 'half' }, referenceHertz: 590 }, [own({})]);
    expect(played.reference.hertz).toBe(590);
    expect(chartedFingering(played, 'c6').remark).toBe('half-covered first hole');
    expect(centsOf(soundingPitch(played, 'a5') / 590, 2 ** (7 / 12))).toBe(5);
  });

  it.each([0, -475, 10_000_000, Number.NaN, 466])('refuses a practice chanter at %d Hz', (referenceHertz) => {
    expect(() => asPlayed(practiceChanter, { tuning: { kind: 'chart' }, schools: {}, referenceHertz })).toThrow('between 230.0 and 242.0 Hz');
  });
});
