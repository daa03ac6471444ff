import type { Mark, ScoreBar } from './score';

/** A tune that plays more bars than that ends there. */
const mostPlayedBars = 20_000;

/**
 * The bars in the order in which they sound, as indices: repeats and endings played out, parts in the order that the head gives, then what D.C., D.S., fine and coda ask
 * for. After a jump back repeats are not played again, and of several endings the last is taken. A part that is not there is left out.
 */
export function playingOrder(bars: readonly ScoreBar[], partOrder: readonly string[] = []): readonly number[] {
  const parts = partsOf(bars);
  const known = partOrder.filter((label) => parts.has(label));
  if (known.length > 0) {
    const played: number[] = [];
    for (const label of known) {
      const { first, end } = parts.get(label) as Stretch;
      append(played, unfold(bars, first, end));
    }
    return played;
  }
  return withJumps(bars);
}

interface Stretch {
  readonly first: number;
  readonly end: number;
}

/** Bars of each labelled part; what stands before the first label belongs to none. A label that comes twice means its first place. */
function partsOf(bars: readonly ScoreBar[]): ReadonlyMap<string, Stretch> {
  const starts = bars.flatMap(({ part }, index) => (part === '' ? [] : [{ part, index }]));
  const parts = new Map<string, Stretch>();
  starts.forEach(({ part, index }, at) => {
    if (!parts.has(part)) parts.set(part, { first: index, end: starts[at + 1]?.index ?? bars.length });
  });
  return parts;
}

function append(played: number[], more: readonly number[]): void {
  for (const bar of more) {
    if (played.length >= mostPlayedBars) return;
    played.push(bar);
  }
}

/** Repeats and endings of a stretch played out. */
function unfold(bars: readonly ScoreBar[], first: number, end: number): readonly number[] {
  const order: number[] = [];
  let from = first;
  let isOpened = false;
  let pass = 1;
  let index = first;
  while (index < end && order.length < mostPlayedBars) {
    const bar = bars[index];
    if (pass === 1 && bar.opensRepeat) {
      from = index;
      isOpened = true;
    }
    const isSkipped = bar.passes.length > 0 && !bar.passes.includes(pass);
    if (!isSkipped) order.push(index);
    if (!isSkipped && bar.closesRepeat > 0 && pass < passesOf(bars, from, index, end)) {
      pass += 1;
      index = from;
      continue;
    }
    index += 1;
    const goesOnWithEnding = index < end && bars[index].opensEnding;
    const endsRepeat = bar.closesRepeat > 0 || (bar.passes.length > 0 && (index >= end || bars[index].passes.length === 0));
    // A repeat that nothing opened goes back to the latest double bar.
    const isDouble = bar.line === 'double' || bar.line === 'end';
    if (!goesOnWithEnding && (endsRepeat || (isDouble && !isOpened))) {
      from = index;
      isOpened = false;
      pass = 1;
    }
  }
  return order;
}

/** How often a repeat is played: as often as its endings say, else as its sign says. */
function passesOf(bars: readonly ScoreBar[], from: number, closing: number, end: number): number {
  let most = 0;
  for (let index = from; index < end; index += 1) {
    const { passes, opensRepeat } = bars[index];
    if (index > closing && (passes.length === 0 || opensRepeat)) break;
    most = Math.max(most, ...passes);
  }
  return Math.max(most, bars[closing].closesRepeat);
}

const jumps: readonly Mark[] = ['da-capo', 'dal-segno'];
const has = (bar: ScoreBar, mark: Mark): boolean => bar.marks.some((each) => each.mark === mark);

function withJumps(bars: readonly ScoreBar[]): readonly number[] {
  const jump = bars.findIndex((bar) => jumps.some((mark) => has(bar, mark)));
  if (jump === -1) return unfold(bars, 0, bars.length);
  const played = [...unfold(bars, 0, jump + 1)];
  const segno = bars.findIndex((bar) => has(bar, 'segno'));
  const target = has(bars[jump], 'dal-segno') && segno !== -1 ? segno : 0;
  append(played, afterJump(bars, target, jump));
  return played;
}

/** From where a jump leads to the end: to fine, or by the first coda sign to the second, else to the last bar. */
function afterJump(bars: readonly ScoreBar[], target: number, jump: number): readonly number[] {
  const codas = bars.flatMap(({ marks }, index) => marks.filter(({ mark }) => mark === 'coda').map(({ isAtStart }) => ({ index, isAtStart })));
  const toCoda = bars.findIndex((bar) => has(bar, 'to-coda'));
  const coda = codas.at(-1);
  const leaves = toCoda !== -1 ? toCoda : leavesAt(codas);
  const once = playedOnce(bars, target);
  const played: number[] = [];
  for (const index of once) {
    if (coda !== undefined && index === leaves && coda.index !== leaves) {
      played.push(index, ...playedOnce(bars, coda.index));
      return played;
    }
    played.push(index);
    if (has(bars[index], 'fine')) return played;
    // Without fine or coda what stands after the jump is played too.
    if (index === jump && coda !== undefined && coda.index > jump) return [...played, ...playedOnce(bars, coda.index)];
  }
  return played;
}

/** The last bar before the jump to the coda; -1 where there are not two signs. */
function leavesAt(codas: readonly { readonly index: number; readonly isAtStart: boolean }[]): number {
  const [first, second] = codas;
  if (second === undefined) return -1;
  return first.isAtStart ? first.index - 1 : first.index;
}

/** Bars from one on, each once, of endings the last. */
function playedOnce(bars: readonly ScoreBar[], from: number): readonly number[] {
  const order: number[] = [];
  for (let index = from; index < bars.length; index += 1) {
    const { passes } = bars[index];
    if (passes.length > 0 && !passes.includes(lastPass(bars, index))) continue;
    order.push(index);
  }
  return order;
}

/** The last pass among the endings that stand together with this one. */
function lastPass(bars: readonly ScoreBar[], index: number): number {
  let first = index;
  while (first > 0 && bars[first - 1].passes.length > 0) first -= 1;
  let most = 0;
  for (let at = first; at < bars.length && bars[at].passes.length > 0; at += 1) most = Math.max(most, ...bars[at].passes);
  return most;
}
