import { Component, computed, inject, input, signal, type OnDestroy, type OnInit } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { sheetLimits, type SheetSummary } from '@zelpit/contract';
import type { Instrument } from '@zelpit/core/fingering';
import { count } from '@zelpit/core/words';
import { Attempt } from '../../kernel/api/attempt';
import { KeyService } from '../../kernel/keys/key.service';
import { ExportLinesComponent } from '../../music/export/export-lines.component';
import { StudioState } from '../../studio/state/studio-state.service';
import type { PlannedSheetLine } from './planned-lines';
import { SheetsService } from './sheets.service';

/** Lines onto a new sheet for the student in hand, at the end of one that is there, or into a file. */
@Component({
  selector: 'zp-lines-onto-sheet',
  imports: [RouterLink, ExportLinesComponent, NgbDropdownModule],
  host: { class: 'd-flex flex-wrap gap-2' },
  template: `
    @if (state.student(); as student) {
      <button type="button" class="btn btn-solid" [disabled]="isDisabled()" (click)="make()">
        New sheet for {{ student.alias }}
        @if (hasKey()) {
          <kbd>N</kbd>
        }
      </button>
      <!-- It stands there before it is known whether there is a sheet: nothing may move under the hand. -->
      <span ngbDropdown placement="bottom-end">
        <button type="button" class="btn btn-line" ngbDropdownToggle [disabled]="isDisabled() || sheetsHere().length === 0">Add to a sheet</button>
        <span ngbDropdownMenu>
          @for (sheet of sheetsHere(); track sheet.id) {
            <button type="button" ngbDropdownItem (click)="addTo(sheet)">{{ sheet.title }}, {{ count(sheet.lineCount, 'line') }}</button>
          }
        </span>
      </span>
    } @else if (!state.isOfStudent()) {
      <a class="btn btn-solid" routerLink="/students">Add your first student</a>
    }
    <zp-export-lines [instrument]="instrument()" [title]="fileTitle() || title()" [lines]="lines()" />
    @if (making.fault()) {
      <p class="fault-text w-100" role="alert">{{ making.fault() }}</p>
    }
  `,
})
export class LinesOntoSheetComponent implements OnInit, OnDestroy {
  protected readonly count = count;
  private readonly sheets = inject(SheetsService);
  private readonly router = inject(Router);
  private readonly keys = inject(KeyService);
  protected readonly state = inject(StudioState);
  protected readonly making = new Attempt();

  readonly instrument = input.required<Instrument>();
  readonly lines = input.required<readonly PlannedSheetLine[]>();
  /** Of a new sheet; for whom it is comes after it. */
  readonly title = input.required<string>();
  /** Of a file, where it is another. */
  readonly fileTitle = input('');
  /** Words at the head of a new sheet. */
  readonly note = input('');
  /** The tune from which they come. */
  readonly tune = input<string | null>(null);
  /** True where the key N makes a new sheet. */
  readonly hasKey = input(false);

  private readonly all = signal<readonly SheetSummary[]>([]);
  protected readonly sheetsHere = computed(() =>
    this.all().filter(({ student, instrument, sentAt }) => sentAt === null && student.id === this.state.student()?.id && instrument === this.instrument().id),
  );
  protected readonly isDisabled = computed(() => this.making.isBusy() || this.lines().length === 0);
  private release = (): void => undefined;

  ngOnInit(): void {
    if (this.hasKey()) this.release = this.keys.use('newSheet', { make: () => this.make() });
    // Without them the lines can still go onto a new sheet.
    if (!this.state.isOfStudent()) this.sheets.list().subscribe({ next: (sheets) => this.all.set(sheets), error: () => this.all.set([]) });
  }

  ngOnDestroy(): void {
    this.release();
  }

  protected make(): void {
    const student = this.state.student();
    if (student === undefined || this.isDisabled()) return;
    const title = `${this.title()} for ${student.alias}`.slice(0, sheetLimits.title);
    const sheet = { title, studentId: student.id, tuneId: this.tune(), instrument: this.instrument().id, note: this.note(), lines: [...this.lines()] };
    this.making.run(this.sheets.add(sheet), ({ id }) => this.open(id));
  }

  protected addTo({ id }: SheetSummary): void {
    this.making.run(this.sheets.append(id, this.lines()), () => this.open(id));
  }

  private open(id: string): void {
    void this.router.navigate(['/sheets', id]);
  }
}
