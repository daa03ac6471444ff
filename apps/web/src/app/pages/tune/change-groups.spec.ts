import { practiceChanter } from '@zelpit/core/fingering';
import { changesOfTune, readTune, type TuneChange } from '@zelpit/core/tune';
import { changeGroups, inColumns } from './change-groups';

const tune = readTune(practiceChanter, 'X:1\nT:Up and Over\nM:4/4\nL:1/4\nK:HP\nAced|fgae|cdBA|GceA|dfBg|ecaG|\n');
const all: readonly TuneChange[] = changesOfTune(practiceChanter, tune, 'slurred').open;
const groups = changeGroups(practiceChanter, all);

describe('the columns of changes', () => {
  it('have just so many lines, headings counted, and never end with a heading alone', () => {
    const columns = inColumns(groups, 3, 5);
    expect(columns).toHaveLength(3);
    for (const column of columns) {
      expect(column.reduce((lines, group) => lines + 1 + group.changes.length, 0)).toBeLessThanOrEqual(5);
      for (const group of column) expect(group.changes.length).toBeGreaterThan(0);
    }
  });

  it('keep the order and rank of the changes, and repeat the heading of a group that runs on', () => {
    const shown = inColumns(groups, 3, 5).flatMap((column) => column.flatMap((group) => group.changes));
    expect(shown.map(({ rank }) => rank)).toEqual(shown.map((_, place) => place + 1));
    const [first, second] = inColumns([groups[0]], 2, 2);
    expect([first[0].goesOn, second[0].goesOn, second[0].title === groups[0].title]).toEqual([false, true, true]);
  });
});
