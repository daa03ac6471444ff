import { DatePipe } from '@angular/common';
import { Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { auditRoutes, type AuditEntry } from '@zelpit/contract';
import { ApiService } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';

const atOnce = 50;

/** Who changed what. */
@Component({
  selector: 'zp-deeds',
  imports: [FormsModule, SentenceComponent, DatePipe],
  template: `
    <div class="page">
      <zp-sentence place="Studio"><span>Who changed what</span></zp-sentence>
      <main class="layer page-fill">
        <form class="d-flex flex-wrap gap-3 mb-3" role="search" (ngSubmit)="look()">
          <label class="visually-hidden" for="find">Person, tune, sheet or instrument</label>
          <input
            id="find"
            name="find"
            type="search"
            class="form-control"
            style="max-width: 420px"
            placeholder="Person, tune, sheet or instrument"
            [(ngModel)]="find"
          />
          <button type="submit" class="btn btn-line btn-low" [disabled]="attempt.isBusy()">Find</button>
        </form>
        @if (attempt.fault()) {
          <p class="fault-text" role="alert">{{ attempt.fault() }}</p>
        }
        @if (shown().length > 0) {
          <table class="deeds">
            <thead>
              <tr>
                <th scope="col">When</th>
                <th scope="col">Who</th>
                <th scope="col">What</th>
              </tr>
            </thead>
            <tbody>
              @for (entry of shown(); track entry.id) {
                <tr>
                  <td class="text-nowrap">{{ entry.until | date: 'd MMM, HH:mm' }}</td>
                  <td>{{ entry.who }}</td>
                  <td>
                    {{ entry.did }} {{ kindText(entry) }} <b>{{ entry.thing }}</b>&nbsp;
                    @if (entry.times > 1) {
                      <span class="second">· {{ entry.times }} times since {{ entry.from | date: 'HH:mm' }}</span>
                    }
                  </td>
                </tr>
              }
            </tbody>
          </table>
        } @else if (!attempt.isBusy() && !attempt.fault()) {
          <p class="second">No changes yet.</p>
        }
        @if (next() !== null) {
          <button type="button" class="btn btn-line btn-low mt-3" [disabled]="attempt.isBusy()" (click)="more()">Show older</button>
        }
      </main>
    </div>
  `,
})
export class DeedsPage {
  private readonly api = inject(ApiService);
  protected readonly attempt = new Attempt();
  protected readonly shown = signal<readonly AuditEntry[]>([]);
  protected readonly next = signal<string | null>(null);
  protected find = '';
  private wanted = '';

  constructor() {
    this.look();
  }

  protected kindText({ kind }: AuditEntry): string {
    if (kind === 'model') return 'the workshop instrument';
    if (kind === 'fingering') return 'the fingering of';
    return kind === 'tunes' ? '' : `the ${kind}`;
  }

  protected look(): void {
    this.wanted = this.find.trim();
    this.shown.set([]);
    this.next.set(null);
    this.more();
  }

  protected more(): void {
    const after = this.next();
    const query = { limit: atOnce, find: this.wanted === '' ? undefined : this.wanted, after: after ?? undefined };
    this.attempt.run(this.api.call(auditRoutes.audit, { query }), ({ items, next }) => {
      this.shown.update((shown) => [...shown, ...items]);
      this.next.set(next);
    });
  }
}
