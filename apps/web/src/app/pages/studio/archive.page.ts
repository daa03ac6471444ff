import { Component, inject, signal } from '@angular/core';
import { archiveRoutes, type ArchiveResult } from '@zelpit/contract';
import { count } from '@zelpit/core/words';
import { ApiService } from '../../kernel/api/api.service';
import { Attempt } from '../../kernel/api/attempt';
import { fileNameOf, saveFile } from '../../kernel/files/save-file';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { SessionService } from '../../kernel/session/session.service';

/** The whole studio as one file: out, and in again. */
@Component({
  selector: 'zp-archive',
  imports: [SentenceComponent],
  template: `
    <div class="page">
      <zp-sentence place="Studio"><span>Backup of the whole studio</span></zp-sentence>
      <section class="band" aria-label="Take out">
        <div class="band-said">
          <p class="band-todo">Save all students, tunes, sheets and instruments in one file.</p>
          <p class="band-else">It holds notes about children, so keep it where only you can read it. It holds no passwords.</p>
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" [disabled]="taking.isBusy()" (click)="take()">
            {{ taking.isBusy() ? 'Writing …' : 'Save a backup' }}
          </button>
        </div>
      </section>
      <main class="layer page-fill">
        @if (taking.fault()) {
          <p class="fault-text" role="alert">{{ taking.fault() }}</p>
        }
        <h2 class="heading">Restore a backup</h2>
        <p>Choose a backup saved here or on another computer. The whole file is checked first; if part of it is missing, nothing is changed.</p>
        <input #picker type="file" accept=".zip,application/zip" hidden (change)="pick($event)" />
        @if (file(); as chosen) {
          <p>
            <b>{{ chosen.name }}</b>
          </p>
          <div class="d-flex flex-wrap gap-3">
            <button type="button" class="btn btn-solid btn-low" [disabled]="bringing.isBusy()" (click)="bring('empty')">Restore into this empty studio</button>
            <button type="button" class="btn btn-line btn-low" [disabled]="bringing.isBusy()" (click)="bring('put-away')">
              Put away what is here, then restore
            </button>
            <button type="button" class="word" (click)="file.set(undefined)">Cancel</button>
          </div>
        } @else {
          <button type="button" class="btn btn-line" (click)="picker.click()">Choose a file</button>
        }
        @if (bringing.isBusy()) {
          <p class="second mt-3" role="status">Reading …</p>
        }
        @if (bringing.fault()) {
          <p class="fault-text mt-3" role="alert">{{ bringing.fault() }}</p>
        }
        @if (result(); as brought) {
          <p class="mt-3" role="status">{{ text(brought) }}</p>
        }
      </main>
    </div>
  `,
})
export class ArchivePage {
  private readonly api = inject(ApiService);
  private readonly session = inject(SessionService);
  protected readonly taking = new Attempt();
  protected readonly bringing = new Attempt();
  protected readonly file = signal<File | undefined>(undefined);
  protected readonly result = signal<ArchiveResult | undefined>(undefined);

  protected take(): void {
    const day = new Date().toISOString().slice(0, 10);
    const name = fileNameOf(`${this.session.studio()?.name ?? 'Studio'} ${day}`, 'zip');
    this.taking.run(this.api.call(archiveRoutes.takeArchive, {}), (file) => saveFile(name, file));
  }

  protected pick(event: Event): void {
    const field = event.target as HTMLInputElement;
    this.file.set(field.files?.[0]);
    this.bringing.fault.set('');
    this.result.set(undefined);
    field.value = '';
  }

  protected bring(before: 'empty' | 'put-away'): void {
    const file = this.file();
    if (file === undefined) return;
    this.bringing.run(this.api.call(archiveRoutes.bringArchive, { query: { before }, body: file }), (result) => {
      this.result.set(result);
      this.file.set(undefined);
    });
  }

  protected text({ counts, newCodes, putAway }: ArchiveResult): string {
    const all = Object.entries(counts).filter(([kind, number]) => number > 0 || always.includes(kind));
    const codes = newCodes === 0 ? '' : ` ${newCodes} lines have new codes because their old codes were already in use. Print those sheets again.`;
    const before = putAway === 0 ? '' : ` ${putAway} things that were here before were put away.`;
    return `Restored: ${all.map(([kind, number]) => counted(kind, number)).join(', ')}.${codes}${before}`;
  }
}

/** Named even where there is none. */
const always = ['student', 'tune', 'sheet'];
/** Kinds of thing that are not called by their own name with an s. */
const names: Readonly<Record<string, readonly [one: string, several: string]>> = {
  model: ['workshop instrument', 'workshop instruments'],
  trial: ['result', 'results'],
};

function counted(kind: string, number: number): string {
  const [one, several] = names[kind] ?? [kind, `${kind}s`];
  return count(number, one, several);
}
