import type { HeardStretch } from './heard-stretch';
import { levelOf } from './level';

/** A moment at which the device lost what sounded, in ms from the beginning of the take. */
export interface Dropout {
  readonly start: number;
  readonly end: number;
}

/** Silence without any noise lasts so long, in ms, where a device lost something; longer is silence in a file. Our own choices. */
const [shortest, longest] = [1, 200];
/** Sound is lost where it is this much as loud just before and just after the silence as around it: a note that ends dies away. In ms, and a share. Our own choices. */
const [edgeMs, aroundMs, abrupt] = [2, 20, 0.35];

/**
 * Where a device or a busy machine lost a piece of sound and put nothing in its place: samples that are exactly 0, as no microphone gives them, with sound on both sides
 * that neither dies away nor begins.
 */
export function dropoutsIn(samples: Float32Array, sampleRate: number): readonly Dropout[] {
  const found: Dropout[] = [];
  const least = (shortest / 1000) * sampleRate;
  let first = 0;
  for (let index = 0; index <= samples.length; index += 1) {
    if (index < samples.length && samples[index] === 0) continue;
    const count = index - first;
    if (count >= least && count <= (longest / 1000) * sampleRate && isAbrupt(samples, sampleRate, first, index))
      found.push({ start: (first / sampleRate) * 1000, end: (index / sampleRate) * 1000 });
    first = index + 1;
  }
  return found;
}

function isAbrupt(samples: Float32Array, sampleRate: number, first: number, end: number): boolean {
  const [edge, around] = [edgeMs, aroundMs].map((ms) => Math.round((ms / 1000) * sampleRate));
  if (first < around || end + around > samples.length) return false;
  const isSudden = (near: number, wide: number): boolean => near > 0 && near >= abrupt * wide;
  const isSuddenEnd = isSudden(levelOf(samples, first - edge, edge), levelOf(samples, first - around, around));
  return isSuddenEnd && isSudden(levelOf(samples, end, edge), levelOf(samples, end, around));
}

/**
 * What was heard without what a loss of sound looks like: a note that sounds on both sides of it is one note; between two notes stands a stretch that was lost, of which
 * nothing is claimed.
 * @param reach how far a loss shows beyond itself, in ms: a window
 */
export function acrossDropouts(stretches: readonly HeardStretch[], dropouts: readonly Dropout[], reach: number): readonly HeardStretch[] {
  return dropouts.reduce((all, dropout) => acrossOne(all, dropout, reach), stretches);
}

function acrossOne(stretches: readonly HeardStretch[], { start, end }: Dropout, reach: number): readonly HeardStretch[] {
  const isHit = (each: HeardStretch): boolean => each.start >= start - reach && each.end <= end + reach;
  const first = stretches.findIndex(isHit);
  const last = stretches.findLastIndex(isHit);
  const [from, to] = first < 0 ? [stretches.findLastIndex((each) => each.start < start), stretches.findIndex((each) => each.end > end)] : [first - 1, last + 1];
  // A loss within one stretch changes nothing; one at the beginning or at the end has nothing to stand between.
  if (from < 0 || to <= from || to >= stretches.length) return stretches;
  const [before, after] = [stretches[from], stretches[to]];
  const [head, tail] = [stretches.slice(0, from), stretches.slice(to + 1)];
  if (before.note === after.note) return [...head, { ...before, end: after.end }, ...tail];
  const at = { start: Math.min(before.end, start), end: Math.max(after.start, end) };
  return [...head, { ...before, end: at.start }, { ...at, note: null, confidence: 0, isLost: true }, { ...after, start: at.end }, ...tail];
}
