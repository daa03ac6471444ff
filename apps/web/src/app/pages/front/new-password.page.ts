import { Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { resetHours } from '@zelpit/contract';
import { count } from '@zelpit/core/words';
import { messageOf } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { FrontComponent } from './front.component';
import { SessionService } from '../../kernel/session/session.service';

/** Asks for a link that sets a new password. */
@Component({
  selector: 'zp-new-password',
  imports: [FormsModule, RouterLink, FrontComponent],
  template: `
    <zp-front heading="Reset your password.">
      @if (isAsked()) {
        <p class="front-said" role="status">
          If there is an account with this address, we have sent it a link. The link works once, within {{ count(hours, 'hour') }}. Until you use it, your old
          password still works.
        </p>
      } @else {
        <p class="front-said">Enter the e-mail address of your account. We will send you a link to choose a new password.</p>
        <form (ngSubmit)="ask()" novalidate>
          <label class="form-label" for="email">E-mail address</label>
          <input id="email" name="email" type="email" class="form-control mb-3" autocomplete="username" [(ngModel)]="email" />
          @if (attempt.fault()) {
            <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
          }
          <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy()">Send the link</button>
        </form>
      }
      <p class="front-ways">
        <a class="word" routerLink="/sign-in">Back to sign in</a>
        @if (session.hasOutbox()) {
          <a class="word" routerLink="/outbox">Outbox</a>
        }
      </p>
    </zp-front>
  `,
})
export class NewPasswordPage {
  protected readonly count = count;
  protected readonly session = inject(SessionService);
  protected readonly hours = resetHours;
  protected readonly attempt = new Attempt();
  protected readonly isAsked = signal(false);
  protected email = '';

  constructor() {
    this.session.load().catch((error: unknown) => this.attempt.fault.set(messageOf(error)));
  }

  protected ask(): void {
    this.attempt.run(this.session.askReset(this.email), () => this.isAsked.set(true));
  }
}
