import { madeUpNote, type AttemptInput } from '@zelpit/contract';
import { climbed, instrumentById, ladderAt, ladderPlan, ladderScore, lineTitle, seededRandom, type RungRating } from '@zelpit/core';

/** What somebody practises in the demo: where the tempo began and what it tends to. */
export interface DemoItem {
  /** What it is called; a change is called by its notes. */
  readonly title?: string;
  readonly pair?: readonly [home: string, other: string];
  readonly kind: AttemptInput['kind'];
  readonly from: number;
  readonly to: number;
  /** Weeks after which about two thirds of the way are gone. */
  readonly weeks: number;
  /** The first and the last week of the half-year in which it was practised. */
  readonly between: readonly [first: number, last: number];
}

export interface DemoLearner {
  readonly alias: string;
  readonly model: string;
  /** Chance of a day with practice. */
  readonly diligence: number;
  readonly items: readonly DemoItem[];
}

/** What something in the demo's log is called. */
export const demoTitle = (model: string, { title = '', pair }: DemoItem): string =>
  pair === undefined ? title : lineTitle(instrumentById(model), { home: pair[0], other: pair[1] });

export type LoggedInput = Omit<AttemptInput, 'studentId'>;

export const weeksOfLog = 26;
const dayMs = 86_400_000;

/**
 * Half a year of practice, by a model of learning: the tempo at which half of the tries are clean nears its end exponentially, and a try is clean the more surely the slower it
 * is against that. The same seed gives the same log.
 * @param now the log ends the day before, in ms
 */
export function demoLog({ model, diligence, items }: DemoLearner, now: number, seed: number): readonly LoggedInput[] {
  const random = seededRandom(seed);
  const log: LoggedInput[] = [];
  const firstDay = Math.floor(now / dayMs) * dayMs - weeksOfLog * 7 * dayMs;
  for (let day = 0; day < weeksOfLog * 7; day += 1) {
    const week = day / 7;
    const current = items.filter(({ between: [first, last] }) => week >= first && week < last);
    if (current.length === 0 || random() > diligence) continue;
    let at = firstDay + day * dayMs + 15.5 * 3_600_000 + Math.floor(random() * 90) * 60_000;
    const isLadderDay = day % 7 === 5;
    current.slice(0, 3).forEach((item, place) => {
      const half = item.from + (item.to - item.from) * (1 - Math.exp(-(week - item.between[0]) / item.weeks));
      const chance = (tempo: number): number => 1 / (1 + Math.exp((tempo - half) / 3));
      const common = { itemId: null, lessonId: null, title: demoTitle(model, item), kind: item.kind, model, device: 'tablet', note: madeUpNote } as const;
      if (isLadderDay && place === 0 && item.kind !== 'words') {
        let ladder = ladderAt(ladderPlan(item.to, Math.round(half)));
        while (ladder.next !== undefined) {
          const rating: RungRating = random() < chance(ladder.next) ? 'clean' : 'slip';
          ladder = climbed(ladder, rating);
        }
        const seconds = ladder.rungs.length * 45;
        const rating = ladderScore(ladder) === item.to ? 'clean' : 'not-yet';
        const { plan, rungs } = ladder;
        log.push({
          ...common,
          ...{ tempo: rungs.at(-1)?.tempo ?? plan.start, count: rungs.length, rating, seconds, at: new Date(at).toISOString() },
          ladder: { ...plan, rungs: rungs.map((rung) => ({ ...rung })) },
        });
        at += seconds * 1000;
        return;
      }
      const tempo = Math.max(20, Math.round((half - 4 + random() * 8) / 2) * 2);
      const seconds = 60 + Math.floor(random() * 120);
      const rating = ratingOf(random(), random() < chance(tempo));
      log.push({ ...common, tempo, count: 8, rating, seconds, ladder: null, at: new Date(at).toISOString() });
      at += (seconds + 30) * 1000;
    });
  }
  return log;
}

/** Every seventh try or so nobody judges; what was not clean is called nearly about half the time. */
function ratingOf(luck: number, isClean: boolean): AttemptInput['rating'] {
  if (luck < 0.15) return 'unjudged';
  if (isClean) return 'clean';
  return luck > 0.6 ? 'not-yet' : 'nearly';
}
