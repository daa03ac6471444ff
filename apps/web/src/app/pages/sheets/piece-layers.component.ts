import { Component, computed, inject, input, output } from '@angular/core';
import { decoratedNotes, layerAt, layerName, layersOfExcerpt, rowNames, rowsOfExcerpt, tuneOfExcerpt, type Excerpt, type RowKind } from '@zelpit/core/excerpt';
import { noteOf, type Instrument } from '@zelpit/core/fingering';
import type { LayerKind } from '@zelpit/core/movement';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';
import { MovementBook } from '../../studio/movement-book/movement-book.service';

/** How a piece of a tune is learned: which of its steps are practised, and what stands before each decorated note. */
@Component({
  selector: 'zp-piece-layers',
  imports: [ChooserComponent],
  template: `
    <details class="line-layers">
      <summary>Steps and grace notes: {{ text() }}</summary>
      <p>
        <span class="quiet">Practise: </span>
        @for (row of rows(); track row.kind) {
          <button type="button" class="word me-3" [attr.aria-pressed]="row.isOn" (click)="toggleRow(row.kind)">{{ row.name }}{{ row.isOn ? ' ✓' : '' }}</button>
        }
      </p>
      @if (notes().length > 0) {
        <ul class="plain-list layers-of-notes">
          @for (note of notes(); track note.index) {
            <li>
              <span class="quiet">{{ note.name }}: </span>
              <zp-chooser
                [purpose]="'Grace notes of note ' + (note.index + 1)"
                [value]="note.value"
                [word]="note.word"
                [choices]="note.choices"
                (valueChange)="setLayer(note.index, $event)"
              />
            </li>
          }
        </ul>
      }
    </details>
  `,
})
export class PieceLayersComponent {
  private readonly book = inject(MovementBook);
  readonly instrument = input.required<Instrument>();
  readonly excerpt = input.required<Excerpt>();
  readonly changed = output<Excerpt>();

  protected readonly rows = computed(() => {
    const practised = this.excerpt().rows ?? [];
    return rowsOfExcerpt(this.instrument(), this.excerpt()).rows.map(({ kind }) => ({ kind, name: rowNames[kind], isOn: practised.includes(kind) }));
  });
  protected readonly text = computed(() => {
    const on = this.rows().filter(({ isOn }) => isOn);
    return on.length < 2 ? 'in full' : on.map(({ name }) => name).join(', ');
  });
  protected readonly notes = computed(() => {
    const [instrument, excerpt] = [this.instrument(), this.excerpt()];
    const tune = tuneOfExcerpt(instrument, excerpt);
    const chosen = layersOfExcerpt(excerpt);
    return decoratedNotes(instrument, tune, { own: this.book.own() }).map((note) => {
      const { written } = tune.notes[note.index];
      const kinds = [...new Set(note.layers.map(({ kind }) => kind))];
      const value = layerAt(note, chosen.get(note.index) ?? 'full').kind;
      const choices = kinds.map((kind): Choice<LayerKind> => ({ value: kind, label: layerName(instrument, layerAt(note, kind), note.name) }));
      return {
        ...{ index: note.index, value, choices, word: choices.find((each) => each.value === value)?.label ?? note.name },
        name: `${note.index + 1}, ${written.kind === 'note' ? noteOf(instrument, written.note).schoolName : ''}`,
      };
    });
  });

  protected toggleRow(kind: RowKind): void {
    const before = this.excerpt().rows ?? [];
    const all = this.rows().map((row) => row.kind);
    const rows = all.filter((each) => (each === kind ? !before.includes(kind) : before.includes(each)));
    this.changed.emit({ ...this.excerpt(), rows });
  }

  protected setLayer(index: number, kind: LayerKind): void {
    const { [String(index)]: _, ...others } = this.excerpt().layers ?? {};
    this.changed.emit({ ...this.excerpt(), layers: kind === 'full' ? others : { ...others, [String(index)]: kind } });
  }
}
