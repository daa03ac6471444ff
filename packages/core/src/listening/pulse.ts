/** When a note began, and where it stands in what was asked. */
export interface PulsePoint {
  /** In beats from the beginning. */
  readonly beat: number;
  /** In ms from the beginning of the take. */
  readonly at: number;
  /** From 0: where a note was left out all after it come sooner, and are compared among themselves. */
  readonly segment: number;
}

/** The steady pulse that fits a player's own notes best. */
export interface Pulse {
  readonly beatMs: number;
  /** When its first beat would fall, in ms from the beginning of the take, by segment; undefined for one without a note. */
  readonly starts: readonly (number | undefined)[];
  /** Nine of ten notes lie within so many ms of it. */
  readonly within: number;
  /** Notes that it was found from. */
  readonly notes: number;
}

/** From fewer notes no pulse is told. Our own choice. */
const fewest = 5;
/** Of many notes so many, evenly taken, are compared with each other. */
const mostCompared = 120;

/**
 * The pulse of a player by the middle of all slopes between two notes (Theil 1950, Sen 1968): a few notes that are far off do not move it. Undefined for fewer than five notes.
 */
export function ownPulse(points: readonly PulsePoint[]): Pulse | undefined {
  if (points.length < fewest) return undefined;
  const every = Math.ceil(points.length / mostCompared);
  const compared = points.filter((_, index) => index % every === 0);
  const slopes = compared.flatMap((one, index) =>
    compared
      .slice(index + 1)
      .flatMap((other) => (other.beat > one.beat && other.segment === one.segment ? [(other.at - one.at) / (other.beat - one.beat)] : [])),
  );
  if (slopes.length === 0) return undefined;
  const beatMs = middleOf(slopes);
  return beatMs > 0 ? pulseAt(beatMs, points) : undefined;
}

/** The same at a known tempo: only where its first beat falls is found. Undefined without a note. */
export function pulseAt(beatMs: number, points: readonly PulsePoint[]): Pulse | undefined {
  if (points.length === 0) return undefined;
  const starts = Array.from({ length: Math.max(...points.map(({ segment }) => segment)) + 1 }, (_, segment) => {
    const firsts = points.filter((point) => point.segment === segment).map(({ beat, at }) => at - beat * beatMs);
    return firsts.length === 0 ? undefined : middleOf(firsts);
  });
  const away = points.map(({ beat, at, segment }) => Math.abs(at - (starts[segment] ?? at) - beat * beatMs)).sort((one, other) => one - other);
  return { beatMs, starts, within: Math.max(1, Math.round(away[Math.floor(0.9 * (away.length - 1))])), notes: points.length };
}

function middleOf(values: readonly number[]): number {
  const sorted = [...values].sort((one, other) => one - other);
  const half = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
}
