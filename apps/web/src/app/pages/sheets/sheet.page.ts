import { CdkDrag, CdkDragHandle, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { hasMusic, sheetLimits } from '@zelpit/contract';
import { countText, lineTitle, paceText } from '@zelpit/core/line';
import { expectedMinutes } from '@zelpit/core/plan';
import { count } from '@zelpit/core/words';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { LinePlayer } from '../../music/lines/line-player.service';
import { ExportLinesComponent } from '../../music/export/export-lines.component';
import { LineStripComponent } from '../../music/lines/line-strip.component';
import { LineViewComponent } from '../../music/lines/line-view.component';
import { PainCautionComponent } from '../../music/lines/pain-caution.component';
import { PaceComponent } from '../../music/lines/pace.component';
import { LineWordsChoice } from '../../music/wording/line-words.service';
import { ChooserComponent } from '../../kernel/chooser/chooser.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { AnotherLineComponent } from '../../documents/sheet/another-line.component';
import { LineFingeringComponent } from './line-fingering.component';
import { LineLayersComponent } from './line-layers.component';
import { PieceLayersComponent } from './piece-layers.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ConflictComponent } from '../../kernel/saving/conflict.component';
import { timeOfDay } from '../../kernel/saving/kept-document';
import { UndoComponent } from '../../kernel/saving/undo.component';
import { compareSheets } from '../../documents/sheet/compare-sheets';
import { SheetEditor } from '../../documents/sheet/sheet-editor';
import type { PlannedItem } from '../../documents/sheet/planned-lines';
import type { DraftLine } from '../../documents/sheet/line-input';

/** A student's practice sheet: lines in order, with counts, pace and what to watch. */
@Component({
  selector: 'zp-sheet-page',
  imports: [
    SentenceComponent,
    RouterLink,
    CdkDropList,
    CdkDrag,
    CdkDragHandle,
    LineViewComponent,
    PaceComponent,
    LineStripComponent,
    ExportLinesComponent,
    UndoComponent,
    ConflictComponent,
    PainCautionComponent,
    AnotherLineComponent,
    LineFingeringComponent,
    LineLayersComponent,
    PieceLayersComponent,
    ChooserComponent,
  ],
  templateUrl: './sheet.page.html',
  providers: [SheetEditor],
})
export class SheetPage implements OnDestroy {
  protected readonly count = count;
  private readonly shelf = inject(InstrumentShelf);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  private readonly player = inject(LinePlayer);
  protected readonly words = inject(LineWordsChoice);
  protected readonly editor = inject(SheetEditor);
  protected readonly limits = sheetLimits;

  readonly id = input.required<string>();
  protected readonly chosen = signal('');
  protected readonly spoken = signal('');
  protected readonly instrument = computed(() => this.shelf.instrumentFor(this.editor.stored()?.student.id, this.editor.stored()?.instrument));
  protected readonly instrumentText = computed(() => nameOf(this.instrument()));
  protected readonly chosenLine = computed(() => this.editor.shown().lines.find((line) => line.id === this.chosen()) ?? this.editor.shown().lines[0]);
  protected readonly chosenMusic = computed(() => {
    const line = this.chosenLine();
    return line !== undefined && hasMusic(line) ? line : undefined;
  });
  protected readonly chosenIndex = computed(() => this.editor.shown().lines.indexOf(this.chosenLine()));
  protected readonly minutes = computed(() => expectedMinutes(this.editor.shown().lines.filter(hasMusic)));
  protected readonly comparison = computed(() => {
    const conflict = this.editor.conflict();
    if (conflict === undefined) return undefined;
    return compareSheets(conflict.base, conflict.mine, conflict.theirs, (line) => this.titleOf(line), settingsText);
  });
  protected readonly theirsText = computed(() => {
    const at = this.editor.conflict()?.stored.updatedAt;
    return at === undefined ? '' : timeOfDay(at);
  });
  /** Notes that the student's own instrument has ticked as known. */
  protected readonly known = computed(() => this.shelf.heldFor(this.editor.stored()?.student.id, this.editor.stored()?.instrument)?.knownNotes ?? []);

  private readonly release = inject(KeyService).use('sheet', {
    next: () => this.step(1),
    before: () => this.step(-1),
    moveDown: () => this.moveChosen(1),
    moveUp: () => this.moveChosen(-1),
    paper: () => void this.router.navigate(['/sheets', this.id(), 'paper']),
  });

  constructor() {
    this.editor.follow(this.id);
    // A review has a page of its own.
    effect(() => {
      const sheet = this.editor.stored();
      if (sheet?.isReview === true) untracked(() => void this.router.navigate(['/reviews', sheet.id], { replaceUrl: true }));
    });
  }

  ngOnDestroy(): void {
    this.release();
  }

  protected titleOf(line: DraftLine): string {
    return hasMusic(line) ? lineTitle(this.instrument(), line) : line.text;
  }

  protected typed(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  protected setPoint(line: DraftLine, point: string): void {
    this.editor.editLine(line.id, { point }, `what to watch for in ${this.titleOf(line)}`);
  }

  protected setRepetitions(line: DraftLine, event: Event): void {
    const field = event.target as HTMLInputElement;
    const typed = Math.round(field.valueAsNumber);
    const repetitions = Number.isFinite(typed) ? Math.min(sheetLimits.repetitions, Math.max(1, typed)) : line.repetitions;
    field.value = String(repetitions);
    if (repetitions !== line.repetitions) this.editor.editLine(line.id, { repetitions }, `the repetitions of ${this.titleOf(line)}`);
  }

  protected countOf(line: DraftLine): string {
    return itemCount(line);
  }

  /** The speeds of a drill as they were typed; what is no speed changes nothing, and the field shows again what holds. */
  protected setSpeeds(line: DraftLine, event: Event): void {
    const field = event.target as HTMLInputElement;
    const speeds = speedsIn(field.value);
    const text = `the speeds of ${this.titleOf(line)}`;
    if (speeds.length > 1) this.editor.editLine(line.id, { speeds, tempo: speeds[0] }, text);
    else if (speeds.length === 1) this.editor.editLine(line.id, { speeds: null, tempo: speeds[0] }, text);
    else this.notices.done(`Speeds are numbers from ${sheetLimits.slowest} to ${sheetLimits.fastest}, at most ${sheetLimits.speeds}.`);
    field.value = (this.editor.shown().lines.find(({ id }) => id === line.id)?.speeds ?? []).join(', ');
  }

  protected dropped(event: CdkDragDrop<unknown>): void {
    this.editor.move(event.previousIndex, event.currentIndex);
  }

  protected move(line: DraftLine, by: number): void {
    const { lines } = this.editor.shown();
    const from = lines.indexOf(line);
    const to = from + by;
    if (to < 0 || to >= lines.length) return;
    this.editor.move(from, to);
    this.chosen.set(line.id);
    this.spoken.set(`${this.titleOf(line)} is now line ${to + 1} of ${lines.length}.`);
    setTimeout(() => document.getElementById(line.id)?.scrollIntoView({ block: 'nearest' }));
  }

  protected remove(line: DraftLine): void {
    this.editor.takeOff(line.id);
    this.notices.done(`${this.titleOf(line)} was taken off the sheet. Undo brings it back.`);
  }

  /** Words that are emptied are left as they were. */
  protected setWords(line: DraftLine, event: Event): void {
    const field = event.target as HTMLInputElement;
    const text = field.value.trim();
    if (text !== '') this.editor.editLine(line.id, { text }, 'what is to be done');
    else if (line.kind === 'words') field.value = line.text;
  }

  protected addWords(field: HTMLInputElement): void {
    const text = field.value.trim();
    if (text === '') {
      this.notices.done('Write what is to be done, for example: clap the tune, then sing it.');
      return;
    }
    this.add([{ kind: 'words', text, repetitions: 1, tempo: null, speeds: null, point: '' }]);
    field.value = '';
  }

  protected add(lines: readonly PlannedItem[]): void {
    const room = sheetLimits.lines - this.editor.shown().lines.length;
    if (lines.length > room) {
      this.notices.done(`A sheet holds at most ${sheetLimits.lines} lines: there is room for ${room} more, not for ${lines.length}.`);
      return;
    }
    const [first] = this.editor.addAll(lines);
    this.chosen.set(first.id);
    setTimeout(() => document.getElementById(first.id)?.scrollIntoView({ block: 'nearest' }));
  }

  protected play(isFaulty: boolean): void {
    const line = this.chosenLine();
    if (line !== undefined && hasMusic(line)) this.player.play('line', this.instrument(), line, line.repetitions, isFaulty);
  }

  private step(by: number): void {
    const { lines } = this.editor.shown();
    const next = lines[Math.max(0, Math.min(lines.length - 1, this.chosenIndex() + by))];
    if (next === undefined) return;
    this.chosen.set(next.id);
    setTimeout(() => document.getElementById(next.id)?.scrollIntoView({ block: 'nearest' }));
  }

  private moveChosen(by: number): void {
    const line = this.chosenLine();
    if (line !== undefined) this.move(line, by);
  }
}

/** The speeds in a text, each within its limits; none where one of them is none. */
function speedsIn(text: string): number[] {
  const speeds = text
    .split(/[^\d.]+/)
    .filter((part) => part !== '')
    .map((part) => Math.round(Number(part)));
  const isValid = speeds.length <= sheetLimits.speeds && speeds.every((speed) => speed >= sheetLimits.slowest && speed <= sheetLimits.fastest);
  return isValid ? speeds : [];
}

const itemCount = (line: DraftLine): string => (hasMusic(line) ? countText(line) : count(line.repetitions, 'time'));

/** What is set for a line, in words. */
function settingsText(line: DraftLine): string {
  const settings = hasMusic(line) ? `${countText(line)}, ${paceText(line)}` : itemCount(line);
  return line.point === '' ? settings : `${settings}: ${line.point}`;
}
