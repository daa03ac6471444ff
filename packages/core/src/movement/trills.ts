import { tablePitch } from '../acoustics';
import { moversBetween } from '../change';
import { coverOf, noteOf, soundingPitch, type Fingering, type Instrument, type NoteId } from '../fingering';
import { centsOfRatio } from '../pitch';

/** Two fingerings between which a trill is easiest. */
export interface TrillPair {
  readonly main: Fingering;
  readonly upper: Fingering;
  readonly movers: number;
  /** How far each sounds from its note by the model, in cents; undefined where the model does not tell. */
  readonly cents: readonly [number | undefined, number | undefined];
}

/** A pitch may be so far off in a trill, in cents. */
const mostCents = 30;

/**
 * The pair of fingerings of a note and the one above it with the fewest moving fingers whose pitches stay within 30 cents, the one taught first among equals. The
 * model proposes; a teacher confirms. Undefined where no pair is in tune.
 * @throws ZelpitFault `unknown-note`
 */
export function trillBetween(instrument: Instrument, main: NoteId, upper: NoteId): TrillPair | undefined {
  noteOf(instrument, main);
  noteOf(instrument, upper);
  const ways = (note: NoteId): readonly Fingering[] => instrument.fingerings.filter((each) => each.note === note);
  const pairs = ways(main).flatMap((one) =>
    ways(upper).map((other): TrillPair => ({
      ...{ main: one, upper: other, movers: moversBetween(instrument, one.pattern, other.pattern).length },
      cents: [centsOff(instrument, one), centsOff(instrument, other)],
    })),
  );
  const good = pairs.filter(({ cents, movers }) => movers > 0 && cents.every((each) => each === undefined || Math.abs(each) <= mostCents));
  return [...good].sort((one, other) => one.movers - other.movers || one.main.rank + one.upper.rank - other.main.rank - other.upper.rank)[0];
}

/** Out of tune by the model; what is made in tune by ear or breath is not told. */
function centsOff(instrument: Instrument, { note, pattern, register }: Fingering): number | undefined {
  if (register > 1 || pattern.some((coverage) => coverOf(coverage) === 'half')) return undefined;
  const pitch = tablePitch(instrument, pattern)?.hertz;
  return pitch === undefined ? undefined : centsOfRatio(pitch / soundingPitch(instrument, note));
}

/** Ornaments of a note with its neighbour: there and back, or the neighbour once before it. */
export type NeighbourOrnament = 'trill' | 'upper-mordent' | 'lower-mordent' | 'grace-note';

const neighbourKinds: ReadonlySet<string> = new Set<NeighbourOrnament>(['trill', 'upper-mordent', 'lower-mordent', 'grace-note']);
export const isNeighbourOrnament = (kind: string): kind is NeighbourOrnament => neighbourKinds.has(kind);

/** One way of playing such an ornament: main and neighbour by turns. */
export interface NeighbourWay {
  readonly kind: NeighbourOrnament;
  readonly pair: TrillPair;
  /** What sounds in its order. */
  readonly sequence: readonly Fingering[];
}

/**
 * Trill, mordents and single grace note of a note, with its neighbours in a scale, on the pair of fingerings that moves fewest fingers and stays in tune; an
 * ornament for which there is no such pair, or no neighbour, is left out.
 * @param scale notes from low to high
 * @throws ZelpitFault `unknown-note`
 */
export function neighbourOrnaments(instrument: Instrument, note: NoteId, scale: readonly NoteId[]): readonly NeighbourWay[] {
  const at = scale.indexOf(note);
  const [lower, upper] = [scale[at - 1], scale[at + 1]];
  const way = (kind: NeighbourOrnament, neighbour: NoteId | undefined, order: readonly ('main' | 'upper')[]): readonly NeighbourWay[] => {
    const pair = neighbour === undefined ? undefined : trillBetween(instrument, note, neighbour);
    return pair === undefined ? [] : [{ kind, pair, sequence: order.map((each) => pair[each]) }];
  };
  return [
    ...way('trill', upper, ['main', 'upper', 'main', 'upper', 'main', 'upper', 'main']),
    ...way('upper-mordent', upper, ['main', 'upper', 'main']),
    ...way('lower-mordent', lower, ['main', 'upper', 'main']),
    ...way('grace-note', upper, ['upper', 'main']),
  ];
}
