import { Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { NoticeService } from '../../kernel/notices/notice.service';
import { StudioState } from './studio-state.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';

/** "for Pim on the practice chanter": the student and instrument in hand, on every page. */
@Component({
  selector: 'zp-for-whom',
  imports: [ChooserComponent, RouterLink],
  template: `
    <!-- A student's own pages are for nobody else. -->
    @if (!state.isOfStudent()) {
      <span class="quiet"> for </span>
      @if (state.student(); as student) {
        <zp-chooser purpose="Student" [value]="student.id" [choices]="students()" (valueChange)="state.choose($event)" />
      } @else if (state.hasStudents()) {
        <a class="chooser-word" routerLink="/students">your first student</a>
      } @else {
        <span class="quiet">…</span>
      }
    }
    @if (hasInstrument()) {
      <span class="quiet"> on </span>
      <zp-chooser
        purpose="Instrument"
        [value]="state.inHand().choice"
        [word]="state.instrumentText()"
        [choices]="state.instrumentChoices()"
        (valueChange)="state.chooseInstrument($event)"
      />
    }
  `,
})
export class ForWhomComponent {
  protected readonly state = inject(StudioState);
  protected readonly students = computed(() => this.state.students().map((student): Choice<string> => ({ value: student.id, label: student.alias })));
  /** False where the page has an instrument of its own. */
  readonly hasInstrument = input(true);

  constructor() {
    const notices = inject(NoticeService);
    this.state.ready().subscribe({ error: (error: unknown) => notices.fault(error) });
  }
}
