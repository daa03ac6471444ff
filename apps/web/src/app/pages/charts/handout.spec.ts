import { instrumentById, instruments, withKeptFingerings } from '@zelpit/core/fingering';
import { chartCsv } from './chart-table';
import { coverPath } from '../../music/lanes/hole-figure';
import { handoutFigures, handoutLayout, handoutTop, type Handout, type HandoutSettings } from './handout-layout';
import { isOnLeft, rowOfHole, views } from '../../music/lanes/chart-view';

const ocarina = instrumentById('ocarina-12-c-split');
const whistle = instrumentById('whistle-d');
const page = { view: 'facing', names: 'fingers', width: 794, height: 1123 } as const;
const layout = (instrument: typeof whistle, notes: readonly string[], settings: HandoutSettings): Handout =>
  handoutLayout(handoutFigures(instrument, notes), settings);
const all = (instrument: typeof whistle): string[] => instrument.notes.map(({ id }) => id);

describe('a handout', () => {
  it('keeps every figure on the page, for every instrument and view', () => {
    for (const instrument of instruments) {
      for (const { value: view } of views) {
        for (const { holes, body } of layout(instrument, all(instrument), { ...page, view }).notes) {
          for (const { x, radius } of holes) expect([x - radius * 1.3 > 0, x + radius * 1.3 < page.width]).toEqual([true, true]);
          expect(body.y).toBeGreaterThanOrEqual(handoutTop);
          expect(body.y + body.height).toBeLessThan(page.height - 40);
          for (const { y } of holes) expect(y).toBeGreaterThan(body.y);
        }
      }
    }
  });

  it('draws few notes larger than many', () => {
    const radius = (notes: readonly string[]): number => layout(ocarina, notes, page).notes[0].holes[0].radius;
    const few = radius(all(ocarina).slice(0, 4));
    const many = radius(all(ocarina));
    expect(few).toBeGreaterThan(1.2 * many);
  });

  it('turns over for the player: the hole at the mouth is nearest', () => {
    const [facing] = layout(whistle, ['d5'], page).notes;
    const [player] = layout(whistle, ['d5'], { ...page, view: 'player' }).notes;
    expect(facing.holes[0].y).toBeLessThan(facing.holes[5].y);
    expect(player.holes[0].y).toBeGreaterThan(player.holes[5].y);
    expect(rowOfHole('mirror', 2, 6)).toBe(2);
    expect([isOnLeft('left', 'player'), isOnLeft('left', 'facing')]).toEqual([true, false]);
  });

  it('hides the thumbs’ holes but from behind', () => {
    const hidden = (view: (typeof views)[number]['value']): number =>
      layout(ocarina, ['a4'], { ...page, view }).notes[0].holes.filter((hole) => hole.isHidden).length;
    expect([hidden('facing'), hidden('behind')]).toEqual([2, 10]);
  });

  it.each([
    ['ocarina-12-c-split', 'L2', 'R2'],
    ['ocarina-12-c-right', 'R2', 'R3'],
  ])('the %s has its sub-holes beside their fingers, the larger drawn larger', (id, larger, smaller) => {
    const instrument = instrumentById(id);
    const [{ holes, body }] = layout(instrument, ['b4'], { ...page, view: 'player' }).notes;
    const hole = (name: string) => holes[instrument.holes.findIndex((each) => each.id === name)];
    for (const [sub, finger] of [
      ['S1', larger],
      ['S2', smaller],
    ])
      expect(Math.hypot(hole(sub).x - hole(finger).x, hole(sub).y - hole(finger).y)).toBeLessThan(3.2 * hole(finger).radius);
    expect(hole('S1').radius).toBeGreaterThan(hole('S2').radius);
    expect(body.path).toContain('C');
    // On low B the larger is open.
    expect([hole('S1').coverage, hole('S2').coverage]).toEqual([0, 1]);
  });

  it('an ocarina’s holes do not touch, from any side', () => {
    for (const { value: view } of views)
      for (const id of ['ocarina-12-c-split', 'ocarina-12-c-right']) {
        const [{ holes }] = layout(instrumentById(id), ['a4'], { ...page, view }).notes;
        holes.forEach((one, at) =>
          holes.slice(at + 1).forEach((other) => expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeGreaterThan(one.radius + other.radius + 1)),
        );
      }
  });

  it('fills the page: the last row ends in its lower quarter', () => {
    for (const instrument of instruments)
      for (const count of [8, instrument.notes.length]) {
        const { notes } = layout(instrument, all(instrument).slice(0, count), { ...page, view: 'player' });
        const { body } = notes[notes.length - 1];
        expect([instrument.id, count, body.y + body.height > 0.7 * page.height]).toEqual([instrument.id, count, true]);
      }
  });

  it('serves a class with both models: both F’s, named', () => {
    const [baroque, german] = ['recorder-soprano-baroque', 'recorder-soprano-german'].map(instrumentById);
    const figures = handoutFigures(baroque, ['e5', 'f5', 'g5'], german);
    const { notes } = handoutLayout(figures, { ...page, view: 'player' });
    expect(notes.map(({ name, small }) => [name, ...small].join(' '))).toEqual(['E low E', 'F baroque', 'F German', 'G']);
    const covered = (index: number): number => notes[index].holes.filter(({ coverage }) => coverage > 0).length;
    expect([covered(1), covered(2)]).toEqual([7, 5]);
  });

  it('fills a hole to its share', () => {
    expect(coverPath(0, 0, 10, 1)).toContain('a10 10');
    expect(coverPath(0, 0, 10, 0.25)).toMatch(/^M-8\.66\S* 5A/);
  });
});

describe('a chart as a table', () => {
  it('has a row for each way, the holes in columns', () => {
    const [head, ...rows] = chartCsv(whistle, ['c6', 'd5']).trim().split('\n');
    expect(head).toBe('note,written,Hz,rank,register,school,foot,hole 1,hole 2,hole 3,hole 4,hole 5,hole 6,source,remark,confirmed by,on');
    expect(rows).toHaveLength(5);
    expect(rows[0]).toBe('C,C,1046.50,1,1,usual,,O,X,X,O,O,O,chart,which one is best depends on the neighbours,,');
  });

  it('hands no formula to a spreadsheet, and quotes what a comma would break', () => {
    const kept = {
      note: 'c6',
      pattern: [0, 1, 1, 0, 1, 0],
      isFirst: true,
      isHidden: false,
      remark: '=1+1, "loud"',
      forNow: null,
      by: '@maren',
      on: '2026-03-09',
    };
    const [, row] = chartCsv(withKeptFingerings(whistle, [kept]), ['c6']).split('\n');
    expect(row).toContain('"\'=1+1, ""loud"""');
    expect(row).toContain("'@maren,2026-03-09");
  });
});
