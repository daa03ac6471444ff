import { Component, inject } from '@angular/core';
import { Router } from '@angular/router';
import { NoticeService } from '../shell/notice.service';
import { SentenceComponent } from '../shell/sentence.component';
import { SessionService } from '../session/session.service';
import { ThemeService, type Theme } from '../state/theme.service';

@Component({
  selector: 'zp-studio',
  imports: [SentenceComponent],
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
        <h2 class="group-title">Leave</h2>
        <button type="button" class="btn btn-line" (click)="signOut()">Sign out</button>
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

  protected signOut(): void {
    this.session.signOut().subscribe({ next: () => void this.router.navigate(['/sign-in']), error: (error: unknown) => this.notices.fault(error) });
  }
}
