import { Component, inject, input, linkedSignal, output, signal } from '@angular/core';
import type { Lesson } from '@zelpit/contract';
import { Attempt } from '../../kernel/api/attempt';
import { LessonsService } from '../../studio/lessons/lessons.service';
import { StudioState } from '../../studio/state/studio-state.service';

/** Sets a lesson: who, when, how long, once or every week. */
@Component({
  selector: 'zp-lesson-form',
  template: `
    <form class="layer lesson-form" aria-label="Set a lesson" (submit)="$event.preventDefault(); add()">
      <label
        >Who
        <select class="form-select" (change)="student.set($any($event.target).value)">
          @for (each of state.students(); track each.id) {
            <option [value]="each.id" [selected]="each.id === student()">{{ each.alias }}</option>
          }
        </select>
      </label>
      <label>Day <input type="date" class="form-control" required [value]="on()" (change)="on.set($any($event.target).value)" /></label>
      <label>Time <input type="time" class="form-control" required [value]="time()" (change)="time.set($any($event.target).value)" /></label>
      <label
        >Minutes <input type="number" class="form-control" min="5" max="240" required [value]="minutes()" (change)="minutes.set(+$any($event.target).value)"
      /></label>
      <label class="form-check"
        ><input type="checkbox" class="form-check-input" [checked]="isWeekly()" (change)="isWeekly.set($any($event.target).checked)" /> every week</label
      >
      <button type="submit" class="btn btn-solid btn-low" [disabled]="attempt.isBusy() || student() === ''">Set it</button>
      <button type="button" class="btn btn-line btn-low" (click)="closed.emit()">Cancel</button>
      @if (attempt.fault()) {
        <p class="fault-text mb-0" role="alert">{{ attempt.fault() }}</p>
      }
    </form>
  `,
})
export class LessonFormComponent {
  private readonly service = inject(LessonsService);
  protected readonly state = inject(StudioState);
  readonly day = input.required<string>();
  readonly made = output<Lesson>();
  readonly closed = output();
  protected readonly attempt = new Attempt();
  protected readonly student = linkedSignal(() => this.state.student()?.id ?? this.state.students().at(0)?.id ?? '');
  protected readonly on = linkedSignal(() => this.day());
  protected readonly time = signal('16:00');
  protected readonly minutes = signal(30);
  protected readonly isWeekly = signal(true);

  protected add(): void {
    const lesson = { studentId: this.student(), on: this.on(), time: this.time().slice(0, 5), minutes: this.minutes(), until: null, note: '' };
    this.attempt.run(this.service.add({ ...lesson, repeats: this.isWeekly() ? 'weekly' : 'once' }), (made) => this.made.emit(made));
  }
}
