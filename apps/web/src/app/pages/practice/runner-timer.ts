import { computed, Injectable, signal, type OnDestroy } from '@angular/core';

/** Between two times, in seconds: a breath. Our own choice. */
const breath = 3;
const tickMs = 100;

/** Counts down what has no notes: so many times, so many seconds each, a breath between them. */
@Injectable()
export class RunnerTimer implements OnDestroy {
  private timer: ReturnType<typeof setInterval> | undefined;
  private readonly wish = signal({ seconds: 0, times: 0, startedAt: 0 });
  private readonly now = signal(0);
  readonly isRunning = signal(false);

  private readonly gone = computed(() => (this.now() - this.wish().startedAt) / 1000);
  /** Which time it is, from 1. */
  readonly time = computed(() => Math.min(this.wish().times, Math.floor(this.gone() / (this.wish().seconds + breath)) + 1));
  /** True in the breath after a time. */
  readonly isBreath = computed(() => this.within() >= this.wish().seconds);
  /** Whole seconds that are left of this time, or of the breath. */
  readonly left = computed(() => Math.max(0, Math.ceil((this.isBreath() ? this.wish().seconds + breath : this.wish().seconds) - this.within())));
  private readonly within = computed(() => this.gone() - (this.time() - 1) * (this.wish().seconds + breath));

  ngOnDestroy(): void {
    this.stop();
  }

  /** @param done when the last time is over */
  start(seconds: number, times: number, done: () => void): void {
    this.stop();
    const startedAt = Date.now();
    this.wish.set({ seconds, times, startedAt });
    this.now.set(startedAt);
    this.isRunning.set(true);
    const all = times * (seconds + breath) - breath;
    this.timer = setInterval(() => {
      this.now.set(Date.now());
      if (this.gone() < all) return;
      this.stop();
      done();
    }, tickMs);
  }

  stop(): void {
    clearInterval(this.timer);
    this.isRunning.set(false);
  }
}
