import type { ChunkRange } from '@zelpit/core/form';

/** A stretch as the address has it: "1-2" for bars, "6a" and "6b" for the halves of a bar, "n5-9" for notes, the first being 1. Bar 1 where it is none. */
export function rangeOf(stretch: string): ChunkRange {
  const bars = /^(\d{1,5})-(\d{1,5})$/.exec(stretch);
  if (bars !== null) {
    const [from, to] = [Number(bars[1]), Number(bars[2])];
    return { kind: 'bars', from: Math.min(from, to), to: Math.max(from, to) };
  }
  const notes = /^n(\d{1,6})-(\d{1,6})$/.exec(stretch);
  if (notes !== null) {
    const [first, last] = [Number(notes[1]) - 1, Number(notes[2]) - 1];
    return { kind: 'notes', first: Math.min(first, last), last: Math.max(first, last) };
  }
  const half = /^(\d{1,5})([ab])$/.exec(stretch);
  if (half !== null) return { kind: 'half', bar: Number(half[1]), half: half[2] === 'a' ? 'first' : 'second' };
  return { kind: 'bars', from: 1, to: 1 };
}

/** The other way round. */
export function stretchOf(range: ChunkRange): string {
  if (range.kind === 'half') return `${range.bar}${range.half === 'first' ? 'a' : 'b'}`;
  return range.kind === 'bars' ? `${range.from}-${range.to}` : `n${range.first + 1}-${range.last + 1}`;
}

/** The stretch after or before this one: the other half of the bar, or as many bars on. None of marked notes. */
export function besides(range: ChunkRange, by: 1 | -1, last: number): ChunkRange | undefined {
  if (range.kind === 'notes') return undefined;
  if (range.kind === 'half') {
    if (by === 1 && range.half === 'first') return { ...range, half: 'second' };
    if (by === -1 && range.half === 'second') return { ...range, half: 'first' };
    const bar = range.bar + by;
    return bar < 1 || bar > last ? undefined : { kind: 'half', bar, half: by === 1 ? 'first' : 'second' };
  }
  const length = range.to - range.from + 1;
  const from = range.from + by * length;
  return from < 1 || from > last ? undefined : { kind: 'bars', from, to: Math.min(last, from + length - 1) };
}
