import { Component, computed, effect, inject, input, type OnDestroy, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { expectedMinutes, heldPhrase, lineTitle, plannedLine, tenMinuteSheet, type PlannedLine } from '@zelpit/core';
import type { SheetSummary } from '@zelpit/contract';
import { messageOf } from '../../kernel/api/api.service';
import { lineInput } from '../../documents/sheet/sheet-kind';
import { SheetsService } from '../../documents/sheet/sheets.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ExportLinesComponent } from '../../music/export/export-lines.component';
import { LineStripComponent } from '../../music/lines/line-strip.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { LinePlayer } from '../../music/lines/line-player.service';
import { LineViewComponent } from '../../music/lines/line-view.component';
import { PaceComponent } from '../../music/lines/pace.component';

/** Lines proposed for some changes of a tune, before they go onto a sheet. */
@Component({
  selector: 'zp-lines-page',
  imports: [SentenceComponent, ForWhomComponent, RouterLink, LineViewComponent, PaceComponent, LineStripComponent, ExportLinesComponent, NgbDropdownModule],
  templateUrl: './lines.page.html',
})
export class LinesPage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly sheets = inject(SheetsService);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  private readonly player = inject(LinePlayer);
  protected readonly state = inject(StudioState);

  readonly id = input.required<string>();
  /** Changes to make lines of, as "from>to" joined by commas. */
  readonly changes = input<string>();
  /** Present for the ten-minute sheet. */
  readonly ten = input<string>();

  protected readonly opened = signal<OpenedTune | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly lines = signal<readonly PlannedLine[]>([]);
  protected readonly held = signal('');
  protected readonly chosen = signal(0);
  protected readonly isBusy = signal(false);
  protected readonly openSheets = signal<readonly SheetSummary[]>([]);

  protected readonly minutes = computed(() => expectedMinutes(this.lines()));
  protected readonly planned = computed(() => this.lines().map((line) => ({ ...line, point: '' })));
  protected readonly chosenLine = computed(() => this.lines()[this.chosen()]);
  protected readonly sheetsOfStudent = computed(() =>
    this.openSheets().filter((sheet) => sheet.student.id === this.state.student()?.id && sheet.instrument === this.opened()?.instrument.id),
  );

  private readonly release = inject(KeyService).use([
    { keys: ['s'], cap: 'S', label: 'Put these lines on a new sheet', run: () => this.newSheet() },
    { keys: ['ArrowDown', 'PageDown'], cap: '↓', label: 'Next line', run: () => this.step(1) },
    { keys: ['ArrowUp', 'PageUp'], cap: '↑', label: 'Line before it', run: () => this.step(-1) },
  ]);

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => this.open(id));
    });
    this.sheets.list().subscribe({ next: (sheets) => this.openSheets.set(sheets), error: (error: unknown) => this.notices.fault(error) });
  }

  ngOnDestroy(): void {
    this.release();
  }

  protected titleOf(line: PlannedLine): string {
    const opened = this.opened();
    return opened === undefined ? '' : lineTitle(opened.instrument, line);
  }

  protected setPace(index: number, tempo: number | null): void {
    this.lines.update((lines) => lines.map((line, at) => (at === index ? { ...line, tempo } : line)));
  }

  protected leaveOut(index: number): void {
    const before = this.lines();
    this.lines.set(before.filter((_, at) => at !== index));
    this.chosen.update((chosen) => Math.max(0, Math.min(chosen, before.length - 2)));
    this.held.set('');
    this.notices.done(`${this.titleOf(before[index])} was left out.`, () => this.lines.set(before));
  }

  protected newSheet(): void {
    const student = this.state.student();
    const opened = this.opened();
    if (student === undefined || opened === undefined || this.isBusy() || this.lines().length === 0) return;
    this.isBusy.set(true);
    const title = this.ten() === undefined ? `${opened.detail.title} for ${student.alias}` : `Ten minutes for ${student.alias}`;
    this.sheets
      .add({
        studentId: student.id,
        tuneId: opened.detail.id,
        instrument: opened.instrument.id,
        title: title.slice(0, 120),
        note: this.held(),
        lines: this.lines().map((line) => ({ ...line, point: '' })),
      })
      .subscribe({
        next: (sheet) => void this.router.navigate(['/sheets', sheet.id]),
        error: (error: unknown) => {
          this.isBusy.set(false);
          this.notices.fault(error);
        },
      });
  }

  /** Adds the lines at the end of a sheet that is there already. */
  protected addTo(summary: SheetSummary): void {
    this.isBusy.set(true);
    const failed = (error: unknown): void => {
      this.isBusy.set(false);
      this.notices.fault(error);
    };
    this.sheets.get(summary.id).subscribe({
      next: ({ id, title, note, version, lines }) => {
        const added = this.lines().map((line) => ({ ...line, point: '' }));
        this.sheets
          .save(id, { title, note, version, lines: [...lines.map(lineInput), ...added] })
          .subscribe({ next: () => void this.router.navigate(['/sheets', id]), error: failed });
      },
      error: failed,
    });
  }

  protected play(isFaulty: boolean): void {
    const opened = this.opened();
    const line = this.chosenLine();
    if (opened !== undefined && line !== undefined) this.player.play('line', opened.instrument, line, 1, isFaulty);
  }

  private step(by: number): void {
    this.chosen.update((chosen) => Math.max(0, Math.min(this.lines().length - 1, chosen + by)));
    setTimeout(() => document.getElementById(`line-${this.chosen()}`)?.scrollIntoView({ block: 'nearest' }));
  }

  private open(id: string): void {
    this.tunes.open(id).subscribe({
      next: (opened) => {
        this.opened.set(opened);
        if (this.ten() !== undefined) {
          const plan = tenMinuteSheet(opened.instrument, opened.changes.open);
          this.lines.set(plan.lines);
          this.held.set(heldPhrase(plan));
          return;
        }
        const wanted = (this.changes() ?? '').split(',');
        const found = [...opened.changes.open, ...opened.changes.underGraceNotes].filter((change) => wanted.includes(change.id));
        const distinct = [...new Map(found.map((change) => [change.id, change])).values()];
        this.lines.set(distinct.map(({ change }) => plannedLine(opened.instrument, { home: change.from, other: change.to })));
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }
}
