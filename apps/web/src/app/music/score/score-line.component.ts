import { afterRenderEffect, Component, computed, inject, input, output, signal, viewChild, type ElementRef, type OnDestroy } from '@angular/core';
import type { Trouble } from '@zelpit/core/change';
import { underTune, type LineWords } from '@zelpit/core/excerpt';
import { noteOf, type Instrument, type NoteId } from '@zelpit/core/fingering';
import { laneLayout, seamBetween, type LaneNote } from '@zelpit/core/lanes';
import { isTongued, type Articulation, type Tune, type TuneChange, type TunePath } from '@zelpit/core/tune';
import { count } from '@zelpit/core/words';
import { LanesComponent } from '../lanes/lanes.component';
import { MarkComponent } from '../lanes/mark.component';
import { Engraver, type Engraving } from './engraver.service';
import type { ScoreLine } from './score-lines';

const semitonesInOctave = 12;
/** Width of a letter of a movement's name and of a bar's number, and from one row of names to the next. */
const [nameLetter, numberLetter, nameRow] = [7.6, 9.5, 14];
/** Foot of the numbers of bars. */
const numberFoot = 13;
/** Room that a letter with "new" needs to its right. */
const newWidth = 52;

/** A place where two notes of the line meet. */
interface Seam {
  readonly x: number;
  readonly change: TuneChange;
  readonly trouble: Trouble | undefined;
}

export const scoreGeometry = { labels: 104, names: 27, staffTop: 64, letters: 136, lanesTop: 152, pitch: 17 } as const;
/** Under the lanes: where marks stand, and where the line ends. */
const [marksBelow, heightBelow] = [18, 38];
/** Narrower than this, fingers' names take less room and the music is drawn smaller. */
const narrow = 560;
const narrowly = { labels: 82, names: 44, staffTop: 68, letters: 124, lanesTop: 138 } as const;
const fullScale = 1.1;

/** How large music is drawn in a line of this width, 1 at full size. */
export function scoreScaleFor(width: number): number {
  return width < narrow ? Math.max(0.62, width / narrow) : 1;
}

/** Geometry of a line of music; ten fingers take more height than eight. */
export function scoreGeometryFor(
  instrument: Instrument | undefined,
  width = narrow,
): Readonly<Record<keyof typeof scoreGeometry | 'marks' | 'height', number>> {
  const geometry = width < narrow ? { ...scoreGeometry, ...narrowly } : scoreGeometry;
  const lanes = instrument === undefined ? 0 : laneLayout(instrument, scoreGeometry.pitch).height;
  const end = geometry.lanesTop + lanes;
  return { ...geometry, marks: end + marksBelow, height: end + heightBelow };
}
const leadSeam = 26;
/** Room at the right end for the word that opens folded movements. */
const foldWordWidth = 56;

/** One line of music with the finger lanes under it; columns stand under their noteheads. */
@Component({
  selector: 'zp-score-line',
  imports: [LanesComponent, MarkComponent],
  template: `
    <svg
      class="score-layer"
      role="img"
      [attr.aria-label]="text()"
      [attr.viewBox]="'0 0 ' + width() + ' ' + geometry().height"
      preserveAspectRatio="xMinYMin meet"
    >
      @for (x of pillars(); track x) {
        <svg:rect class="pillar" [attr.x]="x - 20" [attr.y]="pillarTop()" width="40" [attr.height]="geometry().height - 4 - pillarTop()" rx="12" />
      }
      @if (playingX(); as x) {
        <svg:g class="pillar-move" [style.transform]="'translateX(' + x + 'px)'">
          <svg:rect class="pillar" x="-15" [attr.y]="pillarTop()" width="30" [attr.height]="geometry().height - 4 - pillarTop()" rx="12" />
        </svg:g>
      }
      @if (countInX(); as x) {
        <svg:rect class="pillar-empty" [attr.x]="x - 20" [attr.y]="pillarTop()" width="40" [attr.height]="geometry().height - 4 - pillarTop()" rx="12" />
      }
      @for (bar of barNumbers(); track bar.text) {
        <svg:text class="bar-number" [attr.x]="bar.x" [attr.y]="numberFoot">{{ bar.text }}</svg:text>
      }
      @for (name of names(); track name.x) {
        <svg:text class="movement-name" [attr.x]="name.x" [attr.y]="geometry().names - name.up" text-anchor="middle">{{ name.text }}</svg:text>
      }
      @for (head of newHeads(); track head.note) {
        <svg:circle class="new-ring" [attr.cx]="head.x" [attr.cy]="head.y" r="11" />
      }
      @for (letter of letters(); track letter.note) {
        @if (letter.isNew) {
          <svg:rect class="new-ring" [attr.x]="letter.x - 17" [attr.y]="geometry().letters - 25" width="66" height="31" rx="9" />
          <svg:text class="note-new" [attr.x]="letter.x + 12" [attr.y]="geometry().letters - 1">new</svg:text>
        }
        <svg:text class="note-letter" [attr.x]="letter.x" [attr.y]="geometry().letters" text-anchor="middle">{{ letter.text }}</svg:text>
        @for (dot of letter.dots; track dot) {
          <svg:circle [attr.cx]="letter.x + dot" [attr.cy]="geometry().letters - 20" r="2.6" fill="currentColor" />
        }
      }
      <svg:g
        zpLanes
        [attr.transform]="'translate(0 ' + geometry().lanesTop + ')'"
        [instrument]="instrument()"
        [notes]="columns()"
        [left]="geometry().labels"
        [right]="width()"
        [pitch]="geometry().pitch"
        [labelSize]="15"
        [pillars]="pillarSpans()"
      />
      @if (seams().length > 0) {
        <svg:text
          class="lane-label wrongly"
          [attr.x]="geometry().labels - 12"
          [attr.y]="geometry().marks + 6"
          text-anchor="end"
          font-size="15"
          style="fill: var(--vermilion)"
        >
          cuts in
        </svg:text>
      }
      @for (x of dots(); track x) {
        <svg:path class="model-dots" [attr.d]="'M' + (x - 9) + ' ' + (geometry().lanesTop - 10) + 'h18'" />
      }
      @for (head of heads(); track head.note) {
        <svg:rect
          class="column"
          [attr.data-note]="head.note"
          [attr.x]="head.x - 9"
          [attr.y]="24"
          width="18"
          [attr.height]="geometry().lanesTop - 24"
          (click)="noteChosen.emit(head.note)"
        />
      }
      @for (seam of seams(); track seam.x) {
        @if (seam.trouble; as trouble) {
          <svg:g zpMark [attr.transform]="'translate(' + seam.x + ' ' + geometry().marks + ')'" [instrument]="instrument()" [trouble]="trouble" [size]="28" />
        }
        <svg:rect
          class="seam"
          [attr.x]="seam.x - 14"
          [attr.y]="geometry().lanesTop"
          width="28"
          [attr.height]="geometry().height - geometry().lanesTop"
          (click)="chosen.emit(seam.change)"
        />
      }
    </svg>
    <div #host class="score-music" [style.position]="'absolute'" [style.left.px]="geometry().labels" [style.top.px]="musicTop()"></div>
    @if (foldWord(); as word) {
      <button type="button" class="word fold-word" [attr.aria-label]="word.label" (click)="foldToggled.emit()">
        {{ word.text }}
      </button>
    }
  `,
  host: { class: 'score-line' },
})
export class ScoreLineComponent implements OnDestroy {
  private readonly engraver = inject(Engraver);

  readonly line = input.required<ScoreLine>();
  readonly tune = input.required<Tune>();
  readonly instrument = input.required<Instrument>();
  readonly articulation = input.required<Articulation>();
  /** How notes with several fingerings are fingered, by index. */
  readonly path = input.required<TunePath>();
  readonly width = input.required<number>();
  /** What stands under the notes. */
  readonly words = input<LineWords>({ kind: 'none' });
  /** Notes that are new to the student; empty where nobody knows. */
  readonly unknown = input<ReadonlySet<NoteId>>(new Set());
  /** Movements by the note that they decorate, by its index. */
  readonly movements = input<ReadonlyMap<number, string>>(new Map());
  /** Notes that are fingered otherwise on the other model. */
  readonly dotted = input<ReadonlySet<NoteId>>();
  /** Changes by "from-to" of their notes. */
  readonly changeAt = input.required<ReadonlyMap<string, TuneChange>>();
  readonly chosenChange = input<TuneChange>();
  /** Note that sounds now, by index; -1 for none. */
  readonly playingNote = input(-1);
  /** Note that waits for its count-in; -1 for none. */
  readonly waitingNote = input(-1);
  /** True where its movements were opened although they have no room. */
  readonly isUnfolded = input(false);
  readonly chosen = output<TuneChange>();
  /** The word that opens or folds was pressed. */
  readonly foldToggled = output<void>();
  /** A notehead was clicked: its note's index. */
  readonly noteChosen = output<number>();

  protected readonly geometry = computed(() => scoreGeometryFor(this.instrument(), this.width()));
  protected readonly numberFoot = numberFoot;
  /** Pillars stand under the names of movements. */
  protected readonly pillarTop = computed(() => this.geometry().names + 7);
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly engraving = signal<Engraving | undefined>(undefined);

  /** False for lines out of sight: they are engraved when the page has time. */
  readonly isInView = input(true);
  private readonly hasTime = signal(false);
  private readonly idle = requestIdleCallback(() => this.hasTime.set(true), { timeout: 4000 });

  constructor() {
    afterRenderEffect(() => {
      const width = this.width() - this.geometry().labels;
      const scale = fullScale * scoreScaleFor(this.width());
      const { abc } = this.line();
      if (!this.isInView() && !this.hasTime()) return;
      void this.engraver.engrave(this.host().nativeElement, abc, { width, scale }).then((engraving) => this.engraving.set(engraving));
    });
  }

  ngOnDestroy(): void {
    cancelIdleCallback(this.idle);
  }

  protected readonly musicTop = computed(() => this.geometry().staffTop - (this.engraving()?.staffTop ?? 0));

  /** The line's notes as columns; the last note of the line before stands out of sight, so that the change into this line is seen. */
  protected readonly columns = computed((): readonly LaneNote[] => {
    const engraving = this.engraving();
    if (engraving === undefined) return [];
    const { first, end } = this.line();
    const { notes } = this.tune();
    const { labels } = this.geometry();
    const own = notes.slice(first, end).map((note, index): LaneNote => {
      const placed = engraving.notes[index];
      const x = labels + (placed?.x ?? 0);
      const drawn = this.line().folded.has(note.index) ? [] : note.graceNotes;
      const graceNotes = drawn.map((each, position) => ({ x: labels + (placed?.graceNotes[position] ?? placed?.x ?? 0), note: each }));
      return { x, note: note.written.kind === 'note' ? note.written.note : null, graceNotes, ...this.fingersOf(note.index) };
    });
    const before = notes[first - 1];
    if (before?.written.kind !== 'note' || own.length === 0) return own;
    return [{ x: own[0].x - 2 * leadSeam, note: before.written.note, graceNotes: [], ...this.fingersOf(first - 1) }, ...own];
  });

  /** The columns of this line's own notes. */
  protected readonly heads = computed(() => {
    const { first, end } = this.line();
    return this.columns()
      .slice(first - end)
      .map(({ x, graceNotes }, position) => ({ x, note: first + position, graceNotes }));
  });

  /** What opens the movements of this line, or folds them again; undefined where all have room. */
  protected readonly foldWord = computed(() => {
    const { bars, folded } = this.line();
    if (folded.size > 0) return { text: 'open', label: `Open the movements of bar ${this.tune().bars[bars[0]].number}` };
    return this.isUnfolded() ? { text: 'fold', label: `Fold the movements of bar ${this.tune().bars[bars[0]].number}` } : undefined;
  });

  /** The name of a movement over its grace notes, or over its note where they are folded. */
  protected readonly names = computed(() => {
    const { labels } = this.geometry();
    const ends = [labels, labels];
    return this.heads().flatMap(({ x, note, graceNotes }) => {
      const isFolded = this.line().folded.has(note);
      const text = this.movements().get(note) ?? (isFolded ? count(this.tune().notes[note].graceNotes.length, 'grace note') : undefined);
      if (text === undefined) return [];
      const width = text.length * nameLetter;
      const middle = ((graceNotes.at(0)?.x ?? x) + (graceNotes.at(-1)?.x ?? x)) / 2;
      const left = Math.max(labels, Math.min(middle - width / 2, this.width() - width));
      // Where names would touch, every second one stands a row higher, beside the numbers of the bars.
      const row = ends.findIndex((end, index) => left >= end && (index === 0 || this.isFreeAbove(left, left + width)));
      if (row === -1) return [];
      ends[row] = left + width + nameLetter;
      return [{ text, x: left + width / 2, up: row * nameRow }];
    });
  });

  /** True where neither a bar's number nor the word that opens movements stands in the upper row. */
  private isFreeAbove(left: number, right: number): boolean {
    if (this.geometry().names - nameRow > numberFoot + nameRow) return true;
    const taken = this.barNumbers().map(({ x, text }): [number, number] => [x, x + text.length * numberLetter]);
    if (this.foldWord() !== undefined) taken.push([this.width() - foldWordWidth, this.width()]);
    return taken.every(([from, to]) => right < from || left > to);
  }

  private readonly under = computed(() => (this.words().kind === 'none' ? undefined : underTune(this.instrument(), this.tune(), this.words())));

  /** The letter of each note, a dot over it for the high one; one that goes on from a tied note has none. */
  protected readonly letters = computed(() => {
    const words = this.words();
    if (words.kind === 'none' && this.unknown().size === 0) return [];
    const [lowest] = this.instrument().notes;
    const under = this.under();
    return this.heads().flatMap(({ x, note }) => {
      const { written, isTiedFromPrevious } = this.tune().notes[note];
      if (written.kind !== 'note' || (isTiedFromPrevious && words.kind !== 'words')) return [];
      const isNew = this.unknown().has(written.note) && !isTiedFromPrevious;
      const { writtenName, writtenSemitone } = noteOf(this.instrument(), written.note);
      const own = under?.[note]?.join(' ') ?? '';
      const text = words.kind === 'none' && isNew ? writtenName : own;
      if (text === '') return [];
      const high = words.kind === 'letters' || words.kind === 'none' ? Math.floor((writtenSemitone - lowest.writtenSemitone) / semitonesInOctave) : 0;
      const dots = Array.from({ length: high }, (_, dot) => (dot - (high - 1) / 2) * 7);
      return [{ x: isNew ? Math.min(x, this.width() - newWidth) : x, note, text, isNew, dots }];
    });
  });

  /** Heads of notes that are new to the student. */
  protected readonly newHeads = computed(() => {
    const engraving = this.engraving();
    const { first } = this.line();
    return this.heads().flatMap(({ x, note }) => {
      const { written } = this.tune().notes[note];
      const y = engraving?.notes[note - first]?.y;
      if (y === undefined || written.kind !== 'note' || !this.unknown().has(written.note)) return [];
      return [{ x, note, y: this.geometry().staffTop + y }];
    });
  });

  /** Where notes stand that another model fingers otherwise. */
  protected readonly dots = computed((): readonly number[] => {
    const { notes } = this.tune();
    return this.heads().flatMap(({ x, note }) => {
      const { written } = notes[note];
      return written.kind === 'note' && this.dotted()?.has(written.note) === true ? [x] : [];
    });
  });

  protected readonly seams = computed((): readonly Seam[] => {
    const columns = this.columns();
    const firstIndex = this.line().end - columns.length;
    return columns.slice(1).flatMap((column, position): Seam[] => {
      const from = firstIndex + position;
      const change = this.changeAt().get(`${from}-${from + 1}`);
      if (change === undefined) return [];
      return [{ x: seamBetween(columns[position], column), change, trouble: this.isHidden(from + 1) ? undefined : change.trouble }];
    });
  });

  private fingersOf(note: number): Pick<LaneNote, 'pattern'> {
    const pattern = this.path().get(note)?.fingering.pattern;
    return pattern === undefined ? {} : { pattern };
  }

  /** True where a grace note or the tongue hides what is between two notes. */
  private isHidden(index: number): boolean {
    const note = this.tune().notes[index];
    return note.graceNotes.length > 0 || isTongued(note, this.articulation());
  }

  protected readonly pillarSpans = computed((): readonly (readonly [number, number])[] => this.pillars().map((x) => [x - 20, x + 20]));

  protected readonly pillars = computed(() =>
    this.seams()
      .filter((seam) => seam.change === this.chosenChange())
      .map((seam) => seam.x),
  );

  protected readonly barNumbers = computed(() => {
    const { first } = this.line();
    const columns = this.columns();
    const offset = columns.length - (this.line().end - first);
    const seen = new Set<number>();
    return this.line().bars.flatMap((index) => {
      const bar = this.tune().bars[index];
      const column = columns[offset + bar.first - first];
      const goesOn = index > 0 && this.tune().bars[index - 1].number === bar.number;
      if (bar.number === 0 || goesOn || seen.has(bar.number) || column === undefined) return [];
      seen.add(bar.number);
      const left = column.graceNotes[0]?.x ?? column.x;
      return [{ x: Math.max(this.geometry().labels + 2, left - 14), text: bar.number === 1 || seen.size === 1 ? `bar ${bar.number}` : String(bar.number) }];
    });
  });

  protected readonly playingX = computed(() => this.columnX(this.playingNote()));
  protected readonly countInX = computed(() => this.columnX(this.waitingNote()));

  protected readonly text = computed(() => {
    const numbers = this.line().bars.map((index) => this.tune().bars[index].number);
    return `Music and finger lanes, bars ${numbers[0]} to ${numbers[numbers.length - 1]}. The list of changes below gives the same in words.`;
  });

  private columnX(note: number): number | undefined {
    const { first, end } = this.line();
    if (note < first || note >= end) return undefined;
    const columns = this.columns();
    return columns[columns.length - (end - note)]?.x;
  }
}
