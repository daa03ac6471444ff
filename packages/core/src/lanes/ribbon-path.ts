import type { CoverSpan } from './cover-spans';

/** A ribbon as the middle line of a thick stroke with round ends. */
export interface Ribbon {
  readonly path: string;
  readonly coverage: number;
}

interface RibbonShape {
  /** Height of the wood. */
  readonly y: number;
  readonly thickness: number;
  readonly left: number;
  readonly right: number;
}

/** Smallest height of a lift, so that it is seen at tune size. */
const leastRise = 12;

/**
 * Ribbons of one finger: a lift's end leaves the wood by its own thickness, a landing comes down the same way, both reach
 * a little past the seam; a short opening is a hop without a break.
 */
export function ribbons(spans: readonly CoverSpan[], shape: RibbonShape): readonly Ribbon[] {
  const { thickness, left, right } = shape;
  const lying = shape.y - thickness / 2 - 0.5;
  const rise = thickness >= 9 ? Math.max(leastRise, thickness) : thickness;
  const run = thickness * 1.15;
  const over = thickness * 0.7;
  const hopWidth = thickness * 3;
  const done: Ribbon[] = [];
  let path = '';
  spans.forEach((span, index) => {
    const previous = spans[index - 1];
    const next = spans[index + 1];
    const middle = (span.from + span.to) / 2;
    const isJoined = previous !== undefined && previous.coverage === span.coverage && span.from - previous.to < hopWidth;
    const joinsNext = next !== undefined && next.coverage === span.coverage && next.from - span.to < hopWidth;
    const flatFrom = Math.min(middle, span.from + run);
    const flatTo = Math.max(middle, span.to - run);
    if (isJoined) {
      const apex = (previous.to + span.from) / 2;
      path +=
        curve(Math.max((previous.from + previous.to) / 2, previous.to - run * 0.8), lying, apex, lying - rise) +
        curveOn(apex, lying - rise, Math.min(middle, span.from + run * 0.8), lying);
    } else if (span.from <= left + 0.01) path = `M${n(left + thickness / 2)} ${n(lying)}`;
    else if (previous !== undefined && Math.abs(previous.to - span.from) < 0.01) path = `M${n(span.from)} ${n(lying)}`;
    else path = `M${n(span.from - over)} ${n(lying - rise)}${curveOn(span.from - over, lying - rise, flatFrom, lying)}`;
    if (joinsNext) return;
    if (span.to >= right - 0.01) path += `L${n(right - thickness / 2)} ${n(lying)}`;
    else if (next !== undefined && Math.abs(next.from - span.to) < 0.01) path += `L${n(span.to)} ${n(lying)}`;
    else path += curve(flatTo, lying, span.to + over, lying - rise);
    done.push({ path, coverage: span.coverage });
  });
  return done;
}

/** A straight piece to the first point, then an S-curve to the second. */
function curve(x1: number, y1: number, x2: number, y2: number): string {
  return `L${n(x1)} ${n(y1)}${curveOn(x1, y1, x2, y2)}`;
}

function curveOn(x1: number, y1: number, x2: number, y2: number): string {
  const middle = (x1 + x2) / 2;
  return `C${n(middle)} ${n(y1)} ${n(middle)} ${n(y2)} ${n(x2)} ${n(y2)}`;
}

const n = (value: number): string => String(Math.round(value * 100) / 100);
