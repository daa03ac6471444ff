import { ZelpitFault } from '../fault';

declare const unit: unique symbol;
type Unit<Name extends string> = number & { readonly [unit]: Name };

/** Frequency in hertz, above 0 and at most 20 000. */
export type Hertz = Unit<'hertz'>;
/** Interval in cents, 1200 to the octave; positive is sharp. */
export type Cents = Unit<'cents'>;
/** Length or point of time in milliseconds. */
export type Milliseconds = Unit<'milliseconds'>;

function checked<Name extends string>(name: string, value: number, low: number, high: number): Unit<Name> {
  if (!(value >= low && value <= high)) {
    throw new ZelpitFault('out-of-range', `${name} must be between ${low} and ${high}, not ${value}.`, { name, value, low, high });
  }
  return value as Unit<Name>;
}

/** @throws ZelpitFault `out-of-range` outside 1 to 20 000. */
export const hertz = (value: number): Hertz => checked<'hertz'>('A frequency in Hz', value, 1, 20_000);

/** @throws ZelpitFault `out-of-range` outside ten octaves either way. */
export const cents = (value: number): Cents => checked<'cents'>('An interval in cents', value, -12_000, 12_000);

/** @throws ZelpitFault `out-of-range` when negative or over a day. */
export const milliseconds = (value: number): Milliseconds => checked<'milliseconds'>('A time in ms', value, 0, 86_400_000);

/**
 * Interval from `reference` to `sounding`; negative when flat.
 * @returns cents, 1200 to the octave
 * @example centsBetween(hertz(440), hertz(880)) // 1200
 */
export function centsBetween(reference: Hertz, sounding: Hertz): Cents {
  return cents(centsOfRatio(sounding / reference));
}

/**
 * The interval of a ratio of frequencies in cents, unchecked: for ratios that are no pitches, and inside loops.
 * @example centsOfRatio(2) // 1200
 */
export const centsOfRatio = (ratio: number): number => 1200 * Math.log2(ratio);
