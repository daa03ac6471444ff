import { Component, computed, input, output, signal } from '@angular/core';
import { noteOf, type Instrument, type TuneChange, type TuneChanges } from '@zelpit/core';
import { MarkComponent } from '../lanes/mark.component';
import { changeGroups, inColumns } from './change-groups';

const columns = 4;

/** Every distinct change of a tune, grouped by what is heard, worst first. */
@Component({
  selector: 'zp-change-list',
  imports: [MarkComponent],
  template: `
    @for (column of columns(); track $index) {
      <div>
        @for (group of column; track group.title) {
          <h2 class="change-heading" [class.is-nothing]="group.trouble.kind === 'none'">
            <svg viewBox="-16 -16 32 32" aria-hidden="true">
              <g zpMark [instrument]="instrument()" [trouble]="group.trouble" [size]="28" [showsNothing]="true" />
            </svg>
            {{ group.title }}
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
        @if ($last) {
          <div class="d-flex flex-wrap gap-3 align-items-center mt-2">
            @if (hiddenCount() > 0) {
              <button type="button" class="word" (click)="showsHidden.set(!showsHidden())">
                {{ showsHidden() ? 'Back to the open changes' : hiddenCount() + ' more under grace notes' }}
              </button>
            }
            @if (!showsHidden()) {
              <button type="button" class="btn btn-solid" (click)="tenMinutes.emit()">Ten-minute sheet <kbd>M</kbd></button>
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

  protected readonly showsHidden = signal(false);
  protected readonly hiddenCount = computed(() => this.changes().underGraceNotes.length);
  protected readonly columns = computed(() => {
    const { open, underGraceNotes } = this.changes();
    const shown = this.showsHidden() || open.length === 0 ? underGraceNotes : open;
    return inColumns(changeGroups(this.instrument(), shown), columns);
  });

  protected name(change: TuneChange): string {
    const { from, to } = change.change;
    return `${noteOf(this.instrument(), from).schoolName} to ${noteOf(this.instrument(), to).schoolName}`;
  }
}
