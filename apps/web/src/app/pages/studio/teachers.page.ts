import { DatePipe } from '@angular/common';
import { Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import { accountRoutes, invitationDays, memberRole, type Invitation, type MemberRole, type NewInvitation, type Teacher } from '@zelpit/contract';
import { TipComponent } from '../../kernel/tip/tip.component';
import { ApiService } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { copyAddress } from '../../kernel/notices/copy-address';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';

/** Who teaches here, and who is invited. */
@Component({
  selector: 'zp-teachers',
  imports: [TipComponent, FormsModule, SentenceComponent, DatePipe, RouterLink],
  template: `
    <div class="page">
      <zp-sentence place="Studio"><span>Teachers</span></zp-sentence>
      @if (session.isOwner()) {
        <section class="band" aria-label="Invite a teacher">
          <div class="band-said">
            <p class="band-todo">Invite a teacher with a link.</p>
            <p class="band-else">The link works once, within {{ days }} days. They will see the studio’s students, tunes and sheets.</p>
          </div>
          <form class="band-actions" (ngSubmit)="invite()">
            <label class="visually-hidden" for="name">Name</label>
            <input id="name" name="name" class="form-control band-field" placeholder="Name" maxlength="80" autocomplete="off" [(ngModel)]="name" />
            <label class="visually-hidden" for="email">E-mail address</label>
            <input id="email" name="email" type="email" class="form-control band-field" placeholder="E-mail address" autocomplete="off" [(ngModel)]="email" />
            <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy()">Invite</button>
          </form>
        </section>
      }
      <main class="layer page-fill">
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
        }
        <ul class="rows" style="max-width: 1000px">
          @for (teacher of teachers(); track teacher.id) {
            <li class="person d-flex flex-wrap align-items-center gap-3">
              <span class="put-away-name flex-grow-1">{{ teacher.name }}</span>
              <span class="second">{{ teacher.email }}, {{ teacher.role }}</span>
              @if (session.isOwner()) {
                @if (confirming() === teacher.id) {
                  <span class="fault-text">{{ teacher.name }} will no longer be able to sign in. Their tunes and sheets stay.</span>
                  <button type="button" class="btn btn-solid btn-low" (click)="remove(teacher)">Remove {{ teacher.name }}</button>
                  <button type="button" class="word" (click)="confirming.set('')">Cancel</button>
                } @else {
                  @for (role of otherRoles(teacher); track role) {
                    <button type="button" class="word" [attr.aria-label]="roleTexts[role] + ': ' + teacher.name" (click)="changeRole(teacher, role)">
                      {{ roleTexts[role] }}
                    </button>
                  }
                  @if (teacher.role !== 'owner') {
                    <zp-tip [about]="'what ' + teacher.name + ' could do as an owner'"
                      >An owner also invites and removes teachers, renames the studio, saves and restores backups, and sees who changed what. A substitute only
                      reads the book and holds lessons.</zp-tip
                    >
                  }
                  <button type="button" class="word" [attr.aria-label]="'Remove ' + teacher.name" (click)="confirming.set(teacher.id)">Remove</button>
                }
              }
            </li>
          }
        </ul>
        @if (made(); as link) {
          <p class="mt-3" role="status">
            Give {{ link.name }} this address. It works once, until {{ link.until | date: 'd MMMM' }}, and is shown only now:
            <b class="link-address">{{ link.address }}</b>
            <button type="button" class="word ms-2" (click)="copy(link.address)">Copy</button>
            <button type="button" class="word ms-2" (click)="made.set(undefined)">Close</button>
          </p>
        }
        @if (invitations().length > 0) {
          <h2 class="group-title">Invited</h2>
          <ul class="rows" style="max-width: 1000px">
            @for (invitation of invitations(); track invitation.id) {
              <li class="person d-flex flex-wrap align-items-center gap-3">
                <span class="put-away-name flex-grow-1">{{ invitation.name }}</span>
                <span class="second">{{ invitation.email }}, until {{ invitation.until | date: 'd MMMM' }}</span>
                <button type="button" class="word" [attr.aria-label]="'Withdraw the invitation of ' + invitation.name" (click)="withdraw(invitation)">
                  Withdraw
                </button>
              </li>
            }
          </ul>
          @if (session.hasOutbox()) {
            <p class="mt-3">The links are in the <a class="word" routerLink="/outbox">outbox</a>.</p>
          }
        }
      </main>
    </div>
  `,
})
export class TeachersPage {
  private readonly api = inject(ApiService);
  private readonly notices = inject(NoticeService);
  protected readonly session = inject(SessionService);
  protected readonly days = invitationDays;
  protected readonly teachers = signal<readonly Teacher[]>([]);
  protected readonly invitations = signal<readonly Invitation[]>([]);
  /** The invitation that was just made, with its link. */
  protected readonly made = signal<NewInvitation | undefined>(undefined);
  protected readonly attempt = new Attempt();
  /** Teacher whose removal was asked for and not yet confirmed. */
  protected readonly confirming = signal('');
  protected name = '';
  protected email = '';

  constructor() {
    this.load();
  }

  protected readonly roleTexts: Readonly<Record<MemberRole, string>> = {
    ...{ owner: 'Make an owner', teacher: 'Make a teacher', substitute: 'Make a substitute' },
  };

  protected otherRoles({ role }: Teacher): readonly MemberRole[] {
    return memberRole.options.filter((each) => each !== role);
  }

  protected invite(): void {
    const { name, email } = this;
    this.attempt.run(this.api.call(accountRoutes.invite, { body: { name, email } }), (made) => {
      this.made.set(made);
      this.name = '';
      this.email = '';
      this.notices.done(`${name} has been invited.`);
      this.load();
    });
  }

  protected copy(address: string): void {
    copyAddress(address, this.notices);
  }

  protected withdraw({ id, name }: Invitation): void {
    this.attempt.run(this.api.call(accountRoutes.withdrawInvitation, { id }), () => {
      this.notices.done(`The invitation for ${name} was withdrawn.`);
      this.load();
    });
  }

  protected changeRole({ id }: Teacher, role: MemberRole): void {
    this.attempt.run(this.api.call(accountRoutes.setTeacherRole, { id, body: { role } }), () => this.load());
  }

  protected remove({ id, name }: Teacher): void {
    this.confirming.set('');
    this.attempt.run(this.api.call(accountRoutes.removeTeacher, { id }), () => {
      this.notices.done(`${name} was removed.`);
      this.load();
    });
  }

  private load(): void {
    const failed = (error: unknown): void => this.notices.fault(error);
    this.api.call(accountRoutes.teachers, {}).subscribe({ next: (teachers) => this.teachers.set(teachers), error: failed });
    if (this.session.isOwner())
      this.api.call(accountRoutes.invitations, {}).subscribe({ next: (invitations) => this.invitations.set(invitations), error: failed });
  }
}
