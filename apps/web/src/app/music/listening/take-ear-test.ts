import { computed, signal } from '@angular/core';
import { earAnswersText, fewestOfEach, takeQuestions, type EarAnswer } from '@zelpit/core/hearing';
import type { Decision } from '@zelpit/core/listening';
import type { JudgedPlace, TakeReview } from './take-review';

/** What is certain, or was decided by a person, can be asked for. */
const isSettled = <T extends JudgedPlace>(review: TakeReview<T>, { number, verdict }: T): boolean => verdict !== 'unsure' || review.decided().has(number);

/** An ear test on the own take: its places one after the other, without their names; clean or not? */
export class TakeEarTest<T extends JudgedPlace> {
  private readonly questions = signal<readonly T[]>([]);
  private readonly answers = signal<readonly EarAnswer[]>([]);
  readonly isOpen = computed(() => this.questions().length > 0);
  readonly count = computed(() => this.questions().length);
  /** From 1. */
  readonly number = computed(() => this.answers().length + 1);
  /** What is asked for now; undefined when all were answered. */
  readonly current = computed(() => this.questions().at(this.answers().length));
  /** What was answered, the last one first, with how it was. */
  readonly answered = computed(() =>
    this.answers()
      .map(({ isFaulty, heardAsFaulty }, index) => ({ place: this.questions()[index], isRight: isFaulty === heardAsFaulty, heardAsFaulty }))
      .reverse(),
  );
  readonly text = computed(() => (this.isOpen() && this.current() === undefined ? earAnswersText(this.answers()) : ''));

  constructor(private readonly review: () => TakeReview<T>) {}

  private readonly settled = computed(() => {
    const review = this.review();
    const places = review.all().filter((place) => isSettled(review, place));
    return { clean: places.filter((place) => !review.isFaulty(place)), faulty: places.filter((place) => review.isFaulty(place)) };
  });
  /** True where the take has enough places of both kinds. */
  readonly isPossible = computed(() => Math.min(this.settled().clean.length, this.settled().faulty.length) >= fewestOfEach);

  begin(): void {
    this.answers.set([]);
    const { clean, faulty } = this.settled();
    this.questions.set(takeQuestions(clean, faulty, Math.random));
  }

  answer(decision: Decision): void {
    const place = this.current();
    if (place === undefined) return;
    const isFaulty = this.review().isFaulty(place);
    this.answers.update((answers) => [...answers, { isFaulty, heardAsFaulty: decision === 'faulty' }]);
  }

  close(): void {
    this.questions.set([]);
    this.answers.set([]);
  }
}
