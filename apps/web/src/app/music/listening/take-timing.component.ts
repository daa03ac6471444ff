import { Component, inject, input, linkedSignal } from '@angular/core';
import type { FingersResult } from '@zelpit/core/playing';
import { NoticeService } from '../../kernel/notices/notice.service';
import { KeptForLater } from '../../kernel/saving/outgoing.service';
import { TrialsService } from '../../studio/trials/trials.service';
import { TakeSource } from './take-source.service';

/** How the fingers of a player keep together, in words; with one word it is used for changes, lines and tunes from now on. */
@Component({
  selector: 'zp-take-timing',
  template: `
    <p>
      {{ text() }}
      @if (result() && !source.isComputed()) {
        <button type="button" class="word" [disabled]="isUsed()" (click)="use()">
          {{ isUsed() ? 'In use' : 'Use it for ' + (source.who()?.alias ?? 'myself') }}
        </button>
      }
    </p>
  `,
})
export class TakeTimingComponent {
  private readonly trials = inject(TrialsService);
  private readonly notices = inject(NoticeService);
  protected readonly source = inject(TakeSource);
  readonly text = input.required<string>();
  /** Undefined where too little is known to be used. */
  readonly result = input<FingersResult>();
  /** The model that it was played on. */
  readonly model = input.required<string>();
  protected readonly isUsed = linkedSignal({ source: this.result, computation: () => false });

  protected use(): void {
    const [result, player] = [this.result(), this.source.who()];
    if (result === undefined || this.isUsed() || this.source.isComputed()) return;
    this.trials.add({ studentId: player?.id ?? null, model: this.model(), result: { ...result, isTaken: true } }, 'the timing').subscribe({
      next: () => this.used(player?.alias),
      error: (error: unknown) => (error instanceof KeptForLater ? this.used(player?.alias) : this.notices.fault(error)),
    });
  }

  private used(alias = 'you'): void {
    this.isUsed.set(true);
    this.notices.done(`Saved. Changes, lines and tunes now use this timing for ${alias}.`);
  }
}
