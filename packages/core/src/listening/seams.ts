import type { Instrument } from '../fingering';
import type { HeardStretch } from './heard-stretch';
import { Window } from './window';

/** Around each seam so much is looked at once more, through so short a window, from moment to moment, in ms. Our own choices. */
const [aroundMs, windowMs, hopMs] = [12, 12, 0.5];
/** A third note is heard in a seam where it holds so much more than both together would, for so long, in ms. Our own choices. */
const [moreThanBoth, shortest] = [1.15, 1];
/** Both notes are known here, so that octaves are not mistaken: high partials, which lie further apart, count nearly as much as low ones. Our own choice. */
const falling = 0.3;
/** A stretch is moved only where both beside it last so long, in ms. */
const longEnough = 16;

/** Looks at the places where one note gives way to another: when exactly, and whether something short cuts in that the long window did not see. */
export class Seams {
  private readonly window: Window;
  private readonly size: number;

  constructor(
    private readonly instrument: Instrument,
    samples: Float32Array,
    private readonly sampleRate: number,
    private readonly pitches: readonly number[],
  ) {
    this.size = Math.round((windowMs / 1000) * sampleRate);
    this.window = new Window(samples, sampleRate, this.size, { falling, partsOctaves: false });
  }

  lookedAt(stretches: readonly HeardStretch[]): readonly HeardStretch[] {
    const found: HeardStretch[] = [];
    for (const next of stretches) {
      const last = found.at(-1);
      if (last === undefined || last.note === null || next.note === null) {
        found.push(next);
        continue;
      }
      const seam = this.seam(last, next);
      found[found.length - 1] = { ...last, end: seam.from };
      if (seam.between !== undefined) found.push(seam.between);
      found.push({ ...next, start: seam.to });
    }
    return found;
  }

  private seam(last: HeardStretch, next: HeardStretch): { readonly from: number; readonly to: number; readonly between?: HeardStretch } {
    const untouched = { from: last.end, to: next.start };
    if (last.end - last.start < longEnough || next.end - next.start < longEnough) return untouched;
    const [one, other] = [last, next].map(({ note }) => this.instrument.notes.findIndex(({ id }) => id === note));
    const from = Math.max(last.start + windowMs, last.end - aroundMs);
    const to = Math.min(next.end - windowMs, next.start + aroundMs);
    const moments: { readonly at: number; readonly lead: number; readonly third: number; readonly excess: number }[] = [];
    for (let at = from; at <= to; at += hopMs) {
      const { fits } = this.window.fitsAt(Math.round((at / 1000) * this.sampleRate) - Math.round(this.size / 2), this.pitches);
      const both = Math.hypot(fits[one], fits[other]);
      let third = -1;
      fits.forEach((fit, index) => {
        if (index !== one && index !== other && (third < 0 || fit > fits[third])) third = index;
      });
      moments.push({ at, lead: (fits[other] - fits[one]) / Math.max(both, 1e-12), third, excess: third < 0 ? 0 : fits[third] / Math.max(both, 1e-12) });
    }
    const cut = this.cutIn(moments);
    if (cut !== undefined) return { from: cut.start, to: cut.end, between: cut };
    const at = crossing(moments);
    return at === undefined ? untouched : { from: at, to: at };
  }

  /** The longest run of moments in which one and the same third note holds more than both beside it. */
  private cutIn(moments: readonly { readonly at: number; readonly third: number; readonly excess: number }[]): HeardStretch | undefined {
    let best: { readonly first: number; readonly last: number } | undefined;
    let first = 0;
    for (let index = 0; index <= moments.length; index += 1) {
      const isIn = index < moments.length && moments[index].excess >= moreThanBoth && (index === first || moments[index].third === moments[first].third);
      if (isIn) continue;
      if (index > first && (best === undefined || index - first > best.last - best.first + 1)) best = { first, last: index - 1 };
      first = index < moments.length && moments[index].excess >= moreThanBoth ? index : index + 1;
    }
    if (best === undefined) return undefined;
    const [start, end] = [moments[best.first].at, moments[best.last].at + hopMs];
    if (end - start < shortest) return undefined;
    const excess = moments.slice(best.first, best.last + 1).reduce((sum, each) => sum + each.excess, 0) / (best.last - best.first + 1);
    return { note: this.instrument.notes[moments[best.first].third].id, start, end, confidence: 1 - Math.exp(-(excess - 1) * 3) };
  }
}

/** When the second note takes the lead, between two moments; undefined where it never does. */
function crossing(moments: readonly { readonly at: number; readonly lead: number }[]): number | undefined {
  for (let index = 1; index < moments.length; index += 1) {
    const [before, after] = [moments[index - 1], moments[index]];
    if (before.lead < 0 && after.lead >= 0) return before.at + (hopMs * -before.lead) / (after.lead - before.lead);
  }
  return undefined;
}
