import { airDensity, damping, soundSpeed } from './air';
import type { Transfer } from './transfer';

interface Complex {
  readonly re: number;
  readonly im: number;
}

const times = (one: Complex, other: Complex): Complex => ({ re: one.re * other.re - one.im * other.im, im: one.re * other.im + one.im * other.re });
const scaled = (one: Complex, factor: number): Complex => ({ re: one.re * factor, im: one.im * factor });
const plus = (one: Complex, other: Complex): Complex => ({ re: one.re + other.re, im: one.im + other.im });
const inverse = ({ re, im }: Complex): Complex => ({ re: re / (re * re + im * im), im: -im / (re * re + im * im) });
const cosh = ({ re, im }: Complex): Complex => ({ re: Math.cosh(re) * Math.cos(im), im: Math.sinh(re) * Math.sin(im) });
const sinh = ({ re, im }: Complex): Complex => ({ re: Math.sinh(re) * Math.cos(im), im: Math.cosh(re) * Math.sin(im) });

/** A piece of bore without holes; radii and length in m, the first radius at the end toward the excitation. */
export interface Tube {
  readonly length: number;
  readonly upperRadius: number;
  readonly lowerRadius: number;
}

/**
 * Transfer matrix of a lossy cylinder or cone at each frequency, from its lower end to its upper one.
 * Source: Fletcher and Rossing, The Physics of Musical Instruments (1998), chapter 8.
 */
export function tubeTransfer({ length, upperRadius, lowerRadius }: Tube, frequencies: Float64Array): Transfer {
  const matrix = new Float64Array(8 * frequencies.length);
  const slope = (lowerRadius - upperRadius) / length;
  const isCylinder = Math.abs(lowerRadius - upperRadius) < 1e-9;
  frequencies.forEach((hertz, index) => {
    const alpha = damping(hertz, (upperRadius + lowerRadius) / 2);
    const gamma: Complex = { re: alpha, im: (2 * Math.PI * hertz) / soundSpeed + alpha };
    const [c, s] = [cosh(scaled(gamma, length)), sinh(scaled(gamma, length))];
    const entries = isCylinder ? cylinder(c, s, upperRadius) : cone(gamma, c, s, upperRadius / slope, lowerRadius / slope, upperRadius, lowerRadius);
    entries.forEach(({ re, im }, entry) => {
      matrix[8 * index + 2 * entry] = re;
      matrix[8 * index + 2 * entry + 1] = im;
    });
  });
  return matrix;
}

const area = (radius: number): number => Math.PI * radius * radius;

function cylinder(c: Complex, s: Complex, radius: number): readonly Complex[] {
  const impedance = (airDensity * soundSpeed) / area(radius);
  return [c, scaled(s, impedance), scaled(s, 1 / impedance), c];
}

/** With x the distance from the cone's apex, negative where the bore narrows toward the foot: p x is a plane wave. */
function cone(gamma: Complex, c: Complex, s: Complex, upper: number, lower: number, upperRadius: number, lowerRadius: number): readonly Complex[] {
  const perGamma = inverse(gamma);
  const columns = [
    { pressure: { re: 1, im: 0 }, flow: { re: 0, im: 0 } },
    { pressure: { re: 0, im: 0 }, flow: { re: 1, im: 0 } },
  ].map(({ pressure, flow }) => {
    const wave = scaled(pressure, lower);
    const slope = plus(pressure, scaled(times(gamma, flow), (-airDensity * soundSpeed * lower) / area(lowerRadius)));
    const waveUp = plus(times(wave, c), scaled(times(times(slope, s), perGamma), -1));
    const slopeUp = plus(times(slope, c), scaled(times(times(wave, s), gamma), -1));
    const gradient = plus(scaled(slopeUp, 1 / upper), scaled(waveUp, -1 / (upper * upper)));
    return { pressure: scaled(waveUp, 1 / upper), flow: scaled(times(gradient, perGamma), -area(upperRadius) / (airDensity * soundSpeed)) };
  });
  return [columns[0].pressure, columns[1].pressure, columns[0].flow, columns[1].flow];
}
