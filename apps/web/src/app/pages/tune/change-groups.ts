import { noteOf, type Instrument, type Trouble, type TuneChange } from '@zelpit/core';
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
      return 'A run slips in';
    case 'stop':
      return 'The sound stops';
    case 'blur':
      return 'Only a blur';
    case 'none':
      return 'Nothing cuts in';
  }
}

/**
 * The groups in columns of about the same height, worst first; a group that is too long goes on in the next column.
 * A column never ends with a heading alone.
 * @param footRows rows to leave free under the last column
 */
export function inColumns(groups: readonly ChangeGroup[], columns: number, footRows: number): readonly (readonly ChangeGroup[])[] {
  const all = groups.reduce((sum, group) => sum + group.changes.length + 1, footRows);
  for (let height = Math.ceil(all / columns); ; height += 1) {
    const filled = fill(groups, height);
    const last = filled[filled.length - 1] ?? [];
    if (filled.length < columns || (filled.length === columns && rowsOf(last) + footRows <= height + 1)) return filled;
  }
}

function fill(groups: readonly ChangeGroup[], height: number): readonly (readonly ChangeGroup[])[] {
  const columns: ChangeGroup[][] = [[]];
  for (const group of groups) {
    let rest = group.changes;
    while (rest.length > 0) {
      const column = columns[columns.length - 1];
      const room = height - rowsOf(column) - 1;
      if (room < 1 && column.length > 0) {
        columns.push([]);
        continue;
      }
      const taken = rest.slice(0, Math.max(1, room));
      column.push({ ...group, changes: taken, goesOn: rest !== group.changes });
      rest = rest.slice(taken.length);
    }
  }
  return columns;
}

function rowsOf(column: readonly ChangeGroup[]): number {
  return column.reduce((sum, group) => sum + group.changes.length + 1, 0);
}
