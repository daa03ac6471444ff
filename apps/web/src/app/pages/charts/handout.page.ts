import { Component, computed, inject, linkedSignal, signal, viewChild, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { noteOf, teachingOrders, type NoteId } from '@zelpit/core/fingering';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import { differingOf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import type { LaneNames } from '../../music/lanes/lanes.component';
import { keepPaperSize, keptPaperSize, paperSizes, type PaperSize } from '../../music/paper/paper-size';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { ForWhomComponent } from '../../studio/state/for-whom.component';
import { KeyService } from '../../kernel/keys/key.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { capital } from '../../kernel/words/words';
import { instrumentFile } from '../../documents/model/saved-instrument';
import { ChartState } from '../../studio/state/chart-state.service';
import { chartCsv } from './chart-table';
import { views, type ChartView } from '../../music/lanes/chart-view';
import { namings } from './charts.page';
import { handoutFigures } from './handout-layout';
import { HandoutDrawingComponent } from './handout-drawing.component';

type FileKind = 'PDF' | 'SVG' | 'PNG' | 'CSV' | 'JSON';

/** The fingers of chosen notes on one page: to print, or as a file. */
@Component({
  selector: 'zp-handout',
  imports: [SentenceComponent, ForWhomComponent, ChooserComponent, RouterLink, HandoutDrawingComponent],
  template: `
    <div class="page">
      <zp-sentence><a class="chooser-word" routerLink="/charts">Chart</a><span class="quiet"> on paper</span><zp-for-whom /></zp-sentence>
      <section class="band" aria-label="Print or save">
        <div class="band-said">
          <p class="band-todo">{{ notes().length === 0 ? 'Choose the notes first.' : 'One page for the wall or the stand.' }}</p>
          <p class="band-else">The fewer notes you choose, the larger they are drawn.</p>
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" [disabled]="!canSave()" (click)="save('PDF')">
            {{ busy() === 'PDF' ? 'Making the PDF …' : 'Save as PDF' }} <kbd>D</kbd>
          </button>
          <button type="button" class="btn btn-line" [disabled]="!canSave()" (click)="print()">Print</button>
          @for (kind of kinds; track kind) {
            <button
              type="button"
              class="btn btn-line"
              [disabled]="!canSave()"
              [attr.aria-label]="'Save as ' + kind + ': ' + kindText[kind]"
              [title]="kindText[kind]"
              (click)="save(kind)"
            >
              {{ kind }}
            </button>
          }
        </div>
      </section>
      <section class="layer handout-options" aria-label="What stands on the page">
        <div class="chart-options p-0">
          <span class="seen"><span class="quiet">seen </span><zp-chooser purpose="View" [(value)]="view" [choices]="views" /></span>
          <span class="seen"><span class="quiet">by </span><zp-chooser purpose="Names" [(value)]="naming" [choices]="namings" /></span>
          <span class="seen"
            ><span class="quiet">on </span><zp-chooser purpose="Paper" [value]="size()" [choices]="sizeChoices" (valueChange)="choosePaper($event)"
          /></span>
          @if (forWhomChoices().length > 0) {
            <span class="seen"
              ><span class="quiet">for </span
              ><zp-chooser purpose="Models" [value]="isForBoth()" [choices]="forWhomChoices()" (valueChange)="wantsBoth.set($event)"
            /></span>
          }
          <button type="button" class="word" (click)="notes.set(allNotes())">All notes</button>
          <button type="button" class="word" (click)="notes.set([])">None</button>
          @for (order of orders(); track order.text) {
            <button type="button" class="word" (click)="notes.set(order.notes)">{{ order.text }}</button>
          }
          @if (known().length > 0) {
            <button type="button" class="word" (click)="notes.set(known())">Notes {{ owner() }} knows</button>
          }
        </div>
        <div class="note-chips" role="group" aria-label="Notes on the page">
          @for (note of chips(); track note.id) {
            <button type="button" class="note-chip" [attr.aria-pressed]="note.isOn" (click)="toggle(note.id)">{{ note.text }}</button>
          }
        </div>
      </section>
      <main class="paper-preview page-fill">
        @if (notes().length > 0) {
          <zp-handout-drawing [figures]="figures()" [view]="view()" [names]="naming()" [size]="size()" [title]="title()" [about]="about()" [foot]="foot()" />
        }
      </main>
    </div>
  `,
})
export class HandoutPage implements OnDestroy {
  private readonly notices = inject(NoticeService);
  private readonly state = inject(ChartState);
  protected readonly views = views;
  protected readonly namings = namings;
  protected readonly kindText: Readonly<Record<FileKind, string>> = {
    PDF: 'a page to print',
    SVG: 'a drawing to edit',
    PNG: 'a picture',
    CSV: 'a table for a spreadsheet',
    JSON: 'data for programs',
  };
  protected readonly kinds: readonly FileKind[] = ['SVG', 'PNG', 'CSV', 'JSON'];
  protected readonly sizeChoices = paperSizes.map((size) => ({ value: size, label: size.name }));
  protected readonly instrument = this.state.instrument;
  protected readonly view = signal<ChartView>('player');
  protected readonly naming = signal<LaneNames>('fingers');
  protected readonly size = signal<PaperSize>(keptPaperSize());
  protected readonly busy = signal<FileKind | undefined>(undefined);
  private readonly drawing = viewChild(HandoutDrawingComponent);

  protected readonly allNotes = computed(() => this.instrument().notes.map(({ id }) => id));
  protected readonly known = computed(() => this.allNotes().filter((note) => this.state.held()?.knownNotes.includes(note) === true));
  protected readonly owner = computed(() => this.state.held()?.owner.name ?? '');
  protected readonly notes = linkedSignal((): readonly NoteId[] => (this.known().length > 0 ? this.known() : this.allNotes()));
  /** True where the class has both models. */
  protected readonly wantsBoth = signal(false);
  protected readonly forWhomChoices = computed((): readonly Choice<boolean>[] => {
    const [own, other] = [this.instrument(), this.state.otherModel()];
    if (other === undefined) return [];
    return [
      { value: false, label: `the ${own.model ?? 'one'} model` },
      { value: true, label: `a class with ${own.model ?? ''} and ${other.model ?? ''}` },
    ];
  });
  protected readonly isForBoth = computed(() => this.wantsBoth() && this.forWhomChoices().length > 0);
  protected readonly figures = computed(() => handoutFigures(this.instrument(), this.notes(), this.isForBoth() ? this.state.otherModel() : undefined));
  protected readonly orders = computed(() => teachingOrders(this.instrument()).slice(1));
  protected readonly chips = computed(() => {
    const on = new Set(this.notes());
    return this.instrument().notes.map(({ id, schoolName }) => ({ id, text: schoolName, isOn: on.has(id) }));
  });
  protected readonly canSave = computed(() => this.notes().length > 0 && this.busy() === undefined);
  protected readonly viewText = computed(() => labelOf(views, this.view()));
  protected readonly namingText = computed(() => labelOf(namings, this.naming()));
  protected readonly title = computed(() => {
    const { name, model } = this.instrument();
    const other = this.isForBoth() ? this.state.otherModel() : undefined;
    return capital(other === undefined ? nameOf(this.instrument()) : `${name}, ${model ?? ''} and ${other.model ?? ''}`);
  });
  protected readonly about = computed(() => {
    const seen = `Seen ${this.viewText()}; a dashed hole is on the far side.`;
    const found = differingOf(this.instrument());
    const isDotted = found !== undefined && this.notes().some((note) => found.notes.has(note));
    return `${seen} Filled: covered. Empty: open.${isDotted ? ' Dotted: the models differ.' : ''}`;
  });
  protected readonly foot = computed(() => {
    const { reference } = this.instrument();
    const held = this.state.held();
    const pitch = `${noteOf(this.instrument(), reference.note).schoolName} ${reference.hertz.toFixed(1)} Hz`;
    return [...(held === undefined ? [] : [held.name]), pitch, 'Zelpit'].join(' · ');
  });

  private readonly release = inject(KeyService).use('handout', { save: () => void this.save('PDF') });

  ngOnDestroy(): void {
    this.release();
  }

  protected choosePaper(size: PaperSize): void {
    this.size.set(size);
    keepPaperSize(size);
  }

  /** Puts a note on the page in its place of the scale, or takes it off. */
  protected toggle(note: NoteId): void {
    const on = new Set(this.notes());
    if (on.delete(note)) this.notes.update((notes) => notes.filter((each) => each !== note));
    else this.notes.set(this.allNotes().filter((each) => on.has(each) || each === note));
  }

  protected print(): void {
    window.print();
  }

  protected async save(kind: FileKind): Promise<void> {
    const drawing = this.drawing();
    if (drawing === undefined || !this.canSave()) return;
    this.busy.set(kind);
    try {
      saveFile(fileNameOf(this.title(), kind.toLowerCase()), await this.fileOf(kind, drawing.svg()));
    } catch {
      this.notices.done(`The ${kind} could not be made. Try again.`);
    } finally {
      this.busy.set(undefined);
    }
  }

  private async fileOf(kind: FileKind, drawing: SVGSVGElement): Promise<Blob> {
    if (kind === 'CSV') return new Blob([chartCsv(this.instrument(), this.notes())], { type: 'text/csv' });
    if (kind === 'JSON') return instrumentFile(this.instrument());
    if (kind === 'PDF') return (await import('../../music/paper/sheet-pdf')).sheetPdf([drawing], this.size(), this.title());
    const { pngFile, svgFile } = await import('./svg-file');
    return kind === 'PNG' ? pngFile(drawing) : svgFile(drawing);
  }
}
