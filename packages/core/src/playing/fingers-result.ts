import type { Change } from '../change';
import type { FingerId, NoteId } from '../fingering';
import type { TimingParameters } from '../timing';
import { fewestRepetitions, fitTiming, timingOf, type Estimate, type FittedTiming } from './fit-timing';
import type { PlayedChange, Verdict } from './judge-playing';

/** What changes that were played show, to be kept with a student. */
export interface FingersResult {
  readonly kind: 'fingers';
  readonly from: NoteId;
  readonly to: NoteId;
  readonly verdicts: Record<Verdict, number>;
  /** Mean length of what was heard between two notes, in ms. */
  readonly meanMs: number;
  /** Null where too few were played. */
  readonly timing: (TimingParameters & { readonly sigmaOf: Record<FingerId, number>; readonly biasOf: Record<FingerId, number> }) | null;
  readonly fingers: { readonly finger: FingerId; readonly bias: Estimate; readonly sigma: Estimate; readonly count: number }[];
}

/** What is kept of one change that was played: its verdict, and for how long something was heard. */
export interface JudgedMove {
  readonly verdict: Verdict;
  readonly heard: readonly { readonly ms: number }[];
}

/** Longer is no change any more, in ms. */
const longestMean = 60_000;
const rounded = (value: number): number => Math.round(value * 10) / 10;
const roundedEstimate = ({ value, error }: Estimate): Estimate => ({ value: rounded(value), error: rounded(error) });

/** How many changes had each verdict. */
export function verdictCounts(played: readonly Pick<JudgedMove, 'verdict'>[]): Record<Verdict, number> {
  const counts: Record<Verdict, number> = { clean: 0, low: 0, run: 0, 'over-open': 0 };
  for (const { verdict } of played) counts[verdict] += 1;
  return counts;
}

/** The timing of changes that were played; undefined where there are too few of two fingers and more. */
export function fitPlayed(changes: readonly Change[], played: readonly PlayedChange[]): FittedTiming | undefined {
  const timed = played.map(({ index, moments }) => ({ change: changes[index], moments }));
  return timed.filter(({ moments }) => moments.length > 1).length < fewestRepetitions ? undefined : fitTiming(timed);
}

/** What is kept of changes of one pair of notes; with a player's own timing where it could be fitted. */
export function fingersResult(
  pair: { readonly from: NoteId; readonly to: NoteId },
  played: readonly JudgedMove[],
  fitted: FittedTiming | undefined,
): FingersResult {
  const heard = played.reduce((sum, each) => sum + each.heard.reduce((all, { ms }) => all + ms, 0), 0);
  return {
    ...{
      kind: 'fingers',
      from: pair.from,
      to: pair.to,
      verdicts: verdictCounts(played),
      meanMs: Math.min(longestMean, rounded(heard / Math.max(1, played.length))),
    },
    timing: fitted === undefined ? null : timingOf(fitted),
    fingers: (fitted?.fingers ?? []).map(({ finger, bias, sigma, count }) => ({ finger, bias: roundedEstimate(bias), sigma: roundedEstimate(sigma), count })),
  };
}

/** A player's own timing in a sentence, or what is needed for it. */
export function fitText(fitted: FittedTiming | undefined): string {
  if (fitted === undefined) return `Play ${fewestRepetitions} changes of two or more fingers, and your own timing appears here.`;
  const lead = fitted.lead.value;
  const order = `lifts come ${Math.abs(lead).toFixed(0)} ms ${lead < 0 ? 'after' : 'before'} landings`;
  return `From ${fitted.repetitions} changes: your fingers vary by ${fitted.sigma.value.toFixed(0)} ms; ${order}.`;
}
