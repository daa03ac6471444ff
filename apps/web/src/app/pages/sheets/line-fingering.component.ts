import { Component, computed, input, output } from '@angular/core';
import { chosenOf, isSameWay, noteOf, waysOf, type ChosenFingering, type Fingering, type Instrument } from '@zelpit/core/fingering';
import { notesOfLine, type Line } from '@zelpit/core/line';
import { wayText } from '../../music/wording/change-words';
import { FingeringComponent } from '../../music/lanes/fingering.component';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';

/** In which fingers a line is practised, for each of its notes that can be fingered in several ways. */
@Component({
  selector: 'zp-line-fingering',
  imports: [ChooserComponent, FingeringComponent],
  template: `
    @for (note of notes(); track note.id) {
      <p class="mb-1">
        <span class="quiet">{{ note.name }} with </span>
        <zp-chooser [purpose]="'Fingers for ' + note.name" [value]="note.value" [choices]="note.choices" (valueChange)="choose(note, $event)">
          <ng-template #figure let-place><zp-fingering [instrument]="instrument()" [pattern]="note.ways[place].pattern" /></ng-template>
        </zp-chooser>
      </p>
    }
  `,
})
export class LineFingeringComponent {
  readonly instrument = input.required<Instrument>();
  readonly line = input.required<Line>();
  /** Null where every note is fingered as taught first. */
  readonly changed = output<readonly ChosenFingering[] | null>();

  protected readonly notes = computed(() => {
    const [instrument, line] = [this.instrument(), this.line()];
    const ids = [...new Set(notesOfLine(this.instrument(), line).map(({ note }) => note))];
    return ids.flatMap((id) => {
      const ways = waysOf(instrument, id);
      if (ways.length < 2) return [];
      const chosen = line.fingering?.find(({ note }) => note === id);
      const value = chosen === undefined ? 0 : ways.findIndex((way) => isSameWay(way, chosen));
      const choices = ways.map((way, place): Choice<number> => ({
        value: place,
        label: wayText(instrument, way),
        ...(way.rank === 1 && { beside: 'taught first' }),
      }));
      return [{ id, name: noteOf(instrument, id).schoolName, ways, value, choices }];
    });
  });

  protected choose({ id, ways }: { readonly id: string; readonly ways: readonly Fingering[] }, place: number): void {
    const others = (this.line().fingering ?? []).filter(({ note }) => note !== id);
    const all = [...others, ...chosenOf([ways[place]])];
    this.changed.emit(all.length === 0 ? null : all);
  }
}
