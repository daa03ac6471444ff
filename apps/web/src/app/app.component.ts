import { Component, inject, type OnDestroy } from '@angular/core';
import { Router, RouterOutlet } from '@angular/router';
import { NgbModal } from '@ng-bootstrap/ng-bootstrap/modal';
import { KeyService } from './shell/key.service';
import { NoticesComponent } from './shell/notices.component';
import { ThemeService } from './state/theme.service';

@Component({
  selector: 'zp-root',
  imports: [RouterOutlet, NoticesComponent],
  template: `<router-outlet /><zp-notices />`,
})
export class AppComponent implements OnDestroy {
  private readonly modal = inject(NgbModal);
  private readonly router = inject(Router);
  private readonly keys = inject(KeyService);
  private readonly release = this.keys.use([
    { keys: ['?'], cap: '?', said: 'Show the keys', run: () => void this.showKeys() },
    { keys: ['g'], cap: 'G', said: 'Go to all places', run: () => void this.router.navigate(['/places']) },
  ]);

  constructor() {
    inject(ThemeService);
  }

  ngOnDestroy(): void {
    this.release();
  }

  private async showKeys(): Promise<void> {
    const { KeysComponent } = await import('./shell/keys.component');
    if (!this.modal.hasOpenModals()) this.modal.open(KeysComponent, { ariaLabelledBy: 'keys-title', size: 'lg' });
  }
}
