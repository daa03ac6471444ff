import { Component, computed, inject, input } from '@angular/core';
import { hintsFor } from '@zelpit/core/change';
import { cautionsOf, type Instrument } from '@zelpit/core/fingering';
import { describedLine, lineAbc, notesOfLine, type Line } from '@zelpit/core/line';
import { ChangeFigureComponent, figureSize } from './change-figure.component';
import { PieceViewComponent } from './piece-view.component';
import { LineWordsChoice } from '../wording/line-words.service';
import { StaffLineComponent } from '../score/staff-line.component';

/** A line as it is practised: the two fingerings above its first bar, its name and advice, the music. */
@Component({
  selector: 'zp-line-view',
  imports: [ChangeFigureComponent, PieceViewComponent, StaffLineComponent],
  template: `
    <div class="line-view">
      <svg class="line-figure" [attr.viewBox]="'0 0 ' + size.width + ' ' + size.height" role="img" [attr.aria-label]="'Fingers of ' + described().title">
        <g zpChangeFigure [line]="described()" />
      </svg>
      <div>
        <h2 class="line-title">{{ described().title }}</h2>
        <p class="line-advice">
          <b>{{ described().advice.todo }}</b> <br />
          {{ described().advice.otherwise }}
          @if (hints(); as text) {
            <br /><span class="second">{{ text }}</span>
          }
        </p>
        <ng-content />
      </div>
    </div>
    @if (caution(); as text) {
      <p class="caution">{{ text }}</p>
    }
    @if (line().excerpt; as excerpt) {
      <zp-piece-view [instrument]="instrument()" [line]="line()" [excerpt]="excerpt" />
    } @else {
      <zp-staff-line [abc]="abc()" [text]="musicText()" />
    }
  `,
})
export class LineViewComponent {
  private readonly words = inject(LineWordsChoice);
  readonly instrument = input.required<Instrument>();
  readonly line = input.required<Line>();
  protected readonly size = figureSize;
  protected readonly described = computed(() => describedLine(this.instrument(), this.line()));
  protected readonly caution = computed(() =>
    cautionsOf(
      this.instrument(),
      notesOfLine(this.instrument(), this.line()).map(({ note }) => note),
    ),
  );
  /** What to listen for and one hint for the hands; a line of its own music has them as its purposes. */
  protected readonly hints = computed(() => {
    const { exercise, instrument, change, trouble } = this.described();
    if (exercise != null || this.line().excerpt != null) return '';
    const { listen, physical } = hintsFor(instrument, change, trouble);
    return `${listen} ${physical}`.trim();
  });
  protected readonly musicText = computed(() => {
    const { exercise, title } = this.described();
    return exercise == null ? `Four bars of ${title} and back: eight changes` : `The music of ${title}`;
  });
  protected readonly abc = computed(() => lineAbc(this.instrument(), this.line(), this.words.words()));
}
