import { Component, computed, input, viewChild, type ElementRef } from '@angular/core';
import type { LaneNames } from '../../music/lanes/lanes.component';
import { fontRuns, paperFonts } from '../../music/paper/font-runs';
import type { PaperSize } from '../../music/paper/paper-size';
import type { ChartView } from '../../music/lanes/chart-view';
import { coverPath } from '../../music/lanes/hole-figure';
import { handoutLayout, handoutMargin, type HandoutFigure, type HandoutHole } from './handout-layout';

/** One page with the fingers of some notes, black on white, as it is printed and as it goes into a file. */
@Component({
  selector: 'zp-handout-drawing',
  template: `
    <div class="paper-pages">
      <svg
        #page
        class="sheet-page"
        xmlns="http://www.w3.org/2000/svg"
        [attr.width]="size().width"
        [attr.height]="size().height"
        [attr.viewBox]="'0 0 ' + size().width + ' ' + size().height"
        role="img"
        [attr.aria-label]="title() + ', ' + figures().length + ' figures'"
      >
        <svg:rect [attr.width]="size().width" [attr.height]="size().height" fill="#fff" />
        @for (line of head(); track line.y) {
          <svg:text [attr.x]="margin" [attr.y]="line.y" fill="#000" [attr.font-size]="line.size" [attr.font-weight]="line.weight" [attr.font-family]="family">
            @for (run of runs(line.text); track $index) {
              <svg:tspan [attr.font-family]="run.family">{{ run.text }}</svg:tspan>
            }
          </svg:text>
        }
        @for (label of drawn().labels; track $index) {
          <svg:text
            [attr.x]="label.x"
            [attr.y]="label.y"
            fill="#000"
            [attr.text-anchor]="label.anchor"
            font-weight="500"
            [attr.font-size]="drawn().labelSize"
            [attr.font-family]="family"
          >
            {{ label.text }}
          </svg:text>
        }
        @for (note of drawn().notes; track note.id) {
          <svg:path [attr.d]="note.body.path" fill="none" stroke="#000" stroke-width="1.2" stroke-linejoin="round" />
          <svg:text
            [attr.x]="note.x"
            [attr.y]="note.nameY"
            fill="#000"
            text-anchor="middle"
            font-weight="800"
            [attr.font-size]="drawn().nameSize"
            [attr.font-family]="family"
          >
            {{ note.name }}
          </svg:text>
          @if (note.isDotted) {
            <svg:path
              [attr.d]="'M' + (note.x - drawn().nameSize * 0.36) + ' ' + (note.nameY - drawn().nameSize * 0.88) + 'h' + drawn().nameSize * 0.8"
              fill="none"
              stroke="#000"
              [attr.stroke-width]="drawn().nameSize * 0.12"
              stroke-linecap="round"
              [attr.stroke-dasharray]="'0 ' + drawn().nameSize * 0.2"
            />
          }
          @for (small of note.small; track small; let line = $index) {
            <svg:text
              [attr.x]="note.x"
              [attr.y]="note.nameY + drawn().smallSize * 1.05 * (line + 1)"
              fill="#000"
              text-anchor="middle"
              font-weight="500"
              [attr.font-size]="drawn().smallSize"
              [attr.font-family]="family"
            >
              {{ small }}
            </svg:text>
          }
          @for (hole of note.holes; track $index) {
            <svg:circle
              [attr.cx]="hole.x"
              [attr.cy]="hole.y"
              [attr.r]="hole.radius"
              fill="none"
              stroke="#000"
              stroke-width="2"
              [attr.stroke-dasharray]="hole.isHidden ? hole.radius / 3 + ' ' + hole.radius / 3 : null"
            />
            @if (hole.coverage > 0) {
              <svg:path [attr.d]="cover(hole)" fill="#000" />
            }
          }
        }
        <svg:text [attr.x]="margin" [attr.y]="size().height - 30" fill="#000" font-size="13" font-weight="500" [attr.font-family]="family">
          {{ foot() }}
        </svg:text>
      </svg>
    </div>
  `,
})
export class HandoutDrawingComponent {
  readonly figures = input.required<readonly HandoutFigure[]>();
  readonly view = input.required<ChartView>();
  readonly names = input.required<LaneNames>();
  readonly size = input.required<PaperSize>();
  readonly title = input.required<string>();
  readonly about = input.required<string>();
  readonly foot = input.required<string>();
  private readonly page = viewChild.required<ElementRef<SVGSVGElement>>('page');

  protected readonly margin = handoutMargin;
  protected readonly family = paperFonts.latin;
  protected readonly runs = fontRuns;
  protected readonly drawn = computed(() => {
    const { width, height } = this.size();
    return handoutLayout(this.figures(), { view: this.view(), names: this.names(), width, height });
  });
  protected readonly head = computed(() => [
    { y: 74, size: 34, weight: 800, text: this.title() },
    { y: 104, size: 17, weight: 500, text: this.about() },
  ]);

  svg(): SVGSVGElement {
    return this.page().nativeElement;
  }

  protected cover({ x, y, radius, coverage }: HandoutHole): string {
    return coverPath(x, y, radius * 0.78, coverage);
  }
}
