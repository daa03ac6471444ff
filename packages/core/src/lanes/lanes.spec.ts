import { practiceChanter as chanter } from '../fingering';
import { changeBetween, troubleOf } from '../change';
import { coverSpans, laneLayout, markFor, ribbons, seamBetween, type LaneNote } from '.';

const at = (x: number, note: string | null, graceNotes: { x: number; note: string }[] = []): LaneNote => ({ x, note, graceNotes });
const spans = (notes: LaneNote[], finger: string) => coverSpans(chanter, notes, 0, 400).get(finger);

describe('laneLayout', () => {
  it('puts one lane per finger from the face down, with gaps after the thumb and between the hands', () => {
    const { lanes, pitch } = laneLayout(chanter, 20);
    expect(lanes.map((lane) => lane.finger.label)).toEqual(['thumb', 'L index', 'L middle', 'L ring', 'R index', 'R middle', 'R ring', 'R little']);
    const steps = lanes.slice(1).map((lane, index) => lane.y - lanes[index].y);
    expect(steps.map((step) => step > pitch)).toEqual([true, false, false, true, false, false, false]);
  });
});

describe('coverSpans', () => {
  it('lifts and lands midway between two noteheads', () => {
    const notes = [at(100, 'c'), at(200, 'e')];
    expect(seamBetween(notes[0], notes[1])).toBe(150);
    expect(spans(notes, 'L3')).toEqual([{ from: 0, to: 150, coverage: 1 }]);
    expect(spans(notes, 'R2')).toEqual([{ from: 150, to: 400, coverage: 1 }]);
    expect(spans(notes, 'T')).toEqual([{ from: 0, to: 400, coverage: 1 }]);
  });

  it('changes under a grace note that hides: its finger hops, the others move at the grace note', () => {
    const notes = [at(100, 'd'), at(200, 'low-a', [{ x: 180, note: 'high-g' }])];
    expect(spans(notes, 'L1')).toEqual([
      { from: 0, to: 173, coverage: 1 },
      { from: 187, to: 400, coverage: 1 },
    ]);
    expect(spans(notes, 'R1')).toEqual([{ from: 180, to: 400, coverage: 1 }]);
  });

  it('dips to low G and back in a grip', () => {
    const grip = [
      at(100, 'c'),
      at(200, 'c', [
        { x: 150, note: 'low-g' },
        { x: 162, note: 'd' },
        { x: 174, note: 'low-g' },
      ]),
    ];
    expect(spans(grip, 'R3')).toEqual([{ from: 143, to: 181, coverage: 1 }]);
    expect(spans(grip, 'R1')?.map((span) => [span.from, span.to])).toEqual([
      [0, 156],
      [168, 400],
    ]);
  });

  it('leaves silence and unknown notes bare', () => {
    expect(spans([at(100, 'low-g'), at(200, null), at(300, 'low-g')], 'T')).toEqual([
      { from: 0, to: 150, coverage: 1 },
      { from: 250, to: 400, coverage: 1 },
    ]);
  });
});

describe('ribbons', () => {
  const shape = { y: 50, thickness: 10, left: 0, right: 400 };

  it('never bend where the finger stays', () => {
    expect(ribbons([{ from: 0, to: 400, coverage: 1 }], shape)).toEqual([{ path: 'M5 44.5L395 44.5', coverage: 1 }]);
  });

  it('rise at least 12 px at a lift and reach past the seam', () => {
    const [{ path }] = ribbons([{ from: 0, to: 150, coverage: 1 }], shape);
    const [x, y] = path.split(' ').slice(-2).map(Number);
    expect(x).toBeGreaterThan(150);
    expect(44.5 - y).toBeGreaterThanOrEqual(12);
  });

  it('hop over a short opening in one piece', () => {
    expect(
      ribbons(
        [
          { from: 0, to: 173, coverage: 1 },
          { from: 187, to: 400, coverage: 1 },
        ],
        shape,
      ),
    ).toHaveLength(1);
    expect(
      ribbons(
        [
          { from: 0, to: 100, coverage: 1 },
          { from: 200, to: 400, coverage: 1 },
        ],
        shape,
      ),
    ).toHaveLength(2);
  });
});

describe('markFor', () => {
  const mark = (from: string, to: string) => markFor(chanter, troubleOf(chanter, changeBetween(chanter, from, to)), 30);

  it('tells troubles apart by shape: burst with its letter, stair, wave, nothing', () => {
    expect(mark('c', 'e')).toMatchObject({ kind: 'burst', letter: 'G', text: 'low G cuts in' });
    expect(mark('b', 'e')).toMatchObject({ kind: 'burst', letter: 'A' });
    expect(mark('e', 'high-g')?.kind).toBe('stair');
    expect(mark('b', 'c')?.kind).toBe('wave');
    expect(mark('low-a', 'e')).toBeUndefined();
  });

  it('gives the worse burst more points', () => {
    const points = (path = '') => path.split('L').length;
    expect(points(mark('c', 'e')?.path)).toBeGreaterThan(points(mark('b', 'e')?.path));
  });
});
