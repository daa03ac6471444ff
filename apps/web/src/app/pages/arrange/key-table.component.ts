import { Component, computed, input, output } from '@angular/core';
import type { KeyRow } from '@zelpit/core/arrange';
import type { Instrument } from '@zelpit/core/fingering';

/** Heights beside the instrument's own that the table has room for, in semitones. */
const beyond = 5;
const width = 300;

/** Every key in which a tune could be played: one row each, the best first. */
@Component({
  selector: 'zp-key-table',
  template: `
    <table class="key-table">
      <thead>
        <tr>
          <th scope="col">key</th>
          <th scope="col">
            <span class="visually-hidden">range</span>{{ lowestName() }} <span class="key-high">{{ highestName() }}</span>
          </th>
          <th scope="col">half-holed or forked</th>
          <th scope="col">shrill</th>
          <th scope="col">hardest change</th>
          <th scope="col">difficulty</th>
        </tr>
      </thead>
      <tbody>
        @for (row of drawn(); track row.key) {
          <tr [class.is-chosen]="row.row === chosen()" [class.is-outside]="row.row.outside !== ''">
            <th scope="row">
              <button type="button" class="key-name" [attr.aria-pressed]="row.row === chosen()" (click)="rowChosen.emit(row.row)">
                <b>{{ row.row.name || 'as written' }}</b> {{ row.way }}
              </button>
            </th>
            <td>
              <svg [attr.viewBox]="'0 0 ' + width + ' 22'" class="key-range" aria-hidden="true">
                <path class="key-wood" [attr.d]="'M' + wood().from + ' 16H' + wood().to" />
                @if (shrillFrom(); as x) {
                  <path class="beat-line" [attr.d]="'M' + x + ' 0V22'" />
                }
                <path class="key-ribbon" [attr.d]="'M' + row.from + ' 12H' + row.to" />
                @for (part of row.outside; track $index) {
                  <path class="key-ribbon is-outside" [attr.d]="'M' + part[0] + ' 12H' + part[1]" />
                }
              </svg>
            </td>
            <td>{{ row.holes }}</td>
            <td>{{ row.row.lie.shrill || 'none' }}</td>
            <td [class.fault-text]="row.row.outside !== ''">{{ row.row.outside || row.row.lie.hardest || 'none' }}</td>
            <td [class.fault-text]="row.row.outside !== ''">{{ row.row.hard }}</td>
          </tr>
        }
      </tbody>
    </table>
  `,
})
export class KeyTableComponent {
  readonly instrument = input.required<Instrument>();
  readonly rows = input.required<readonly KeyRow[]>();
  readonly chosen = input<KeyRow>();
  readonly rowChosen = output<KeyRow>();
  protected readonly width = width;

  private readonly ends = computed(() => {
    const { notes } = this.instrument();
    return { low: notes[0].writtenSemitone, high: notes[notes.length - 1].writtenSemitone };
  });
  protected readonly lowestName = computed(() => this.instrument().notes[0].schoolName);
  protected readonly highestName = computed(() => this.instrument().notes.at(-1)?.schoolName ?? '');
  private x(height: number): number {
    const { low, high } = this.ends();
    return Math.max(4, Math.min(width - 4, ((height - low + beyond) / (high - low + 2 * beyond)) * width));
  }
  protected readonly wood = computed(() => ({ from: this.x(this.ends().low), to: this.x(this.ends().high) }));
  protected readonly shrillFrom = computed(() => {
    const shrill = this.instrument().notes.find(({ caution }) => caution !== undefined);
    return shrill === undefined ? undefined : this.x(shrill.writtenSemitone - 0.5);
  });
  protected readonly drawn = computed(() => {
    const { low, high } = this.ends();
    return this.rows().map((row) => {
      const { lowest, highest, halfHoled, forked } = row.lie;
      const outside = [
        ...(lowest < low ? [[this.x(lowest), this.x(low)] as const] : []),
        ...(highest > high ? [[this.x(high), this.x(highest)] as const] : []),
      ];
      const holes = [...(halfHoled > 0 ? [`${halfHoled} half-holed`] : []), ...(forked > 0 ? [`${forked} forked`] : [])].join(', ') || 'none';
      const way = row.name === '' ? '' : row.way;
      return {
        row,
        key: `${row.semitones} ${JSON.stringify(row.folds)}`,
        from: this.x(lowest),
        to: this.x(highest),
        outside,
        holes,
        way: row.folds.length > 0 ? `${way}, folded` : way,
      };
    });
  });
}
