import { Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { shortestPassword } from '@zelpit/contract';
import { saidBy } from '../api/api.service';
import { NoticeService } from '../shell/notice.service';
import { SentenceComponent } from '../shell/sentence.component';
import { SessionService } from '../session/session.service';
import { ThemeService, type Theme } from '../state/theme.service';

@Component({
  selector: 'zp-studio',
  imports: [SentenceComponent, FormsModule],
  template: `
    <div class="page">
      <zp-sentence
        ><span>{{ session.studio()?.name }}</span></zp-sentence
      >
      <main class="layer page-fill">
        <p>{{ session.teacher()?.name }} is signed in.</p>
        <h2 class="group-title">Paper</h2>
        <div class="d-flex flex-wrap gap-3 mb-4" role="group" aria-label="Light or dark">
          @for (choice of themes; track choice.value) {
            <button
              type="button"
              class="btn"
              [class.btn-solid]="theme.theme() === choice.value"
              [class.btn-line]="theme.theme() !== choice.value"
              [attr.aria-pressed]="theme.theme() === choice.value"
              (click)="theme.choose(choice.value)"
            >
              {{ choice.said }}
            </button>
          }
        </div>
        <h2 class="group-title">Password</h2>
        <form class="password-form mb-4" (ngSubmit)="changePassword()">
          <label class="form-label" for="current">The one that holds now</label>
          <input id="current" name="current" type="password" class="form-control mb-2" autocomplete="current-password" [(ngModel)]="current" />
          <label class="form-label" for="next">The new one, at least {{ shortest }} signs</label>
          <input id="next" name="next" type="password" class="form-control mb-2" autocomplete="new-password" [(ngModel)]="next" />
          @if (fault()) {
            <p class="fault-text" role="alert">{{ fault() }}</p>
          }
          <button type="submit" class="btn btn-line btn-low">Change the password</button>
        </form>
        <h2 class="group-title">Leave</h2>
        <div class="d-flex flex-wrap gap-3">
          <button type="button" class="btn btn-line" (click)="signOut()">Sign out</button>
          <button type="button" class="btn btn-line" (click)="signOutEverywhere()">Sign out on all computers</button>
        </div>
      </main>
    </div>
  `,
})
export class StudioPage {
  protected readonly session = inject(SessionService);
  protected readonly theme = inject(ThemeService);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  protected readonly themes: readonly { value: Theme; said: string }[] = [
    { value: 'system', said: 'As the computer says' },
    { value: 'light', said: 'Light' },
    { value: 'dark', said: 'Dark, for dim rooms' },
  ];

  protected readonly shortest = shortestPassword;
  protected readonly fault = signal('');
  protected current = '';
  protected next = '';

  protected changePassword(): void {
    this.session.changePassword({ current: this.current, next: this.next }).subscribe({
      next: () => {
        this.current = '';
        this.next = '';
        this.fault.set('');
        this.notices.done('The new password holds. On other computers you are signed out.');
      },
      error: (error: unknown) => this.fault.set(saidBy(error)),
    });
  }

  protected signOutEverywhere(): void {
    this.session.signOutEverywhere().subscribe({ next: () => void this.router.navigate(['/sign-in']), error: (error: unknown) => this.notices.fault(error) });
  }

  protected signOut(): void {
    this.session.signOut().subscribe({ next: () => void this.router.navigate(['/sign-in']), error: (error: unknown) => this.notices.fault(error) });
  }
}
