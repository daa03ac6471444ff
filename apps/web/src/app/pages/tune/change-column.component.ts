import { Component, input, output } from '@angular/core';
import { changeName } from '@zelpit/core/change';
import type { Instrument } from '@zelpit/core/fingering';
import type { TuneChange } from '@zelpit/core/tune';
import { count } from '@zelpit/core/words';
import { MarkComponent } from '../../music/lanes/mark.component';
import type { ChangeGroup } from './change-groups';

/** Groups of changes, each under what is heard: to be chosen, and ticked for lines. */
@Component({
  selector: 'zp-change-column',
  imports: [MarkComponent],
  template: `
    @for (group of groups(); track group.title) {
      <h2 class="change-heading" [class.is-nothing]="group.trouble.kind === 'none'">
        <svg viewBox="-16 -16 32 32" aria-hidden="true">
          <g zpMark [instrument]="instrument()" [trouble]="group.trouble" [size]="28" [showsNothing]="true" />
        </svg>
        <span>{{ group.title }}{{ group.goesOn ? ', continued' : '' }}</span>
      </h2>
      <ul class="change-list">
        @for (row of group.changes; track row.change.id) {
          <li class="change-row" [class.is-chosen]="row.change === chosen()">
            <button type="button" class="change-button" [attr.aria-pressed]="row.change === chosen()" (click)="choose.emit(row.change)">
              <span class="change-rank" title="Place in the list: the worst sound first, then by difficulty">{{ row.rank }}</span>
              <span class="change-name">
                @for (part of parts(row.change); track $index) {
                  <span [class.change-way]="part.isWay">{{ part.text }}</span>
                }
              </span>
              <span class="change-count" [title]="'Comes ' + times(row.change) + ' in the tune'">{{ row.change.occurrences }}×</span>
            </button>
            <input
              type="checkbox"
              class="tick"
              title="Tick to make a line of it"
              [checked]="ticked().has(row.change.id)"
              [attr.aria-label]="'Tick number ' + row.rank + ', ' + name(row.change) + ', for a line'"
              (change)="tick.emit(row.change)"
            />
          </li>
        }
      </ul>
    }
  `,
})
export class ChangeColumnComponent {
  readonly groups = input.required<readonly ChangeGroup[]>();
  readonly instrument = input.required<Instrument>();
  readonly chosen = input<TuneChange>();
  readonly ticked = input.required<ReadonlySet<string>>();
  readonly choose = output<TuneChange>();
  readonly tick = output<TuneChange>();

  protected times({ occurrences }: TuneChange): string {
    return count(occurrences, 'time');
  }

  /** The name with what tells a fingering apart in small print. */
  protected parts(change: TuneChange): readonly { readonly text: string; readonly isWay: boolean }[] {
    return this.name(change)
      .split(/ \((fingering \d+)\)/)
      .map((text, index) => ({ text: index % 2 === 1 ? ` ${text} ` : text, isWay: index % 2 === 1 }));
  }

  protected name({ change }: TuneChange): string {
    return changeName(this.instrument(), change);
  }
}
