/** A climb in tempos, in beats a minute. */
export interface LadderPlan {
  readonly start: number;
  readonly step: number;
  /** Never faster than that. */
  readonly ceiling: number;
}

/** How one rung went: all its times through together. A rung that nobody judged is climbed all the same. */
export type RungRating = 'clean' | 'nearly' | 'slip' | 'unjudged';

export interface Rung {
  readonly tempo: number;
  readonly rating: RungRating;
}

export interface Ladder {
  readonly plan: LadderPlan;
  /** What was played, in its order. */
  readonly rungs: readonly Rung[];
  /** At which tempo the next one is played; undefined where the ladder has ended. */
  readonly next: number | undefined;
}

const slowest = 20;
/** So many rungs under the best one a climb begins. */
const underBest = 3;

/**
 * A climb for somebody whose fastest clean tempo is known, or not: three rungs under the best, else at three fifths of the ceiling.
 * @param ceiling the tempo that is wanted in the end
 */
export function ladderPlan(ceiling: number, best: number | undefined, step = 6): LadderPlan {
  const wanted = best === undefined ? Math.round((0.6 * ceiling) / step) * step : Math.min(best, ceiling) - underBest * step;
  return { start: Math.max(slowest, Math.min(ceiling, wanted)), step, ceiling };
}

export const ladderAt = (plan: LadderPlan): Ladder => ({ plan, rungs: [], next: plan.start });

/**
 * The ladder after one more rung: a slip ends it at once; nearly counts neither way and is played once more; anything else goes one rung up, until the ceiling has been played.
 * A ladder that has ended stays as it is.
 */
export function climbed(ladder: Ladder, rating: RungRating): Ladder {
  const { plan, rungs, next } = ladder;
  if (next === undefined) return ladder;
  const played = [...rungs, { tempo: next, rating }];
  if (rating === 'slip') return { plan, rungs: played, next: undefined };
  if (rating === 'nearly') return { plan, rungs: played, next };
  return { plan, rungs: played, next: next >= plan.ceiling ? undefined : Math.min(plan.ceiling, next + plan.step) };
}

/** What nobody judged, judged at the end in one word. */
export const judgedAtEnd = ({ plan, rungs, next }: Ladder, wasClean: boolean): Ladder => ({
  plan,
  next,
  rungs: wasClean ? rungs.map((rung) => (rung.rating === 'unjudged' ? { ...rung, rating: 'clean' as const } : rung)) : rungs,
});

/** The fastest tempo that was clean; undefined where none was judged so. */
export function ladderScore({ rungs }: Pick<Ladder, 'rungs'>): number | undefined {
  const clean = rungs.flatMap(({ tempo, rating }) => (rating === 'clean' ? [tempo] : []));
  return clean.length === 0 ? undefined : Math.max(...clean);
}

/** True where something was played that nobody has judged. */
export const asksAtEnd = ({ rungs, next }: Ladder): boolean => next === undefined && rungs.some(({ rating }) => rating === 'unjudged');

/** What the end of a climb is answered with: "Clean at 60, slipped at 66. Tomorrow starts at 48." */
export function ladderText(ladder: Ladder): string {
  const { plan, rungs } = ladder;
  const score = ladderScore(ladder);
  const slip = rungs.find(({ rating }) => rating === 'slip')?.tempo;
  const start = ladderPlan(plan.ceiling, score, plan.step).start;
  const tomorrow = score === undefined ? `Next time from ${plan.start} again, or slower.` : `Next time starts at ${start}.`;
  if (slip !== undefined) return `${score === undefined ? 'A slip' : `Clean at ${score}, slipped`} at ${slip}. ${tomorrow}`;
  if (score === undefined) return `Played up to ${rungs.at(-1)?.tempo ?? plan.start}; nobody has judged it.`;
  return score >= plan.ceiling ? `Clean at ${score}: that is the whole tempo.` : `Clean at ${score}. ${tomorrow}`;
}
