import { DatePipe } from '@angular/common';
import { Component, computed, inject, signal, type OnDestroy } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import type { Observable } from 'rxjs';
import { studentRoutes, type Student, type StudentLink, type Tablet } from '@zelpit/contract';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { TipComponent } from '../../kernel/tip/tip.component';
import { ApiService, messageOf } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { KeptForLater, OutgoingService } from '../../kernel/saving/outgoing.service';
import { copyAddress } from '../../kernel/notices/copy-address';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { StudentFormComponent } from './student-form.component';
import { StudentTunesComponent } from './student-tunes.component';

/** What a link is for. */
type LinkKind = 'tablet' | 'parent' | 'door';

/** Who learns here. */
@Component({
  selector: 'zp-students',
  imports: [ChooserComponent, TipComponent, FormsModule, RouterLink, SentenceComponent, StudentFormComponent, StudentTunesComponent, DatePipe],
  template: `
    <div class="page">
      <zp-sentence place="Students"
        ><span>Students</span>
        @if (groupChoices().length > 1) {
          <span class="quiet"> of </span><zp-chooser purpose="Class or band" [value]="group()" [choices]="groupChoices()" (valueChange)="group.set($event)" />
        }
      </zp-sentence>
      <section class="band" aria-label="Add a student">
        <div class="band-said">
          <p class="band-todo">Add a student with a first name or an alias. Nothing more is needed.</p>
          <p class="band-else">For a child, use an alias that only you and the family know.</p>
        </div>
        <form class="band-actions" (ngSubmit)="add()">
          <label class="visually-hidden" for="alias">Name or alias</label>
          <input
            id="alias"
            name="alias"
            class="form-control"
            style="width: 240px; min-height: 58px; border-color: #10292c"
            placeholder="Name or alias"
            maxlength="60"
            autocomplete="off"
            [(ngModel)]="alias"
          />
          <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy()">Add</button>
        </form>
      </section>
      <main class="layer page-fill">
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
        }
        <ul class="rows" style="max-width: 960px">
          @for (student of shown(); track student.id) {
            <li class="person">
              <div class="d-flex flex-wrap align-items-center column-gap-4">
                <button
                  type="button"
                  class="row-link flex-grow-1 border-0 text-start"
                  [attr.aria-pressed]="student === state.student()"
                  (click)="state.choose(student.id)"
                >
                  <span>{{ student.alias }}</span>
                  <small>
                    {{ student === state.student() ? 'chosen now' : '' }} {{ student.groups.join(', ') }}
                    {{ student.consent === null ? '' : (student === state.student() ? '· ' : '') + 'consent of ' + (student.consent.on | date: 'd MMM y') }}
                  </small>
                </button>
                <button
                  type="button"
                  class="word"
                  [attr.aria-expanded]="open() === student.id"
                  [attr.aria-label]="'Name and consent of ' + student.alias"
                  (click)="open.set(open() === student.id ? '' : student.id)"
                >
                  Name and consent
                </button>
                <button
                  type="button"
                  class="word"
                  [attr.aria-expanded]="tunesOf() === student.id"
                  [attr.aria-label]="'Tunes of ' + student.alias"
                  (click)="tunesOf.set(tunesOf() === student.id ? '' : student.id)"
                >
                  Tunes
                </button>
                <a class="word" [routerLink]="['/students', student.id, 'logbook']" [attr.aria-label]="'Logbook of ' + student.alias">Logbook</a>
                <button type="button" class="word" [attr.aria-label]="'Links for ' + student.alias" (click)="makeLink(student, 'tablet')">Links</button>
                <zp-tip [about]="'the links of ' + student.alias"
                  >Makes a link that opens this student’s sheets on their tablet, once; a private one with a code; one for a parent.</zp-tip
                >
                <button type="button" class="word quiet-action" [attr.aria-label]="'Put away ' + student.alias" (click)="putAway(student)">Put away</button>
              </div>
              @if (open() === student.id) {
                <zp-student-form [student]="student" (closed)="open.set('')" />
              }
              @if (tunesOf() === student.id) {
                <zp-student-tunes [student]="student" />
              }
              @if (link(); as made) {
                @if (made.of === student.id) {
                  <p class="mb-2" role="status">
                    @switch (made.kind) {
                      @case ('parent') {
                        For a parent: it shows what {{ student.alias }} was asked and what was done, and changes nothing. It works once, until
                        {{ made.until | date: 'd MMMM' }}:
                      }
                      @case ('door') {
                        {{ student.alias }}’s private link opens their own sheets again and again, with the code <b class="link-address">{{ made.code }}</b>.
                        Hand the code over by itself. A private link from before has ended:
                      }
                      @default {
                        Open this address on {{ student.alias }}’s tablet. It shows only their own sheets. It works once, until
                        {{ made.until | date: 'd MMMM' }}:
                      }
                    }
                    <b class="link-address">{{ made.address }}</b>
                    <button type="button" class="word ms-2" (click)="copy(made.address)">Copy</button>
                    <button type="button" class="word ms-2" (click)="link.set(undefined)">Close</button>
                  </p>
                  <p class="mb-2 d-flex flex-wrap gap-3">
                    <button type="button" class="word" [attr.aria-label]="'Private link with a code for ' + student.alias" (click)="makeLink(student, 'door')">
                      Private link with a code
                    </button>
                    <button type="button" class="word" [attr.aria-label]="'End the private link of ' + student.alias" (click)="endDoor(student)">
                      End the private link
                    </button>
                    <button type="button" class="word" [attr.aria-label]="'Link for a parent of ' + student.alias" (click)="makeLink(student, 'parent')">
                      Link for a parent
                    </button>
                  </p>
                  @for (tablet of tablets(); track tablet.id) {
                    <p class="mb-2">
                      Signed in on a tablet since {{ tablet.since | date: 'd MMMM, HH:mm' }}.
                      <button
                        type="button"
                        class="word ms-2"
                        [attr.aria-label]="'Sign out the tablet of ' + student.alias + ', signed in since ' + (tablet.since | date: 'd MMMM, HH:mm')"
                        (click)="endTablet(student, tablet)"
                      >
                        Sign it out
                      </button>
                    </p>
                  }
                }
              }
            </li>
          } @empty {
            <li class="empty"><p>No students yet. Add the first one above.</p></li>
          }
        </ul>
      </main>
    </div>
  `,
})
export class StudentsPage implements OnDestroy {
  protected readonly state = inject(StudioState);
  private readonly api = inject(ApiService);
  private readonly notices = inject(NoticeService);
  protected readonly attempt = new Attempt();
  /** Student whose fields are open. */
  protected readonly open = signal('');
  /** Student whose tunes are shown. */
  protected readonly tunesOf = signal('');
  protected readonly link = signal<(StudentLink & { readonly of: string; readonly kind: LinkKind; readonly code: string }) | undefined>(undefined);
  /** Where the student whose link is shown is signed in. */
  protected readonly tablets = signal<readonly Tablet[]>([]);
  /** The class or band that is looked at; empty for all. */
  protected readonly group = signal('');
  protected readonly groupChoices = computed((): readonly Choice<string>[] => [
    { value: '', label: 'all classes' },
    ...[...new Set(this.state.students().flatMap(({ groups }) => groups))].sort().map((name) => ({ value: name, label: name })),
  ]);
  protected readonly shown = computed(() => this.state.students().filter(({ groups }) => this.group() === '' || groups.includes(this.group())));
  protected alias = '';
  private readonly arrivals = inject(OutgoingService).arrived.subscribe(() => this.load());

  constructor() {
    this.load();
  }

  ngOnDestroy(): void {
    this.arrivals.unsubscribe();
  }

  protected add(): void {
    this.attempt.run(
      this.state.add(this.alias),
      () => (this.alias = ''),
      (error) => {
        if (error instanceof KeptForLater) this.alias = '';
      },
    );
  }

  protected makeLink(student: Student, kind: LinkKind): void {
    const { id } = student;
    const made: Observable<StudentLink & { readonly code?: string }> =
      kind === 'door'
        ? this.api.call(studentRoutes.doorForStudent, { id })
        : this.api.call(kind === 'parent' ? studentRoutes.linkForParent : studentRoutes.linkForStudent, { id });
    made.subscribe({
      next: (link) => {
        this.link.set({ ...link, kind, code: link.code ?? '', of: student.id });
        this.loadTablets(student);
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected endDoor({ id, alias }: Student): void {
    this.api.call(studentRoutes.endDoor, { id }).subscribe({
      next: () => {
        this.link.set(undefined);
        this.notices.done(`${alias}’s private link has ended.`);
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected endTablet(student: Student, { id }: Tablet): void {
    this.api.call(studentRoutes.endTablet, { id }).subscribe({
      next: () => {
        this.notices.done('The tablet is signed out.');
        this.loadTablets(student);
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private loadTablets({ id }: Student): void {
    this.tablets.set([]);
    this.api
      .call(studentRoutes.tablets, { id })
      .subscribe({ next: (tablets) => this.tablets.set(tablets), error: (error: unknown) => this.notices.fault(error) });
  }

  protected copy(address: string): void {
    copyAddress(address, this.notices);
  }

  protected putAway(student: Student): void {
    this.state.putAway(student).subscribe({
      next: () =>
        this.notices.done(`${student.alias} was put away. They can be brought back for 30 days.`, () =>
          this.state.bringBack(student).subscribe({ error: (error: unknown) => this.notices.fault(error) }),
        ),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private load(): void {
    this.state.loadStudents().subscribe({ error: (error: unknown) => this.attempt.fault.set(messageOf(error)) });
  }
}
