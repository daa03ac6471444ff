import { afterRenderEffect, Component, computed, inject, input, signal, viewChild, type ElementRef } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { hasMusic } from '@zelpit/contract';
import { changeBetween, troubleOf, type Trouble } from '@zelpit/core/change';
import { laneLayout, seamBetween, type LaneNote } from '@zelpit/core/lanes';
import { notesOfLine } from '@zelpit/core/line';
import { restPhrase } from '@zelpit/core/plan';
import { differingOf } from '../../studio/shelf/instrument-shelf.service';
import { filter, firstValueFrom } from 'rxjs';
import { ChangeFigureComponent } from '../lines/change-figure.component';
import { LanesComponent } from '../lanes/lanes.component';
import { MarkComponent } from '../lanes/mark.component';
import { Engraver, type Engraving } from '../score/engraver.service';
import { fontRuns, paperFonts } from './font-runs';
import { paperLanes, paperMargin, paperPages, qrSize, type PaperStaff, type SheetOnPaper } from './paper-layout';
import type { PaperSize } from './paper-size';
import { qrPath } from './qr-path';
import type { Measure } from './wrap-text';

/** Finger lanes under a staff on paper. */
interface PaperLanes {
  readonly notes: readonly LaneNote[];
  readonly marks: readonly { readonly x: number; readonly trouble: Trouble }[];
  readonly left: number;
  readonly height: number;
}

const staffKey = (page: number, row: number): string => `${page} ${row}`;

/** The pages of a sheet, black on white, as they are printed and as they go into the PDF. */
@Component({
  selector: 'zp-sheet-paper',
  imports: [ChangeFigureComponent, LanesComponent, MarkComponent],
  templateUrl: './sheet-paper.component.html',
})
export class SheetPaperComponent {
  private readonly engraver = inject(Engraver);
  readonly sheet = input.required<SheetOnPaper>();
  readonly size = input.required<PaperSize>();
  /** Address under which a line's code opens it. */
  readonly address = input.required<(code: string) => string>();

  private readonly host = viewChild.required<ElementRef<HTMLElement>>('pagesHost');
  private readonly bench = viewChild.required<ElementRef<HTMLElement>>('bench');
  private readonly hasFonts = signal(false);
  /** `ready` when all music stands on the pages; `failed` where a font or the engraver cannot be loaded. */
  readonly state = signal<'drawing' | 'ready' | 'failed'>('drawing');
  readonly isReady = computed(() => this.state() === 'ready');

  protected readonly rest = restPhrase;
  /** What dots under a note mean, where a line has some. */
  protected readonly dottedText = computed(() => {
    const { instrument, lines } = this.sheet();
    const found = differingOf(instrument);
    const isUsed = found !== undefined && lines.filter(hasMusic).some((line) => notesOfLine(instrument, line).some(({ note }) => found.notes.has(note)));
    return isUsed ? `dotted: other on the ${found.model} model` : '';
  });
  protected readonly footText = computed(() =>
    this.sheet().review === undefined ? 'scan the code to practise the line' : 'a box each day: full clean, half nearly, empty not yet',
  );
  /** Where the notes of engraved staves stand, by their places among all staves. */
  private readonly engraved = signal<ReadonlyMap<string, Engraving>>(new Map());
  protected readonly lanePitch = paperLanes.pitch;
  protected readonly margin = paperMargin;
  protected readonly qrSize = qrSize;
  protected readonly family = paperFonts.latin;
  protected readonly runs = fontRuns;
  protected readonly legend = [
    { x: 0, text: 'finger lifts', path: 'M5 20H18C26 20 24 8 34 8' },
    { x: 132, text: 'finger lands', path: 'M5 8C15 8 13 20 21 20H34' },
  ] as const;

  protected readonly pages = computed(() => (this.hasFonts() ? paperPages(this.sheet(), this.size(), measure) : []));

  private readonly state$ = toObservable(this.state);

  constructor() {
    const wanted = [500, 700, 800].map((weight) => document.fonts.load(`${weight} 20px "${paperFonts.latin}"`));
    Promise.all(wanted).then(
      () => this.hasFonts.set(true),
      () => this.state.set('failed'),
    );
    afterRenderEffect(() => {
      const pages = this.pages();
      if (!this.hasFonts()) return;
      this.engraveAll(
        pages.flatMap((page) => page.rows.flatMap(({ staves }, row) => staves.map((staff) => ({ ...staff, key: staffKey(page.number, row) })))),
      ).catch(() => this.state.set('failed'));
    });
  }

  /**
   * The pages as a PDF, as soon as they are drawn.
   * @throws Error where a font or the engraver cannot be loaded
   */
  async pdf(): Promise<Blob> {
    const state = await firstValueFrom(this.state$.pipe(filter((each) => each !== 'drawing')));
    if (state === 'failed') throw new Error('The sheet could not be drawn.');
    const { sheetPdf } = await import('./sheet-pdf');
    return sheetPdf(this.svgPages(), this.size(), this.sheet().title);
  }

  svgPages(): readonly SVGSVGElement[] {
    return [...this.host().nativeElement.querySelectorAll<SVGSVGElement>('svg.sheet-page')];
  }

  /** Lanes under a staff, once it is drawn: the fingers stand under their notes. */
  protected lanesOf(page: number, row: number): PaperLanes | undefined {
    const { lanes, staves } = this.pages()[page - 1].rows[row];
    const engraving = this.engraved().get(staffKey(page, row));
    if (lanes === undefined || engraving === undefined) return undefined;
    const { instrument } = this.sheet();
    const left = staves[0].x;
    const notes = lanes.tune.notes.map(({ written, graceNotes }, index): LaneNote => {
      const placed = engraving.notes[index];
      const x = left + (placed?.x ?? 0);
      return {
        ...{ x, note: written.kind === 'note' ? written.note : null },
        graceNotes: graceNotes.map((note, place) => ({ note, x: left + (placed?.graceNotes[place] ?? placed?.x ?? 0) })),
      };
    });
    const marks = notes.slice(1).flatMap((after, index) => {
      const before = notes[index];
      if (before.note === null || after.note === null || before.note === after.note || after.graceNotes.length > 0) return [];
      const trouble = troubleOf(instrument, changeBetween(instrument, before.note, after.note));
      return trouble.kind === 'none' ? [] : [{ x: seamBetween(before, after), trouble }];
    });
    return { notes, marks, left, height: laneLayout(instrument, paperLanes.pitch).height };
  }

  protected qr(code: string): string {
    return qrPath(this.address()(code), qrSize);
  }

  /** Engraves each line aside and puts its black paths where its staff belongs. */
  private async engraveAll(music: readonly (PaperStaff & { readonly key: string })[]): Promise<void> {
    this.state.set('drawing');
    const found = new Map<string, Engraving>();
    const places = [...this.host().nativeElement.querySelectorAll<SVGGElement>('g.paper-staff')];
    for (const [index, place] of places.entries()) {
      const engraving = await this.engraver.engrave(this.bench().nativeElement, music[index].abc, {
        width: music[index].width,
        scale: music[index].scale ?? 1,
      });
      const { svg, staffTop } = engraving;
      found.set(music[index].key, engraving);
      svg.querySelector('style')?.remove();
      const drawing = document.createElementNS('http://www.w3.org/2000/svg', 'g');
      drawing.setAttribute('transform', `translate(0 ${-staffTop})`);
      drawing.setAttribute('fill', '#000');
      for (const node of svg.querySelectorAll('[fill="currentColor"]')) node.setAttribute('fill', '#000');
      for (const node of svg.querySelectorAll('[stroke="currentColor"]')) node.setAttribute('stroke', '#000');
      for (const text of svg.querySelectorAll('text')) text.setAttribute('font-family', paperFonts.latin);
      // What is drawn larger keeps its own measure inside.
      drawing.setAttribute('transform', `translate(0 ${-staffTop}) scale(${music[index].scale ?? 1})`);
      drawing.append(...svg.childNodes);
      place.replaceChildren(drawing, ...ringsOf(engraving, music[index].rings ?? []), ...marksOf(engraving, music[index].marks ?? []));
    }
    this.bench().nativeElement.replaceChildren();
    this.engraved.set(found);
    if (places.length === music.length) this.state.set('ready');
  }
}

/** Rings around the heads of some notes. */
function ringsOf({ notes }: Engraving, places: readonly number[]): SVGCircleElement[] {
  return places.flatMap((place) => {
    const note = notes[place];
    if (note?.y === undefined) return [];
    const ring = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
    for (const [name, value] of Object.entries({ cx: note.x, cy: note.y, r: 14, fill: 'none', stroke: '#000', 'stroke-width': 2.2 }))
      ring.setAttribute(name, String(value));
    return [ring];
  });
}

/** Words over some notes, a little to their left, above the staff. */
function marksOf({ notes }: Engraving, marks: readonly (readonly [place: number, text: string])[]): SVGTextElement[] {
  return marks.flatMap(([place, text]) => {
    const note = notes[place];
    if (note === undefined) return [];
    const mark = document.createElementNS('http://www.w3.org/2000/svg', 'text');
    const style = { 'font-family': paperFonts.latin, 'font-size': 16, 'font-weight': 800, fill: '#000' };
    for (const [name, value] of Object.entries({ x: note.x - 8, y: Math.min(-10, (note.y ?? 0) - 22), ...style })) mark.setAttribute(name, String(value));
    mark.textContent = text;
    return [mark];
  });
}

const canvas = document.createElement('canvas').getContext('2d');

const measure: Measure = (text, size, weight) => {
  if (canvas === null) return text.length * size * 0.5;
  canvas.font = `${weight} ${size}px "${paperFonts.latin}"`;
  return canvas.measureText(text).width;
};
