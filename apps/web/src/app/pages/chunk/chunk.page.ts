import { Component, computed, effect, inject, input, signal, untracked, type OnDestroy } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { noArrangement, type Arrangement } from '@zelpit/contract';
import { arrangementText } from '@zelpit/core/arrange';
import { chainOf, chunkOf, joined, marked } from '@zelpit/core/chunk';
import { excerptOf, layersOfExcerpt, rowNames, rowsOf, type RowKind } from '@zelpit/core/excerpt';
import type { NoteId } from '@zelpit/core/fingering';
import { usualRange, type ChunkRange, hasTwoCounts, usualCount, type CountWay } from '@zelpit/core/form';
import type { LayerKind } from '@zelpit/core/movement';
import { proofScript } from '@zelpit/core/proofreading';
import { scriptOf, scriptText, type ScriptStep } from '@zelpit/core/script';
import { PathCosts } from '@zelpit/core/timing';
import { pathOfTune } from '@zelpit/core/tune';
import { messageOf } from '../../kernel/api/api.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ShortenedComponent } from '../../kernel/sentence/shortened.component';
import { pageWidth } from '../../kernel/wide/page-width';
import { asPlayed, hasOtherNotes } from '../../documents/tune/as-played';
import { ArrangementsService } from '../../documents/tune/arrangements.service';
import { TunesService, type OpenedTune } from '../../documents/tune/tunes.service';
import { OntoSheet, type PutOnSheet } from '../../documents/sheet/onto-sheet.service';
import { plannedExcerpt, type PlannedSheetLine } from '../../documents/sheet/planned-lines';
import { PainCautionComponent } from '../../music/lines/pain-caution.component';
import { Transport } from '../../music/sound/transport.service';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { ChunkDrawingComponent } from './chunk-drawing.component';
import { ChunkPlayer } from './chunk-player';
import { Reader } from './reader';
import { besides, rangeOf, stretchOf } from './stretch';

const narrowWindow = 560;

/** A piece of a tune taken apart for one student: its rows, the fingers, what is said of each change, and one step to the sheet. */
@Component({
  selector: 'zp-chunk-page',
  imports: [SentenceComponent, ShortenedComponent, ChooserComponent, ForWhomComponent, RouterLink, ChunkDrawingComponent, PainCautionComponent],
  templateUrl: './chunk.page.html',
  providers: [ChunkPlayer, Reader],
})
export class ChunkPage implements OnDestroy {
  private readonly tunes = inject(TunesService);
  private readonly arrangements = inject(ArrangementsService);
  private readonly onto = inject(OntoSheet);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);
  private readonly shelf = inject(InstrumentShelf);
  private readonly book = inject(MovementBook);
  protected readonly state = inject(StudioState);
  protected readonly transport = inject(Transport);
  protected readonly player = inject(ChunkPlayer);
  protected readonly reader = inject(Reader);

  readonly id = input.required<string>();
  /** "1-2" for bars, "6a" for half a bar, "n5-9" for notes. */
  readonly stretch = input.required<string>();

  /** As it is written. */
  private readonly stored = signal<OpenedTune | undefined>(undefined);
  /** As this student plays it. */
  protected readonly opened = computed(() => {
    const stored = this.stored();
    return stored === undefined ? undefined : asPlayed(stored, this.kept().arrangement);
  });
  protected readonly fault = signal('');
  private readonly kept = signal<{ readonly arrangement: Arrangement; readonly version: number }>({ arrangement: noArrangement, version: 0 });
  protected readonly row = signal<RowKind>('bare');
  private readonly stepIndex = signal(0);
  protected readonly count = signal<CountWay>(usualCount);
  protected readonly put = signal<(PutOnSheet & { readonly stretch: string }) | undefined>(undefined);
  protected readonly isPutting = signal(false);
  protected readonly isEditing = signal(false);
  protected readonly width = pageWidth();
  protected readonly rowNames = rowNames;

  protected readonly range = computed(() => rangeOf(this.stretch()));
  private readonly lastBar = computed(() => (this.opened()?.tune.bars ?? []).reduce((most, { number }) => Math.max(most, number), 1));
  protected readonly found = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : chunkOf(opened.instrument, opened.tune, this.range(), opened.detail.chordNote);
  });
  protected readonly chunk = computed(() => {
    const found = this.found();
    return found?.kind === 'chunk' ? found.chunk : undefined;
  });
  protected readonly nothing = computed(() => {
    const found = this.found();
    return found?.kind === 'none' ? found.reason : '';
  });

  /** Layers of this student by the notes of the chunk; the arrangement has them by the notes of the tune. */
  private readonly layers = computed(() => {
    const all = layersOfExcerpt(this.kept().arrangement);
    return new Map((this.chunk()?.sources ?? []).flatMap((source, index) => (all.has(source) ? [[index, all.get(source) as LayerKind] as const] : [])));
  });
  protected readonly learned = computed(() => {
    const [opened, chunk] = [this.opened(), this.chunk()];
    return opened === undefined || chunk === undefined ? undefined : rowsOf(opened.instrument, chunk.tune, this.layers(), { own: this.book.own() });
  });
  /** The row that is looked at: the fullest there is below the chosen one where that has been left out. */
  protected readonly chosenRow = computed(() => {
    const rows = this.learned()?.rows ?? [];
    return rows.find(({ kind }) => kind === this.row()) ?? rows.at(0);
  });
  /** On a narrow window one row at a time. */
  protected readonly drawnRows = computed(() => {
    const [rows, chosen] = [this.learned()?.rows ?? [], this.chosenRow()];
    return this.width() < narrowWindow && chosen !== undefined ? [chosen] : rows;
  });

  private readonly script = computed((): readonly ScriptStep[] => {
    const [opened, chunk, learned] = [this.opened(), this.chunk(), this.learned()];
    if (opened === undefined || chunk === undefined || learned === undefined) return [];
    const fingerings = new Map(
      chunk.sources.flatMap((source, index) => {
        const fingering = opened.path.get(source)?.fingering;
        return fingering === undefined ? [] : [[index, fingering] as const];
      }),
    );
    return scriptOf(opened.instrument, chunk, { decorated: learned.decorated, count: this.count(), fingerings });
  });
  protected readonly changes = computed(() => this.script().filter(({ kind }) => kind === 'change'));
  /** What is said of the chosen row: first the notes, then the grace notes, then the time. */
  protected readonly steps = computed(() => {
    const kinds: Readonly<Record<RowKind, readonly ScriptStep['kind'][]>> = {
      bare: ['change'],
      one: ['movement'],
      full: ['movement'],
      count: ['lead-in', 'beats'],
    };
    const wanted = kinds[this.chosenRow()?.kind ?? 'bare'];
    const steps = this.script().filter(({ kind }) => wanted.includes(kind));
    return steps.length > 0 ? steps : this.changes();
  });
  protected readonly step = computed((): ScriptStep | undefined => this.steps()[Math.min(this.stepIndex(), this.steps().length - 1)]);
  /** A script of the teacher's own is about the notes as they are written. */
  protected readonly hasOtherNotes = computed(() => hasOtherNotes(this.kept().arrangement));
  protected readonly playedText = computed(() => {
    const text = arrangementText({ ...this.kept().arrangement, layers: {} });
    return text === 'as written' ? '' : text;
  });
  /** The whole script as it is printed and changed; the teacher's own where there is one. */
  protected readonly ownScript = computed(() => (this.hasOtherNotes() ? '' : (this.stored()?.detail.about.scripts[this.stretch()] ?? '')));
  protected readonly wholeScript = computed(() => this.ownScript() || scriptText(this.script()));

  protected readonly unknown = computed((): ReadonlySet<NoteId> => {
    const [opened, chunk] = [this.opened(), this.chunk()];
    const known = opened?.held?.knownNotes ?? [];
    if (chunk === undefined || known.length === 0) return new Set();
    return new Set(chunk.tune.notes.flatMap(({ written }) => (written.kind === 'note' && !known.includes(written.note) ? [written.note] : [])));
  });

  protected readonly barChoices = computed((): readonly Choice<string>[] => {
    const opened = this.opened();
    if (opened === undefined) return [];
    return Array.from({ length: this.lastBar() }, (_, index) => ({ value: stretchOf(usualRange(opened.tune, index + 1)), label: `Bar ${index + 1}` }));
  });
  protected readonly instrumentText = computed(() => {
    const opened = this.opened();
    return opened === undefined ? '' : (opened.held?.name ?? nameOf(opened.instrument));
  });
  protected readonly hasTwoCounts = computed(() => hasTwoCounts(this.chunk()?.tune.meter ?? { beats: 4, beat: 0.25, bar: 1, text: '' }));
  protected readonly joinText = computed(() => {
    const next = this.joinedRange();
    if (next?.kind !== 'bars') return '';
    if (next.from === next.to) return `Whole bar ${next.from}`;
    return this.range().kind === 'notes' ? `Whole bars ${next.from} to ${next.to}` : `Join to bar ${next.to}`;
  });
  protected readonly joinedRange = computed(() => {
    const opened = this.opened();
    return opened === undefined ? undefined : joined(opened.tune, this.range());
  });

  protected readonly nextRow = computed(() => {
    const rows = this.learned()?.rows ?? [];
    return rows[rows.findIndex(({ kind }) => kind === this.chosenRow()?.kind) + 1];
  });
  /** What to do in the chosen row, and what comes after it. */
  protected readonly todo = computed(() => {
    const row = this.chosenRow();
    if (row === undefined) return { first: '', second: '' };
    const texts: Readonly<Record<RowKind, string>> = { bare: 'bare notes.', one: 'one grace note.', full: 'in full, slowly.', count: 'with the count.' };
    const next = this.nextRow();
    const otherwise = row.kind === 'bare' ? (this.step()?.otherwise ?? '') : '';
    const slowly = this.changes().length === 0 ? 'No finger moves here: keep the note steady.' : 'One change at a time, no click yet.';
    const click = row.kind === 'count' ? 'The click is on: tap the beats along.' : slowly;
    const then = next === undefined ? 'Then join it to the next bar.' : `${capitalCount} clean, then row ${next.number}.`;
    return { first: `Row ${row.number}: ${texts[row.kind]} ${then}`, second: otherwise || click };
  });
  protected readonly putHere = computed(() => (this.put()?.stretch === this.stretch() ? this.put() : undefined));
  protected readonly thing = computed(() => {
    const range = this.range();
    if (range.kind === 'half') return 'this half bar';
    if (range.kind === 'notes') return 'these notes';
    return range.kind === 'bars' && range.from === range.to ? 'this bar' : 'these bars';
  });

  private readonly release = inject(KeyService).use('chunk', {
    play: () => this.toggle(),
    main: () => this.putOnSheet(),
    rows: (key) => this.chooseRow(this.learned()?.rows.find(({ number }) => String(number) === key)?.kind),
    next: () => this.chooseStep(this.stepIndex() + 1),
    before: () => this.chooseStep(this.stepIndex() - 1),
    nextStretch: () => this.goTo(besides(this.range(), 1, this.lastBar())),
    stretchBefore: () => this.goTo(besides(this.range(), -1, this.lastBar())),
    clean: () => this.playChange(false),
    faulty: () => this.playChange(true),
    slow: () => this.player.isSlow.update((slow) => !slow),
    slower: () => this.player.slower(),
    faster: () => this.player.faster(),
    join: () => this.goTo(this.joinedRange()),
    begin: () => this.mark('first'),
    end: () => this.mark('last'),
    tap: () => this.player.tap(),
    read: () => this.readOut(),
    edit: () => this.toggleEditing(),
    paper: () => void this.router.navigate(['/tunes', this.id(), 'bars', this.stretch(), 'paper']),
    leave: () => this.leave(),
  });

  constructor() {
    effect(() => {
      const id = this.id();
      // For whom it is decides on which instrument.
      this.state.student();
      if (!this.shelf.isLoaded() || !this.state.hasStudents()) return;
      untracked(() => this.open(id));
    });
    effect(() => {
      this.stretch();
      untracked(() => {
        this.transport.stop();
        this.player.clearTaps();
        this.stepIndex.set(0);
        this.isEditing.set(false);
      });
    });
    this.state.ready().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
    this.book.ready().subscribe({ error: (error: unknown) => this.notices.fault(error) });
  }

  ngOnDestroy(): void {
    this.release();
    this.reader.stop();
    this.transport.stop();
  }

  protected chooseRow(kind: RowKind | undefined): void {
    if (kind === undefined) return;
    const wasPlaying = this.transport.playing() !== undefined;
    this.row.set(kind);
    this.stepIndex.set(0);
    if (wasPlaying) this.play();
  }

  protected chooseStep(index: number): void {
    this.stepIndex.set(Math.max(0, Math.min(this.steps().length - 1, index)));
  }

  /** The change into a note of the chunk; a row that says something else of it goes back to the bare notes. */
  protected chooseNote(note: number): void {
    if (!this.steps().some((step) => step.note === note)) this.row.set('bare');
    this.chooseStep(this.steps().findIndex((step) => step.note === note));
  }

  protected goToStretch(stretch: string): void {
    void this.router.navigate(['/tunes', this.id(), 'bars', stretch], { replaceUrl: true });
  }

  protected goTo(range: ChunkRange | undefined): void {
    if (range !== undefined) this.goToStretch(stretchOf(range));
  }

  /** The stretch begins, or ends, where the chosen change arrives. */
  protected mark(end: 'first' | 'last'): void {
    const [chunk, step] = [this.chunk(), this.step()];
    const note = chunk?.sources[step?.note ?? -1];
    if (chunk !== undefined && note !== undefined) this.goTo(marked(chunk.sources.slice(chunk.leadIn), end, note));
  }

  protected toggleEditing(): void {
    if (this.hasOtherNotes()) this.notices.done('This student plays other notes here than are written. A script of your own is kept with the tune as written.');
    else this.isEditing.update((editing) => !editing);
  }

  protected leave(): void {
    if (this.isEditing()) this.isEditing.set(false);
    else void this.router.navigate(['/tunes', this.id()]);
  }

  protected toggle(): void {
    if (this.transport.playing() !== undefined) this.transport.stop();
    else this.play();
  }

  protected toggleCount(): void {
    this.count.update((way) => ({ ...way, in: way.in === 'six' ? 'beats' : 'six' }));
  }

  protected toggleDetail(): void {
    this.count.update((way) => ({ ...way, detail: way.detail === 'divided' ? 'undivided' : 'divided' }));
  }

  protected readOut(): void {
    const step = this.step();
    const text = this.ownScript() || scriptText(step === undefined ? [] : [step]);
    if (!this.reader.toggle(text)) this.notices.done('This browser has no voice to read with.');
  }

  protected playChange(isFaulty: boolean): void {
    const [opened, step] = [this.opened(), this.changes().find(({ note }) => note === this.step()?.note) ?? this.changes().at(0)];
    if (opened !== undefined && step?.change !== undefined) this.player.playChange(opened.instrument, step.change, step.note, isFaulty);
  }

  protected chooseLayer({ index, kind }: { readonly index: number; readonly kind: LayerKind }): void {
    const chunk = this.chunk();
    const student = this.state.student();
    if (chunk === undefined || student === undefined) return;
    const { arrangement, version } = this.kept();
    const { [String(chunk.sources[index])]: _, ...others } = arrangement.layers;
    const layers = kind === 'full' ? others : { ...others, [String(chunk.sources[index])]: kind };
    const changed = { ...arrangement, layers, tuneVersion: this.opened()?.detail.version ?? 1 };
    this.kept.set({ arrangement: changed, version });
    this.arrangements.save(this.id(), student.id, changed, version).subscribe({
      next: (kept) => this.kept.set(kept),
      error: (error: unknown) => {
        this.notices.fault(error);
        this.loadArrangement();
      },
    });
  }

  /** One step: the piece with its rows, at this student's layers, in its own meter. */
  protected putOnSheet(): void {
    const [opened, chunk, student, learned] = [this.opened(), this.chunk(), this.state.student(), this.learned()];
    if (opened === undefined || chunk === undefined || learned === undefined || student === undefined || this.isPutting()) return;
    if (this.putHere() !== undefined) {
      void this.router.navigate(['/sheets', this.putHere()?.sheet.id]);
      return;
    }
    const excerpt = {
      ...excerptOf(opened.detail.title, chunk.title, chunk.tune, this.layers()),
      rows: learned.rows.map(({ kind }) => kind),
      script: this.wholeScript().slice(0, 4000),
    };
    this.putItems([plannedExcerpt(opened.instrument, chunk.tune, excerpt, this.player.tempo())]);
  }

  /** Bars of a longer stretch as a chain: each by itself, then all up to it. */
  protected putChain(): void {
    const [opened, range] = [this.opened(), this.range()];
    if (opened === undefined || range.kind !== 'bars' || this.state.student() === undefined || this.isPutting()) return;
    const all = layersOfExcerpt(this.kept().arrangement);
    const items = chainOf(opened.tune, range.from, range.to).flatMap((each): PlannedSheetLine[] => {
      const found = chunkOf(opened.instrument, opened.tune, each, opened.detail.chordNote);
      if (found.kind === 'none') return [];
      const { title, tune, sources } = found.chunk;
      const layers = new Map(sources.flatMap((source, index) => (all.has(source) ? [[index, all.get(source) as LayerKind] as const] : [])));
      return [plannedExcerpt(opened.instrument, tune, excerptOf(opened.detail.title, title, tune, layers), this.player.tempo())];
    });
    this.putItems(items);
  }

  private putItems(items: readonly PlannedSheetLine[]): void {
    const [opened, student] = [this.opened(), this.state.student()];
    if (opened === undefined || student === undefined) return;
    this.isPutting.set(true);
    const stretch = this.stretch();
    this.onto.put({ student, instrument: opened.instrument.id, tune: { id: this.id(), title: opened.detail.title } }, items).subscribe({
      next: (put) => {
        this.isPutting.set(false);
        this.put.set({ ...put, stretch });
      },
      error: (error: unknown) => {
        this.isPutting.set(false);
        this.notices.fault(error);
      },
    });
  }

  protected takeOff(): void {
    const put = this.put();
    this.put.set(undefined);
    put?.undo().subscribe({
      next: () => this.notices.done('It was taken off the sheet.'),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  /** The teacher's own script; empty text gives the made one back. */
  protected saveScript(text: string): void {
    const opened = this.stored();
    if (opened === undefined) return;
    const { [this.stretch()]: _, ...others } = opened.detail.about.scripts;
    const isOwn = text.trim() !== '' && text.trim() !== scriptText(this.script());
    const notes = { ...opened.detail.about, scripts: isOwn ? { ...others, [this.stretch()]: text.trim() } : others };
    this.arrangements.saveNotes(opened.detail, notes).subscribe({
      next: (detail) => {
        this.stored.set({ ...opened, detail });
        this.isEditing.set(false);
        const problems = isOwn ? proofScript(opened.instrument, opened.tune, this.script(), text) : [];
        const saved = isOwn ? 'Your script is saved with this place of the tune.' : 'The script is made from the fingers again.';
        this.notices.done([saved, ...problems.slice(0, 3)].join(' '));
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private play(): void {
    const [opened, chunk, row] = [this.opened(), this.chunk(), this.chosenRow()];
    if (opened === undefined || chunk === undefined || row === undefined) return;
    const path = pathOfTune(new PathCosts(opened.instrument), row.tune, opened.articulation, opened.pins);
    this.player.play({ ...opened, tune: row.tune, path }, row.kind, this.count());
  }

  private open(id: string): void {
    this.tunes.open(id).subscribe({
      next: (opened) => {
        const isNew = this.stored()?.detail.id !== id;
        this.stored.set(opened);
        this.fault.set('');
        if (isNew) this.player.begin(opened.tune);
        this.loadArrangement();
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }

  private loadArrangement(): void {
    const student = this.state.student();
    this.kept.set({ arrangement: noArrangement, version: 0 });
    if (student === undefined) return;
    this.arrangements.get(this.id(), student.id).subscribe({
      next: (kept) => this.kept.set(kept),
      error: (error: unknown) => this.notices.fault(error),
    });
  }
}

const capitalCount = 'Four';
