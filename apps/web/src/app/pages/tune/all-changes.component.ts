import { Component, computed, input, output } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import type { TuneChange, TuneChanges } from '@zelpit/core/tune';
import { TipComponent } from '../../kernel/tip/tip.component';
import { ChangeColumnComponent } from './change-column.component';
import { changeGroups, type ChangeGroup } from './change-groups';

interface Part {
  readonly title: string;
  /** Why these are apart from those that are heard; empty for those. */
  readonly tip: string;
  readonly groups: readonly ChangeGroup[];
}

/** Every change of a tune in place of the drawing: what is heard, then what grace notes or the tongue hide. */
@Component({
  selector: 'zp-all-changes',
  imports: [ChangeColumnComponent, TipComponent],
  template: `
    @for (part of parts(); track part.title) {
      <h2 class="group-title">
        {{ part.title }}
        @if (part.tip) {
          <zp-tip [about]="part.title">{{ part.tip }}</zp-tip>
        }
      </h2>
      <div class="all-changes-columns">
        @for (group of part.groups; track group.title) {
          <zp-change-column
            [groups]="[group]"
            [instrument]="instrument()"
            [chosen]="chosen()"
            [ticked]="ticked()"
            (choose)="choose.emit($event)"
            (tick)="tick.emit($event)"
          />
        }
      </div>
    }
  `,
  host: { class: 'all-changes', role: 'region', 'aria-label': 'All changes of the tune', tabindex: '0' },
})
export class AllChangesComponent {
  readonly changes = input.required<TuneChanges>();
  readonly instrument = input.required<Instrument>();
  readonly chosen = input<TuneChange>();
  readonly ticked = input.required<ReadonlySet<string>>();
  readonly choose = output<TuneChange>();
  readonly tick = output<TuneChange>();

  protected readonly parts = computed((): readonly Part[] => {
    const { open, underGraceNotes, tongued } = this.changes();
    const ranked = [...open, ...underGraceNotes, ...tongued];
    const part = (title: string, tip: string, changes: readonly TuneChange[]): Part => {
      const groups = changeGroups(this.instrument(), changes);
      const ranks = new Map(ranked.map((change, index) => [change, index + 1]));
      return {
        title,
        tip,
        groups: groups.map((group) => ({ ...group, changes: group.changes.map(({ change }) => ({ change, rank: ranks.get(change) ?? 0 })) })),
      };
    };
    return [
      part('Heard', '', open),
      part('Hidden by grace notes', 'A grace note sounds while the fingers change, so an untidy change is not heard if it is quick enough.', underGraceNotes),
      part('Hidden by the tongue', 'The tongue separates the notes, so an untidy change is not heard if it is quick enough.', tongued),
    ].filter(({ groups }) => groups.length > 0);
  });
}
