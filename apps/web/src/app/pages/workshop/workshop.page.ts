import { DatePipe } from '@angular/common';
import { Component, inject, signal, type ElementRef, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import type { OwnModel } from '@zelpit/contract';
import { ZelpitFault } from '@zelpit/core/fault';
import { instrumentJsonSchema, longestInstrumentFile, readInstrumentFile } from '@zelpit/core/fingering';
import { messageOf } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { saveFile } from '../../kernel/files/save-file';
import { InstrumentShelf, nameOf } from '../../studio/shelf/instrument-shelf.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { copiedInstrument } from '../../documents/model/copied-instrument';
import { saveInstrument } from '../../documents/model/saved-instrument';

/** Instruments that the studio made: by copying one, by calibration, or from a file. */
@Component({
  selector: 'zp-workshop',
  imports: [SentenceComponent, FormsModule, RouterLink, DatePipe],
  template: `
    <div class="page">
      <zp-sentence place="Studio"><span>Instrument workshop</span></zp-sentence>
      <section class="band" aria-label="Add an instrument">
        <div class="band-said">
          <p class="band-todo">Copy an instrument and change it, or add one from a file.</p>
          <p class="band-else">The built-in instruments stay as they are.</p>
        </div>
        <form class="band-actions" (ngSubmit)="copy()">
          <label class="visually-hidden" for="from">Copy of</label>
          <select id="from" name="from" class="form-select band-field" [(ngModel)]="from">
            @for (each of shelf.modelChoices(); track each.value) {
              <option [value]="each.value">{{ each.label }}</option>
            }
          </select>
          <button type="submit" class="btn btn-solid" [disabled]="attempt.isBusy()">Copy it</button>
          <input #picker type="file" accept=".json,application/json" hidden (change)="picked($event)" />
          <button type="button" class="btn btn-line" [disabled]="attempt.isBusy()" (click)="pick()">Add from a file</button>
        </form>
      </section>
      <main class="layer page-fill">
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
        }
        <ul class="rows" style="max-width: 1080px">
          @for (model of shelf.ownModels(); track model.id) {
            <li class="d-flex flex-wrap align-items-center column-gap-4">
              <a class="row-link flex-grow-1" [routerLink]="['/workshop', model.id]">
                <span>{{ model.instrument.name }}</span>
                <small>{{ about(model) }}</small>
                <small class="text-nowrap">{{ model.changed | date: 'd MMM y' }}</small>
              </a>
              <button type="button" class="word" [attr.aria-label]="'Save ' + model.instrument.name + ' as a file'" (click)="takeOut(model)">
                Save as a file
              </button>
              <button type="button" class="word quiet-action" [attr.aria-label]="'Put away ' + model.instrument.name" (click)="putAway(model)">Put away</button>
            </li>
          } @empty {
            <li class="empty">
              <p>{{ fault() || (shelf.isLoaded() ? 'No instruments of your own yet. Copy one above.' : 'Fetching the instruments …') }}</p>
            </li>
          }
        </ul>
        <p class="second mt-3">
          A file holds one instrument as JSON, at most {{ longest / 1000 }} kB.
          <button type="button" class="word" (click)="takeSchema()">Save the file format (JSON Schema)</button>
        </p>
      </main>
    </div>
  `,
})
export class WorkshopPage {
  protected readonly shelf = inject(InstrumentShelf);
  private readonly router = inject(Router);
  private readonly notices = inject(NoticeService);
  protected readonly attempt = new Attempt();
  protected readonly fault = signal('');
  protected readonly longest = longestInstrumentFile;
  private readonly picker = viewChild<ElementRef<HTMLInputElement>>('picker');
  protected from = 'practice-chanter';

  constructor() {
    this.shelf.load().subscribe({ error: (error: unknown) => this.fault.set(messageOf(error)) });
  }

  protected about({ instrument, by }: OwnModel): string {
    const from = this.shelf.model(instrument.madeFrom ?? '');
    return `${from === undefined ? '' : `from the ${nameOf(from)} · `}by ${by}`;
  }

  protected copy(): void {
    const model = this.shelf.model(this.from);
    if (model === undefined) return;
    const name = `${model.name}, a copy`.slice(0, 120);
    this.attempt.run(this.shelf.addModel(copiedInstrument(model, name)), (added) => void this.router.navigate(['/workshop', added.id]));
  }

  protected pick(): void {
    this.picker()?.nativeElement.click();
  }

  protected async picked(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (file === undefined) return;
    this.attempt.fault.set('');
    if (file.size > 4 * longestInstrumentFile) {
      this.attempt.fault.set(`This file is too large to be an instrument. Nothing was saved.`);
      return;
    }
    try {
      const instrument = readInstrumentFile(await file.text());
      this.attempt.run(this.shelf.addModel(instrument), (added) => {
        this.notices.done(`${added.instrument.name} was added.`);
        void this.router.navigate(['/workshop', added.id]);
      });
    } catch (error) {
      this.attempt.fault.set(error instanceof ZelpitFault ? `${error.message} Nothing was saved.` : 'This file cannot be read. Nothing was saved.');
    }
  }

  protected takeOut({ instrument }: OwnModel): void {
    saveInstrument(instrument);
  }

  protected takeSchema(): void {
    saveFile('zelpit-instrument.schema.json', new Blob([JSON.stringify(instrumentJsonSchema(), null, 2)], { type: 'application/schema+json' }));
  }

  protected putAway(model: OwnModel): void {
    const failed = (error: unknown): void => this.notices.fault(error);
    this.shelf.putModelAway(model).subscribe({
      next: () =>
        this.notices.done(`${model.instrument.name} was put away. It can be brought back for 30 days.`, () =>
          this.shelf.bringModelBack(model).subscribe({ error: failed }),
        ),
      error: failed,
    });
  }
}
