import { Component, computed, input, output } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import type { TuneChange, TuneChanges } from '@zelpit/core/tune';
import { ChangeColumnComponent } from './change-column.component';
import { changeGroups, inColumns } from './change-groups';

/** The list at the foot of the page has so many columns. */
const columns = 3;

/** The worst changes of a tune, grouped by what is heard; what has no room here is one word that opens all of them. */
@Component({
  selector: 'zp-change-list',
  imports: [ChangeColumnComponent],
  template: `
    @for (column of columns(); track $index) {
      <zp-change-column
        [groups]="column"
        [instrument]="instrument()"
        [chosen]="chosen()"
        [ticked]="ticked()"
        (choose)="choose.emit($event)"
        (tick)="tick.emit($event)"
      />
    } @empty {
      <p class="second">{{ all().length === 0 ? 'No finger changes from note to note.' : 'Nothing cuts in here.' }}</p>
    }
    <div class="changes-foot">
      <ng-content />
      @if (restText(); as text) {
        <button type="button" class="word" [attr.aria-expanded]="showsAll()" (click)="showAll.emit()">{{ text }}</button>
      }
    </div>
  `,
  host: { class: 'changes', role: 'region', 'aria-label': 'Changes of the tune, worst first' },
})
export class ChangeListComponent {
  readonly changes = input.required<TuneChanges>();
  readonly instrument = input.required<Instrument>();
  readonly chosen = input<TuneChange>();
  readonly ticked = input.required<ReadonlySet<string>>();
  /** Lines of a column, headings counted. */
  readonly lines = input(5);
  /** True while all of them are in view elsewhere. */
  readonly showsAll = input(false);
  readonly choose = output<TuneChange>();
  readonly tick = output<TuneChange>();
  /** All of them are wanted. */
  readonly showAll = output<void>();

  /** What can be heard; where nothing can, what grace notes or the tongue hide. */
  private readonly heard = computed(() => {
    const { open, underGraceNotes, tongued } = this.changes();
    const isHeard = open.filter(({ trouble }) => trouble.kind !== 'none');
    return isHeard.length > 0 ? isHeard : [...underGraceNotes, ...tongued].filter(({ trouble }) => trouble.kind !== 'none');
  });
  protected readonly all = computed(() => [...this.changes().open, ...this.changes().underGraceNotes, ...this.changes().tongued]);
  protected readonly columns = computed(() => {
    const filled = inColumns(changeGroups(this.instrument(), this.heard()), columns, this.lines());
    return filled.filter((column) => column.length > 0);
  });
  /** "3 more, 12 hidden by grace notes, 6 where nothing cuts in" */
  protected readonly restText = computed(() => {
    if (this.showsAll()) return 'Back to the music';
    const shown = new Set(this.columns().flatMap((column) => column.flatMap((group) => group.changes.map(({ change }) => change))));
    const { open, underGraceNotes, tongued } = this.changes();
    const left = (all: readonly TuneChange[], isNothing: boolean): number =>
      all.filter((change) => !shown.has(change) && (change.trouble.kind === 'none') === isNothing).length;
    const hidden = [...underGraceNotes, ...tongued].filter((change) => !shown.has(change)).length;
    const parts = [
      { number: left(open, false), text: 'more' },
      { number: hidden, text: hiddenBy(underGraceNotes.length > 0, tongued.length > 0) },
      { number: left(open, true), text: 'where nothing cuts in' },
    ].filter(({ number }) => number > 0);
    return parts.map(({ number, text }, index) => (index === 0 ? `${number} ${text === 'more' ? text : `more ${text}`}` : `${number} ${text}`)).join(', ');
  });
}

function hiddenBy(grace: boolean, tongue: boolean): string {
  if (!tongue) return 'hidden by grace notes';
  return grace ? 'hidden by grace notes or the tongue' : 'hidden by the tongue';
}
