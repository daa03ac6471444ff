import { Component, computed, input, output, signal } from '@angular/core';
import { changeName, troubleOfTune, type Instrument, type TuneChange, type TuneChanges } from '@zelpit/core';
import { MarkComponent } from '../../music/lanes/mark.component';
import { changeGroups, inColumns } from './change-groups';

const desk = { all: 4, shared: 2 } as const;
/** Rows that the links under the last column take. */
const footRows = 3;

/** Every distinct change of a tune, grouped by what is heard, worst first. */
@Component({
  selector: 'zp-change-list',
  imports: [MarkComponent],
  template: `
    @for (region of regions(); track region.name) {
      <div
        class="changes-region"
        [style.flex-grow]="region.columns.length"
        [style.--columns]="region.columns.length"
        role="group"
        [attr.aria-label]="region.name"
        tabindex="0"
      >
        @for (column of region.columns; track $index) {
          <div>
            @for (group of column; track group.title) {
              <h2 class="change-heading" [class.is-nothing]="group.trouble.kind === 'none'">
                <svg viewBox="-16 -16 32 32" aria-hidden="true">
                  <g zpMark [instrument]="instrument()" [trouble]="group.trouble" [size]="28" [showsNothing]="true" />
                </svg>
                <span>{{ group.title }}{{ group.goesOn ? ', more' : '' }}</span>
              </h2>
              <ul class="change-list" [class.is-worst]="group.trouble.kind === 'pop'">
                @for (row of group.changes; track row.change.id) {
                  <li class="change-row" [class.is-chosen]="row.change === chosen()">
                    <button type="button" class="change-button" [attr.aria-pressed]="row.change === chosen()" (click)="choose.emit(row.change)">
                      <span class="change-rank">{{ row.rank }}</span>
                      <span class="change-name">{{ name(row.change) }}</span>
                      <span class="change-count">{{ row.change.occurrences }}×</span>
                    </button>
                    <input
                      type="checkbox"
                      class="tick"
                      [checked]="ticked().has(row.change.id)"
                      [attr.aria-label]="'Tick ' + name(row.change) + ' for a line'"
                      (change)="tick.emit(row.change)"
                    />
                  </li>
                }
              </ul>
            }
            @if (region.hasFoot && $last) {
              <div class="changes-foot">
                <button type="button" class="btn btn-solid btn-low" (click)="tenMinutes.emit()">Ten-minute sheet <kbd>M</kbd></button>
                @if (hiddenCount() > 0) {
                  <button type="button" class="word" (click)="showsHidden.set(!showsHidden())">
                    {{ showsHidden() ? 'Back to the open changes' : hiddenText() }}
                  </button>
                }
                <small class="second">trouble of the tune {{ trouble() }}</small>
              </div>
            }
          </div>
        }
      </div>
    } @empty {
      <p class="second">Nothing moves from note to note.</p>
    }
  `,
  host: { class: 'changes', role: 'region', 'aria-label': 'Changes of the tune, worst first' },
})
export class ChangeListComponent {
  readonly changes = input.required<TuneChanges>();
  readonly instrument = input.required<Instrument>();
  readonly chosen = input<TuneChange>();
  readonly ticked = input.required<ReadonlySet<string>>();
  readonly choose = output<TuneChange>();
  readonly tick = output<TuneChange>();
  readonly tenMinutes = output<void>();

  /** Difficulty times occurrences over all changes that can be heard going wrong. */
  protected readonly trouble = computed(() =>
    Math.round(troubleOfTune([...this.changes().open, ...this.changes().underGraceNotes, ...this.changes().tongued])),
  );
  protected readonly showsHidden = signal(false);
  /** What grace notes or the tongue hide. */
  private readonly hidden = computed(() => [...this.changes().underGraceNotes, ...this.changes().tongued]);
  protected readonly hiddenCount = computed(() => (this.changes().open.length === 0 ? 0 : this.hidden().length));
  protected readonly hiddenText = computed(() => {
    const { underGraceNotes, tongued } = this.changes();
    if (tongued.length === 0) return `${underGraceNotes.length} more under grace notes`;
    return underGraceNotes.length === 0 ? `${tongued.length} more that the tongue hides` : `${this.hidden().length} more under grace notes or the tongue`;
  });
  /** What cuts in stands by itself, so that it never scrolls away with the rest. */
  protected readonly regions = computed(() => {
    const { open } = this.changes();
    const hidden = this.hidden();
    const shown = this.showsHidden() || open.length === 0 ? hidden : open;
    const groups = changeGroups(this.instrument(), shown);
    const worst = groups.filter((group) => group.trouble.kind === 'pop');
    const rest = groups.filter((group) => group.trouble.kind !== 'pop');
    const parts = [
      { name: 'What cuts in', groups: worst },
      { name: 'The other changes', groups: rest },
    ].filter((part) => part.groups.length > 0);
    return parts.map((part, index) => {
      const hasFoot = index === parts.length - 1;
      return { name: part.name, hasFoot, columns: inColumns(part.groups, parts.length === 1 ? desk.all : desk.shared, hasFoot ? footRows : 0) };
    });
  });

  protected name({ change }: TuneChange): string {
    return changeName(this.instrument(), change);
  }
}
