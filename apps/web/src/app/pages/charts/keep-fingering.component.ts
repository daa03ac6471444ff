import { Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { chartedFingering, chartedPattern, noteOf, type Fingering, type Instrument, type NoteId, type Pattern } from '@zelpit/core/fingering';
import { Attempt } from '../../kernel/api/attempt';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { FingeringComponent } from '../../music/lanes/fingering.component';

/** Confirms fingers for a note: they are the teacher's own then, with author and day. */
@Component({
  selector: 'zp-keep-fingering',
  imports: [FormsModule, FingeringComponent],
  template: `
    <form class="keep" (ngSubmit)="keep()">
      <p class="mb-2">
        <zp-fingering [instrument]="instrument()" [pattern]="pattern()" /> for
        <label class="visually-hidden" for="keep-note">Note</label>
        <select id="keep-note" name="note" class="form-select d-inline-block w-auto" [ngModel]="chosenNote()" (ngModelChange)="chosenNote.set($event)">
          @for (each of instrument().notes; track each.id) {
            <option [value]="each.id">{{ each.schoolName }}</option>
          }
        </select>
      </p>
      <label class="form-label" for="keep-remark">Remark</label>
      <input id="keep-remark" name="remark" class="form-control mb-2" maxlength="300" autocomplete="off" [(ngModel)]="remark" />
      <p class="d-flex flex-wrap gap-4 mb-2">
        <label><input type="checkbox" class="tick" name="first" [(ngModel)]="isFirst" /> Taught first</label>
        <label
          ><input type="checkbox" class="tick" name="for-now" [(ngModel)]="isForNow" /> For now; later
          <zp-fingering [instrument]="instrument()" [pattern]="eventually()"
        /></label>
        @if (isForNow) {
          <label>until <input type="date" name="until" class="form-control d-inline-block w-auto" required [(ngModel)]="until" /></label>
        }
      </p>
      @if (attempt.fault()) {
        <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
      }
      <button type="submit" class="btn btn-solid btn-low" [disabled]="attempt.isBusy()">Save as my own</button>
      <button type="button" class="word ms-3" (click)="closed.emit()">Cancel</button>
    </form>
  `,
})
export class KeepFingeringComponent {
  private readonly shelf = inject(InstrumentShelf);
  private readonly notices = inject(NoticeService);
  protected readonly attempt = new Attempt();

  readonly instrument = input.required<Instrument>();
  readonly pattern = input.required<Pattern>();
  readonly note = input.required<NoteId>();
  readonly closed = output<void>();

  protected readonly chosenNote = linkedSignal(() => this.note());
  protected readonly eventually = computed(() => chartedPattern(this.instrument(), this.chosenNote()));
  protected remark = '';
  protected isFirst = false;
  protected isForNow = false;
  protected until = '';

  protected keep(): void {
    if (this.isForNow && this.until === '') {
      this.attempt.fault.set('Choose the date until which this fingering is taught.');
      return;
    }
    const instrument = this.instrument();
    const note = this.chosenNote();
    const kept = {
      model: instrument.id,
      note,
      pattern: [...this.pattern()],
      ...footOf(chartedFingering(instrument, note)),
      isFirst: this.isFirst,
      isHidden: false,
      remark: this.remark.trim(),
      forNow: this.isForNow ? { eventually: [...chartedPattern(instrument, note)], until: this.until } : null,
    };
    this.attempt.run(this.shelf.keep(kept), (stored) => {
      this.notices.done(`Fingering saved for ${noteOf(instrument, note).schoolName}.`, () =>
        this.shelf.drop(stored).subscribe({ error: (error: unknown) => this.notices.fault(error) }),
      );
      this.closed.emit();
    });
  }
}

/** The foot stands as for the note's charted fingering. */
const footOf = ({ foot }: Fingering): { readonly foot?: 'closed' | 'open' } => (foot === undefined ? {} : { foot });
