import { instrumentById, instruments, withKeptFingerings } from '@zelpit/core';
import { chartCsv } from './chart-table';
import { coverPath } from '../../music/lanes/hole-figure';
import { handoutLayout, handoutTop } from './handout-layout';
import { isOnLeft, rowOfHole, views } from '../../music/lanes/chart-view';

const ocarina = instrumentById('ocarina-12-c-split');
const whistle = instrumentById('whistle-d');
const page = { view: 'facing', names: 'fingers', width: 794, height: 1123 } as const;
const all = (instrument: typeof whistle): string[] => instrument.notes.map(({ id }) => id);

describe('a handout', () => {
  it('keeps every figure on the page, for every instrument and view', () => {
    for (const instrument of instruments) {
      for (const { value: view } of views) {
        const { notes, radius } = handoutLayout(instrument, all(instrument), { ...page, view });
        for (const { x, holes, body } of notes) {
          expect(x - radius * 1.7).toBeGreaterThan(0);
          expect(x + radius * 1.7).toBeLessThan(page.width);
          expect(body.y).toBeGreaterThan(handoutTop);
          expect(body.y + body.height).toBeLessThan(page.height - 40);
          for (const { y } of holes) expect(y).toBeGreaterThan(body.y);
        }
      }
    }
  });

  it('draws few notes larger than many', () => {
    const few = handoutLayout(ocarina, all(ocarina).slice(0, 4), page).radius;
    const many = handoutLayout(ocarina, all(ocarina), page).radius;
    expect(few).toBeGreaterThan(1.2 * many);
  });

  it('turns over for the player: the hole at the mouth is nearest', () => {
    const [facing] = handoutLayout(whistle, ['d5'], page).notes;
    const [player] = handoutLayout(whistle, ['d5'], { ...page, view: 'player' }).notes;
    expect(facing.holes[0].y).toBeLessThan(facing.holes[5].y);
    expect(player.holes[0].y).toBeGreaterThan(player.holes[5].y);
    expect(rowOfHole('mirror', 2, 6)).toBe(2);
    expect([isOnLeft('left', 'player'), isOnLeft('left', 'facing')]).toEqual([true, false]);
  });

  it('hides the thumbs’ holes but from behind', () => {
    const hidden = (view: (typeof views)[number]['value']): number =>
      handoutLayout(ocarina, ['a4'], { ...page, view }).notes[0].holes.filter((hole) => hole.isHidden).length;
    expect([hidden('facing'), hidden('behind')]).toEqual([2, 10]);
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
