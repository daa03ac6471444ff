import { Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { accountRoutes, shortestPassword, type OwnStudio, type StudioRoomShown } from '@zelpit/contract';
import { ApiService } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { sizeText } from '../../kernel/words/words';
import { pedal, type PedalUse } from '../../kernel/keys/pedal';
import { WorkStore } from '../../kernel/saving/work-store.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';
import { ThemeService, type Theme } from '../../kernel/theme/theme.service';

@Component({
  selector: 'zp-studio',
  imports: [SentenceComponent, FormsModule],
  template: `
    <div class="page">
      <zp-sentence place="Studio"
        ><span>{{ session.studio()?.name }}</span></zp-sentence
      >
      <main class="layer page-fill">
        <p>{{ session.person()?.name }} is signed in{{ session.isOwner() ? ' as an owner of this studio' : '' }}.</p>
        @if (studios().length > 1) {
          <h2 class="group-title">Your studios</h2>
          <ul class="rows mb-4" style="max-width: 640px">
            @for (studio of studios(); track studio.id) {
              <li class="person d-flex flex-wrap align-items-center gap-3">
                <span class="flex-grow-1">{{ studio.name }}</span>
                @if (studio.id === session.studio()?.id) {
                  <span class="second">open now</span>
                } @else {
                  <button type="button" class="word" [attr.aria-label]="'Open ' + studio.name" (click)="openStudio(studio)">Open</button>
                }
              </li>
            }
          </ul>
        }
        <h2 class="group-title">Light or dark</h2>
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
              {{ choice.label }}
            </button>
          }
        </div>
        @if (!session.isFamily()) {
          <h2 class="group-title">A pedal with two switches, in a lesson</h2>
          <div class="d-flex flex-wrap gap-3 mb-4" role="group" aria-label="A pedal with two switches, in a lesson">
            @for (choice of pedalUses; track choice.value) {
              <button
                type="button"
                class="btn"
                [class.btn-solid]="pedalUse() === choice.value"
                [class.btn-line]="pedalUse() !== choice.value"
                [attr.aria-pressed]="pedalUse() === choice.value"
                (click)="choosePedal(choice.value)"
              >
                {{ choice.label }}
              </button>
            }
          </div>
        }
        @if (session.isOwner()) {
          <h2 class="group-title">Name of the studio</h2>
          <form class="narrow-form mb-4" (ngSubmit)="rename()">
            <label class="visually-hidden" for="studio-name">Name of the studio</label>
            <input id="studio-name" name="studio-name" class="form-control mb-2" maxlength="80" autocomplete="off" [(ngModel)]="name" />
            @if (renaming.fault()) {
              <p class="fault-text" role="alert">{{ renaming.fault() }}</p>
            }
            <button type="submit" class="btn btn-line btn-low" [disabled]="renaming.isBusy()">Rename the studio</button>
          </form>
        }
        @if (room(); as kept) {
          <h2 class="group-title">Room</h2>
          <p class="mb-4">This studio keeps {{ sizeText(kept.bytes ?? 0) }} of the {{ sizeText(kept.most) }} that it may.</p>
        }
        <h2 class="group-title">Password</h2>
        <form class="narrow-form mb-4" (ngSubmit)="changePassword()">
          <label class="form-label" for="current">Current password</label>
          <input id="current" name="current" type="password" class="form-control mb-2" autocomplete="current-password" [(ngModel)]="current" />
          <label class="form-label" for="next">New password (at least {{ shortest }} characters)</label>
          <input id="next" name="next" type="password" class="form-control mb-2" autocomplete="new-password" [(ngModel)]="next" />
          @if (attempt.fault()) {
            <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
          }
          <button type="submit" class="btn btn-line btn-low" [disabled]="attempt.isBusy()">Change the password</button>
        </form>
        <h2 class="group-title">Sign out</h2>
        <div class="d-flex flex-wrap gap-3">
          <button type="button" class="btn btn-line" (click)="signOut()">Sign out</button>
          <button type="button" class="btn btn-line" (click)="signOutEverywhere()">Sign out everywhere</button>
        </div>
      </main>
    </div>
  `,
})
export class StudioPage {
  protected readonly session = inject(SessionService);
  protected readonly theme = inject(ThemeService);
  private readonly api = inject(ApiService);
  private readonly store = inject(WorkStore);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  protected readonly themes: readonly { value: Theme; label: string }[] = [
    { value: 'system', label: 'Same as this device' },
    { value: 'light', label: 'Light' },
    { value: 'dark', label: 'Dark, for dim rooms' },
  ];

  /** What the studio keeps and may keep; nothing to a family. */
  protected readonly room = signal<StudioRoomShown | undefined>(undefined);
  protected readonly sizeText = sizeText;
  protected readonly pedalUse = signal(pedal.read());
  protected readonly pedalUses: readonly { value: PedalUse; label: string }[] = [
    { value: 'turns', label: 'Next and the one before' },
    { value: 'judges', label: 'Clean and not yet; N is next' },
  ];

  protected readonly shortest = shortestPassword;
  protected readonly attempt = new Attempt();
  protected readonly renaming = new Attempt();
  protected current = '';
  protected next = '';
  protected name = this.session.studio()?.name ?? '';

  /** Studios that this person teaches in; a student sees none. */
  protected readonly studios = signal<readonly OwnStudio[]>([]);

  constructor() {
    if (this.session.isFamily()) return;
    if (this.session.role() !== 'substitute')
      this.api.call(accountRoutes.studioRoom, {}).subscribe({ next: (room) => this.room.set(room), error: (error: unknown) => this.notices.fault(error) });
    this.api.call(accountRoutes.ownStudios, {}).subscribe({
      next: (studios) => this.studios.set(studios),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** Everything is read anew: nothing of one studio is shown in another. */
  protected openStudio({ id }: OwnStudio): void {
    this.session.openStudio(id).subscribe({ next: () => location.assign('/tunes'), error: (error: unknown) => this.notices.fault(error) });
  }

  protected choosePedal(use: PedalUse): void {
    this.pedalUse.set(use);
    pedal.keep(use);
  }

  protected rename(): void {
    this.renaming.run(this.api.call(accountRoutes.renameStudio, { body: { name: this.name } }), ({ name }) => {
      this.session.renamed(name);
      this.name = name;
      this.notices.done(`The studio is now called ${name}.`);
    });
  }

  protected changePassword(): void {
    this.attempt.run(this.session.changePassword({ current: this.current, next: this.next }), () => {
      this.current = '';
      this.next = '';
      this.notices.done('Password changed. You are signed out on all other devices.');
    });
  }

  protected signOutEverywhere(): void {
    const person = this.session.workOwner() ?? '';
    this.session.signOutEverywhere().subscribe({ next: () => void this.leave(person), error: (error: unknown) => this.notices.fault(error) });
  }

  protected signOut(): void {
    const person = this.session.workOwner() ?? '';
    this.session.signOut().subscribe({ next: () => void this.leave(person), error: (error: unknown) => this.notices.fault(error) });
  }

  /** What is saved anyway is not left in this browser for whoever sits here next. */
  private async leave(person: string): Promise<void> {
    await this.store.clearSaved(person, Date.now());
    await this.router.navigate(['/sign-in']);
  }
}
