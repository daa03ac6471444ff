import { DatePipe } from '@angular/common';
import { Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { accountRoutes, type Mail } from '@zelpit/contract';
import { ApiService, messageOf } from '../../kernel/api/api.service';
import { FrontComponent } from './front.component';

interface ShownMail extends Mail {
  /** Pieces of the text; a link is one of its own. */
  readonly pieces: readonly { readonly text: string; readonly isLink: boolean }[];
}

/** The outbox: mails that were not sent, where no mail leaves this computer. */
@Component({
  selector: 'zp-outbox',
  imports: [FrontComponent, DatePipe, RouterLink],
  template: `
    <zp-front heading="Outbox.">
      <p class="front-said">This copy of Zelpit does not send e-mail. Its messages wait here: copy the links and pass them on yourself.</p>
      @if (fault()) {
        <p class="fault-text" role="alert">{{ fault() }}</p>
      } @else if (mails(); as all) {
        <ul class="rows">
          @for (mail of all; track mail.id) {
            <li class="mail">
              <h2 class="mail-subject">{{ mail.subject }}</h2>
              <p class="second mb-2">to {{ mail.to }}, {{ mail.at | date: 'd MMMM, HH:mm' }}</p>
              <p class="mail-body">
                @for (piece of mail.pieces; track $index) {
                  @if (piece.isLink) {
                    <a [href]="piece.text">{{ piece.text }}</a>
                  } @else {
                    {{ piece.text }}
                  }
                }
              </p>
            </li>
          } @empty {
            <li class="second">No messages yet.</li>
          }
        </ul>
      } @else {
        <p class="second" role="status">Loading …</p>
      }
      <p class="front-ways"><a class="word" routerLink="/sign-in">Back to sign in</a></p>
    </zp-front>
  `,
})
export class OutboxPage {
  protected readonly mails = signal<readonly ShownMail[] | undefined>(undefined);
  protected readonly fault = signal('');

  constructor() {
    inject(ApiService)
      .all(accountRoutes.outbox, {})
      .subscribe({
        next: (mails) => this.mails.set(mails.map((mail) => ({ ...mail, pieces: piecesOf(mail.body) }))),
        error: (error: unknown) => this.fault.set(messageOf(error)),
      });
  }
}

function piecesOf(body: string): ShownMail['pieces'] {
  return body.split(/(https?:\/\/\S+)/).map((text) => ({ text, isLink: /^https?:\/\//.test(text) }));
}
