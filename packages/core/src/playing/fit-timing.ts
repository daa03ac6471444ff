import type { Change, Mover } from '../change';
import { ZelpitFault } from '../fault';
import type { FingerId } from '../fingering';
import type { TimingParameters } from '../timing';

/** The moments of the movers of one change that was played, in ms on any clock. */
export interface TimedChange {
  readonly change: Change;
  readonly moments: readonly number[];
}

/** An estimate with its standard error. */
export interface Estimate {
  readonly value: number;
  readonly error: number;
}

/** How one finger keeps with the others. */
export interface FingerEstimate {
  readonly finger: FingerId;
  /** How much it comes late against the mean of the fingers that move with it, in ms; negative is early. */
  readonly bias: Estimate;
  /** Its standard deviation in ms. */
  readonly sigma: Estimate;
  /** From how many changes. */
  readonly count: number;
}

export interface FittedTiming {
  readonly fingers: readonly FingerEstimate[];
  /** How much earlier lifts come than landings, in ms. */
  readonly lead: Estimate;
  /** Of all fingers together, in ms. */
  readonly sigma: Estimate;
  readonly repetitions: number;
}

/** Fewer say nothing. */
export const fewestRepetitions = 8;
/** A moment that lies this many robust deviations from the median is a slip, not the player's timing. */
const slipDeviations = 5;
const turns = 60;

/**
 * A player's own bias and spread per finger from changes that were played. Only how fingers stand to each other is used, so that no beat is needed: the mean
 * moment of each change is its middle. Biases and lead are least squares; deviations solve the variances of all differences of two fingers
 * under the correlation within a hand, drawn towards the deviation of all fingers together by their uncertainty, as in Efron and Morris (1975).
 * @param rho correlation within a hand, which differences alone do not show
 * @throws ZelpitFault `out-of-range` for fewer than eight changes of two fingers or more
 */
export function fitTiming(all: readonly TimedChange[], rho = 0.5): FittedTiming {
  return fitMoments(withoutSlips(all.filter(({ moments }) => moments.length > 1)), rho);
}

/**
 * The same of changes among which there are no slips.
 * @param timed of two fingers and more
 * @throws ZelpitFault `out-of-range` for fewer than eight
 */
export function fitMoments(timed: readonly TimedChange[], rho = 0.5): FittedTiming {
  if (timed.length < fewestRepetitions)
    throw new ZelpitFault(
      'out-of-range',
      `At least ${fewestRepetitions} changes of two or more fingers are needed to measure a player’s timing; there are ${timed.length}.`,
      {
        count: timed.length,
      },
    );
  const fingers = [...new Set(timed.flatMap(({ change }) => change.movers.map(({ finger }) => finger)))];
  const { biases, lead } = solveMeans(timed, fingers);
  const residuals = timed.map(({ change, moments }) => centred(moments.map((at, index) => at - expected(change.movers[index], fingers, biases, lead))));
  const pooled = pooledSigma(timed, residuals, rho);
  const sigmas = solveSigmas(timed, residuals, fingers, rho, pooled);
  const countOf = (finger: FingerId): number => timed.filter(({ change }) => change.movers.some((mover) => mover.finger === finger)).length;
  const degrees = timed.reduce((sum, { moments }) => sum + moments.length - 1, 0) - fingers.length;
  return {
    fingers: fingers.map((finger, index) => {
      const count = countOf(finger);
      return {
        finger,
        bias: { value: biases[index], error: sigmas[index] / Math.sqrt(count) },
        sigma: { value: sigmas[index], error: sigmas[index] / Math.sqrt(2 * Math.max(1, count - 1)) },
        count,
      };
    }),
    lead: { value: lead, error: leadError(timed, pooled) },
    sigma: { value: pooled, error: pooled / Math.sqrt(2 * Math.max(1, degrees)) },
    repetitions: timed.length,
  };
}

/** What was fitted as parameters of the timing model. */
export function timingOf(
  fitted: FittedTiming,
  rho = 0.5,
): TimingParameters & { readonly sigmaOf: Record<FingerId, number>; readonly biasOf: Record<FingerId, number> } {
  const round = (value: number): number => Math.round(value * 10) / 10;
  return {
    sigma: round(fitted.sigma.value),
    sigmaOf: Object.fromEntries(fitted.fingers.map(({ finger, sigma }) => [finger, round(sigma.value)])),
    biasOf: Object.fromEntries(fitted.fingers.map(({ finger, bias }) => [finger, round(bias.value)])),
    rho,
    lead: round(fitted.lead.value),
  };
}

const meanOf = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
const medianOf = (values: readonly number[]): number => [...values].sort((one, other) => one - other)[Math.floor(values.length / 2)];

function centred(values: readonly number[]): readonly number[] {
  const mean = meanOf(values);
  return values.map((value) => value - mean);
}

function expected({ finger, direction }: Mover, fingers: readonly FingerId[], biases: readonly number[], lead: number): number {
  return biases[fingers.indexOf(finger)] - (direction === 'lift' ? lead : 0);
}

/** Leaves out changes whose whole span is far beyond the others': a hand that stopped to think. */
function withoutSlips(timed: readonly TimedChange[]): readonly TimedChange[] {
  if (timed.length === 0) return timed;
  const spans = timed.map(({ moments }) => Math.max(...moments) - Math.min(...moments));
  const middle = medianOf(spans);
  const spread = 1.4826 * medianOf(spans.map((span) => Math.abs(span - middle)));
  return timed.filter((_, index) => spans[index] <= middle + slipDeviations * Math.max(spread, 5));
}

/** Biases, which sum to 0, and the lead, by least squares over each change's moments around their mean; solved by turns (Gauss and Seidel). */
function solveMeans(timed: readonly TimedChange[], fingers: readonly FingerId[]): { readonly biases: readonly number[]; readonly lead: number } {
  let biases = fingers.map(() => 0);
  let lead = 0;
  const rows = timed.map(({ change, moments }) => ({
    moments: centred(moments),
    at: change.movers.map(({ finger }) => fingers.indexOf(finger)),
    lifts: centred(change.movers.map(({ direction }) => (direction === 'lift' ? 1 : 0))),
  }));
  for (let turn = 0; turn < turns; turn += 1) {
    const sums = fingers.map(() => ({ total: 0, count: 0 }));
    for (const { moments, at, lifts } of rows) {
      const middle = meanOf(at.map((index) => biases[index]));
      at.forEach((index, place) => {
        sums[index].total += moments[place] + lead * lifts[place] + middle;
        sums[index].count += 1;
      });
    }
    biases = [...centred(sums.map(({ total, count }) => total / count))];
    let [above, below] = [0, 0];
    for (const { moments, at, lifts } of rows) {
      const own = centred(at.map((index) => biases[index]));
      lifts.forEach((lift, place) => {
        above -= lift * (moments[place] - own[place]);
        below += lift * lift;
      });
    }
    lead = below === 0 ? 0 : above / below;
  }
  return { biases, lead };
}

/** How uncertain the lead is: each change with lifts and landings tells it once. */
function leadError(timed: readonly TimedChange[], sigma: number): number {
  const weight = timed.reduce(
    (sum, { change }) => sum + centred(change.movers.map(({ direction }) => (direction === 'lift' ? 1 : 0))).reduce((all, lift) => all + lift * lift, 0),
    0,
  );
  return weight === 0 ? 0 : sigma / Math.sqrt(weight);
}

const sharedOf = (one: Mover, other: Mover, rho: number): number => (one.hand === other.hand ? rho : 0);

/** The deviation of all fingers together, from the squares of all differences of two fingers of a change. */
function pooledSigma(timed: readonly TimedChange[], residuals: readonly (readonly number[])[], rho: number): number {
  let [squares, expectedSquares] = [0, 0];
  eachPair(timed, residuals, (one, other, difference) => {
    squares += difference * difference;
    expectedSquares += 2 - 2 * sharedOf(one, other, rho);
  });
  return expectedSquares === 0 ? 0 : Math.sqrt((squares / expectedSquares) * correction(timed.length));
}

/** Means were taken from the same data. */
const correction = (count: number): number => count / Math.max(1, count - 1);

function eachPair(
  timed: readonly TimedChange[],
  residuals: readonly (readonly number[])[],
  visit: (one: Mover, other: Mover, difference: number) => void,
): void {
  timed.forEach(({ change: { movers } }, row) => {
    for (let one = 0; one < movers.length; one += 1)
      for (let other = one + 1; other < movers.length; other += 1) visit(movers[one], movers[other], residuals[row][one] - residuals[row][other]);
  });
}

/** Deviations of the fingers from the mean squares of their differences: least squares in the variances, a few turns, then drawn towards the common one. */
function solveSigmas(
  timed: readonly TimedChange[],
  residuals: readonly (readonly number[])[],
  fingers: readonly FingerId[],
  rho: number,
  pooled: number,
): readonly number[] {
  const sums = new Map<string, { one: number; other: number; squares: number; count: number; shared: number }>();
  eachPair(timed, residuals, (one, other, difference) => {
    const [low, high] = [fingers.indexOf(one.finger), fingers.indexOf(other.finger)].sort((a, b) => a - b);
    const found = sums.get(`${low} ${high}`) ?? { one: low, other: high, squares: 0, count: 0, shared: sharedOf(one, other, rho) };
    sums.set(`${low} ${high}`, { ...found, squares: found.squares + difference * difference, count: found.count + 1 });
  });
  const pairs = [...sums.values()];
  // How strongly a finger that few differences tell is drawn to the common deviation, in differences.
  const prior = 4;
  let sigmas = fingers.map(() => pooled);
  for (let turn = 0; turn < turns; turn += 1) {
    sigmas = sigmas.map((own, finger) => {
      let [total, weight] = [prior * pooled * pooled, prior];
      for (const { one, other, squares, count, shared } of pairs) {
        if (one !== finger && other !== finger) continue;
        const beside = sigmas[one === finger ? other : one];
        const variance = (squares / count) * correction(count) - beside * beside + 2 * shared * own * beside;
        total += count * Math.max(0, variance);
        weight += count;
      }
      return (own + Math.sqrt(total / weight)) / 2;
    });
  }
  return sigmas;
}
