import type { Meter, ScoreBar, ScoreEvent } from './score';

/** How the notes that fill a beat share it: evenly, the first longer ("dot and cut"), or the first shorter ("cut and dot"). */
export const phraseRhythms = ['even', 'dotted', 'cut'] as const;
export type PhraseRhythm = (typeof phraseRhythms)[number];

/** Bars, as counted aloud, that are played in another rhythm than is written. */
export interface RhythmOfBars {
  readonly from: number;
  readonly to: number;
  readonly rhythm: PhraseRhythm;
}

/** Shares of a beat, by how many notes fill it: two of a plain beat, three of a beat in 6/8 and the like. */
const shares: Readonly<Record<PhraseRhythm, Readonly<Partial<Record<number, readonly number[]>>>>> = {
  even: { 2: [1 / 2, 1 / 2], 3: [1 / 3, 1 / 3, 1 / 3] },
  dotted: { 2: [3 / 4, 1 / 4], 3: [1 / 2, 1 / 6, 1 / 3] },
  cut: { 2: [1 / 4, 3 / 4], 3: [1 / 6, 1 / 2, 1 / 3] },
};

const tolerance = 1e-6;

/**
 * Events of a tune with the beats of some bars shared otherwise; each beat stays as long as it is. Only beats that two notes (three in compound meters) fill
 * exactly are changed: rests, ties over a note of the pair and tuplets leave a beat as it is written.
 */
export function inRhythm(events: readonly ScoreEvent[], bars: readonly ScoreBar[], rhythms: readonly RhythmOfBars[]): readonly ScoreEvent[] {
  if (rhythms.length === 0) return events;
  const changed = [...events];
  for (const bar of bars) {
    const wanted = rhythms.find(({ from, to }) => bar.number >= from && bar.number <= to);
    if (wanted === undefined || bar.meter.bar === 0) continue;
    for (const [first, end] of beatsOf(events, bar)) {
      const portions = shares[wanted.rhythm][end - first];
      if (portions === undefined || end - first !== fillsBeat(bar.meter)) continue;
      for (let index = first; index < end; index += 1) {
        const duration = bar.meter.beat * portions[index - first];
        changed[index] = { ...events[index], duration, written: duration };
      }
    }
  }
  return changed;
}

/** A beat of three eighths has three notes, any other two. */
const fillsBeat = ({ beat }: Meter): number => (Math.abs((beat * 8) % 3) < tolerance ? 3 : 2);

/** Stretches of events that fill a beat each and can be shared otherwise. */
function beatsOf(events: readonly ScoreEvent[], { first, end, offset, meter: { beat } }: ScoreBar): readonly (readonly [first: number, end: number])[] {
  const found: [number, number][] = [];
  let at = offset;
  for (let index = first; index < end;) {
    if (Math.abs(at / beat - Math.round(at / beat)) > tolerance) {
      at += events[index].duration;
      index += 1;
      continue;
    }
    let [next, sum] = [index, 0];
    while (next < end && sum < beat - tolerance) {
      sum += events[next].duration;
      next += 1;
    }
    const isWhole = Math.abs(sum - beat) < tolerance && events.slice(index, next).every(isFree);
    if (isWhole) found.push([index, next]);
    [index, at] = [next, at + sum];
  }
  return found;
}

const isFree = ({ pitches, tuplets }: ScoreEvent): boolean =>
  pitches.length > 0 && tuplets.length === 0 && pitches.every(({ isTiedOn, isTiedFromPrevious }) => !isTiedOn && !isTiedFromPrevious);
