import { Component, computed, inject, signal } from '@angular/core';
import type { NoteId } from '@zelpit/core/fingering';
import { elementsOf, innerChanges, leastTime, movementRisk, movementTable, type CompiledMovement } from '@zelpit/core/movement';
import { count } from '@zelpit/core/words';
import { WideComponent } from '../../kernel/wide/wide.component';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
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

/** Beside the figure of a form that is not the usual one. */
const formText = { usual: '', 'by-law': ', by rule', own: ', your own' } as const;
const risky = 0.2;

type Quantity = 'time' | 'risk' | 'elements';
const quantities: readonly Choice<Quantity>[] = [
  { value: 'time', label: 'the shortest note it fits on' },
  { value: 'risk', label: 'how many of 100 tries go wrong inside' },
  { value: 'elements', label: 'how many elements it has' },
];

/** A movement from every note into every note: written form, elements, least time, risk. */
@Component({
  selector: 'zp-movement-table',
  imports: [WideComponent, ChooserComponent],
  template: `
    <p class="movement-shows"><span class="quiet">each box shows </span><zp-chooser purpose="Each box shows" [(value)]="quantity" [choices]="quantities" /></p>
    <zp-wide label="From the note on the left into the note above">
      <table class="movement-table">
        <thead>
          <tr>
            <td class="map-corner">from ↓ into →</td>
            @for (id of into(); track id) {
              <th scope="col">{{ hand.nameOf(id) }}</th>
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
                      <small [class.wrongly]="cell.isRisky && quantity() === 'risk'">{{ cell.under }}{{ formText[cell.kind] }}</small>
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
    </zp-wide>
    @if (leftOut(); as text) {
      <p class="second">{{ text }}</p>
    }
    @if (breaking().length > 0) {
      <details class="second">
        <summary>Why some are not possible</summary>
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
  protected readonly quantities = quantities;
  protected readonly formText = formText;
  protected readonly quantity = signal<Quantity>('time');
  /** Notes into which it can be played from somewhere. */
  protected readonly into = computed(() => {
    const possible = new Set(this.table().flatMap(({ cells }) => cells.flatMap((cell) => (cell.kind === 'unplayable' ? [] : [cell.after]))));
    return this.hand.notes().flatMap(({ id }) => (possible.has(id) ? [id] : []));
  });
  protected readonly leftOut = computed(() => {
    const out = this.hand.notes().filter(({ id }) => !this.into().includes(id));
    return out.length === 0 ? '' : `It cannot be played into ${out.map(({ name }) => name).join(', ')}.`;
  });
  protected readonly rows = computed(() =>
    this.table().map(({ before, cells }) => ({
      id: before,
      name: this.hand.nameOf(before),
      cells: cells.filter(({ after }) => this.into().includes(after)).map((cell) => this.cell(cell)),
    })),
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
      text: [`${from} to ${to}: ${cell.written}`, count(elements, 'element'), `${inHundred(risk)} of 100 tries go wrong inside`, ...cell.text].join('. '),
      isPossible: true,
      kind: cell.isOverride ? 'own' : byLaw,
      under: this.figureOf(elements, Math.round(leastTime(cell, this.hand.pace())), inHundred(risk)),
      isRisky: risk >= risky,
    };
  }

  private figureOf(elements: number, least: number, wrong: number | string): string {
    if (this.quantity() === 'elements') return count(elements, 'element');
    return this.quantity() === 'time' ? `${least} ms` : `${wrong} of 100`;
  }
}
