import { afterRenderEffect, Component, computed, inject, input, output, signal, viewChild, type ElementRef } from '@angular/core';
import type { Chunk } from '@zelpit/core/chunk';
import { layerAt, layerName, rowNames, type ChunkRow, type DecoratedNote, type RowKind } from '@zelpit/core/excerpt';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import { countOfTune, type CountWay } from '@zelpit/core/form';
import { laneLayout, seamBetween, type LaneNote } from '@zelpit/core/lanes';
import type { LayerKind } from '@zelpit/core/movement';
import type { ScriptStep } from '@zelpit/core/script';
import type { TunePath } from '@zelpit/core/tune';
import { LanesComponent } from '../../music/lanes/lanes.component';
import { MarkComponent } from '../../music/lanes/mark.component';
import { Engraver, type Engraving } from '../../music/score/engraver.service';
import { rowStaves } from '../../music/score/row-staves';

/** Room at the left for the rows' names, in px; lanes' names stand there too. */
const labelWidth = 162;
const narrowLabels = 82;
const lanePitch = 15;
/** Foot of the words of the count under the last staff, and where the lanes begin. */
const [countFoot, lanesBelow] = [28, 34];
const narrowWindow = 560;

interface TapMark {
  /** Beats from the first note. */
  readonly beat: number;
}

/** The rows of a chunk on one grid, the count, and the finger lanes of the chosen row under them. */
@Component({
  selector: 'zp-chunk-drawing',
  imports: [LanesComponent, MarkComponent],
  template: `
    <svg class="chunk-svg" role="img" [attr.aria-label]="text()" [attr.viewBox]="'0 0 ' + width() + ' ' + height()" preserveAspectRatio="xMinYMin meet">
      @if (pillarX(); as x) {
        <svg:rect class="pillar" [attr.x]="x - 20" y="4" width="40" [attr.height]="height() - 8" rx="12" />
      }
      @if (playingX(); as x) {
        <svg:rect class="pillar-empty" [attr.x]="x - 16" [attr.y]="chosenTop() - 10" width="32" [attr.height]="height() - chosenTop()" rx="12" />
      }
      @for (line of beatLines(); track $index) {
        <svg:path class="beat-line" [attr.d]="'M' + line + ' ' + (countY() + 6) + 'V' + lanesEnd()" />
      }
      @for (word of countWords(); track $index) {
        <svg:text
          class="count-word"
          [class.is-beat]="word.isBeat"
          [class.is-silent]="!word.isSounded"
          [attr.x]="word.x"
          [attr.y]="countY()"
          text-anchor="middle"
        >
          {{ word.text }}
        </svg:text>
      }
      @for (tap of tapMarks(); track $index) {
        <svg:path class="tap-mark" [attr.d]="'M' + (tap - 6) + ' ' + (countY() + 16) + 'h12l-6 -9z'" />
      }
      @for (bar of barNames(); track bar.text) {
        <svg:text class="bar-number" [attr.x]="bar.x" [attr.y]="7">{{ bar.text }}</svg:text>
      }
      @for (ring of rings(); track $index) {
        <svg:circle class="new-ring" [attr.cx]="ring.x" [attr.cy]="ring.y" r="11" />
      }
      <svg:g
        zpLanes
        [attr.transform]="'translate(0 ' + lanesTop() + ')'"
        [instrument]="instrument()"
        [notes]="columns()"
        [left]="labels()"
        [right]="width()"
        [pitch]="pitch"
        [labelSize]="15"
        [pillars]="pillarX() === undefined ? [] : [[(pillarX() ?? 0) - 20, (pillarX() ?? 0) + 20]]"
      />
      @for (seam of seams(); track seam.x) {
        @if (seam.trouble; as trouble) {
          <svg:g zpMark [attr.transform]="'translate(' + seam.x + ' ' + (lanesEnd() + 18) + ')'" [instrument]="instrument()" [trouble]="trouble" [size]="26" />
        }
        <svg:rect class="seam" [attr.x]="seam.x - 16" y="0" width="32" [attr.height]="height()" (click)="stepChosen.emit(seam.note)" />
      }
      @if (seams().length > 0) {
        <svg:text
          class="lane-label wrongly"
          [attr.x]="labels() - 12"
          [attr.y]="lanesEnd() + 24"
          text-anchor="end"
          font-size="15"
          style="fill: var(--vermilion)"
        >
          cuts in
        </svg:text>
      }
    </svg>
    <div #host class="score-music" [style.left.px]="labels()" [style.top.px]="0"></div>
    @for (row of rowPlaces(); track row.kind) {
      <button
        type="button"
        class="row-name"
        [class.is-chosen]="row.kind === chosen()"
        [attr.aria-pressed]="row.kind === chosen()"
        [style.top.px]="row.top - 8"
        (click)="rowChosen.emit(row.kind)"
      >
        <b>{{ row.number }}</b> <span>{{ row.name }}</span>
      </button>
      @for (word of row.words; track word.index) {
        <button
          type="button"
          class="layer-word"
          [class.is-full]="word.isFull"
          [style.left.px]="word.x"
          [style.top.px]="row.top - 25"
          [attr.aria-label]="word.text + ': choose what is played before note ' + (word.index + 1)"
          (click)="layerChosen.emit({ index: word.index, kind: word.next })"
        >
          {{ word.text }}
        </button>
      }
    }
  `,
  host: { class: 'chunk-drawing', '[style.height.px]': 'height()' },
})
export class ChunkDrawingComponent {
  private readonly engraver = inject(Engraver);
  readonly instrument = input.required<Instrument>();
  readonly chunk = input.required<Chunk>();
  /** Rows that are drawn. */
  readonly rows = input.required<readonly ChunkRow[]>();
  readonly decorated = input.required<readonly DecoratedNote[]>();
  /** The row whose fingers are shown and which is played. */
  readonly chosen = input.required<RowKind>();
  readonly steps = input.required<readonly ScriptStep[]>();
  /** Note of the chunk that the chosen step leads to; -1 for none. */
  readonly note = input(-1);
  readonly count = input.required<CountWay>();
  readonly unknown = input<ReadonlySet<NoteId>>(new Set());
  /** How notes with several fingerings are fingered, by their index in the tune. */
  readonly path = input.required<TunePath>();
  readonly width = input.required<number>();
  /** Place of the note that sounds; -1 for none. */
  readonly playing = input(-1);
  readonly taps = input<readonly TapMark[]>([]);
  readonly rowChosen = output<RowKind>();
  readonly stepChosen = output<number>();
  readonly layerChosen = output<{ readonly index: number; readonly kind: LayerKind }>();

  protected readonly pitch = lanePitch;
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly staves = signal<readonly Engraving[]>([]);
  protected readonly labels = computed(() => (this.width() < narrowWindow ? narrowLabels : labelWidth));

  constructor() {
    afterRenderEffect(() => {
      const width = this.width() - this.labels();
      const abc = rowStaves(this.rows().map(({ tune }) => tune));
      if (width < 100) return;
      void this.engraver
        .engraveStaves(this.host().nativeElement, abc, { width, scale: width < narrowWindow ? 0.85 : 0.9 })
        .then((staves) => this.staves.set(staves));
    });
  }

  private readonly stavesEnd = computed(() => this.staves().at(-1)?.staffBottom ?? this.rows().length * 60);
  protected readonly countY = computed(() => this.stavesEnd() + countFoot);
  protected readonly lanesTop = computed(() => this.stavesEnd() + lanesBelow);
  protected readonly lanesEnd = computed(() => this.lanesTop() + laneLayout(this.instrument(), lanePitch).height);
  protected readonly height = computed(() => Math.round(this.lanesEnd() + 32));

  private readonly chosenIndex = computed(() =>
    Math.max(
      0,
      this.rows().findIndex(({ kind }) => kind === this.chosen()),
    ),
  );
  private readonly engraving = computed(() => this.staves()[this.chosenIndex()]);
  protected readonly chosenTop = computed(() => this.engraving()?.staffTop ?? 0);

  protected readonly columns = computed((): readonly LaneNote[] => {
    const [engraving, row] = [this.engraving(), this.rows()[this.chosenIndex()]];
    if (engraving === undefined || row === undefined) return [];
    return row.tune.notes.map((note, index): LaneNote => {
      const placed = engraving.notes[index];
      const x = this.labels() + (placed?.x ?? 0);
      const pattern = this.path().get(this.chunk().sources[index])?.fingering.pattern;
      const graceNotes = note.graceNotes.map((each, place) => ({ x: this.labels() + (placed?.graceNotes[place] ?? placed?.x ?? 0), note: each }));
      return { x, note: note.written.kind === 'note' ? note.written.note : null, graceNotes, ...(pattern !== undefined && { pattern }) };
    });
  });

  protected readonly seams = computed(() => {
    const columns = this.columns();
    return this.steps().flatMap(({ kind, note, trouble }) => {
      const [before, after] = [columns[note - 1], columns[note]];
      if (kind !== 'change' || before === undefined || after === undefined) return [];
      return [{ x: seamBetween(before, after), note, trouble }];
    });
  });
  protected readonly pillarX = computed(() => this.seams().find(({ note }) => note === this.note())?.x);
  protected readonly playingX = computed(() => (this.playing() < 0 ? undefined : this.columns()[this.playing()]?.x));

  protected readonly rowPlaces = computed(() => {
    const staves = this.staves();
    return this.rows().map(({ kind, number }, index) => {
      const top = staves[index]?.staffTop ?? index * 60 + 20;
      const words = this.decorated().flatMap((note) => {
        const placed = staves[index]?.notes[note.index];
        const row = this.rows()[index].tune.notes[note.index];
        if (placed === undefined || kind === 'count' || row === undefined) return [];
        const layer = note.layers.find(({ graces }) => graces.join(' ') === row.graceNotes.join(' ')) ?? note.layers[0];
        const kinds = note.layers.map((each) => each.kind);
        const next = kinds[(kinds.indexOf(layer.kind) + 1) % kinds.length];
        return [
          {
            index: note.index,
            x: this.labels() + placed.x - 6,
            text: layerName(this.instrument(), layer, note.name),
            isFull: layer === layerAt(note, 'full'),
            next,
          },
        ];
      });
      return { kind, number, name: rowNames[kind], top, words: withRoom(words, this.width()) };
    });
  });

  protected readonly countWords = computed(() => {
    const columns = this.columns();
    const words = countOfTune(this.chunk().tune, this.count()).flatMap(({ text, isBeat, note, within }) => {
      const x = note === undefined ? this.xWithin(columns, within) : columns[note]?.x;
      return x === undefined ? [] : [{ text, isBeat, isSounded: note !== undefined, x }];
    });
    // Where there is no room, what no note begins on is left out.
    const isTight = words.some(({ x }, index) => index > 0 && x - words[index - 1].x < tightWord);
    return isTight ? words.filter(({ isSounded, isBeat }) => isSounded || isBeat) : words;
  });
  protected readonly beatLines = computed(() => this.countWords().flatMap(({ x, isBeat }) => (isBeat ? [x] : [])));

  private xWithin(columns: readonly LaneNote[], within: { readonly note: number; readonly share: number } | undefined): number | undefined {
    if (within === undefined) return undefined;
    const from = columns[within.note]?.x;
    const to = columns[within.note + 1]?.x ?? this.width();
    return from === undefined ? undefined : from + (to - from) * within.share;
  }

  /** Where taps fell, between the notes by the beats. */
  protected readonly tapMarks = computed(() => {
    const { notes, meter } = this.chunk().tune;
    const columns = this.columns();
    let at = 0;
    const onsets = notes.map(({ duration }) => {
      const start = at;
      at += duration / meter.beat;
      return start;
    });
    return this.taps().flatMap(({ beat }) => {
      const index = onsets.findLastIndex((onset) => onset <= beat + 1e-6);
      if (index < 0 || beat > at) return [];
      const end = onsets[index + 1] ?? at;
      const x = this.xWithin(columns, { note: index, share: (beat - onsets[index]) / Math.max(1e-6, end - onsets[index]) });
      return x === undefined ? [] : [x];
    });
  });

  protected readonly barNames = computed(() => {
    const { bars } = this.chunk().tune;
    const columns = this.columns();
    let end = 0;
    return bars.flatMap((bar, index) => {
      const column = columns[bar.first];
      if (column === undefined) return [];
      const isLead = index === 0 && this.chunk().leadIn > 0 && bar.end <= this.chunk().leadIn;
      const x = (column.graceNotes[0]?.x ?? column.x) - 14;
      const place = Math.max(this.labels() + 34, x);
      // The bar's own number comes before the name of what leads into it.
      if (place < end || (isLead && (columns[bar.end]?.x ?? 0) - place < leadWidth)) return [];
      end = place + leadWidth;
      return [{ x: place, text: isLead ? 'lead-in' : `bar ${bar.number}` }];
    });
  });

  protected readonly rings = computed(() => {
    const { notes } = this.chunk().tune;
    return this.staves().flatMap((staff) =>
      notes.flatMap(({ written }, index) => {
        const placed = staff.notes[index];
        if (written.kind !== 'note' || !this.unknown().has(written.note) || placed?.y === undefined) return [];
        return [{ x: this.labels() + placed.x, y: staff.staffTop + placed.y }];
      }),
    );
  });

  protected readonly text = computed(
    () => `${this.chunk().title}: ${this.rows().length} rows of music, the count and the finger lanes. The script below says the same in words.`,
  );
}

/** The least room from one word of the count to the next. */
const tightWord = 38;
/** Room that the name of a bar takes. */
const leadWidth = 64;
const letterWidth = 7.4;

/** Words of one row that do not run into each other; one without room is left out. */
function withRoom<T extends { readonly x: number; readonly text: string }>(words: readonly T[], width: number): readonly T[] {
  let end = 0;
  return words.flatMap((word) => {
    const x = Math.min(word.x, width - word.text.length * letterWidth);
    if (x < end) return [];
    end = x + word.text.length * letterWidth + 6;
    return [{ ...word, x }];
  });
}
