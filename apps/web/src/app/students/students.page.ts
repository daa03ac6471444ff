import { Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { Student } from '@zelpit/contract';
import { saidBy } from '../api/api.service';
import { NoticeService } from '../shell/notice.service';
import { SentenceComponent } from '../shell/sentence.component';
import { StudioState } from '../state/studio-state.service';

@Component({
  selector: 'zp-students',
  imports: [FormsModule, SentenceComponent],
  template: `
    <div class="page">
      <zp-sentence><span>Students</span></zp-sentence>
      <section class="band" aria-label="Add a student">
        <div class="band-said">
          <p class="band-todo">Write a first name or an alias; nothing more is needed.</p>
          <p class="band-else">For a child, take an alias that only the family and you know.</p>
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
          <button type="submit" class="btn btn-solid">Add</button>
        </form>
      </section>
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
        }
        <ul class="rows" style="max-width: 760px">
          @for (student of state.students(); track student.id) {
            <li class="d-flex align-items-center gap-3 py-1">
              @if (renaming() === student.id) {
                <form class="d-flex gap-2 flex-grow-1" (ngSubmit)="rename(student)">
                  <label class="visually-hidden" for="renamed">New name</label>
                  <input id="renamed" name="renamed" class="form-control" maxlength="60" [(ngModel)]="renamed" />
                  <button type="submit" class="btn btn-solid">Keep</button>
                </form>
              } @else {
                <button
                  type="button"
                  class="row-link flex-grow-1 border-0 text-start"
                  [attr.aria-pressed]="student === state.student()"
                  (click)="state.choose(student)"
                >
                  <span>{{ student.alias }}</span>
                  <small>{{ student === state.student() ? 'in hand' : '' }}</small>
                </button>
                <button type="button" class="word" [attr.aria-label]="'Rename ' + student.alias" (click)="startRenaming(student)">Rename</button>
                <button type="button" class="word" [attr.aria-label]="'Put away ' + student.alias" (click)="putAway(student)">Put away</button>
              }
            </li>
          } @empty {
            <li class="empty"><p>Nobody is here yet. Add a first student above.</p></li>
          }
        </ul>
      </main>
    </div>
  `,
})
export class StudentsPage {
  protected readonly state = inject(StudioState);
  private readonly notices = inject(NoticeService);
  protected readonly fault = signal('');
  protected readonly renaming = signal('');
  protected alias = '';
  protected renamed = '';

  constructor() {
    this.state.loadStudents().subscribe({ error: (error: unknown) => this.fault.set(saidBy(error)) });
  }

  protected add(): void {
    this.state.add(this.alias).subscribe({
      next: () => {
        this.alias = '';
        this.fault.set('');
      },
      error: (error: unknown) => this.fault.set(saidBy(error)),
    });
  }

  protected startRenaming(student: Student): void {
    this.renaming.set(student.id);
    this.renamed = student.alias;
  }

  protected rename(student: Student): void {
    this.state.rename(student, this.renamed).subscribe({
      next: () => {
        this.renaming.set('');
        this.fault.set('');
      },
      error: (error: unknown) => this.fault.set(saidBy(error)),
    });
  }

  protected putAway(student: Student): void {
    this.state.putAway(student).subscribe({
      next: () =>
        this.notices.done(`${student.alias} was put away.`, () =>
          this.state.bringBack(student).subscribe({ error: (error: unknown) => this.notices.fault(error) }),
        ),
      error: (error: unknown) => this.notices.fault(error),
    });
  }
}
