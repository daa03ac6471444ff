import { ZelpitFault } from '../fault';
import type { BoreGeometry } from '../fingering';
import { BoreModel, type Foot } from './bore-model';
import { centsOfRatio } from '../pitch';

/** A pattern whose pitch is known. */
export interface Measured {
  /** In the order of the geometry's holes. */
  readonly coverages: readonly number[];
  readonly foot: Foot;
  readonly hertz: number;
}

export interface FitStep {
  readonly iteration: number;
  readonly geometry: BoreGeometry;
  /** Model above measured, in cents, for each measured pattern. */
  readonly residuals: readonly number[];
  readonly rms: number;
  readonly isDone: boolean;
}

export interface FitSettings {
  /** How well a pitch is known, in cents. */
  readonly measuredWithin?: number;
  readonly mostIterations?: number;
}

/** How far a real instrument may plausibly lie from the geometry that the fit starts from. */
const priors = { positionMillimetres: 3, diameterMillimetres: 0.8, lumpedShare: 0.3 };
/** A pattern whose resonance is nowhere near counts as this far off, in cents. */
const lost = 300;

/** One number that the fit may move, with its prior. */
interface Parameter {
  readonly start: number;
  readonly deviation: number;
  readonly least: number;
}

/**
 * Pitch of a pattern near a wanted one, in cents above it; undefined where no resonance lies within 300 cents.
 */
export function centsNear(geometry: BoreGeometry, { coverages, foot, hertz }: Measured): number | undefined {
  const model = new BoreModel(geometry, { from: hertz * 2 ** (-lost / 1200), to: hertz * 2 ** (lost / 1200), count: 25 });
  const found = model.resonances(coverages, foot).map((each) => centsOfRatio(each.hertz / hertz));
  return found.sort((one, other) => Math.abs(one) - Math.abs(other))[0];
}

/**
 * Fits a bore to measured pitches by damped least squares (Levenberg 1944, Marquardt 1963) with the starting geometry as a
 * prior: each step is given out, so that a caller can show progress and stop.
 * @throws ZelpitFault `no-measurement` where nothing is measured
 */
export function* fitGeometry(
  start: BoreGeometry,
  measured: readonly Measured[],
  { measuredWithin = 1, mostIterations = 30 }: FitSettings = {},
): Generator<FitStep> {
  if (measured.length === 0) throw new ZelpitFault('no-measurement', 'A fit needs at least one measured note.');
  const parameters = parametersOf(start);
  const errorsOf = (values: readonly number[]): { residuals: number[]; errors: number[] } => {
    const geometry = geometryWith(start, values);
    const residuals = measured.map((each) => centsNear(geometry, each) ?? lost);
    const priorErrors = values.map((value, index) => (value - parameters[index].start) / parameters[index].deviation);
    return { residuals, errors: [...residuals.map((cents) => cents / measuredWithin), ...priorErrors] };
  };
  const cost = (errors: readonly number[]): number => errors.reduce((sum, error) => sum + error * error, 0);
  let values = parameters.map((parameter) => parameter.start);
  let current = errorsOf(values);
  let damping = 1e-3;
  for (let iteration = 1; iteration <= mostIterations; iteration += 1) {
    const jacobian = slopes(values, parameters, current.errors, (moved) => errorsOf(moved).errors);
    let isBetter = false;
    let gain = 0;
    for (let tries = 0; tries < 8 && !isBetter; tries += 1) {
      const step = dampedStep(jacobian, current.errors, damping);
      const moved = values.map((value, index) => Math.max(parameters[index].least, value + step[index]));
      const next = errorsOf(moved);
      gain = cost(current.errors) - cost(next.errors);
      isBetter = gain > 0;
      damping = isBetter ? damping / 5 : damping * 4;
      if (isBetter) [values, current] = [moved, next];
    }
    const isDone = !isBetter || gain < 1e-3 * Math.max(1, cost(current.errors)) || iteration === mostIterations;
    const rms = Math.sqrt(current.residuals.reduce((sum, cents) => sum + cents * cents, 0) / measured.length);
    yield { iteration, geometry: geometryWith(start, values), residuals: current.residuals, rms, isDone };
    if (isDone) return;
  }
}

function parametersOf(geometry: BoreGeometry): Parameter[] {
  const lumped = geometry.excitation === 'reed' ? geometry.reedVolumeCubicMillimetres : geometry.windowLengthMillimetres;
  return [
    ...geometry.holes.map((hole) => ({ start: hole.positionMillimetres, deviation: priors.positionMillimetres, least: 1 })),
    ...geometry.holes.map((hole) => ({ start: hole.diameterMillimetres, deviation: priors.diameterMillimetres, least: 0.5 })),
    { start: lumped, deviation: Math.max(1, lumped * priors.lumpedShare), least: 0 },
    { start: geometry.bore[geometry.bore.length - 1].positionMillimetres, deviation: priors.positionMillimetres, least: 10 },
  ];
}

function geometryWith(start: BoreGeometry, values: readonly number[]): BoreGeometry {
  const count = start.holes.length;
  const holes = start.holes.map((hole, index) => ({ ...hole, positionMillimetres: values[index], diameterMillimetres: values[count + index] }));
  const last = start.bore.length - 1;
  const bore = start.bore.map((point, index) => (index === last ? { ...point, positionMillimetres: values[2 * count + 1] } : point));
  const lumped = values[2 * count];
  return start.excitation === 'reed'
    ? { ...start, holes, bore, reedVolumeCubicMillimetres: lumped }
    : { ...start, holes, bore, windowLengthMillimetres: lumped };
}

/** Slope of every error by every parameter, by small differences. */
function slopes(
  values: readonly number[],
  parameters: readonly Parameter[],
  errors: readonly number[],
  errorsOf: (values: readonly number[]) => number[],
): number[][] {
  return values.map((value, index) => {
    const small = parameters[index].deviation * 0.02;
    const moved = errorsOf(values.map((each, at) => (at === index ? value + small : each)));
    return moved.map((error, at) => (error - errors[at]) / small);
  });
}

/** The step that a linear model takes, kept short by the damping. */
function dampedStep(jacobian: readonly (readonly number[])[], errors: readonly number[], damping: number): number[] {
  const product = (one: readonly number[], other: readonly number[]): number => one.reduce((sum, value, index) => sum + value * other[index], 0);
  const matrix = jacobian.map((row, index) => jacobian.map((other, column) => product(row, other) * (index === column ? 1 + damping : 1)));
  return solved(
    matrix,
    jacobian.map((row) => -product(row, errors)),
  );
}

/** Solves a linear system by elimination with the largest pivot. */
function solved(matrix: number[][], right: number[]): number[] {
  const size = right.length;
  for (let pivot = 0; pivot < size; pivot += 1) {
    let largest = pivot;
    for (let row = pivot + 1; row < size; row += 1) if (Math.abs(matrix[row][pivot]) > Math.abs(matrix[largest][pivot])) largest = row;
    [matrix[pivot], matrix[largest]] = [matrix[largest], matrix[pivot]];
    [right[pivot], right[largest]] = [right[largest], right[pivot]];
    for (let row = pivot + 1; row < size; row += 1) {
      const factor = matrix[row][pivot] / matrix[pivot][pivot];
      for (let column = pivot; column < size; column += 1) matrix[row][column] -= factor * matrix[pivot][column];
      right[row] -= factor * right[pivot];
    }
  }
  const solution = new Array<number>(size).fill(0);
  for (let row = size - 1; row >= 0; row -= 1) {
    let rest = right[row];
    for (let column = row + 1; column < size; column += 1) rest -= matrix[row][column] * solution[column];
    solution[row] = rest / matrix[row][row];
  }
  return solution;
}
