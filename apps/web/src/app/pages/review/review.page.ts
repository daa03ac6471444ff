import { CdkDrag, CdkDragHandle, CdkDropList } from '@angular/cdk/drag-drop';
import { Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { hasMusic, sheetLimits, takeBackSeconds, type Review, type SheetLineInput, type StudentLink } from '@zelpit/contract';
import { pairKey } from '@zelpit/core/line';
import {
  activities,
  activityNames,
  itemMinutes,
  reviewItemText,
  reviewItemTitle,
  reviewMinutes,
  standsText,
  watchText,
  weeksLater,
  withTempos,
  type Activity,
  type Priority,
} from '@zelpit/core/review';
import { count } from '@zelpit/core/words';
import { AnotherLineComponent } from '../../documents/sheet/another-line.component';
import { compareSheets } from '../../documents/sheet/compare-sheets';
import type { DraftLine } from '../../documents/sheet/line-input';
import type { PlannedItem } from '../../documents/sheet/planned-lines';
import { ReviewsService } from '../../documents/sheet/reviews.service';
import { SheetEditor } from '../../documents/sheet/sheet-editor';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { KeyService } from '../../kernel/keys/key.service';
import { copyAddress } from '../../kernel/notices/copy-address';
import { NoticeService } from '../../kernel/notices/notice.service';
import { ConflictComponent } from '../../kernel/saving/conflict.component';
import { timeOfDay } from '../../kernel/saving/kept-document';
import { UndoComponent } from '../../kernel/saving/undo.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { dayAndMonth } from '../../kernel/words/words';
import { LinePlayer } from '../../music/lines/line-player.service';
import { PainCautionComponent } from '../../music/lines/pain-caution.component';
import { Transport } from '../../music/sound/transport.service';
import { SpokenWordListComponent } from '../../music/spoken-words/spoken-word-list.component';
import { SpokenWords } from '../../music/spoken-words/spoken-words';
import { dayOf } from '../../studio/lessons/lessons.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { StudioState } from '../../studio/state/studio-state.service';
import { ReviewDayComponent } from './review-day.component';
import { ReviewItemFormComponent, type ItemEdit } from './review-item-form.component';

const mostWeeks = 8;
const onPurpose = 'left out on purpose';
const usualDays: readonly number[] = [5, 10, 15, 20, 25, 30, 40, 50, 60, 90];

/** What is practised until the next lesson: proposed, then struck out, moved, said, and sent. */
@Component({
  selector: 'zp-review',
  imports: [
    SentenceComponent,
    RouterLink,
    CdkDropList,
    CdkDrag,
    CdkDragHandle,
    ChooserComponent,
    UndoComponent,
    ConflictComponent,
    PainCautionComponent,
    AnotherLineComponent,
    ReviewDayComponent,
    ReviewItemFormComponent,
    SpokenWordListComponent,
  ],
  templateUrl: './review.page.html',
  providers: [SheetEditor, SpokenWords],
})
export class ReviewPage implements OnDestroy {
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly service = inject(ReviewsService);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  private readonly player = inject(LinePlayer);
  protected readonly transport = inject(Transport);
  protected readonly editor = inject(SheetEditor);
  protected readonly words = inject(SpokenWords);

  readonly id = input.required<string>();
  protected readonly today = dayOf(new Date());
  protected readonly onPurpose = onPurpose;
  protected readonly count = count;
  protected readonly standsText = standsText;
  protected readonly activities = activities;
  protected readonly activityNames = activityNames;
  protected readonly minutesOf = itemMinutes;
  protected readonly textOf = reviewItemText;

  private readonly chosen = signal('');
  protected readonly isOpen = signal(false);
  protected readonly isAdding = signal(false);
  protected readonly isSending = signal(false);
  protected readonly spoken = signal('');
  /** The link to hand over, shown once. */
  protected readonly link = signal<StudentLink | undefined>(undefined);
  protected readonly mailTyped = signal<string | undefined>(undefined);
  private readonly now = signal(Date.now());
  private readonly clock = setInterval(() => this.now.set(Date.now()), 1000);

  protected readonly review = computed((): Review | null => this.editor.shown().review ?? null);
  protected readonly isSent = computed(() => (this.editor.stored()?.sentAt ?? null) !== null);
  protected readonly items = computed(() => withTempos(this.editor.shown().lines));
  protected readonly minutes = computed(() => reviewMinutes(this.items()));
  protected readonly tooMany = computed(() => this.minutes() - (this.review()?.minutes ?? 0));
  protected readonly instrument = computed(() => this.shelf.instrumentFor(this.editor.stored()?.student.id, this.editor.stored()?.instrument));
  protected readonly known = computed(() => this.shelf.heldFor(this.editor.stored()?.student.id, this.editor.stored()?.instrument)?.knownNotes ?? []);
  protected readonly chosenItem = computed(() => this.items().find(({ id }) => id === this.chosen()) ?? this.items().at(0));
  protected readonly chosenIndex = computed(() =>
    Math.max(
      0,
      this.items().findIndex(({ id }) => id === this.chosenItem()?.id),
    ),
  );
  protected readonly chosenMusic = computed(() => {
    const item = this.chosenItem();
    return item !== undefined && hasMusic(item) && item.details?.mark !== 'no-sound' ? item : undefined;
  });
  /** What gives way first: the last of those that the priority does not need. */
  protected readonly leastNeeded = computed(() => this.items().findLast((item, index) => index > 0 && itemMinutes(item) > 0));
  protected readonly mailTo = computed(() => this.mailTyped() ?? this.state.students().find(({ id }) => id === this.editor.stored()?.student.id)?.mailTo ?? '');
  protected readonly weekChoices = computed((): readonly Choice<string>[] => {
    const until = this.review()?.priority?.until;
    const weeks = Array.from({ length: mostWeeks }, (_, index) => weeksLater(this.today, index + 1));
    return [...new Set([...(until === undefined ? [] : [until]), ...weeks])]
      .sort()
      .map((day) => ({ value: day, label: standsText({ until: day }, this.today) }));
  });
  protected readonly minuteChoices = computed((): readonly Choice<number>[] => {
    const minutes = this.review()?.minutes ?? 0;
    return [...new Set([...usualDays, minutes])].sort((one, other) => one - other).map((each) => ({ value: each, label: String(each) }));
  });
  protected readonly canTakeBack = computed(() => {
    const sheet = this.editor.stored();
    return sheet?.sentAt != null && sheet.openedAt === null && this.now() - Date.parse(sheet.sentAt) < takeBackSeconds * 1000;
  });
  protected readonly sentText = computed(() => {
    const sheet = this.editor.stored();
    if (sheet?.sentAt == null) return '';
    const opened =
      sheet.openedAt === null ? `${sheet.student.alias} has not opened it yet.` : `${sheet.student.alias} opened it ${momentText(sheet.openedAt)}.`;
    return `Sent ${momentText(sheet.sentAt)}. ${opened}`;
  });
  protected readonly comparison = computed(() => {
    const conflict = this.editor.conflict();
    if (conflict === undefined) return undefined;
    return compareSheets(
      conflict.base,
      conflict.mine,
      conflict.theirs,
      (item) => this.titleOf(item),
      (item) => [reviewItemText(item), item.point].filter((text) => text !== '').join('. '),
    );
  });
  protected readonly theirsText = computed(() => {
    const at = this.editor.conflict()?.stored.updatedAt;
    return at === undefined ? '' : timeOfDay(at);
  });

  private readonly release = inject(KeyService).use('review', {
    play: () => this.togglePlay(),
    next: () => this.step(1),
    before: () => this.step(-1),
    moveDown: () => this.moveChosen(1),
    moveUp: () => this.moveChosen(-1),
    strike: () => this.strikeChosen(),
    add: () => this.isAdding.update((on) => !on),
    open: () => this.isOpen.update((on) => !on),
    paper: () => void this.router.navigate(['/reviews', this.id(), 'paper']),
    send: () => this.send(),
    leave: () => this.fold(),
  });

  constructor() {
    this.editor.follow(this.id);
    this.state.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
    // What is on its way to the server goes first: what is sent is what stands here.
    effect(() => {
      const [state, stored] = [this.editor.state(), this.editor.stored()];
      if (!this.isSending() || stored === undefined || state === 'waiting' || state === 'saving') return;
      untracked(() => this.sendStored(state));
    });
    // A sent review shows nothing of what was said.
    const lesson = computed(() => (this.isSent() ? undefined : (this.editor.stored()?.lessonId ?? undefined)));
    effect(() => {
      const [id, sheet] = [lesson(), untracked(() => this.editor.stored())];
      if (id !== undefined && sheet !== undefined) untracked(() => this.words.open({ id, studentId: sheet.student.id }));
    });
    effect(() => {
      const sheet = this.editor.stored();
      if (sheet !== undefined && sheet.review === null) untracked(() => void this.router.navigate(['/sheets', sheet.id], { replaceUrl: true }));
      else if (sheet !== undefined) untracked(() => this.state.choose(sheet.student.id));
    });
  }

  ngOnDestroy(): void {
    this.release();
    clearInterval(this.clock);
    this.transport.stop();
  }

  protected readonly dayText = (day: string | undefined): string => (day === undefined ? '' : dayAndMonth(day));
  protected readonly typed = (event: Event): string => (event.target as HTMLInputElement).value;

  protected titleOf(item: SheetLineInput): string {
    return reviewItemTitle(this.instrument(), item);
  }

  /** A piece of a tune is called by its tune, with its place below. */
  protected nameOf(item: SheetLineInput): { readonly first: string; readonly second: string } {
    if (!hasMusic(item) || item.excerpt == null) return { first: this.titleOf(item), second: '' };
    return { first: item.excerpt.tune, second: item.excerpt.place === '' ? 'the whole tune' : item.excerpt.place.toLowerCase() };
  }

  protected watchOf(item: SheetLineInput): string {
    const { watch, tooFast } = watchText(this.instrument(), item);
    return [watch, tooFast === '' ? '' : `Too fast? ${tooFast}`].filter((text) => text !== '').join(' ');
  }

  /** The item as it was proposed, where it says something else now. */
  protected proposedFor(item: DraftLine): SheetLineInput | undefined {
    const found = this.review()?.proposed.find(({ id }) => id === item.id);
    if (found === undefined) return undefined;
    const same = (one: SheetLineInput): string =>
      `${reviewItemText(one)} ${one.point} ${one.details?.tooFast ?? ''} ${hasMusic(one) ? pairKey(one) : one.text}`;
    return same(found) === same(item) ? undefined : found;
  }

  protected asProposed(item: DraftLine, before: SheetLineInput): void {
    const { id: _, ...content } = before;
    this.editor.editLine(item.id, content, `${this.titleOf(item)} as it was proposed`);
  }

  protected setPriority(change: Partial<Priority>): void {
    const now = this.review()?.priority ?? { text: 'What comes first', sentence: '', until: weeksLater(this.today, 3), home: null, other: null };
    const priority = { ...now, ...change };
    this.editor.editReview({ priority }, 'what comes first', `priority ${Object.keys(change).join(' ')}`);
  }

  /** What is emptied stays as it was. */
  protected setPriorityText(event: Event): void {
    const field = event.target as HTMLInputElement;
    if (field.value.trim() === '') field.value = this.review()?.priority?.text ?? '';
    else this.setPriority({ text: field.value.trim() });
  }

  protected setMinutes(minutes: number): void {
    this.editor.editReview({ minutes }, 'the minutes of a day');
  }

  protected choose(id: string): void {
    if (id !== this.chosenItem()?.id) this.isOpen.set(false);
    this.chosen.set(id);
  }

  protected toggleForm(id: string): void {
    const isSame = id === this.chosenItem()?.id;
    this.chosen.set(id);
    this.isOpen.update((on) => !isSame || !on);
  }

  protected edit(item: DraftLine, { change, text }: ItemEdit): void {
    this.editor.editLine(item.id, change, `${text} of ${this.titleOf(item)}`);
  }

  protected strikeChosen(): void {
    const item = this.chosenItem();
    if (item !== undefined) this.strike(item);
  }

  protected strike(item: DraftLine): void {
    if (this.isSent()) return;
    const next = this.items().at(this.items().indexOf(item) + 1) ?? this.items().at(-2);
    this.editor.strikeOut(item.id, 'struck out');
    this.chosen.set(next?.id ?? '');
    this.isOpen.set(false);
    this.spoken.set(`${this.titleOf(item)} is struck out.`);
  }

  /** What is left out deliberately is marked so: next time it is not taken for forgotten. */
  protected leaveOut(place: number): void {
    const struck = this.review()?.struck ?? [];
    this.editor.editReview({ struck: struck.map((each, index) => (index === place ? { ...each, reason: onPurpose } : each)) }, 'an item left out on purpose');
  }

  protected move(item: DraftLine, by: number): void {
    const from = this.items().findIndex(({ id }) => id === item.id);
    if (this.isSent() || from + by < 0 || from + by >= this.items().length) return;
    this.editor.move(from, from + by);
    this.chosen.set(item.id);
    this.spoken.set(`${this.titleOf(item)} is now item ${from + by + 1} of ${this.items().length}.`);
  }

  protected add(lines: readonly PlannedItem[]): void {
    const room = sheetLimits.lines - this.items().length;
    if (lines.length > room) {
      this.notices.done(`A review holds at most ${sheetLimits.lines} items: there is room for ${room} more, not for ${lines.length}.`);
      return;
    }
    const [first] = this.editor.addAll(lines);
    this.choose(first.id);
    setTimeout(() => document.getElementById(first.id)?.scrollIntoView({ block: 'nearest' }));
  }

  protected addWords(field: HTMLInputElement, activity: string): void {
    const text = field.value.trim();
    if (text === '') {
      this.notices.done('Write what is to be done, for example: sing the second part by note names.');
      return;
    }
    const details = activity === 'other' ? null : { activity: activity as Activity };
    this.add([{ kind: 'words', text, repetitions: 1, tempo: null, speeds: null, point: '', details }]);
    field.value = '';
  }

  protected togglePlay(): void {
    const line = this.chosenMusic();
    if (this.transport.playing() !== undefined) this.transport.stop();
    else if (line !== undefined) this.player.play('line', this.instrument(), line, line.repetitions, false);
  }

  protected send(): void {
    if (!this.isSent() && this.items().length > 0) this.isSending.set(true);
  }

  protected copy(address: string): void {
    void copyAddress(address, this.notices);
  }

  protected takeBack(): void {
    this.service.takeBack(this.id()).subscribe({
      next: () => this.reopen(),
      error: (error: unknown) => this.refuse(error),
    });
  }

  protected writeAnew(): void {
    this.service.writeAnew(this.id()).subscribe({
      next: ({ id }) => void this.router.navigate(['/reviews', id]),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private sendStored(state: string): void {
    const stored = this.editor.stored();
    if (stored === undefined) return;
    if (state !== 'saved' && state !== 'untouched') {
      this.isSending.set(false);
      this.notices.done('It was not sent: it has to be saved first.');
      return;
    }
    const mail = this.mailTo().trim();
    this.service.send(stored.id, stored.version, mail === '' ? null : mail).subscribe({
      next: ({ link }) => {
        this.link.set(link);
        this.notices.done(`Sent to ${stored.student.alias}${mail === '' ? '' : ` and by mail to ${mail}`}.`);
        this.reopen();
      },
      error: (error: unknown) => {
        this.isSending.set(false);
        this.refuse(error);
      },
    });
    // One answer is enough.
    this.isSending.set(false);
  }

  private reopen(): void {
    this.isSending.set(false);
    void this.editor.open(this.id());
  }

  private refuse(error: unknown): void {
    this.notices.fault(error);
    void this.editor.open(this.id());
  }

  private step(by: number): void {
    const next = this.items().at(Math.max(0, Math.min(this.items().length - 1, this.chosenIndex() + by)));
    if (next === undefined) return;
    this.choose(next.id);
    document.getElementById(next.id)?.scrollIntoView({ block: 'nearest' });
  }

  private moveChosen(by: number): void {
    const item = this.chosenItem();
    if (item !== undefined) this.move(item, by);
  }

  private fold(): void {
    this.isOpen.set(false);
    this.isAdding.set(false);
  }
}

/** "16:09", on another day "1 December, 16:09". */
function momentText(moment: string): string {
  const time = timeOfDay(moment);
  const date = new Date(moment);
  return date.toDateString() === new Date().toDateString()
    ? `at ${time}`
    : `on ${date.toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })} at ${time}`;
}
