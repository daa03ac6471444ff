import { Component, inject } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { shortestPassword } from '@zelpit/contract';
import { messageOf } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { FrontComponent } from './front.component';
import { SessionService } from '../../kernel/session/session.service';

/** A studio of one's own: the first page where there is none yet. */
@Component({
  selector: 'zp-new-studio',
  imports: [FormsModule, RouterLink, FrontComponent],
  template: `
    <zp-front heading="Create your studio.">
      <p class="front-said">You will be its owner. Other teachers join when you invite them.</p>
      <form (ngSubmit)="create()" novalidate>
        <label class="form-label" for="studio">Name of the studio</label>
        <input id="studio" name="studio" class="form-control mb-3" maxlength="80" autocomplete="organization" [(ngModel)]="studio" />
        <label class="form-label" for="name">Your name</label>
        <input id="name" name="name" class="form-control mb-3" maxlength="80" autocomplete="name" [(ngModel)]="name" />
        <label class="form-label" for="email">Your e-mail address</label>
        <input id="email" name="email" type="email" class="form-control mb-3" autocomplete="username" [(ngModel)]="email" />
        <label class="form-label" for="password">Password (at least {{ shortest }} characters)</label>
        <input id="password" name="password" type="password" class="form-control mb-3" autocomplete="new-password" [(ngModel)]="password" />
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
        }
        <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy()">Create the studio</button>
      </form>
      <p class="front-ways"><a class="word" routerLink="/sign-in">Back to sign in</a></p>
    </zp-front>
  `,
})
export class NewStudioPage {
  private readonly session = inject(SessionService);
  private readonly router = inject(Router);
  protected readonly shortest = shortestPassword;
  protected readonly attempt = new Attempt();
  protected studio = '';
  protected name = '';
  protected email = '';
  protected password = '';

  constructor() {
    this.session.load().catch((error: unknown) => this.attempt.fault.set(messageOf(error)));
  }

  protected create(): void {
    const { studio, name, email, password } = this;
    this.attempt.run(this.session.createStudio({ studio, name, email, password }), () => void this.router.navigate(['/today']));
  }
}
