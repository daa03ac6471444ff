import { Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { doorDigits, shortestPassword, type Link } from '@zelpit/contract';
import { messageOf } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { FrontComponent } from './front.component';
import { SessionService } from '../../kernel/session/session.service';

/** Where a one-time link leads: joining a studio, a new password, a student's own pages, a parent's look at them. */
@Component({
  selector: 'zp-link',
  imports: [FormsModule, RouterLink, FrontComponent],
  template: `
    @if (link(); as found) {
      @switch (found.purpose) {
        @case ('parent') {
          <zp-front [heading]="'What ' + found.name + ' practises.'">
            <p class="front-said">This shows what {{ found.name }} was asked in {{ found.studio }}, and what was done. Nothing can be changed here.</p>
            <button type="button" class="btn btn-solid" [disabled]="attempt.isBusy()" (click)="take()">Have a look</button>
            @if (attempt.fault()) {
              <p class="fault-text mt-3" role="alert">{{ attempt.fault() }}</p>
            }
          </zp-front>
        }
        @case ('door') {
          <zp-front [heading]="'Practice for ' + found.name + '.'">
            <p class="front-said">This is {{ found.name }}’s private link to {{ found.studio }}. The code came with it.</p>
            <form (ngSubmit)="take()" novalidate>
              <label class="form-label" for="code">Code ({{ digits }} digits)</label>
              <input id="code" name="code" class="form-control mb-3" inputmode="numeric" autocomplete="one-time-code" [maxlength]="digits" [(ngModel)]="code" />
              @if (attempt.fault()) {
                <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
              }
              <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy()">Open the sheets</button>
            </form>
          </zp-front>
        }
        @case ('student') {
          <zp-front [heading]="'Practice for ' + found.name + '.'">
            <p class="front-said">This opens {{ found.name }}’s sheets from {{ found.studio }} on this device.</p>
            <button type="button" class="btn btn-solid" [disabled]="attempt.isBusy()" (click)="take()">Open the sheets</button>
            @if (attempt.fault()) {
              <p class="fault-text mt-3" role="alert">{{ attempt.fault() }}</p>
            }
          </zp-front>
        }
        @default {
          <zp-front [heading]="found.purpose === 'invitation' ? 'Join ' + found.studio + '.' : 'Choose a new password.'">
            <p class="front-said">{{ found.email }}</p>
            <form (ngSubmit)="take()" novalidate>
              @if (found.purpose === 'invitation') {
                <label class="form-label" for="name">Your name</label>
                <input id="name" name="name" class="form-control mb-3" maxlength="80" autocomplete="name" [(ngModel)]="name" />
              }
              <label class="form-label" for="password">Password (at least {{ shortest }} characters)</label>
              <input id="password" name="password" type="password" class="form-control mb-3" autocomplete="new-password" [(ngModel)]="password" />
              @if (attempt.fault()) {
                <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
              }
              <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy()">
                {{ found.purpose === 'invitation' ? 'Join' : 'Set the password' }}
              </button>
            </form>
          </zp-front>
        }
      }
    } @else {
      <zp-front heading="Opening your link.">
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
          <p class="front-ways"><a class="word" routerLink="/sign-in">Back to sign in</a></p>
        } @else {
          <p class="second" role="status">Checking the link …</p>
        }
      </zp-front>
    }
  `,
})
export class LinkPage {
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  protected readonly shortest = shortestPassword;
  protected readonly link = signal<Link | undefined>(undefined);
  protected readonly attempt = new Attempt();
  protected readonly digits = doorDigits;
  protected code = '';
  protected name = '';
  protected password = '';
  // After the sign #, so that it is in no server's log.
  private readonly token = location.hash.slice(1);

  constructor() {
    this.session.load().then(
      () => this.look(),
      (error: unknown) => this.attempt.fault.set(messageOf(error)),
    );
  }

  protected take(): void {
    const { purpose } = this.link() as Link;
    const name = purpose === 'invitation' ? { name: this.name } : {};
    const isFamily = purpose === 'student' || purpose === 'parent' || purpose === 'door';
    const password = isFamily ? {} : { password: this.password };
    const code = purpose === 'door' ? { code: this.code.trim() } : {};
    const to = isFamily ? '/mine' : '/today';
    this.attempt.run(this.session.takeLink({ token: this.token, ...name, ...password, ...code }), () => void this.router.navigateByUrl(to));
  }

  private look(): void {
    this.attempt.run(this.session.lookAtLink(this.token), (link) => {
      this.link.set(link);
      this.name = link.name;
    });
  }
}
