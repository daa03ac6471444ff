import { diffIndices } from 'node-diff3';
import { changedIn, type Choices, type Comparison, type Piece } from '../../kernel/saving/pieces';
import type { TuneDraft } from './tune-kind';

const linesOf = (text: string): string[] => text.split('\n');

/** Lines `start` to `end` of the old text, which a version has as its lines `from` to `to`; the ends are not in. */
interface Hunk {
  readonly side: 'mine' | 'theirs';
  readonly start: number;
  readonly end: number;
  readonly from: number;
  readonly to: number;
}

interface Region extends Piece {
  readonly lines: { readonly mine: readonly string[]; readonly theirs: readonly string[] };
}

/** Two versions of a text, line by line: what both left alone, what one changed, what both changed. */
export function compareTexts(base: TuneDraft, mine: TuneDraft, theirs: TuneDraft): Comparison<TuneDraft> {
  const [old, own, other] = [linesOf(base.abc), linesOf(mine.abc), linesOf(theirs.abc)];
  const regions: Region[] = [];
  let [at, ownAt, otherAt] = [0, 0, 0];
  const add = (end: number, ownEnd: number, otherEnd: number): void => {
    regions.push(regionOf(regions.length, old.slice(at, end), own.slice(ownAt, ownEnd), other.slice(otherAt, otherEnd), ownAt + 1));
    [at, ownAt, otherAt] = [end, ownEnd, otherEnd];
  };
  const alike = (to: number): void => {
    if (to > at) add(to, ownAt + to - at, otherAt + to - at);
  };
  for (const group of grouped([...hunksOf('mine', old, own), ...hunksOf('theirs', old, other)])) {
    const end = Math.max(...group.map((hunk) => hunk.end));
    alike(group[0].start);
    add(end, endIn(group, 'mine', ownAt, at, end), endIn(group, 'theirs', otherAt, at, end));
  }
  alike(old.length);
  const join = (choices: Choices): TuneDraft => ({
    instrument: mine.instrument === base.instrument ? theirs.instrument : mine.instrument,
    voice: mine.voice === base.voice ? theirs.voice : mine.voice,
    chordNote: mine.chordNote === base.chordNote ? theirs.chordNote : mine.chordNote,
    abc: regions.flatMap(({ key, lines }) => (choices.get(key) === 'theirs' ? lines.theirs : lines.mine)).join('\n'),
  });
  return { pieces: regions, join };
}

function hunksOf(side: Hunk['side'], old: string[], now: string[]): Hunk[] {
  return diffIndices(old, now).map(({ buffer1: [start, length], buffer2: [from, count] }) => ({ side, start, end: start + length, from, to: from + count }));
}

/** Hunks that touch each other belong to one choice. */
function grouped(hunks: readonly Hunk[]): Hunk[][] {
  const groups: Hunk[][] = [];
  for (const hunk of [...hunks].sort((one, other) => one.start - other.start)) {
    const last = groups.at(-1);
    if (last !== undefined && hunk.start <= Math.max(...last.map(({ end }) => end))) last.push(hunk);
    else groups.push([hunk]);
  }
  return groups;
}

/** Where a group ends in one version, which stands at its line `now` where the old text stands at `at`. */
function endIn(group: readonly Hunk[], side: Hunk['side'], now: number, at: number, end: number): number {
  const last = group.filter((hunk) => hunk.side === side).at(-1);
  return last === undefined ? now + end - at : last.to + end - last.end;
}

function regionOf(index: number, old: readonly string[], own: readonly string[], other: readonly string[], first: number): Region {
  const [mine, theirs] = [own.join('\n'), other.join('\n')];
  const isSame = (one: readonly string[], another: readonly string[]): boolean => one.length === another.length && one.join('\n') === another.join('\n');
  const name = own.length > 1 ? `Lines ${first} to ${first + own.length - 1}` : `Line ${first}`;
  return { key: String(index), name, mine, theirs, changed: changedIn(old, own, other, isSame), lines: { mine: own, theirs: other } };
}
