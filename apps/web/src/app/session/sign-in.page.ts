import { Component, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { saidBy } from '../api/api.service';
import { SessionService } from './session.service';

@Component({
  selector: 'zp-sign-in',
  imports: [FormsModule],
  template: `
    <main class="page">
      <div class="layer page-fill" style="max-width: 760px; padding-top: 72px">
        <svg width="88" height="88" viewBox="0 0 40 40" aria-hidden="true">
          <path class="mark-wood" d="M4 34.5H36" />
          <path class="mark-ribbon" d="M9 9.5H27C35 9.5 31 17 24 19C15 21.5 10 28.5 20 28.5H32" />
        </svg>
        <h1 class="heading mt-3">Zelpit takes tunes apart by fingers.</h1>
        <p style="font-size: 25px">Sign in to your studio.</p>
        <form (ngSubmit)="signIn()" novalidate>
          <label class="form-label" for="email">E-mail address</label>
          <input id="email" name="email" type="email" class="form-control mb-3" autocomplete="username" [(ngModel)]="email" />
          <label class="form-label" for="password">Password</label>
          <input id="password" name="password" type="password" class="form-control mb-3" autocomplete="current-password" [(ngModel)]="password" />
          @if (fault()) {
            <p class="fault-text" role="alert">{{ fault() }}</p>
          }
          <button type="submit" class="btn btn-solid" [disabled]="isBusy()">Sign in</button>
        </form>
      </div>
      @if (session.demo(); as demo) {
        <section class="band" aria-label="Demo studio">
          <div class="band-said">
            <p class="band-todo">This is the demo studio.</p>
            <p class="band-else">{{ demo.email }} · password “{{ demo.password }}”</p>
          </div>
          <div class="band-actions"><button type="button" class="btn btn-solid" [disabled]="isBusy()" (click)="useDemo()">Sign in to the demo</button></div>
        </section>
      }
    </main>
  `,
})
export class SignInPage {
  protected readonly session = inject(SessionService);
  private readonly router = inject(Router);

  /** Where to go afterwards. */
  readonly to = input<string>();
  protected readonly fault = signal('');
  protected readonly isBusy = signal(false);
  protected email = '';
  protected password = '';

  constructor() {
    this.session.load().catch((error: unknown) => this.fault.set(saidBy(error)));
  }

  protected useDemo(): void {
    const demo = this.session.demo();
    if (demo === undefined) return;
    this.email = demo.email;
    this.password = demo.password;
    this.signIn();
  }

  protected signIn(): void {
    this.isBusy.set(true);
    this.fault.set('');
    this.session.signIn({ email: this.email, password: this.password }).subscribe({
      next: () => void this.router.navigateByUrl(this.to()?.startsWith('/') === true ? (this.to() as string) : '/tunes'),
      error: (error: unknown) => {
        this.fault.set(saidBy(error));
        this.isBusy.set(false);
        // The token may have gone with an old session: fetch a new one for the next try.
        this.session.expire();
        void this.session.load().catch(() => undefined);
      },
    });
  }
}
