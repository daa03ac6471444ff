import { airDensity, soundSpeed } from './air';
import type { Transfer } from './transfer';

/** A side hole; all in m. `radius` is that of the opening left free, where it is open. */
export interface ToneHole {
  readonly radius: number;
  readonly boreRadius: number;
  readonly chimney: number;
  readonly outerRadius: number;
  readonly isOpen: boolean;
}

/**
 * Transfer matrix of a side hole at each frequency: half a series impedance, the shunt, half a series impedance.
 * Sources: Keefe (1990); Dubos et al. (1999); open end after Dalmont, Nederveen and Joly (2001).
 */
export function toneHoleTransfer({ radius: b, boreRadius, chimney: t, outerRadius, isOpen }: ToneHole, frequencies: Float64Array): Transfer {
  const matrix = new Float64Array(8 * frequencies.length);
  const d = b / boreRadius;
  const matching = (b * d * (1 + 0.207 * d ** 3)) / 8;
  const inner = b * (0.82 - 0.193 * d - 1.09 * d ** 2 + 1.27 * d ** 3 - 0.71 * d ** 4);
  const tanh = Math.tanh((1.84 * t) / b);
  const series = (-b * d ** 2) / (1.78 * (isOpen ? tanh : 1 / tanh) + 0.94 + 0.54 * d + 0.285 * d ** 2);
  const radiation = b * (0.82 - 0.47 * (b / outerRadius) ** 0.8);
  const impedance = (airDensity * soundSpeed) / (Math.PI * b * b);
  frequencies.forEach((hertz, index) => {
    const k = (2 * Math.PI * hertz) / soundSpeed;
    const seriesIm = (impedance * k * series) / 2;
    const shuntRe = isOpen ? impedance * 0.25 * (k * b) ** 2 : 0;
    const shuntIm = impedance * (k * inner + (isOpen ? Math.tan(k * (t + matching + radiation)) : -1 / Math.tan(k * (t + matching))));
    const size = shuntRe ** 2 + shuntIm ** 2;
    const [admittanceRe, admittanceIm] = [shuntRe / size, -shuntIm / size];
    // With h half the series impedance (imaginary) and y the admittance: [1 + h y, 2 h + h h y, y, 1 + h y].
    const [hyRe, hyIm] = [-seriesIm * admittanceIm, seriesIm * admittanceRe];
    matrix.set([1 + hyRe, hyIm, -seriesIm * hyIm, 2 * seriesIm + seriesIm * hyRe, admittanceRe, admittanceIm, 1 + hyRe, hyIm], 8 * index);
  });
  return matrix;
}
