import { Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { partText } from '@zelpit/core/movement';
import { TipComponent } from '../../kernel/tip/tip.component';
import { Attempt } from '../../kernel/api/attempt';
import { NoticeService } from '../../kernel/notices/notice.service';
import { capital, dayInWords } from '../../kernel/words/words';
import { SessionService } from '../../kernel/session/session.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { MovementInHand } from './movement-in-hand.service';

/** How a movement is played, in words: shown once to be confirmed or changed, and afterwards on request. */
@Component({
  selector: 'zp-movement-confirm',
  imports: [TipComponent, RouterLink],
  template: `
    @if (kept(); as kept) {
      <details class="movement-definition">
        <summary>{{ keptText() }}</summary>
        <ol>
          @for (part of parts(); track $index) {
            <li>{{ part }}</li>
          }
        </ol>
        @if (isStaff()) {
          <p class="d-flex flex-wrap gap-3">
            <a class="word" routerLink="/movements/make" [queryParams]="{ from: hand.chosen().id }">Change it</a>
            <button type="button" class="word" [disabled]="attempt.isBusy()" (click)="takeBack()">{{ isOwn() ? 'Delete it' : 'Withdraw' }}</button>
          </p>
        }
      </details>
    } @else if (isStaff()) {
      <section class="movement-definition is-open" aria-label="Is this how you play it?">
        <h2 class="heading">Is this how you play the {{ hand.chosen().names[0] }}?</h2>
        <ol>
          @for (part of parts(); track $index) {
            <li>{{ part }}</li>
          }
        </ol>
        <p class="d-flex flex-wrap gap-3 align-items-center">
          <button type="button" class="btn btn-line btn-low" [disabled]="attempt.isBusy()" (click)="confirm()">Yes, this is it</button
          ><zp-tip about="a yes">A yes is shown to all teachers of this studio with your name and the date. It changes nothing in the lines.</zp-tip>
          <a class="word" routerLink="/movements/make" [queryParams]="{ from: hand.chosen().id }">No, change it</a>
        </p>
      </section>
    }
    @if (attempt.fault()) {
      <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
    }
  `,
})
export class MovementConfirmComponent {
  private readonly book = inject(MovementBook);
  private readonly session = inject(SessionService);
  private readonly notices = inject(NoticeService);
  protected readonly hand = inject(MovementInHand);
  protected readonly attempt = new Attempt();
  protected readonly isStaff = computed(() => !this.session.isFamily());

  protected readonly kept = computed(() => this.book.keptFor(this.hand.chosen().id));
  protected readonly parts = computed(() => this.hand.chosen().parts.map((part) => capital(partText(this.hand.instrument(), part))));
  /** True for a movement that is not built in. */
  protected readonly isOwn = computed(() => {
    const kept = this.kept();
    return kept !== undefined && !this.book.isBuiltIn(kept.movement);
  });
  protected readonly keptText = computed(() => {
    const kept = this.kept();
    if (kept === undefined) return '';
    const did = this.isOwn() ? 'Made' : 'Changed';
    return `${kept.definition === null ? 'Confirmed' : did} by ${kept.by}, ${dayInWords(kept.on)}. Show how it is played`;
  });

  protected confirm(): void {
    this.attempt.run(this.book.confirm(this.hand.chosen().id), () => this.notices.done(`The ${this.hand.chosen().names[0]} is confirmed.`));
  }

  protected takeBack(): void {
    const kept = this.kept();
    if (kept === undefined) return;
    const { names } = this.hand.chosen();
    const again = (): void => void this.book.bringBack(kept).subscribe({ error: (error: unknown) => this.notices.fault(error) });
    this.attempt.run(this.book.drop(kept), () => this.notices.done(`The ${names[0]} is no longer confirmed.`, again));
  }
}
