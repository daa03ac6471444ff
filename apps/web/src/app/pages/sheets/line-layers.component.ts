import { Component, computed, inject, input, output } from '@angular/core';
import { noteOf, type Instrument } from '@zelpit/core/fingering';
import { layeredNotes, lineAtLayer, shortNotes, withLayer, type Exercise } from '@zelpit/core/line';
import type { LayerKind, MovementLayer } from '@zelpit/core/movement';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { layersText, layerWords } from '../../music/wording/movement-words';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';

const kinds: readonly LayerKind[] = ['bare', 'one', 'full', 'heavier'];

/** At which layer the movements of a line stand: all at once, or note by note; and which notes are too short at the line's tempo. */
@Component({
  selector: 'zp-line-layers',
  imports: [ChooserComponent],
  template: `
    @if (notes().length > 0) {
      <details class="line-layers">
        <summary>Grace notes: {{ text() }}</summary>
        <p>
          <span class="quiet">For the whole line: </span>
          @for (kind of kinds; track kind) {
            <button type="button" class="word me-3" (click)="setAll(kind)">{{ words[kind] }}</button>
          }
        </p>
        <ul class="plain-list layers-of-notes">
          @for (note of notes(); track note.index) {
            <li>
              <span class="quiet">{{ note.name }}: </span>
              <zp-chooser
                [purpose]="'Grace notes of note ' + (note.index + 1)"
                [value]="note.value"
                [word]="note.word"
                [choices]="note.choices"
                (valueChange)="set(note, $event)"
              />
            </li>
          }
        </ul>
      </details>
    }
    @if (shortText()) {
      <p class="fault-text" role="status">{{ shortText() }}</p>
    }
  `,
})
export class LineLayersComponent {
  private readonly book = inject(MovementBook);
  readonly instrument = input.required<Instrument>();
  readonly exercise = input.required<Exercise>();
  /** Beats a minute; null for free. */
  readonly tempo = input.required<number | null>();
  readonly changed = output<Exercise>();

  protected readonly kinds = kinds;
  protected readonly words = layerWords;
  private readonly wishes = computed(() => ({ settings: this.book.settings(), own: this.book.own() }));
  private readonly layered = computed(() => layeredNotes(this.instrument(), this.exercise().notes, this.wishes()));

  protected readonly notes = computed(() =>
    this.layered().map(({ index, layers, standsAt }) => ({
      index,
      name: `${index + 1}, ${noteOf(this.instrument(), this.exercise().notes[index].note).schoolName}`,
      word: standsAt === undefined ? 'as written' : this.layerText(standsAt),
      layers,
      value: standsAt === undefined ? -1 : layers.indexOf(standsAt),
      choices: layers.map((layer, place): Choice<number> => ({ value: place, label: this.layerText(layer) })),
    })),
  );
  protected readonly text = computed(() => {
    const all = new Set(this.layered().map(({ standsAt }) => (standsAt === undefined ? 'as written' : layerWords[standsAt.kind])));
    return all.size === 1 ? [...all][0] : 'note by note';
  });
  /** The first note that is too short, and how many more. */
  protected readonly shortText = computed(() => {
    const tempo = this.tempo();
    const [first, ...more] = tempo === null ? [] : shortNotes(this.instrument(), this.exercise().notes, tempo, this.wishes());
    if (first === undefined) return '';
    const { index, movement, noteMs, leastMs, fits } = first;
    const room = fits.length === 0 ? 'There is not even time for the bare note' : `There is time for: ${layersText(fits)}`;
    const others = more.length === 0 ? '' : ` So are ${more.length} more.`;
    return `Note ${index + 1} is too short at ${tempo ?? 0} beats a minute for the ${movement.names[0]}: ${Math.round(noteMs)} ms, it needs ${Math.round(leastMs)}. ${room}.${others}`;
  });

  protected setAll(kind: LayerKind): void {
    this.changed.emit(lineAtLayer(this.instrument(), this.exercise(), kind, this.wishes()));
  }

  /** @param place of the layer among those of the note */
  protected set({ index, layers }: { readonly index: number; readonly layers: readonly MovementLayer[] }, place: number): void {
    this.changed.emit(withLayer(this.exercise(), index, layers[place]));
  }

  private layerText({ kind, graces, movement }: MovementLayer): string {
    const written = graces.length === 0 ? '' : ` {${graces.map((id) => noteOf(this.instrument(), id).abc).join('')}}`;
    return kind === 'simpler' || kind === 'heavier' ? `${layerWords[kind]}, ${movement?.names[0] ?? ''}${written}` : `${layerWords[kind]}${written}`;
  }
}
