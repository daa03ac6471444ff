import type { Trouble } from '@zelpit/core/change';
import { noteOf, type Instrument } from '@zelpit/core/fingering';
import type { TuneChange } from '@zelpit/core/tune';
import { capital } from '../../kernel/words/words';

/** Changes that sound wrong in the same way. */
export interface ChangeGroup {
  readonly title: string;
  readonly trouble: Trouble;
  readonly changes: readonly RankedChange[];
  /** True where the group began in the column before. */
  readonly goesOn: boolean;
}

interface RankedChange {
  readonly rank: number;
  readonly change: TuneChange;
}

/** Ranked changes grouped by what is heard, worst first; each keeps its rank over all. */
export function changeGroups(instrument: Instrument, ranked: readonly TuneChange[]): readonly ChangeGroup[] {
  const groups: { title: string; trouble: Trouble; changes: RankedChange[]; goesOn: boolean }[] = [];
  ranked.forEach((change, index) => {
    const title = titleOf(instrument, change.trouble);
    const last = groups[groups.length - 1];
    if (last?.title === title) last.changes.push({ rank: index + 1, change });
    else groups.push({ title, trouble: change.trouble, changes: [{ rank: index + 1, change }], goesOn: false });
  });
  return groups;
}

function titleOf(instrument: Instrument, trouble: Trouble): string {
  switch (trouble.kind) {
    case 'pop':
      return `${capital(noteOf(instrument, trouble.note).schoolName)} cuts in`;
    case 'run':
      return 'Other notes slip in';
    case 'stop':
      return 'The sound stops';
    case 'blur':
      return 'Only a blur';
    case 'none':
      return 'Nothing cuts in';
  }
}

/**
 * The first of the groups in columns of just so many lines, headings counted; a group that runs on repeats its heading in the next column. A column never
 * ends with a heading alone.
 */
export function inColumns(groups: readonly ChangeGroup[], columns: number, lines: number): readonly (readonly ChangeGroup[])[] {
  const filled: ChangeGroup[][] = [[]];
  for (const group of groups) {
    let rest = group.changes;
    while (rest.length > 0) {
      const column = filled[filled.length - 1];
      const room = lines - linesOf(column) - 1;
      if (room < 1) {
        if (filled.length === columns) return filled;
        filled.push([]);
        continue;
      }
      column.push({ ...group, changes: rest.slice(0, room), goesOn: rest !== group.changes });
      rest = rest.slice(room);
    }
  }
  return filled;
}

const linesOf = (column: readonly ChangeGroup[]): number => column.reduce((sum, group) => sum + group.changes.length + 1, 0);
