import { Component, computed, inject, input } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { plannedLine, type ChangeLine, type DrillStep, type Instrument } from '@zelpit/core';
import { Attempt } from '../../kernel/api/attempt';
import { SheetsService } from './sheets.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { ExportLinesComponent } from '../../music/export/export-lines.component';

const mostOnSheet = 60;
const longestTitle = 120;

/** Lines onto a new sheet for the student in hand, or into a file. */
@Component({
  selector: 'zp-new-sheet',
  imports: [RouterLink, ExportLinesComponent],
  template: `
    @if (making.fault()) {
      <p class="fault-text" role="alert">{{ making.fault() }}</p>
    }
    <p class="d-flex flex-wrap gap-2">
      @if (state.student(); as student) {
        <button type="button" class="btn btn-solid" [disabled]="making.isBusy() || planned().length === 0" (click)="make()">
          New sheet for {{ student.alias }}
        </button>
      } @else if (!state.isOfStudent()) {
        <a class="btn btn-solid" routerLink="/students">Add a first student</a>
      }
      <zp-export-lines [instrument]="instrument()" [title]="title()" [lines]="planned()" />
    </p>
  `,
})
export class NewSheetComponent {
  private readonly sheets = inject(SheetsService);
  private readonly router = inject(Router);
  protected readonly state = inject(StudioState);
  protected readonly making = new Attempt();

  readonly instrument = input.required<Instrument>();
  readonly lines = input.required<readonly ChangeLine[]>();
  readonly title = input.required<string>();
  /** Words at the head of the sheet. */
  readonly note = input('');
  /** Speeds at which each line stands one after the other; once, at a pace to begin with, where none is given. */
  readonly speeds = input<readonly DrillStep[]>([]);

  protected readonly planned = computed(() => {
    const lines = this.lines().map((line) => ({ ...plannedLine(this.instrument(), line), point: '', exercise: line.exercise ?? null }));
    const speeds = this.speeds();
    return (speeds.length === 0 ? lines : lines.flatMap((line) => speeds.map((speed) => ({ ...line, ...speed })))).slice(0, mostOnSheet);
  });

  protected make(): void {
    const student = this.state.student();
    const title = `${this.title()}, for ${student.alias}`.slice(0, longestTitle);
    const sheet = { title, studentId: student.id, tuneId: null, instrument: this.instrument().id, note: this.note(), lines: this.planned() };
    this.making.run(this.sheets.add(sheet), (made) => void this.router.navigate(['/sheets', made.id]));
  }
}
