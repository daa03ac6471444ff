import { computed, inject, Injectable, signal } from '@angular/core';
import type { AttemptInput, AttemptRating, OpenedLine } from '@zelpit/contract';
import {
  asksAtEnd,
  climbed,
  judgedAtEnd,
  ladderAt,
  ladderPlan,
  ladderScore,
  ladderText,
  logbookOf,
  loggedOf,
  longestTitle,
  type Ladder,
  type RungRating,
} from '@zelpit/core/practice';
import { KeptForLater } from '../../kernel/saving/outgoing.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { AttemptsService } from '../../studio/attempts/attempts.service';

/** Something that was played and is not logged yet. */
interface Played {
  readonly startedAt: number;
  readonly seconds: number;
  readonly tempo: number | null;
  readonly count: number;
}

/** Shorter tries that were broken off are none. */
const leastSeconds = 5;
const [phoneWidth, tabletWidth] = [600, 1100];

/** Logs what is played in the runner: one try at a time, judged by a key or by nobody, or a climb in tempos. */
@Injectable()
export class RunnerLog {
  private readonly attempts = inject(AttemptsService);
  private readonly notices = inject(NoticeService);
  private opened: OpenedLine | undefined;
  private title = '';
  private startedAt = 0;
  private tempo: number | null = null;
  /** What of the item is played: "first half"; empty for all of it. */
  private part = '';
  private climbedSince = 0;
  /** What the climb was judged by, where that was by listening. */
  private heard = '';
  private readonly played = signal<Played | undefined>(undefined);

  readonly ladder = signal<Ladder | undefined>(undefined);
  /** True between the rungs of a ladder, and at its end where something was judged by nobody. */
  private readonly asksForRung = signal(false);
  /** Fastest clean tempo at this item. */
  readonly best = signal<number | undefined>(undefined);
  /** True while a key judges what was just played. */
  readonly isAsking = computed(() => this.asksForRung() || this.played() !== undefined);
  /** What the last climb came to; empty before the first. */
  readonly lastWords = signal('');
  readonly isClimbing = computed(() => this.ladder()?.next !== undefined);
  readonly ladderText = computed(() => {
    const ladder = this.ladder();
    if (ladder === undefined || ladder.next !== undefined) return '';
    return this.asksForRung() ? `${ladderText(ladder)} Were the others clean?` : ladderText(ladder);
  });

  /** Another item is practised from now on. */
  open(opened: OpenedLine, title: string): void {
    this.flush();
    this.opened = opened;
    this.title = title;
    this.best.set(undefined);
    this.attempts.of(opened.student.id, { title: title.slice(0, longestTitle) }).subscribe({
      next: (all) => this.best.set(logbookOf(all.filter(({ kind }) => kind === opened.line.kind).map(loggedOf), Date.now()).items.at(0)?.best),
      // Who is offline practises without a best.
      error: () => undefined,
    });
  }

  /** It begins to sound. @param tempo null for an own pace @param part what of it is played: "first half"; it is something of its own in the log */
  began(tempo: number | null, part = ''): void {
    if (!this.isClimbing()) this.flush();
    this.startedAt = Date.now();
    this.tempo = tempo;
    this.part = this.isClimbing() ? '' : part;
  }

  /** It has ended, or was broken off after so many times through. */
  ended(count: number, isWhole: boolean): void {
    const seconds = Math.round((Date.now() - this.startedAt) / 1000);
    if (!isWhole && seconds < leastSeconds) return;
    this.played.set({ startedAt: this.startedAt, seconds, tempo: this.tempo, count });
  }

  judge(rating: AttemptRating): void {
    const played = this.played();
    this.played.set(undefined);
    if (played === undefined) return;
    this.log({ ...played, rating, ladder: null });
    if (rating === 'clean' && played.tempo !== null && this.part === '') this.best.update((best) => Math.max(best ?? 0, played.tempo ?? 0));
  }

  /** What nobody judged is logged as that. */
  flush(): void {
    if (this.ladder() !== undefined) this.endLadder();
    this.judge('unjudged');
  }

  /** @param ceiling the tempo that is wanted in the end */
  startLadder(ceiling: number): void {
    this.flush();
    this.heard = '';
    this.ladder.set(ladderAt(ladderPlan(ceiling, this.best())));
    this.climbedSince = Date.now();
  }

  /** A rung was played through: a key may judge it before the next one begins. */
  rungEnded(): void {
    this.asksForRung.set(true);
  }

  /** @param heard what a rung was judged by, where that was by listening */
  rated(rating: RungRating, heard = ''): void {
    if (heard !== '') this.heard = heard;
    this.asksForRung.set(false);
    this.ladder.update((ladder) => (ladder === undefined ? undefined : climbed(ladder, rating)));
    const ladder = this.ladder();
    if (ladder === undefined || ladder.next !== undefined) return;
    if (asksAtEnd(ladder)) this.asksForRung.set(true);
    else this.endLadder();
  }

  /** At the end, in one word, what nobody judged on the way. */
  judgeRest(wasClean: boolean): void {
    this.ladder.update((ladder) => (ladder === undefined ? undefined : judgedAtEnd(ladder, wasClean)));
    this.endLadder();
  }

  /** Ends the climb, wherever it stands, and logs it; its last words stay until something else begins. */
  endLadder(): void {
    const ladder = this.ladder();
    this.asksForRung.set(false);
    if (ladder === undefined) return;
    const { plan, rungs } = ladder;
    const last = rungs.at(-1);
    this.ladder.set(undefined);
    if (last === undefined) return;
    const score = ladderScore(ladder);
    const isUnjudged = rungs.every((rung) => rung.rating === 'unjudged');
    const below = isUnjudged ? 'unjudged' : 'not-yet';
    const rating = score !== undefined && score >= plan.ceiling ? 'clean' : below;
    this.log({
      ...{ startedAt: this.climbedSince, seconds: Math.round((Date.now() - this.climbedSince) / 1000), tempo: last.tempo, count: rungs.length, rating },
      ladder: { ...plan, rungs: rungs.map((rung) => ({ ...rung })) },
      note: this.heard,
    });
    if (score !== undefined) this.best.update((best) => Math.max(best ?? 0, score));
    this.lastWords.set(ladderText(ladder));
  }

  private log({ startedAt, note = '', ...attempt }: Played & Pick<AttemptInput, 'rating' | 'ladder'> & { readonly note?: string }): void {
    const opened = this.opened;
    if (opened === undefined) return;
    const input: AttemptInput = {
      ...{
        ...attempt,
        studentId: opened.student.id,
        itemId: opened.line.id,
        lessonId: null,
        title: (this.part === '' ? this.title : `${this.title}, ${this.part}`).slice(0, longestTitle) || 'A line',
        kind: opened.line.kind,
      },
      ...{ model: opened.instrument, device: deviceOf(window.innerWidth), note: note.slice(0, 300), at: new Date(startedAt).toISOString() },
    };
    this.attempts.add(input).subscribe({
      error: (error: unknown) => {
        // It is kept here and sent later: practising goes on without a word.
        if (!(error instanceof KeptForLater)) this.notices.fault(error);
      },
    });
  }
}

const deviceOf = (width: number): AttemptInput['device'] => {
  if (width < phoneWidth) return 'phone';
  return width < tabletWidth ? 'tablet' : 'desk';
};
