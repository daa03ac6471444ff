import { Component, computed, effect, inject, input, type OnDestroy, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { lineTitle } from '@zelpit/core/line';
import { changesToPractise, expectedMinutes, heldPhrase, lineOfChange, plannedLine, tenMinuteSheet, type PlannedLine } from '@zelpit/core/plan';
import { count } from '@zelpit/core/words';
import { messageOf } from '../../kernel/api/api.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { LinesOntoSheetComponent } from '../../documents/sheet/lines-onto-sheet.component';
import { LineStripComponent } from '../../music/lines/line-strip.component';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { LinePlayer } from '../../music/lines/line-player.service';
import { LineViewComponent } from '../../music/lines/line-view.component';
import { PaceComponent } from '../../music/lines/pace.component';

/** Lines proposed for some changes of a tune, before they go onto a sheet. */
@Component({
  selector: 'zp-lines-page',
  imports: [SentenceComponent, ForWhomComponent, RouterLink, LineViewComponent, PaceComponent, LineStripComponent, LinesOntoSheetComponent],
  templateUrl: './lines.page.html',
})
export class LinesPage implements OnDestroy {
  protected readonly count = count;
  private readonly tunes = inject(TunesService);
  private readonly notices = inject(NoticeService);
  private readonly player = inject(LinePlayer);

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

  protected readonly minutes = computed(() => expectedMinutes(this.lines()));
  protected readonly planned = computed(() => this.lines().map((line) => ({ ...line, kind: 'line' as const, point: '' })));
  protected readonly chosenLine = computed(() => this.lines()[this.chosen()]);

  private readonly release = inject(KeyService).use('lines', { next: () => this.step(1), before: () => this.step(-1) });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => this.open(id));
    });
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
          const plan = tenMinuteSheet(opened.instrument, changesToPractise(opened.changes));
          this.lines.set(plan.lines);
          this.held.set(heldPhrase(plan));
          return;
        }
        const wanted = (this.changes() ?? '').split(',');
        const found = [...opened.changes.open, ...opened.changes.tongued, ...opened.changes.underGraceNotes].filter((change) => wanted.includes(change.id));
        const distinct = [...new Map(found.map((change) => [change.id, change])).values()];
        this.lines.set(distinct.map((change) => plannedLine(opened.instrument, lineOfChange(change))));
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }
}
