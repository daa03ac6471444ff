import { Component, inject, input } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { messageOf } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { FrontComponent } from './front.component';
import { SessionService } from '../../kernel/session/session.service';

@Component({
  selector: 'zp-sign-in',
  imports: [FormsModule, RouterLink, FrontComponent],
  template: `
    <zp-front heading="Zelpit takes tunes apart by fingers.">
      <p class="front-said">Sign in to your studio.</p>
      <form (ngSubmit)="signIn()" novalidate>
        <label class="form-label" for="email">E-mail address</label>
        <input id="email" name="email" type="email" class="form-control mb-3" autocomplete="username" [(ngModel)]="email" />
        <label class="form-label" for="password">Password</label>
        <input id="password" name="password" type="password" class="form-control mb-3" autocomplete="current-password" [(ngModel)]="password" />
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
        }
        <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy()">Sign in</button>
      </form>
      <p class="front-ways">
        <a class="word" routerLink="/new-password">Forgot your password?</a>
        @if (session.canCreateStudio()) {
          <a class="word" routerLink="/new-studio">Create a studio</a>
        }
        @if (session.hasOutbox()) {
          <a class="word" routerLink="/outbox">Outbox</a>
        }
      </p>
      @if (session.demo(); as demo) {
        <section band class="band" aria-label="Demo studio">
          <div class="band-said">
            <p class="band-todo">This is the demo studio.</p>
            <p class="band-else">{{ demo.email }} · password “{{ demo.password }}”</p>
          </div>
          <div class="band-actions">
            <button type="button" class="btn btn-solid" [disabled]="attempt.isBusy()" (click)="useDemo()">Sign in to the demo</button>
          </div>
        </section>
      }
    </zp-front>
  `,
})
export class SignInPage {
  protected readonly session = inject(SessionService);
  private readonly router = inject(Router);

  /** Where to go afterwards. */
  readonly to = input<string>();
  protected readonly attempt = new Attempt();
  protected email = '';
  protected password = '';

  constructor() {
    this.session.load().then(
      ({ isNew }) => {
        if (isNew) void this.router.navigate(['/new-studio']);
      },
      (error: unknown) => this.attempt.fault.set(messageOf(error)),
    );
  }

  protected useDemo(): void {
    const demo = this.session.demo();
    if (demo === undefined) return;
    this.email = demo.email;
    this.password = demo.password;
    this.signIn();
  }

  protected signIn(): void {
    this.attempt.run(
      this.session.signIn({ email: this.email, password: this.password }),
      () => void this.router.navigateByUrl(this.to()?.startsWith('/') === true ? (this.to() as string) : '/today'),
      () => {
        // The token may have gone with an old session: fetch a new one for the next try.
        this.session.expire();
        void this.session.load().catch(() => undefined);
      },
    );
  }
}
