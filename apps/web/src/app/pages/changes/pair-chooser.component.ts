import { Component, computed, input, model } from '@angular/core';
import { changeBetween, troubleOf } from '@zelpit/core/change';
import type { Instrument, NoteId } from '@zelpit/core/fingering';
import { ownScale } from '@zelpit/core/line-sets';
import { canBeSensed } from '@zelpit/core/playing';
import { ChooserComponent, type Choice } from '../../kernel/chooser/chooser.component';

/** "C to E": two notes of an instrument, each to be chosen. */
@Component({
  selector: 'zp-pair-chooser',
  imports: [ChooserComponent],
  template: `
    <zp-chooser purpose="From" [(value)]="from" [choices]="choices()" /><span class="quiet"> to </span
    ><zp-chooser purpose="To" [(value)]="to" [choices]="choices()" />
  `,
})
export class PairChooserComponent {
  readonly instrument = input.required<Instrument>();
  readonly from = model.required<NoteId>();
  readonly to = model.required<NoteId>();
  protected readonly choices = computed(() => this.instrument().notes.map(({ id, schoolName }): Choice<NoteId> => ({ value: id, label: schoolName })));
}

/** The notes of the address where the instrument has them; else two of its scale that cross, the worst kind first, or that move two fingers, and that keys can tell. */
export function pairFrom(instrument: Instrument, from: string | undefined, to: string | undefined): { readonly from: NoteId; readonly to: NoteId } {
  const has = (id: string | undefined): id is NoteId => instrument.notes.some((note) => note.id === id);
  if (has(from) && has(to) && from !== to) return { from, to };
  const scale = ownScale(instrument);
  const changes = scale.flatMap((one, index) => scale.slice(index + 1).map((other) => changeBetween(instrument, one, other)));
  const told = changes.filter(({ fromPattern, toPattern, movers }) => movers.length > 1 && canBeSensed(fromPattern, toPattern));
  const pops = told.filter((change) => troubleOf(instrument, change).kind === 'pop');
  const chosen = pops.find(({ isDirectExchange }) => isDirectExchange) ?? pops.at(0) ?? told.find(({ kind }) => kind === 'cross') ?? told.at(0);
  return chosen === undefined ? fallback(instrument) : { from: chosen.from, to: chosen.to };
}

function fallback(instrument: Instrument): { readonly from: NoteId; readonly to: NoteId } {
  return { from: instrument.notes[0].id, to: instrument.notes[Math.min(1, instrument.notes.length - 1)].id };
}
