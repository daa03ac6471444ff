import { Component, effect, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import type { AbcFaultReport } from '@zelpit/contract';
import { saidBy } from '../api/api.service';
import { NoticeService } from '../shell/notice.service';
import { SentenceComponent } from '../shell/sentence.component';
import { AbcFaultsComponent } from './abc-faults.component';
import { TunesService } from './tunes.service';

/** The ABC of one tune, to be corrected. */
@Component({
  selector: 'zp-tune-text',
  imports: [FormsModule, RouterLink, SentenceComponent, AbcFaultsComponent],
  template: `
    <div class="page">
      <zp-sentence
        ><span class="quiet">The text of </span><a class="chooser-word" [routerLink]="['/tunes', id()]">{{ title() || 'a tune' }}</a></zp-sentence
      >
      <main class="layer page-fill">
        @if (fault()) {
          <p class="fault-text" role="alert">{{ fault() }}</p>
        }
        @if (faults().length > 0) {
          <p class="mb-1">Not saved yet; the tune stays as it was.</p>
          <zp-abc-faults [faults]="faults()" [abc]="abc" />
        }
        <label class="form-label" for="abc">ABC, standard 2.1</label>
        <textarea id="abc" class="form-control abc-text" style="min-height: 55vh" spellcheck="false" [(ngModel)]="abc" [disabled]="isBusy()"></textarea>
      </main>
      <section class="band" aria-label="Save the text">
        <div class="band-said"><p class="band-todo">Correct the text, then save it.</p></div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" [disabled]="isBusy()" (click)="save()">Save</button>
          <a class="btn btn-line" [routerLink]="['/tunes', id()]">Leave it as it was</a>
        </div>
      </section>
    </div>
  `,
})
export class TuneTextPage {
  private readonly tunes = inject(TunesService);
  private readonly notices = inject(NoticeService);
  private readonly router = inject(Router);

  readonly id = input.required<string>();
  protected readonly title = signal('');
  protected readonly fault = signal('');
  protected readonly faults = signal<readonly AbcFaultReport[]>([]);
  protected readonly isBusy = signal(true);
  protected abc = '';

  constructor() {
    effect(() => {
      this.tunes.detail(this.id()).subscribe({
        next: (tune) => {
          this.title.set(tune.title);
          this.abc = tune.abc;
          this.isBusy.set(false);
        },
        error: (error: unknown) => this.fault.set(saidBy(error)),
      });
    });
  }

  protected save(): void {
    this.isBusy.set(true);
    this.fault.set('');
    this.tunes.save(this.id(), this.abc).subscribe({
      next: (saved) => {
        this.isBusy.set(false);
        this.faults.set(saved.kind === 'refused' ? saved.faults : []);
        if (saved.kind === 'saved') {
          this.notices.done('The text is saved.');
          void this.router.navigate(['/tunes', this.id()]);
        }
      },
      error: (error: unknown) => {
        this.isBusy.set(false);
        this.fault.set(saidBy(error));
      },
    });
  }
}
