import { Component, computed, inject } from '@angular/core';
import { elementsOf, innerChanges, leastTime, movementRisk, movementTable, type CompiledMovement, type NoteId } from '@zelpit/core';
import { inHundred } from '../../music/wording/change-words';
import { MovementInHand } from './movement-in-hand.service';

interface Cell {
  readonly after: NoteId;
  readonly written: string;
  readonly text: string;
  readonly isPossible: boolean;
  /** A form that a law gave in place of the usual, or that a teacher wanted. */
  readonly kind: 'usual' | 'by-law' | 'own';
  readonly under: string;
  readonly isRisky: boolean;
}

const risky = 0.2;

/** A movement from every note into every note: written form, elements, least time, risk. */
@Component({
  selector: 'zp-movement-table',
  template: `
    <div class="workshop-wide" tabindex="0" role="region" aria-label="From the note on the left into the note above">
      <table class="movement-table">
        <thead>
          <tr>
            <td class="map-corner">from ↓ into →</td>
            @for (note of hand.notes(); track note.id) {
              <th scope="col">{{ note.name }}</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (row of rows(); track row.id) {
            <tr>
              <th scope="row">{{ row.name }}</th>
              @for (cell of row.cells; track cell.after) {
                <td>
                  @if (cell.isPossible) {
                    <button
                      type="button"
                      class="movement-cell"
                      [class.is-other]="cell.kind === 'by-law'"
                      [class.is-own]="cell.kind === 'own'"
                      [attr.aria-pressed]="row.id === hand.before() && cell.after === hand.after()"
                      [attr.aria-label]="cell.text"
                      [title]="cell.text"
                      (click)="hand.open(row.id, cell.after)"
                    >
                      <b>{{ cell.written }}</b>
                      <small
                        >{{ cell.under }}
                        @if (cell.isRisky) {
                          <span class="wrongly" aria-hidden="true"> ▲</span>
                        }
                      </small>
                    </button>
                  } @else {
                    <span class="movement-none" [title]="cell.text">–</span>
                  }
                </td>
              }
            </tr>
          }
        </tbody>
      </table>
    </div>
    <p class="second map-legend">
      Written form; under it its elements, its least time in ms, and how often in 100 a change inside goes wrong. A dashed edge is a form that the rule gives in
      place of the usual, a double edge one that a teacher wanted; ▲ marks 20 or more in 100; – cannot be.
    </p>
    @if (breaking().length > 0) {
      <details class="second">
        <summary>Why some cannot be</summary>
        <ul>
          @for (each of breaking(); track each) {
            <li>{{ each }}</li>
          }
        </ul>
      </details>
    }
  `,
})
export class MovementTableComponent {
  protected readonly hand = inject(MovementInHand);

  private readonly table = computed(() => movementTable(this.hand.instrument(), this.hand.chosen(), this.hand.settings()));
  protected readonly rows = computed(() =>
    this.table().map(({ before, cells }) => ({ id: before, name: this.hand.nameOf(before), cells: cells.map((cell) => this.cell(cell)) })),
  );
  /** Each reason once. */
  protected readonly breaking = computed(() => [
    ...new Set(this.table().flatMap(({ cells }) => cells.flatMap((cell) => (cell.kind === 'unplayable' ? [cell.reason] : [])))),
  ]);

  private cell(cell: CompiledMovement): Cell {
    const [from, to] = [cell.before === null ? '' : this.hand.nameOf(cell.before), this.hand.nameOf(cell.after)];
    if (cell.kind === 'unplayable')
      return { ...{ after: cell.after, written: '', text: `${from} to ${to}: ${cell.reason}`, under: '' }, isPossible: false, kind: 'usual', isRisky: false };
    const risk = movementRisk(innerChanges(this.hand.risks(), cell));
    const elements = elementsOf(cell);
    const byLaw = cell.text.length > 0 ? 'by-law' : 'usual';
    return {
      after: cell.after,
      written: cell.written,
      text: [`${from} to ${to}: ${cell.written}`, `${elements} elements`, `${inHundred(risk)} in 100 go wrong inside`, ...cell.text].join('. '),
      isPossible: true,
      kind: cell.isOverride ? 'own' : byLaw,
      under: `${elements} · ${Math.round(leastTime(cell, this.hand.pace()))} · ${inHundred(risk)}`,
      isRisky: risk >= risky,
    };
  }
}
