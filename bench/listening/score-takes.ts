import { shortestFault, surely, type HeardStretch } from '@zelpit/core/listening';
import type { TrueStretch } from './playing';
import type { SimulatedTake } from './simulated-takes';

/** Right, and how many there were and were said. */
export interface Counts {
  right: number;
  there: number;
  said: number;
}

/** What a reader of takes got right, over many of them. */
export interface Score {
  readonly notes: Counts;
  /** By their length in ms; those an octave from a note beside them, which share its partials, by themselves. */
  readonly graces: Readonly<Record<'25-35' | '35-45' | '45-60' | 'octave', Counts>>;
  readonly noises: Readonly<Record<'4' | '6-8' | '12+', Counts>>;
  /** Short stretches that are in no take. */
  falseShort: number;
  seconds: number;
  /** Away from the true boundary, in ms. */
  readonly boundaries: number[];
  /** Stretches that last long enough to be claimed: how many there were, how many were called sure (`said`), and of these how many are as it was. */
  readonly sure: Counts;
  /** Changes with nothing between, and those of them in which something was heard. */
  readonly clean: Counts;
}

const none = (): Counts => ({ right: 0, there: 0, said: 0 });
export const emptyScore = (): Score => ({
  notes: none(),
  graces: { '25-35': none(), '35-45': none(), '45-60': none(), octave: none() },
  noises: { '4': none(), '6-8': none(), '12+': none() },
  falseShort: 0,
  seconds: 0,
  boundaries: [],
  sure: none(),
  clean: none(),
});

/** A theme note counts where it begins within 50 ms, a grace note within 15; longer than that is a note, shorter is short. In ms. */
const [noteWithin, graceWithin, shortest] = [50, 15, 75];
/** What is heard for less in a change does not count as a fault anywhere. */
const leastFault = 10;

/** F1: of two shares, their harmonic mean. */
export const f1Of = ({ right, there, said }: Counts): number => (right === 0 ? 0 : (2 * right) / (there + said));
export const recallOf = ({ right, there }: Counts): number => (there === 0 ? 1 : right / there);

/** Adds what was heard in one take; each event is matched once. */
export function addTake(score: Score, { truth, seconds }: SimulatedTake, heard: readonly HeardStretch[]): void {
  score.seconds += seconds;
  const sounding = heard.filter(({ note }) => note !== null);
  const used = new Set<HeardStretch>();
  const find = (fits: (stretch: HeardStretch) => boolean): HeardStretch | undefined => {
    const found = sounding.find((stretch) => !used.has(stretch) && fits(stretch));
    if (found !== undefined) used.add(found);
    return found;
  };
  truth.forEach((each, index) => {
    if (each.kind === 'theme') {
      score.notes.there += 1;
      if (find(({ note, start, end }) => note === each.note && Math.abs(start - each.start) <= noteWithin && end - start > shortest) !== undefined)
        score.notes.right += 1;
      boundary(score, truth[index - 1], each, sounding);
      cleanChange(score, truth[index - 1], each, sounding);
    } else if (each.kind === 'grace') {
      const counts = score.graces[isOctaveAway(each, truth[index - 1], truth[index + 1]) ? 'octave' : graceClass(each)];
      counts.there += 1;
      const isThere = find(
        ({ note, start, end }) =>
          note !== null && [each.note, each.also].includes(note) && Math.abs(start - each.start) <= graceWithin && end - start <= 1.7 * shortest,
      );
      if (isThere !== undefined) [counts.right, counts.said] = [counts.right + 1, counts.said + 1];
    } else {
      const counts = score.noises[noiseClass(each)];
      counts.there += 1;
      const beside = [truth[index - 1], truth[index + 1]].flatMap((neighbour) => (neighbour === undefined ? [] : [neighbour.note]));
      // By overlap with the true one: what it is called is another matter.
      const isThere = ({ note, start, end }: HeardStretch): boolean =>
        note !== null && !beside.includes(note) && end - start <= shortest && start < each.end && end > each.start;
      if (find(isThere) !== undefined) counts.right += 1;
    }
  });
  for (const stretch of sounding.filter(({ start, end }) => end - start >= shortestFault)) {
    score.sure.there += 1;
    if (!surely(stretch)) continue;
    score.sure.said += 1;
    if (truth.some((each) => isAsItWas(stretch, each))) score.sure.right += 1;
  }
  score.notes.said += sounding.filter(({ start, end }) => end - start > shortest).length;
  const wrong = sounding.filter((stretch) => !used.has(stretch) && stretch.end - stretch.start <= shortest);
  score.falseShort += wrong.length;
  // A short stretch that is no grace note is one that was said wrongly, for the class of its length.
  for (const { start, end } of wrong) if (end - start >= 20) score.graces[graceClass({ start, end })].said += 1;
}

const isAsItWas = (heard: HeardStretch, { kind, note, also, start, end }: TrueStretch): boolean =>
  (heard.note === note || heard.note === also) &&
  Math.abs(heard.start - start) <= (kind === 'theme' ? noteWithin : graceWithin) &&
  heard.start < end &&
  heard.end > start;

function boundary(score: Score, before: TrueStretch | undefined, { kind, start, note }: TrueStretch, sounding: readonly HeardStretch[]): void {
  if (before?.kind !== 'theme' || kind !== 'theme' || before.note === note) return;
  const found = sounding.find((stretch) => stretch.note === note && Math.abs(stretch.start - start) <= noteWithin);
  if (found !== undefined) score.boundaries.push(Math.abs(found.start - start));
}

function cleanChange(score: Score, before: TrueStretch | undefined, { start, note }: TrueStretch, sounding: readonly HeardStretch[]): void {
  if (before?.kind !== 'theme' || before.note === note) return;
  score.clean.there += 1;
  const cuts = sounding.some(
    (stretch) =>
      stretch.note !== before.note &&
      stretch.note !== note &&
      stretch.start > start - 60 &&
      stretch.end < start + 60 &&
      stretch.end - stretch.start >= leastFault,
  );
  if (cuts) score.clean.said += 1;
}

/** An octave from its neighbour, so that both share most of their partials. */
const octaves: readonly (readonly [string, string])[] = [
  ['low-g', 'high-g'],
  ['low-a', 'high-a'],
];
const isOctaveAway = ({ note }: TrueStretch, ...beside: readonly (TrueStretch | undefined)[]): boolean =>
  octaves.some((pair) => pair.includes(note) && beside.some((each) => each !== undefined && each.note !== note && pair.includes(each.note)));

const graceClass = ({ start, end }: Pick<TrueStretch, 'start' | 'end'>): keyof Score['graces'] => {
  if (end - start < 35) return '25-35';
  return end - start < 45 ? '35-45' : '45-60';
};
const noiseClass = ({ start, end }: TrueStretch): keyof Score['noises'] => {
  if (end - start < 5) return '4';
  return end - start < 10 ? '6-8' : '12+';
};
