import { Component, computed, effect, inject, input, linkedSignal, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Change } from '@zelpit/core/change';
import type { NoteId } from '@zelpit/core/fingering';
import { describedLine, lineAbc, lineTitle, type Line, type Mode } from '@zelpit/core/line';
import { barsOf, coverageOf, linesOf, physicalPurpose, type LineSetKind } from '@zelpit/core/line-sets';
import { plannedLine } from '@zelpit/core/plan';
import { count } from '@zelpit/core/words';
import { hasMusic, sheetLimits, type MusicKind, type SheetDetail, type SheetSummary } from '@zelpit/contract';
import { kindOf } from '../../documents/sheet/planned-lines';
import { PlayerTimings } from '../../studio/trials/player-timings.service';
import { SheetsService } from '../../documents/sheet/sheets.service';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { capital } from '../../kernel/words/words';
import { StudioState } from '../../studio/state/studio-state.service';
import { LinesOntoSheetComponent } from '../../documents/sheet/lines-onto-sheet.component';
import { asksFor, isPairSet, lineWishes, modes, wishedLines, type LineWish } from '../../music/lines/line-wishes';
import { LinePlayer } from '../../music/lines/line-player.service';
import { LineStripComponent } from '../../music/lines/line-strip.component';
import { PainCautionComponent } from '../../music/lines/pain-caution.component';
import { StaffLineComponent } from '../../music/score/staff-line.component';

type Wish = LineWish | 'own';

const wishes: readonly Choice<Wish>[] = [...lineWishes, { value: 'own', label: 'my own choice' }];
/** Sets that keep their own order instead of going from easy to hard. */
const ownOrder: ReadonlySet<Wish> = new Set<Wish>(['scale-values', 'rhythms', 'growing', 'crosses-by-note']);
const layouts: readonly Choice<'lines' | 'bars'>[] = [
  { value: 'lines', label: 'a line for each change' },
  { value: 'bars', label: 'a bar for each change' },
];
const foci: readonly Choice<'fingers' | 'timing'>[] = [
  { value: 'fingers', label: 'the fingers, no click' },
  { value: 'timing', label: 'the timing, with the click' },
];

interface OrderedLine {
  readonly line: Line;
  readonly title: string;
  readonly hard: number;
  readonly why: string;
  readonly musical: string;
  readonly physical: string;
  readonly abc: string;
}

/** Lines to practise for one instrument: which, in which order and why, what of a set is on a sheet, and out onto a sheet or into a file. */
@Component({
  selector: 'zp-change-lines',
  imports: [
    SentenceComponent,
    ForWhomComponent,
    ChooserComponent,
    RouterLink,
    StaffLineComponent,
    LineStripComponent,
    LinesOntoSheetComponent,
    PainCautionComponent,
  ],
  templateUrl: './change-lines.page.html',
})
export class ChangeLinesPage {
  protected readonly count = count;
  private readonly sheets = inject(SheetsService);
  private readonly timings = inject(PlayerTimings);
  private readonly notices = inject(NoticeService);
  private readonly player = inject(LinePlayer);
  protected readonly state = inject(StudioState);

  /** The note to begin with, from the address. */
  readonly note = input<string>();

  protected readonly wishes = wishes;
  protected readonly layouts = layouts;
  protected readonly foci = foci;
  protected readonly instrument = this.state.instrument;
  protected readonly wish = signal<Wish>('crosses-with');
  protected readonly layout = signal<'lines' | 'bars'>('lines');
  protected readonly focus = signal<'fingers' | 'timing'>('fingers');
  protected readonly wishText = computed(() => labelOf(wishes, this.wish()));
  protected readonly layoutText = computed(() => labelOf(layouts, this.layout()));
  protected readonly focusText = computed(() => labelOf(foci, this.focus()));
  protected readonly isPairSet = computed(() => isPairSet(this.wish()));
  protected readonly modes = modes;
  protected readonly mode = signal<Mode>('major');
  private readonly asks = computed(() => asksFor(this.wish(), this.instrument()));
  protected readonly hasNote = computed(() => this.asks().note);
  protected readonly hasMode = computed(() => this.asks().mode);
  protected readonly hasOther = computed(() => this.asks().other);

  protected readonly noteChoices = computed(() => this.instrument().notes.map(({ id, schoolName }): Choice<NoteId> => ({ value: id, label: schoolName })));
  protected readonly start = linkedSignal((): NoteId => {
    const { notes } = this.instrument();
    return notes.find(({ id }) => id === this.note())?.id ?? notes[Math.min(3, notes.length - 1)].id;
  });
  protected readonly other = linkedSignal((): NoteId => this.instrument().notes[Math.min(5, this.instrument().notes.length - 1)].id);
  protected readonly startText = computed(() => labelOf(this.noteChoices(), this.start()));
  protected readonly otherText = computed(() => labelOf(this.noteChoices(), this.other()));

  private readonly table = computed(() => this.timings.tableFor(this.instrument()));
  private readonly hardness = computed(
    () =>
      (change: Change): number =>
        this.table().difficultyOf(change).total,
  );

  /** Pairs that the teacher chose. */
  protected readonly own = linkedSignal({ source: () => this.instrument().id, computation: (): readonly Line[] => [] });

  private readonly wished = computed((): { readonly lines: readonly Line[]; readonly leftOut: readonly string[] } => {
    const [instrument, wish, start, other, focus, hardness] = [this.instrument(), this.wish(), this.start(), this.other(), this.focus(), this.hardness()];
    if (wish === 'own') return { lines: this.own(), leftOut: [] };
    if (isPairSet(wish) && this.layout() === 'bars') return barsOf(instrument, { kind: wish, note: start }, { focus, hardness });
    return wishedLines(instrument, { kind: wish, start, other, focus, hardness, mode: this.mode(), known: this.state.inHand().held?.knownNotes ?? [] });
  });
  protected readonly leftOut = computed(() => this.wished().leftOut);

  /** From easy to hard; a set of rhythms or lengths keeps its own order. */
  protected readonly ordered = computed((): readonly OrderedLine[] => {
    const instrument = this.instrument();
    const all = this.wished().lines.map((line): OrderedLine => {
      const { change, title } = describedLine(instrument, line);
      const { total, terms } = this.table().difficultyOf(change);
      const exercise = line.exercise ?? undefined;
      return {
        line,
        title,
        hard: total,
        why: terms[0]?.label ?? '',
        musical: exercise?.musical ?? 'Both notes clear, nothing heard in between.',
        physical: exercise?.physical ?? physicalPurpose([change]),
        abc: lineAbc(instrument, line),
      };
    });
    return ownOrder.has(this.wish()) ? all : [...all].sort((one, two) => one.hard - two.hard || one.title.localeCompare(two.title));
  });
  protected readonly shown = computed(() => this.ordered().slice(0, sheetLimits.lines));
  protected readonly text = computed(() => {
    const lines = this.ordered().length;
    if (lines === 0) return this.wish() === 'own' ? 'No lines yet: choose two notes above and add them.' : 'There are no lines of that kind.';
    const order = lines === 1 || ownOrder.has(this.wish()) ? '' : ', from easy to hard';
    return `${count(lines, 'line')}${order}${lines > sheetLimits.lines ? `; a sheet holds ${sheetLimits.lines}, so the hardest ones are left out` : ''}.`;
  });

  /** As they go onto a sheet. */
  protected readonly planned = computed(() =>
    this.shown().map(({ line }) => {
      const planned = plannedLine(this.instrument(), line);
      const tempo = this.focus() === 'timing' ? (planned.tempo ?? 48) : null;
      return { ...planned, kind: this.itemKind(line), tempo, point: '', exercise: line.exercise ?? null };
    }),
  );
  /** A scale is called one on the sheet. */
  private itemKind(line: Line): MusicKind {
    return this.wish().startsWith('scale') ? 'scale' : kindOf(line);
  }

  protected readonly title = computed(() => {
    const notes = [...(this.hasNote() ? [this.startText()] : []), ...(this.hasOther() ? [this.otherText()] : [])];
    return capital([this.wishText().replace(':', ''), notes.join(' and ')].join(' ').trim());
  });

  /** The words at the head of a new sheet. */
  protected readonly advice = computed(() =>
    this.focus() === 'timing' ? 'With the click. Better slower than unclean.' : 'Slow and clean first, then faster.',
  );

  protected readonly chosen = linkedSignal({ source: this.shown, computation: (): number => 0 });
  protected readonly chosenLine = computed(() => this.planned()[this.chosen()]);

  private readonly allSheets = signal<readonly SheetSummary[]>([]);
  protected readonly sheetsHere = computed(() =>
    this.allSheets().filter(({ student, instrument }) => student.id === this.state.student()?.id && instrument === this.instrument().id),
  );
  protected readonly sheetChoices = computed((): readonly Choice<string>[] => [
    { value: '', label: 'these lines' },
    ...this.sheetsHere().map(({ id, title }) => ({ value: id, label: title })),
  ]);
  protected readonly checkedId = signal('');
  protected readonly checkedText = computed(() => labelOf(this.sheetChoices(), this.checkedId()) || 'these lines');
  private readonly checkedSheet = signal<SheetDetail | undefined>(undefined);
  /** What of the chosen set stands on the sheet that is checked. */
  protected readonly coverage = computed(() => {
    const instrument = this.instrument();
    const set =
      this.wish() === 'own' || !this.isPairSet() ? this.wished().lines : linesOf(instrument, { kind: this.wish() as LineSetKind, note: this.start() }).lines;
    const there = this.checkedId() === '' ? this.shown().map(({ line }) => line) : (this.checkedSheet()?.lines ?? []).filter(hasMusic);
    const { missing, doubled } = coverageOf(set, there);
    const names = (lines: readonly Line[]): string => lines.map(({ home, other, fingering }) => lineTitle(instrument, { home, other, fingering })).join(', ');
    return { missing: names(missing), missingCount: missing.length, doubled: names(doubled), doubledCount: doubled.length };
  });

  constructor() {
    this.sheets.list().subscribe({ next: (sheets) => this.allSheets.set(sheets), error: (error: unknown) => this.notices.fault(error) });
    effect(() => {
      const id = this.checkedId();
      untracked(() => {
        this.checkedSheet.set(undefined);
        if (id !== '') this.sheets.get(id).subscribe({ next: (sheet) => this.checkedSheet.set(sheet), error: (error: unknown) => this.notices.fault(error) });
      });
    });
  }

  protected addOwn(): void {
    const line = { home: this.start(), other: this.other() };
    if (line.home === line.other) {
      this.notices.done('Choose two different notes. A line goes from the first to the second and back.');
      return;
    }
    if (this.own().some(({ home, other }) => home === line.home && other === line.other)) {
      this.notices.done(`${lineTitle(this.instrument(), line)} is already on the list.`);
      return;
    }
    this.own.update((own) => [...own, line]);
  }

  protected dropOwn({ line }: OrderedLine): void {
    this.own.update((own) => own.filter((each) => each !== line));
  }

  protected play(isFaulty: boolean): void {
    const line = this.chosenLine();
    if (line !== undefined) this.player.play('line', this.instrument(), line, 1, isFaulty);
  }
}
