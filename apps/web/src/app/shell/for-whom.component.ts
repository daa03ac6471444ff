import { Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Student } from '@zelpit/contract';
import { NoticeService } from './notice.service';
import { StudioState } from '../state/studio-state.service';
import { ChooserComponent, type Choice } from './chooser.component';

/** "for Pim on the practice chanter": the student and instrument in hand, on every page. */
@Component({
  selector: 'zp-for-whom',
  imports: [ChooserComponent, RouterLink],
  template: `
    <span class="quiet"> for </span>
    @if (state.student(); as student) {
      <zp-chooser purpose="Student" [word]="student.alias" [choices]="students()" (chosen)="state.choose($event)" />
    } @else if (state.hasStudents()) {
      <a class="chooser-word" routerLink="/students">a first student</a>
    } @else {
      <span class="quiet">…</span>
    }
    <span class="quiet"> on the </span>
    <zp-chooser purpose="Instrument" [word]="state.instrument().name" [choices]="instruments()" />
  `,
})
export class ForWhomComponent {
  protected readonly state = inject(StudioState);
  protected readonly students = computed(() => this.state.students().map((student): Choice<Student> => ({ value: student, said: student.alias })));
  protected readonly instruments = computed((): readonly Choice<string>[] => [{ value: this.state.instrument().id, said: this.state.instrument().name }]);

  constructor() {
    const notices = inject(NoticeService);
    if (this.state.students().length === 0) this.state.loadStudents().subscribe({ error: (error: unknown) => notices.fault(error) });
  }
}
