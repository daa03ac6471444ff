import { Component, computed, input } from '@angular/core';
import { noteOf, type Instrument } from '@zelpit/core/fingering';
import { movementTable, type CompiledMovement, type MovementDefinition, type MovementSettings } from '@zelpit/core/movement';
import { WideComponent } from '../../kernel/wide/wide.component';

/** A movement that is being made, from every note into every note; where a law forbids it, the reason. */
@Component({
  selector: 'zp-draft-table',
  imports: [WideComponent],
  template: `
    <p role="status">{{ text() }}</p>
    <zp-wide label="From the note on the left into the note above">
      <table class="movement-table is-draft">
        <thead>
          <tr>
            <td class="map-corner">from ↓ into →</td>
            @for (note of instrument().notes; track note.id) {
              <th scope="col">{{ note.schoolName }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.name) {
            <tr>
              <th scope="row">{{ row.name }}</th>
              @for (cell of row.cells; track $index) {
                <td
                  [class.is-other]="cell.kind === 'by-law'"
                  [class.is-own]="cell.kind === 'own'"
                  [class.is-broken]="cell.kind === 'broken'"
                  [title]="cell.text"
                >
                  {{ cell.written }}
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    </zp-wide>
    @if (reasons().length > 0) {
      <h3 class="group-title">Not possible, marked ✕</h3>
      <ul>
        @for (each of reasons(); track each) {
          <li>{{ each }}</li>
        }
      </ul>
    }
  `,
})
export class DraftTableComponent {
  readonly instrument = input.required<Instrument>();
  readonly movement = input.required<MovementDefinition>();
  readonly settings = input.required<MovementSettings>();

  private readonly table = computed(() => movementTable(this.instrument(), this.movement(), this.settings()));
  protected readonly rows = computed(() =>
    this.table().map(({ before, cells }) => ({ name: noteOf(this.instrument(), before).schoolName, cells: cells.map((cell) => this.cell(cell)) })),
  );
  /** Each reason once; that it ends on other notes is the teacher's own choice and no broken law. */
  protected readonly reasons = computed(() => [
    ...new Set(this.table().flatMap(({ cells }) => cells.flatMap((cell) => (cell.kind === 'unplayable' && this.isArrival(cell) ? [cell.reason] : [])))),
  ]);
  protected readonly text = computed(() => {
    const all = this.table().flatMap(({ cells }) => cells);
    const possible = all.filter(({ kind }) => kind === 'compiled').length;
    const bent = all.filter((cell) => cell.kind === 'compiled' && cell.text.length > 0).length;
    return `It can be played between ${possible} of ${all.length} pairs of notes; in ${bent} of them a rule, or you, changed the usual form.`;
  });

  private cell(cell: CompiledMovement): { readonly written: string; readonly text: string; readonly kind: 'usual' | 'by-law' | 'own' | 'broken' | 'none' } {
    if (cell.kind === 'unplayable')
      return this.isArrival(cell) ? { written: '✕', text: cell.reason, kind: 'broken' } : { written: '–', text: cell.reason, kind: 'none' };
    const byLaw = cell.text.length > 0 ? 'by-law' : 'usual';
    return { written: cell.written, text: cell.text.join(' '), kind: cell.isOverride ? 'own' : byLaw };
  }

  private isArrival({ after }: CompiledMovement): boolean {
    const { arrivals } = this.movement();
    return arrivals === undefined || arrivals.includes(after);
  }
}
