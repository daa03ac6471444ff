import { Component, computed, type ElementRef, inject, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import type { ImportResult, TuneSummary } from '@zelpit/contract';
import { ZelpitFault } from '@zelpit/core/fault';
import { count } from '@zelpit/core/words';
import { openMidi, type OpenedMidi } from '@zelpit/core/music-files';
import { messageOf } from '../../kernel/api/api.service';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { StudioState } from '../../studio/state/studio-state.service';
import { TunesService } from '../../documents/tune/tunes.service';
import { saveFile } from '../../kernel/files/save-file';
import { ImportResultComponent } from './import-result.component';
import { LongBooksComponent } from './long-books.component';
import { MidiChoicesComponent } from './midi-choices.component';
import { isMidi, readMidiFile } from '../../music/midi/read-midi-file';

/** The studio's tunes by kind, and the way in for new ones. */
@Component({
  selector: 'zp-tune-list',
  imports: [RouterLink, FormsModule, ChooserComponent, SentenceComponent, ForWhomComponent, ImportResultComponent, LongBooksComponent, MidiChoicesComponent],
  templateUrl: './tune-list.page.html',
  host: { '(dragover)': 'onDragOver($event)', '(dragleave)': 'isOver.set(false)', '(drop)': 'onDrop($event)', '(paste)': 'onPaste($event)' },
})
export class TuneListPage {
  protected readonly count = count;
  private readonly service = inject(TunesService);
  private readonly notices = inject(NoticeService);
  private readonly shelf = inject(InstrumentShelf);
  private readonly state = inject(StudioState);
  private readonly picker = viewChild<ElementRef<HTMLInputElement>>('picker');
  private readonly longBooks = viewChild.required(LongBooksComponent);

  protected readonly tunes = signal<readonly TuneSummary[] | undefined>(undefined);
  protected readonly fault = signal('');
  protected readonly importFault = signal('');
  protected readonly result = signal<ImportResult | undefined>(undefined);
  /** MIDI files that were opened and not kept yet. */
  protected readonly midis = signal<readonly { readonly midi: OpenedMidi; readonly name: string }[]>([]);
  private readonly waiting: (File | Blob)[] = [];
  protected readonly isOver = signal(false);
  protected readonly isBusy = signal(false);
  protected readonly isPasting = signal(false);
  protected readonly search = signal('');
  protected pasted = '';
  /** For which instrument what comes in is read: the one in hand. */
  protected readonly targetText = computed(() => nameOf(this.state.model()));
  protected readonly isForPipes = computed(() => this.state.model().family === 'pipes');
  protected readonly pipesExample = 'X:1\nT:A title\nM:2/4\nL:1/8\nK:HP\n{g}A>c {gcd}c>e|';
  protected readonly example = 'X:1\nT:A title\nM:2/4\nL:1/8\nK:D\nA>d {e}d>f|';
  /** Tunes of one instrument only; empty for all. */
  protected readonly only = signal('');
  protected readonly onlyText = computed(() => (this.only() === '' ? 'every instrument' : this.nameOf(this.only())));
  protected readonly onlyChoices = computed((): readonly Choice<string>[] => {
    const ids = [...new Set((this.tunes() ?? []).map(({ instrument }) => instrument))];
    return [{ value: '', label: 'every instrument' }, ...ids.map((id) => ({ value: id, label: this.nameOf(id) }))];
  });

  protected readonly groups = computed(() => {
    const wanted = this.search().trim().toLocaleLowerCase();
    const ofInstrument = (this.tunes() ?? []).filter(({ instrument }) => this.only() === '' || instrument === this.only());
    const found = ofInstrument.filter(
      (tune) => wanted === '' || `${tune.title} ${tune.rhythm} ${tune.before} ${tune.after}`.toLocaleLowerCase().includes(wanted),
    );
    const byRhythm = new Map<string, TuneSummary[]>();
    for (const tune of found) {
      const rhythm = tune.rhythm === '' ? 'kind not given' : tune.rhythm.toLocaleLowerCase();
      byRhythm.set(rhythm, [...(byRhythm.get(rhythm) ?? []), tune]);
    }
    return [...byRhythm].sort(([one], [other]) => one.localeCompare(other)).map(([rhythm, tunes]) => ({ rhythm, tunes }));
  });

  constructor() {
    this.load();
  }

  protected load(): void {
    this.service.list().subscribe({
      next: (tunes) => {
        this.tunes.set(tunes);
        this.fault.set('');
      },
      error: (error: unknown) => this.fault.set(messageOf(error)),
    });
  }

  private nameOf(id: string): string {
    return nameOf(this.shelf.known(id));
  }

  protected instrumentOf({ instrument }: TuneSummary): string {
    return instrument === 'practice-chanter' ? '' : this.nameOf(instrument);
  }

  protected pickFile(): void {
    this.picker()?.nativeElement.click();
  }

  protected onPicked(event: Event): void {
    const field = event.target as HTMLInputElement;
    this.bringInFiles([...(field.files ?? [])]);
    field.value = '';
  }

  protected onDragOver(event: DragEvent): void {
    event.preventDefault();
    this.isOver.set(true);
  }

  protected onDrop(event: DragEvent): void {
    event.preventDefault();
    this.isOver.set(false);
    this.bringInFiles([...(event.dataTransfer?.files ?? [])]);
  }

  /** ABC pasted anywhere on the page comes in; text pasted into a field stays there. */
  protected onPaste(event: ClipboardEvent): void {
    if ((event.target as Element).closest('input, textarea') !== null) return;
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (text.trim() !== '') this.bringIn(new Blob([text]));
  }

  protected bringInPasted(): void {
    this.bringIn(new Blob([this.pasted]));
  }

  /** All tunes that are shown as one ABC file. */
  protected saveBook(): void {
    this.service.book(this.only() === '' ? undefined : this.only()).subscribe({
      next: ({ abc }) => saveFile(`Tunes.abc`, new Blob([abc], { type: 'text/vnd.abc' })),
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  protected putAway(tune: TuneSummary): void {
    this.service.putAway(tune.id).subscribe({
      next: () => {
        this.load();
        this.notices.done(`“${tune.title}” was put away. It can be brought back for 30 days.`, () =>
          this.service.bringBack(tune.id).subscribe({ next: () => this.load(), error: (error: unknown) => this.notices.fault(error) }),
        );
      },
      error: (error: unknown) => this.notices.fault(error),
    });
  }

  private bringInFiles(files: readonly File[]): void {
    if (files.length > 0) void this.sortFiles(files);
  }

  /** ABC files make one book; scores come in one by one; MIDI files are looked at first. */
  private async sortFiles(files: readonly File[]): Promise<void> {
    const texts: Blob[] = [];
    this.importFault.set('');
    for (const file of files) {
      if (await isMidi(file)) await this.openMidi(file);
      else if (/\.(musicxml|xml|mxl)$/i.test(file.name)) this.waiting.push(file);
      // An empty line between two files ends the tune before.
      else texts.push(...(texts.length > 0 ? [new Blob(['\n\n'])] : []), file);
    }
    if (texts.length > 0) this.waiting.push(texts.length === 1 ? texts[0] : new File(texts, bookName(files)));
    this.result.set(undefined);
    this.bringInNext();
  }

  private async openMidi(file: File): Promise<void> {
    try {
      const midi = openMidi(await readMidiFile(file));
      this.midis.update((all) => [...all, { midi, name: file.name.replace(/\.midi?$/i, '') }]);
    } catch (error) {
      this.importFault.set(error instanceof ZelpitFault ? error.message : messageOf(error));
    }
  }

  protected keepMidi(abc: string): void {
    this.midis.update((all) => all.slice(1));
    this.bringIn(new Blob([abc]));
  }

  protected leaveMidi(): void {
    this.midis.update((all) => all.slice(1));
  }

  private bringInNext(): void {
    const next = this.waiting.shift();
    if (next !== undefined) this.send(next);
  }

  private bringIn(file: Blob): void {
    this.importFault.set('');
    this.result.set(undefined);
    this.send(file);
  }

  private send(file: File | Blob): void {
    this.isBusy.set(true);
    if (file.size > longestAtOnce) {
      this.sendLong(file);
      return;
    }
    this.service.bringIn(file, this.state.model().id).subscribe({
      next: (result) => {
        this.result.update((before) => ({ saved: [...(before?.saved ?? []), ...result.saved], refused: [...(before?.refused ?? []), ...result.refused] }));
        this.isBusy.set(false);
        if (result.refused.length === 0) {
          this.isPasting.set(false);
          this.pasted = '';
        }
        this.load();
        this.bringInNext();
      },
      error: (error: unknown) => {
        this.importFault.set(messageOf(error));
        this.isBusy.set(false);
        this.bringInNext();
      },
    });
  }

  /** A long book is kept by the server at once and read afterwards; the page need not stay open. */
  private sendLong(file: File | Blob): void {
    const name = file instanceof File ? file.name : 'The pasted tunes';
    this.service.bringInLater(file, this.state.model().id, name).subscribe({
      next: (job) => {
        this.longBooks().add(job);
        this.isBusy.set(false);
        this.bringInNext();
      },
      error: (error: unknown) => {
        this.importFault.set(messageOf(error));
        this.isBusy.set(false);
        this.bringInNext();
      },
    });
  }
}

/** Bytes of a book that are read while somebody waits. */
const longestAtOnce = 150_000;

const bookName = ([first, ...others]: readonly File[]): string => `${first.name} and ${count(others.length, 'more file')}`;
