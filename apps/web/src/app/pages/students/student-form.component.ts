import { Component, inject, input, linkedSignal, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { levels, usualDayMinutes, type Level, type Student } from '@zelpit/contract';
import { ApiFault } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { StudioState } from '../../studio/state/studio-state.service';

/** A student's alias, day, classes, and what a guardian agreed to. */
@Component({
  selector: 'zp-student-form',
  imports: [FormsModule],
  template: `
    <form class="person-form" (ngSubmit)="save()">
      <div class="wide">
        <label class="form-label" [attr.for]="'alias-' + student().id">Name or alias</label>
        <input class="form-control" name="alias" maxlength="60" autocomplete="off" [id]="'alias-' + student().id" [(ngModel)]="typed().alias" />
      </div>
      <div>
        <label class="form-label" [attr.for]="'level-' + student().id">How far</label>
        <select class="form-select" name="level" [id]="'level-' + student().id" [(ngModel)]="typed().level">
          <option value="">not said</option>
          @for (level of levels; track level) {
            <option [value]="level">{{ level }}</option>
          }
        </select>
      </div>
      <div>
        <label class="form-label" [attr.for]="'minutes-' + student().id">Minutes of practice a day</label>
        <input class="form-control" name="minutes" type="number" min="5" max="240" [id]="'minutes-' + student().id" [(ngModel)]="typed().dayMinutes" />
      </div>
      <div>
        <label class="form-label" [attr.for]="'groups-' + student().id">Classes and bands, with commas</label>
        <input
          class="form-control"
          name="groups"
          maxlength="400"
          autocomplete="off"
          placeholder="Saturday class, junior band"
          [id]="'groups-' + student().id"
          [(ngModel)]="typed().groups"
        />
      </div>
      <div>
        <label class="form-label" [attr.for]="'mail-' + student().id">Reviews by mail to (a grown-up’s address)</label>
        <input class="form-control" name="mail" type="email" maxlength="200" autocomplete="off" [id]="'mail-' + student().id" [(ngModel)]="typed().mailTo" />
      </div>
      <p class="caution wide mb-0">
        <b>Before you record a child, a guardian must agree.</b> Note here who did, when, and to what. It stays on the studio’s own computer and is deleted on
        request. Local rules on children’s data come first. Without a guardian’s consent, do not record a child; everything else works.
      </p>
      <div>
        <label class="form-label" [attr.for]="'guardian-' + student().id">Guardian who agreed</label>
        <input class="form-control" name="guardian" maxlength="120" autocomplete="off" [id]="'guardian-' + student().id" [(ngModel)]="typed().guardian" />
      </div>
      <div>
        <label class="form-label" [attr.for]="'on-' + student().id">Date</label>
        <input class="form-control" name="on" type="date" [id]="'on-' + student().id" [(ngModel)]="typed().on" />
      </div>
      <div class="wide">
        <label class="form-label" [attr.for]="'covers-' + student().id">What they agreed to</label>
        <input
          class="form-control"
          name="covers"
          maxlength="300"
          autocomplete="off"
          placeholder="Takes recorded in the lesson, kept until the end of the term"
          [id]="'covers-' + student().id"
          [(ngModel)]="typed().covers"
        />
      </div>
      @if (attempt.fault()) {
        <p class="fault-text wide mb-0" role="alert">{{ attempt.fault() }}</p>
      }
      @if (theirs(); as other) {
        <p class="wide mb-0">
          Saved now: {{ other.alias }},
          {{ other.consent === null ? 'no consent recorded' : other.consent.guardian + ' agreed on ' + other.consent.on + ': ' + other.consent.covers }}.
        </p>
      }
      <div class="wide d-flex flex-wrap gap-3">
        <button type="submit" class="btn btn-solid btn-low" [disabled]="attempt.isBusy()">{{ theirs() ? 'Save mine' : 'Save' }}</button>
        @if (theirs()) {
          <button type="button" class="btn btn-line btn-low" (click)="closed.emit()">Use theirs</button>
        } @else {
          <button type="button" class="word" (click)="closed.emit()">Cancel</button>
        }
      </div>
    </form>
  `,
})
export class StudentFormComponent {
  private readonly state = inject(StudioState);
  readonly student = input.required<Student>();
  readonly closed = output();
  protected readonly attempt = new Attempt();
  protected readonly levels = levels;
  protected readonly typed = linkedSignal({
    source: () => this.student().id,
    computation: () => {
      const { alias, consent, level, dayMinutes, mailTo, groups } = this.student();
      const beside: { level: Level | ''; dayMinutes: number | null; mailTo: string; groups: string } = {
        ...{ level: level ?? '', dayMinutes, mailTo: mailTo ?? '', groups: groups.join(', ') },
      };
      return { ...beside, alias, guardian: consent?.guardian ?? '', on: consent?.on ?? '', covers: consent?.covers ?? '' };
    },
  });
  /** What somebody else saved meanwhile. */
  protected readonly theirs = signal<Student | undefined>(undefined);

  protected save(): void {
    const { alias, guardian, on, covers, level, dayMinutes, mailTo, groups } = this.typed();
    const names = groups.split(',').map((name) => name.trim());
    const isEmpty = `${guardian}${on}${covers}`.trim() === '';
    const response = this.state.save(this.theirs() ?? this.student(), {
      ...{ alias, consent: isEmpty ? null : { guardian, on, covers }, level: level === '' ? null : level },
      ...{ dayMinutes: dayMinutes ?? usualDayMinutes, mailTo: mailTo.trim() === '' ? null : mailTo.trim() },
      groups: [...new Set(names.filter((name) => name !== ''))],
    });
    this.attempt.run(
      response,
      () => this.closed.emit(),
      (error) => {
        if (error instanceof ApiFault && error.status === 409) this.lookAtTheirs();
      },
    );
  }

  private lookAtTheirs(): void {
    this.state.loadStudents().subscribe((students) => this.theirs.set(students.find(({ id }) => id === this.student().id)));
  }
}
