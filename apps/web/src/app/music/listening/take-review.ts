import { computed, signal, type Signal } from '@angular/core';
import type { Decision } from '@zelpit/core/listening';

/** One place of a take that was judged: a change, or a note with its grace notes. */
export interface JudgedPlace {
  /** From 1, in the order of playing. */
  readonly number: number;
  /** In ms from the beginning of the take. */
  readonly at: number;
  readonly verdict: string;
}

/** How places of a kind are judged. */
export interface Judging<T> {
  readonly worstFirst: (all: readonly T[], decided: ReadonlyMap<number, Decision>) => readonly T[];
  readonly isFaulty: (place: T, decided: ReadonlyMap<number, Decision>) => boolean;
}

const nearlyShare = 0.75;

/** What a person makes of the places of a take: which one is chosen, what they decided, what is listed. */
export class TakeReview<T extends JudgedPlace> {
  /** What a person decided, by the number of the place. */
  readonly decided = signal<ReadonlyMap<number, Decision>>(new Map());
  readonly chosenNumber = signal(1);
  readonly showsClean = signal(false);
  readonly isLogged = signal(false);
  readonly isPlanned = signal(false);
  readonly worst = computed(() => this.judging.worstFirst(this.all(), this.decided()));
  readonly cleanCount = computed(() => this.all().length - this.worst().length);
  /** The worst first; what is clean only where it is asked for, or where all is. */
  readonly listed = computed((): readonly T[] => {
    const [all, worst] = [this.all(), this.worst()];
    return worst.length > 0 && !this.showsClean() ? worst : [...worst, ...all.filter((place) => !worst.includes(place))];
  });
  readonly chosen = computed(() => this.all().find(({ number }) => number === this.chosenNumber()) ?? this.all().at(0));
  /** As in the logbook. */
  readonly rating = computed((): 'clean' | 'nearly' | 'not-yet' => {
    const share = this.all().filter((place) => !this.isFaulty(place)).length / Math.max(1, this.all().length);
    if (share === 1) return 'clean';
    return share >= nearlyShare ? 'nearly' : 'not-yet';
  });

  constructor(
    readonly all: Signal<readonly T[]>,
    private readonly judging: Judging<T>,
  ) {}

  isFaulty(place: T): boolean {
    return this.judging.isFaulty(place, this.decided());
  }

  /** Of another take nothing of this one stays. */
  begin(): void {
    this.isLogged.set(false);
    this.isPlanned.set(false);
    this.showsClean.set(false);
    this.decided.set(new Map());
  }

  /** The first that is looked at is the worst. */
  choosesWorst(): void {
    this.chosenNumber.set(this.worst().at(0)?.number ?? 1);
  }

  decide(decision: Decision): void {
    const place = this.chosen();
    if (place === undefined || place.verdict === 'clean') return;
    this.decided.update((decided) => new Map([...decided, [place.number, decision]]));
    this.isLogged.set(false);
  }

  step(by: number): void {
    const all = this.listed();
    const at = all.findIndex((place) => place === this.chosen());
    const next = all.at(Math.max(0, Math.min(all.length - 1, at + by)));
    if (next !== undefined) this.chosenNumber.set(next.number);
  }
}
