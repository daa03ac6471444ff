import { Component, computed, input, model } from '@angular/core';
import type { Instrument, NoteId } from '@zelpit/core';
import { ChooserComponent, saidOf, type Choice } from '../shell/chooser.component';

/** "C to E": two notes of an instrument, each to be chosen. */
@Component({
  selector: 'zp-pair-chooser',
  imports: [ChooserComponent],
  template: `
    <zp-chooser purpose="From" [word]="said(from())" [choices]="choices()" (chosen)="from.set($event)" /><span class="quiet"> to </span
    ><zp-chooser purpose="To" [word]="said(to())" [choices]="choices()" (chosen)="to.set($event)" />
  `,
})
export class PairChooserComponent {
  readonly instrument = input.required<Instrument>();
  readonly from = model.required<NoteId>();
  readonly to = model.required<NoteId>();
  protected readonly choices = computed(() => this.instrument().notes.map(({ id, schoolName }): Choice<NoteId> => ({ value: id, said: schoolName })));

  protected said(id: NoteId): string {
    return saidOf(this.choices(), id);
  }
}

/** The notes of the address where the instrument has them; else two that cross, so that there is something to try. */
export function pairFrom(instrument: Instrument, from: string | undefined, to: string | undefined): { readonly from: NoteId; readonly to: NoteId } {
  const has = (id: string | undefined): id is NoteId => instrument.notes.some((note) => note.id === id);
  if (has(from) && has(to) && from !== to) return { from, to };
  const [first, second] = instrument.family === 'pipes' ? ['b', 'e'] : [instrument.notes[1].id, instrument.notes[Math.min(4, instrument.notes.length - 1)].id];
  return { from: first, to: second };
}
