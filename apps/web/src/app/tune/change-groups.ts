import { noteOf, type Instrument, type Trouble, type TuneChange } from '@zelpit/core';

/** Changes that sound wrong in the same way. */
export interface ChangeGroup {
  readonly title: string;
  readonly trouble: Trouble;
  readonly changes: readonly { readonly rank: number; readonly change: TuneChange }[];
}

/** Ranked changes grouped by what is heard, worst first; each keeps its rank over all. */
export function changeGroups(instrument: Instrument, ranked: readonly TuneChange[]): readonly ChangeGroup[] {
  const groups: { title: string; trouble: Trouble; changes: { rank: number; change: TuneChange }[] }[] = [];
  ranked.forEach((change, index) => {
    const title = titleOf(instrument, change.trouble);
    const last = groups[groups.length - 1];
    if (last?.title === title) last.changes.push({ rank: index + 1, change });
    else groups.push({ title, trouble: change.trouble, changes: [{ rank: index + 1, change }] });
  });
  return groups;
}

function titleOf(instrument: Instrument, trouble: Trouble): string {
  switch (trouble.kind) {
    case 'pop': {
      const name = noteOf(instrument, trouble.note).schoolName;
      return `${name.charAt(0).toUpperCase()}${name.slice(1)} cuts in`;
    }
    case 'run':
      return 'A run slips in';
    case 'blur':
      return 'Only a blur';
    case 'none':
      return 'Nothing cuts in';
  }
}

/** The groups in columns for the desk: each worst group alone, the rest shared out. */
export function inColumns(groups: readonly ChangeGroup[], columns: number): readonly (readonly ChangeGroup[])[] {
  const result: ChangeGroup[][] = Array.from({ length: columns }, () => []);
  groups.forEach((group, index) => result[Math.min(index, columns - 1)].push(group));
  return result.filter((column) => column.length > 0);
}
