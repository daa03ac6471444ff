import { isOverblown } from '../acoustics';
import {
  chartedFingering,
  fingerCoverage,
  scaleDegree,
  wayName,
  type FingerId,
  type Fingering,
  type Instrument,
  type NoteId,
  type Pattern,
} from '../fingering';

export interface Mover {
  readonly finger: FingerId;
  readonly hand: 'left' | 'right';
  readonly direction: 'lift' | 'lower';
}

/** `none`: no finger moves. The other words as teachers use them. */
export type ChangeKind = 'none' | 'lift-only' | 'lower-only' | 'cross';

/** One theme note to the next, by fingers. */
export interface Change {
  readonly from: NoteId;
  readonly to: NoteId;
  readonly fromPattern: Pattern;
  /** Where the lower end is closed while the fingers change: with every hole closed nothing sounds then. */
  readonly foot?: 'closed';
  /** Where it is overblown, the register that sounds while the fingers change: that of the note after. */
  readonly register?: number;
  readonly toPattern: Pattern;
  /** In the order of the instrument, from the face down. */
  readonly movers: readonly Mover[];
  readonly kind: ChangeKind;
  readonly hands: 'none' | 'left' | 'right' | 'both';
  /** One finger up while one comes down, nothing else. */
  readonly isDirectExchange: boolean;
  readonly isRising: boolean;
}

/**
 * The change from one charted note to another.
 * @throws ZelpitFault `unknown-note`
 * @example changeBetween(practiceChanter, 'b', 'e').isDirectExchange // true
 */
export function changeBetween(instrument: Instrument, from: NoteId, to: NoteId): Change {
  return changeOfFingerings(instrument, chartedFingering(instrument, from), chartedFingering(instrument, to));
}

/** Fingers with the note that they are said to be; a grace note's fingers too, which no chart has. */
export type NamedFingers = Pick<Fingering, 'note' | 'pattern'> & Partial<Pick<Fingering, 'register' | 'foot'>>;

/** The change from one fingering to another, whichever of their notes' ways they are. */
export function changeOfFingerings(instrument: Instrument, before: NamedFingers, after: NamedFingers): Change {
  const { note: from, pattern: fromPattern } = before;
  const { note: to, pattern: toPattern, register } = after;
  const movers = moversBetween(instrument, fromPattern, toPattern);
  const lifts = movers.filter((mover) => mover.direction === 'lift').length;
  const lowers = movers.length - lifts;
  return {
    from,
    to,
    fromPattern,
    toPattern,
    ...(isOverblown(instrument) && { register }),
    ...([before.foot, after.foot].includes('closed') && { foot: 'closed' as const }),
    movers,
    kind: kindOf(lifts, lowers),
    hands: handsOf(movers),
    isDirectExchange: lifts === 1 && lowers === 1,
    isRising: scaleDegree(instrument, to) > scaleDegree(instrument, from),
  };
}

/**
 * A change as it is said, with its fingers where they are not the ones taught first.
 * @throws ZelpitFault `unknown-note`
 * @example changeName(practiceChanter, changeBetween(practiceChanter, 'low-a', 'c')) // 'low A to C'
 */
export function changeName(instrument: Instrument, { from, to, fromPattern, toPattern }: Change): string {
  return `${wayName(instrument, { note: from, pattern: fromPattern })} to ${wayName(instrument, { note: to, pattern: toPattern })}`;
}

/** The fingers whose cover differs between two patterns. */
export function moversBetween(instrument: Instrument, before: Pattern, after: Pattern): readonly Mover[] {
  return instrument.fingers.flatMap((finger) => {
    const difference = fingerCoverage(instrument, after, finger.id) - fingerCoverage(instrument, before, finger.id);
    if (difference === 0) return [];
    return [{ finger: finger.id, hand: finger.hand, direction: difference < 0 ? ('lift' as const) : ('lower' as const) }];
  });
}

function kindOf(lifts: number, lowers: number): ChangeKind {
  if (lifts > 0 && lowers > 0) return 'cross';
  if (lifts > 0) return 'lift-only';
  return lowers > 0 ? 'lower-only' : 'none';
}

function handsOf(movers: readonly Mover[]): Change['hands'] {
  const left = movers.some((mover) => mover.hand === 'left');
  const right = movers.some((mover) => mover.hand === 'right');
  if (left && right) return 'both';
  if (left) return 'left';
  return right ? 'right' : 'none';
}

/**
 * Every other note whose change with `note` is a cross, in the order of the scale.
 * @throws ZelpitFault `unknown-note`
 * @example crossesOf(practiceChanter, 'low-a') // ['c', 'd']
 */
export function crossesOf(instrument: Instrument, note: NoteId): readonly NoteId[] {
  return instrument.notes.map((other) => other.id).filter((other) => changeBetween(instrument, note, other).kind === 'cross');
}
