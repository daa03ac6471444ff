import { Component, effect, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Student, TuneOfStudent } from '@zelpit/contract';
import { arrangementText } from '@zelpit/core/arrange';
import { messageOf } from '../../kernel/api/api.service';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { StudioState } from '../../studio/state/studio-state.service';

/** A student's own tunes, as the student plays them. */
@Component({
  selector: 'zp-student-tunes',
  imports: [RouterLink],
  template: `
    @if (fault()) {
      <p class="fault-text" role="alert">{{ fault() }}</p>
    } @else if (tunes(); as all) {
      <ul class="plain-list mb-2" [attr.aria-label]="'Tunes as ' + student().alias + ' plays them'">
        @for (each of all; track each.tune) {
          <li>
            <a class="word" [routerLink]="['/tunes', each.tune, 'along']" (click)="state.choose(student().id)">{{ each.title }}</a>
            <span class="second">: {{ textOf(each) }}</span>
          </li>
        } @empty {
          <li class="second">{{ student().alias }} plays every tune as it is written. Arrange one, and it stands here.</li>
        }
      </ul>
    } @else {
      <p class="second" role="status">Looking for the tunes …</p>
    }
  `,
})
export class StudentTunesComponent {
  private readonly arrangements = inject(ArrangementsService);
  protected readonly state = inject(StudioState);
  readonly student = input.required<Student>();
  protected readonly tunes = signal<readonly TuneOfStudent[] | undefined>(undefined);
  protected readonly fault = signal('');

  constructor() {
    effect((onCleanup) => {
      const loading = this.arrangements.ofStudent(this.student().id).subscribe({
        next: (tunes) => this.tunes.set(tunes),
        error: (error: unknown) => this.fault.set(messageOf(error)),
      });
      onCleanup(() => loading.unsubscribe());
    });
  }

  protected readonly textOf = ({ arrangement }: TuneOfStudent): string => arrangementText(arrangement);
}
