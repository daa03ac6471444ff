import { Component, computed, inject, input } from '@angular/core';
import { rowNames, rowsOfExcerpt, tuneAtRow, type Excerpt, type LineWords } from '@zelpit/core/excerpt';
import type { Instrument } from '@zelpit/core/fingering';
import { lineAbc, type Line } from '@zelpit/core/line';
import { scoreLines } from '../score/score-lines';
import { StaffLineComponent } from '../score/staff-line.component';
import { LineWordsChoice } from '../wording/line-words.service';

interface PieceLine {
  readonly abc: string;
  readonly label: string;
}

/** As wide as a line of music is reckoned with: where it is drawn narrower, its staff shrinks. */
const drawnWidth = 1000;

/** The music of a piece of a tune: its steps one under the other, or its lines of music. */
@Component({
  selector: 'zp-piece-view',
  imports: [StaffLineComponent],
  template: `
    @for (each of lines(); track $index) {
      @if (each.label) {
        <p class="piece-label">{{ each.label }}</p>
      }
      <zp-staff-line [abc]="each.abc" [text]="each.label === '' ? 'The music' : 'The music, ' + each.label" />
    }
  `,
})
export class PieceViewComponent {
  private readonly words = inject(LineWordsChoice);
  readonly instrument = input.required<Instrument>();
  readonly line = input.required<Line>();
  readonly excerpt = input.required<Excerpt>();

  protected readonly lines = computed(() => pieceLines(this.instrument(), this.line(), this.excerpt(), this.words.words()));
}

/** Lines of music of a piece, each with its label; several steps where it is learned in steps. */
export function pieceLines(instrument: Instrument, line: Line, excerpt: Excerpt, words: LineWords): readonly PieceLine[] {
  const rows = rowsOfExcerpt(instrument, excerpt).rows.filter(({ kind }) => excerpt.rows?.includes(kind) === true);
  if (rows.length > 1) return rows.map(({ number, kind }) => ({ abc: lineAbc(instrument, line, words, kind), label: `${number}  ${rowNames[kind]}` }));
  const lines = scoreLines(tuneAtRow(instrument, excerpt), drawnWidth, undefined, true);
  return lines.length > 1 ? lines.map(({ abc }) => ({ abc, label: '' })) : [{ abc: lineAbc(instrument, line, words), label: '' }];
}
