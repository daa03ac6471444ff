import { Component, computed, inject, signal } from '@angular/core';
import { fittingLayers, layersOf, writtenForm } from '@zelpit/core/movement';
import { ChooserComponent, labelOf, type Choice } from '../../kernel/chooser/chooser.component';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { MovementInHand } from './movement-in-hand.service';
import { layersText, layerWords, tempos } from '../../music/wording/movement-words';

const values: readonly Choice<number>[] = [
  { value: 2, label: 'a half note' },
  { value: 1, label: 'a quarter note' },
  { value: 0.5, label: 'an eighth note' },
  { value: 0.25, label: 'a sixteenth note' },
];

/** The layers of a movement from bare to heavier, and for which of them a note is long enough. */
@Component({
  selector: 'zp-movement-layers',
  imports: [ChooserComponent],
  template: `
    <h2 class="heading">
      What there is time for on <zp-chooser purpose="Note" [(value)]="value" [choices]="values" /> at
      <zp-chooser purpose="Tempo of the note" [(value)]="hand.tempo" [choices]="tempos" />
    </h2>
    <p role="status">{{ text() }}</p>
    <ul class="layers">
      @for (layer of layers(); track layer.text) {
        <li [class.is-short]="!layer.fits">
          <b>{{ layer.written }}</b>
          <span
            >{{ layer.text }}
            @if (layer.movement; as movement) {
              (<button type="button" class="word" (click)="hand.chosenId.set(movement.id)">{{ movement.names[0] }}</button>)
            }
          </span>
          <small>{{ layer.fits ? 'fits' : 'does not fit' }}, needs {{ layer.ms }} ms</small>
        </li>
      }
    </ul>
  `,
})
export class MovementLayersComponent {
  private readonly book = inject(MovementBook);
  protected readonly hand = inject(MovementInHand);
  protected readonly values = values;
  protected readonly tempos = tempos;
  protected readonly value = signal(1);
  protected readonly valueText = computed(() => labelOf(values, this.value()));

  private readonly noteMs = computed(() => (this.value() * 60_000) / this.hand.tempo());
  private readonly all = computed(() =>
    layersOf(this.hand.instrument(), this.hand.chosen(), this.hand.before(), this.hand.after(), {
      settings: this.hand.settings(),
      pace: this.hand.pace(),
      own: this.book.own(),
    }),
  );
  protected readonly layers = computed(() => {
    const fitting = new Set(fittingLayers(this.all(), this.noteMs()));
    return this.all().map((layer) => ({
      written: writtenForm(this.hand.instrument(), layer.graces, this.hand.after()),
      text: layerWords[layer.kind],
      movement: layer.kind === 'full' ? undefined : layer.movement,
      ms: Math.round(layer.leastMs),
      fits: fitting.has(layer),
    }));
  });
  protected readonly text = computed(() => {
    const ms = Math.round(this.noteMs());
    const full = this.all().find(({ kind }) => kind === 'full');
    if (full === undefined) return `${ms} ms.`;
    if (full.leastMs <= this.noteMs()) return `The note lasts ${ms} ms: long enough for all of it.`;
    const fitting = fittingLayers(this.all(), this.noteMs());
    return fitting.length === 0
      ? `The note lasts ${ms} ms: too short even without grace notes.`
      : `The note lasts ${ms} ms: too short for all of it. There is time for: ${layersText(fitting)}.`;
  });
}
