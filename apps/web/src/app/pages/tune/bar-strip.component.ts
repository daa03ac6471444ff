import { afterRenderEffect, Component, computed, ElementRef, inject, input, output } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import { likenessText, type Form } from '@zelpit/core/form';
import { markFor } from '@zelpit/core/lanes';
import type { Tune, TuneChange } from '@zelpit/core/tune';
import { MarkComponent } from '../../music/lanes/mark.component';

/** More bars than this stand closer. */
const mostNumbered = 17;

/** All bars of a tune with the worst that can be heard in each. */
@Component({
  selector: 'zp-bar-strip',
  imports: [MarkComponent],
  template: `
    @for (bar of bars(); track bar.number) {
      <button
        type="button"
        class="strip-bar"
        [class.part-start]="bar.startsPart"
        [class.is-seen]="seen().has(bar.number)"
        [class.is-here]="bar.number === here()"
        [attr.aria-label]="'Bar ' + bar.number + (bar.text ? ': ' + bar.text : '')"
        [attr.aria-current]="bar.number === here() ? 'true' : null"
        (click)="chosen.emit(bar.number)"
      >
        <span class="strip-mark">
          @if (bar.worst; as worst) {
            <svg viewBox="-10 -10 20 20" aria-hidden="true">
              <g zpMark [instrument]="instrument()" [trouble]="worst.trouble" [size]="worst.trouble.kind === 'pop' ? 17 : 14" />
            </svg>
          }
        </span>
        <span class="strip-line" [class.is-outline]="bar.isSameAgain"></span>
        <span class="strip-number" [class.is-section]="bar.section !== ''" [style.--bars]="bar.bars" [title]="bar.section">{{
          bar.section || (bar.number === here() && !bar.isNamed ? bar.number : '')
        }}</span>
      </button>
    }
  `,
  host: { class: 'strip-bars', role: 'group', 'aria-label': 'Bars of the tune', '[class.is-dense]': 'isDense()' },
})
export class BarStripComponent {
  readonly tune = input.required<Tune>();
  readonly instrument = input.required<Instrument>();
  readonly worst = input.required<ReadonlyMap<number, TuneChange>>();
  readonly seen = input.required<ReadonlySet<number>>();
  readonly here = input.required<number>();
  readonly form = input.required<Form>();
  readonly chosen = output<number>();

  protected readonly bars = computed(() => {
    const { bars } = this.tune();
    const starts = new Set(
      bars.flatMap((bar, index) =>
        bar.endsPart && index < bars.length - 1 ? [bars[index + 1].number === bar.number ? bar.number + 1 : bars[index + 1].number] : [],
      ),
    );
    const numbers = [...new Set(bars.map((bar) => bar.number))].filter((number) => number > 0);
    const sections = barsOfSections(this.form());
    return numbers.map((number) => {
      const worst = this.worst().get(number);
      return {
        number,
        worst,
        text: worst === undefined ? '' : (markFor(this.instrument(), worst.trouble, 1)?.text ?? ''),
        startsPart: starts.has(number),
        ...(sections.get(number) ?? unnamed),
      };
    });
  });
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  constructor() {
    // Where the bars have more room than the window, the one in hand stays in view.
    afterRenderEffect(() => {
      const { scrollWidth, clientWidth } = this.host;
      const bar = this.host.querySelector<HTMLElement>(`.strip-bar:nth-child(${this.bars().findIndex(({ number }) => number === this.here()) + 1})`);
      if (scrollWidth > clientWidth && bar !== null) this.host.scrollTo({ left: bar.offsetLeft - clientWidth / 2 });
    });
  }

  protected readonly isDense = computed(() => this.bars().length > mostNumbered);
}

interface BarOfSection {
  /** What stands under the first bar of a section: its letter and number, or which one it recalls. */
  readonly section: string;
  /** True where its bar is the same as in the section that it recalls. */
  readonly isSameAgain: boolean;
  /** How many bars its section has. */
  readonly bars: number;
  /** True where the name of its section runs under it. */
  readonly isNamed: boolean;
}
const unnamed: BarOfSection = { bars: 1, section: '', isSameAgain: false, isNamed: false };

/** Bars by their numbers, with what the form says of them. */
function barsOfSections(form: Form): ReadonlyMap<number, BarOfSection> {
  const bars = new Map<number, BarOfSection>();
  for (const section of form.sections) {
    const differing = new Set(section.like?.differing);
    const { letter, first } = form.parts[section.part];
    const name = `${first === section.first ? `${letter} ` : ''}${section.number}`;
    const like = likenessText(form, section);
    const text = like === undefined ? name : `${first === section.first ? `${letter} ` : ''}${like}`;
    for (let measure = section.first; measure < section.end; measure += 1) {
      const isFirst = measure === section.first;
      bars.set(form.measures[measure].number, {
        section: isFirst ? text : '',
        bars: section.end - section.first,
        isSameAgain: section.like !== undefined && !differing.has(measure),
        isNamed: like !== undefined || measure - section.first < 1,
      });
    }
  }
  return bars;
}
