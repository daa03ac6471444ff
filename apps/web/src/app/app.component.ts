import { Component, effect, inject, Injector, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterOutlet } from '@angular/router';
import { PendingWork } from './kernel/saving/pending-work.service';
import { SessionService } from './kernel/session/session.service';
import { SessionToken } from './kernel/session/session-token';
import { KeyService } from './kernel/keys/key.service';
import { NoticeService } from './kernel/notices/notice.service';
import { NoticesComponent } from './kernel/notices/notices.component';
import { ThemeService } from './kernel/theme/theme.service';

@Component({
  selector: 'zp-root',
  imports: [RouterOutlet, NoticesComponent],
  template: `<router-outlet /><zp-notices />`,
})
export class AppComponent implements OnDestroy {
  private readonly injector = inject(Injector);
  private readonly router = inject(Router);
  private readonly keys = inject(KeyService);
  private readonly session = inject(SessionService);
  private readonly notices = inject(NoticeService);
  private readonly pending = inject(PendingWork);
  private readonly ended = inject(SessionToken).ended;
  private readonly onOnline = (): void => void this.pending.send();
  private readonly release = this.keys.use('everywhere', {
    keys: () => void this.showKeys(),
    pages: () => void this.router.navigate(['/places']),
  });

  constructor() {
    inject(ThemeService);
    window.addEventListener('online', this.onOnline);
    effect(() => {
      if (this.session.person() !== undefined) untracked(() => void this.pending.send());
    });
    effect(() => {
      if (this.ended() > 0) untracked(() => this.leave());
    });
  }

  ngOnDestroy(): void {
    this.release();
    window.removeEventListener('online', this.onOnline);
  }

  /** The session has ended behind the page's back: what was typed is kept, and after signing in one is back here. */
  private leave(): void {
    if (this.session.person() === undefined) return;
    this.session.expire();
    this.notices.done('You were signed out. What you typed is kept in this browser. Sign in to carry on.');
    void this.router.navigate(['/sign-in'], { queryParams: { to: this.router.url } });
  }

  private async showKeys(): Promise<void> {
    const { showKeys } = await import('./kernel/keys/show-keys');
    showKeys(this.injector);
  }
}
