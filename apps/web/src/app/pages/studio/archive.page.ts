import { Component, inject, signal } from '@angular/core';
import { archiveRoutes, type ArchiveResult } from '@zelpit/contract';
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
      <zp-sentence><span>The whole studio as a file</span></zp-sentence>
      <section class="band" aria-label="Take out">
        <div class="band-said">
          <p class="band-todo">All students, tunes, sheets and instruments in one file.</p>
          <p class="band-else">It holds notes on children: keep it where only you can read it. Passwords are not in it.</p>
        </div>
        <div class="band-actions">
          <button type="button" class="btn btn-solid" [disabled]="taking.isBusy()" (click)="take()">
            {{ taking.isBusy() ? 'Writing …' : 'Save the file' }}
          </button>
        </div>
      </section>
      <main class="layer page-fill">
        @if (taking.fault()) {
          <p class="fault-text" role="alert">{{ taking.fault() }}</p>
        }
        <h2 class="heading">Bring a studio in</h2>
        <p>A file that was saved here or on another computer. It is read whole before anything changes; a file that is not whole changes nothing.</p>
        <input #picker type="file" accept=".zip,application/zip" hidden (change)="pick($event)" />
        @if (file(); as chosen) {
          <p>
            <b>{{ chosen.name }}</b>
          </p>
          <div class="d-flex flex-wrap gap-3">
            <button type="button" class="btn btn-solid btn-low" [disabled]="bringing.isBusy()" (click)="bring('empty')">Bring it into this empty studio</button>
            <button type="button" class="btn btn-line btn-low" [disabled]="bringing.isBusy()" (click)="bring('put-away')">
              Put away what is here, then bring it in
            </button>
            <button type="button" class="word" (click)="file.set(undefined)">Leave it</button>
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
    const codes = newCodes === 0 ? '' : ` ${newCodes} lines got new codes, because theirs were taken here; print those sheets again.`;
    const before = putAway === 0 ? '' : ` ${putAway} things that were here are put away.`;
    return `Here now: ${all.map(([kind, number]) => counted(kind, number)).join(', ')}.${codes}${before}`;
  }
}

/** Named even where there is none. */
const always = ['student', 'tune', 'sheet'];
/** Kinds of thing that are not called by their own name with an s. */
const names: Readonly<Record<string, readonly [one: string, several: string]>> = {
  model: ['instrument of the workshop', 'instruments of the workshop'],
  trial: ['result', 'results'],
};

function counted(kind: string, number: number): string {
  const [one, several] = names[kind] ?? [kind, `${kind}s`];
  return `${number} ${number === 1 ? one : several}`;
}
