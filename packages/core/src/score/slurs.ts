import type { ScoreEvent } from './score';

/** Numbers of the slurs that end and begin at an event. */
export interface SlurEnds {
  readonly starts: number[];
  readonly stops: number[];
}

/** So many slurs can be open at once. */
const mostOpen = 6;

/** Slurs with both their ends, by the index of the event. One that is never closed, or was never opened, is left out. */
export function slurNumbers(events: readonly ScoreEvent[]): ReadonlyMap<number, SlurEnds> {
  const open: { readonly at: number; readonly number: number }[] = [];
  const ends = new Map<number, SlurEnds>();
  const at = (index: number): SlurEnds => {
    const known = ends.get(index) ?? { starts: [], stops: [] };
    ends.set(index, known);
    return known;
  };
  events.forEach(({ slurStarts, slurEnds }, index) => {
    const before = open.length;
    for (let count = 0; count < slurStarts && open.length < mostOpen; count += 1) {
      const used = new Set(open.map(({ number }) => number));
      const number = [1, 2, 3, 4, 5, 6].find((each) => !used.has(each)) ?? mostOpen;
      open.push({ at: index, number });
    }
    // What was open before this event is closed first; a slur over one note is none.
    for (let count = 0; count < slurEnds; count += 1) {
      const slur = count < before ? open.splice(Math.max(0, before - 1 - count), 1)[0] : open.pop();
      if (slur === undefined || slur.at === index) continue;
      at(slur.at).starts.push(slur.number);
      at(index).stops.push(slur.number);
    }
  });
  return ends;
}
