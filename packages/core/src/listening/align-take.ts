import { ZelpitFault } from '../fault';
import type { AskedSound } from './asked';
import type { HeardStretch } from './heard-stretch';

/** What became of one thing that was asked for. */
export interface AlignedSound {
  /** Place among the sounds that were asked for. */
  readonly asked: number;
  /** Undefined where it was not heard. */
  readonly heard: HeardStretch | undefined;
  /** True where another note was played in its place. */
  readonly isOther: boolean;
  /** What was heard before it and was not asked for, in its order; silence among it. */
  readonly before: readonly HeardStretch[];
}

/** A stretch of a take without a stop: from where somebody begins to where they end or begin again. */
export interface Pass {
  readonly sounds: readonly AlignedSound[];
}

/** What a way through costs. Our own choices: a note more or less weighs more than a grace note, beginning again as much as two notes, but little where somebody has stopped. */
const costs = {
  note: 2.5,
  grace: 1,
  untellable: 0.05,
  other: 2.2,
  short: 0.6,
  shortTheme: 3,
  longGrace: 0.8,
  jump: 5,
  jumpAfterStop: 1,
  again: 0.5,
  lateStart: 3,
} as const;
/** A note that was asked for sounds at least so long; a grace note at most so long, in ms. Our own choices. */
export const shortestNote = 60;
export const longestGrace = 150;
/** Silence from which on somebody has stopped, in ms: longer than a breath. Our own choice. */
const shortestStop = 700;
/** So many pairs of what was asked and what was heard are weighed at most: a quarter of an hour of a long tune. */
const mostCells = 40_000_000;

type Move = 0 | 1 | 2 | 3;
/** Both go on; what was heard was not asked for; what was asked for was not heard; somebody begins elsewhere. */
const [both, heardOnly, askedOnly, jump] = [0, 1, 2, 3] as const;

/**
 * A take laid along what was asked for, whatever was left out, put in, stopped, begun again or repeated: the cheapest way through both. Somebody may begin at any bar, and
 * begin again at any; what stands after the last that was heard is not counted as left out.
 * @throws ZelpitFault `out-of-range` where both are so long that they cannot be laid along each other
 */
export function alignTake(asked: readonly AskedSound[], stretches: readonly HeardStretch[]): readonly Pass[] {
  const heard = stretches.filter(({ note }) => note !== null);
  if (asked.length === 0 || heard.length === 0) return [];
  if ((asked.length + 1) * (heard.length + 1) > mostCells)
    throw new ZelpitFault('out-of-range', 'This take is too long for what was asked. Cut out the minutes that you want to hear.', { sounds: asked.length });
  const { moves, jumps, end } = weighed(asked, heard);
  return passesOf(asked, heard, stretches, walked(moves, jumps, end, asked.length, heard.length));
}

interface Weighed {
  readonly moves: Uint8Array;
  /** Where in what was asked somebody was before they began elsewhere, by row and place. */
  readonly jumps: Int32Array;
  readonly end: number;
}

function weighed(asked: readonly AskedSound[], heard: readonly HeardStretch[]): Weighed {
  const width = asked.length + 1;
  const moves = new Uint8Array(width * (heard.length + 1));
  // One place of each row is the one that all jumps of that row begin from.
  const jumps = new Int32Array(heard.length + 1);
  const left = asked.map(leftOut);
  const starts = asked.flatMap(({ isStart }, place) => (isStart ? [place] : []));
  let row = Float64Array.from({ length: width }, (_, place) => (asked.at(place)?.isStart === true ? costs.lateStart : Infinity));
  row[0] = 0;
  skipped(row, moves, 0, left);
  for (let played = 1; played <= heard.length; played += 1) {
    const next = new Float64Array(width).fill(Infinity);
    const offset = played * width;
    for (let place = 0; place < width; place += 1) {
      const more = row[place] + extraCost(asked[place - 1], heard[played - 1]);
      next[place] = more;
      moves[offset + place] = heardOnly;
      if (place === 0) continue;
      const matched = row[place - 1] + matchCost(asked[place - 1], heard[played - 1]);
      if (matched <= next[place]) {
        next[place] = matched;
        moves[offset + place] = both;
      }
    }
    skipped(next, moves, offset, left);
    const from = cheapest(next, width - 1);
    const isStopped = played < heard.length && heard[played].start - heard[played - 1].end >= shortestStop;
    const elsewhere = next[from] + (isStopped ? costs.jumpAfterStop : costs.jump);
    const again = next[width - 1] + costs.again;
    jumps[played] = again <= elsewhere ? width - 1 : from;
    const cost = Math.min(again, elsewhere);
    for (const place of starts) {
      if (cost < next[place] && jumps[played] !== place) {
        next[place] = cost;
        moves[offset + place] = jump;
      }
    }
    skipped(next, moves, offset, left);
    row = next;
  }
  return { moves, jumps, end: cheapest(row, width - 1) };
}

/** What it costs to leave a sound out: of what cannot be told, nearly nothing. */
function leftOut({ kind, isTellable }: AskedSound): number {
  if (!isTellable) return costs.untellable;
  return kind === 'theme' ? costs.note : costs.grace;
}

/** Leaves out what was asked for wherever that is cheaper. */
function skipped(row: Float64Array, moves: Uint8Array, offset: number, left: readonly number[]): void {
  for (let place = 1; place < row.length; place += 1) {
    const cost = row[place - 1] + left[place - 1];
    if (cost >= row[place]) continue;
    row[place] = cost;
    moves[offset + place] = askedOnly;
  }
}

/** The place where it costs least; of equals the last. */
function cheapest(row: Float64Array, last: number): number {
  let best = last;
  for (let place = last - 1; place >= 0; place -= 1) if (row[place] < row[best]) best = place;
  return best;
}

function matchCost({ kind, heardAs }: AskedSound, { note, start, end }: HeardStretch): number {
  const ms = end - start;
  if (note === null || !heardAs.includes(note)) return kind === 'theme' && ms >= shortestNote ? costs.other : Infinity;
  if (kind === 'theme') return ms >= shortestNote ? 0 : costs.shortTheme;
  return ms <= longestGrace ? 0 : costs.longGrace;
}

/** What was not asked for; the same note again after a breath or the tongue is no more than was asked. */
function extraCost(last: AskedSound | undefined, { note, start, end }: HeardStretch): number {
  if (last !== undefined && last.kind === 'theme' && last.note === note) return last.times > 1 ? 0 : costs.short;
  return end - start < shortestNote ? costs.short : costs.note;
}

interface Step {
  readonly move: Move;
  readonly asked: number;
  readonly heard: number;
}

function walked(moves: Uint8Array, jumps: Int32Array, end: number, askedCount: number, heardCount: number): readonly Step[] {
  const width = askedCount + 1;
  const steps: Step[] = [];
  let [place, played] = [end, heardCount];
  while (played > 0 || moves[place] === askedOnly) {
    const move = moves[played * width + place] as Move;
    steps.push({ move, asked: place - 1, heard: played - 1 });
    if (move === both) [place, played] = [place - 1, played - 1];
    else if (move === heardOnly) played -= 1;
    else if (move === askedOnly) place -= 1;
    else place = jumps[played];
  }
  return steps.reverse();
}

function passesOf(asked: readonly AskedSound[], heard: readonly HeardStretch[], stretches: readonly HeardStretch[], steps: readonly Step[]): readonly Pass[] {
  const places = new Map(stretches.map((each, index) => [each, index]));
  const passes: AlignedSound[][] = [];
  let current: AlignedSound[] = [];
  let from = 0;
  // What is heard before the first sound of a pass belongs to nothing.
  let isBegun = false;
  for (const { move, asked: place, heard: played } of steps) {
    if (move === jump) {
      passes.push(current);
      [current, isBegun] = [[], false];
      continue;
    }
    if (move === heardOnly) continue;
    if (move === askedOnly) {
      current.push({ asked: place, heard: undefined, isOther: false, before: [] });
      continue;
    }
    const stretch = heard[played];
    const at = places.get(stretch) ?? 0;
    current.push({
      asked: place,
      heard: stretch,
      isOther: !asked[place].heardAs.includes(stretch.note ?? ''),
      before: isBegun ? stretches.slice(from, at) : [],
    });
    isBegun = true;
    from = at + 1;
  }
  passes.push(current);
  // What stands after the last that was heard was not left out: nobody came so far.
  return passes.map(trimmed).filter(({ sounds }) => sounds.length > 0);
}

function trimmed(sounds: readonly AlignedSound[]): Pass {
  return { sounds: sounds.slice(0, sounds.findLastIndex(({ heard }) => heard !== undefined) + 1) };
}
