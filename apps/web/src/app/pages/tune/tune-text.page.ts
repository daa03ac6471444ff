import { Component, computed, effect, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { TipComponent } from '../../kernel/tip/tip.component';
import { messageOf } from '../../kernel/api/api.service';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { ConflictComponent } from '../../kernel/saving/conflict.component';
import { UndoComponent } from '../../kernel/saving/undo.component';
import { NoticeService } from '../../kernel/notices/notice.service';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { AbcFaultsComponent } from '../../documents/tune/abc-faults.component';
import { compareTexts } from '../../documents/tune/compare-texts';
import { textFaults, type TextFaults } from '../../documents/tune/text-faults';
import { TuneEditor } from '../../documents/tune/tune-editor';

const readable: TextFaults = { faults: [], text: '' };
const quietMs = 400;

/** The ABC of one tune, to be corrected. It saves itself as soon as it can be read. */
@Component({
  selector: 'zp-tune-text',
  imports: [TipComponent, RouterLink, SentenceComponent, AbcFaultsComponent, UndoComponent, ConflictComponent],
  providers: [TuneEditor],
  template: `
    <div class="page">
      <zp-sentence [state]="editor.stateLabel()"
        ><span class="quiet">The text of </span><a class="chooser-word" [routerLink]="['/tunes', id()]">{{ editor.stored()?.title || 'a tune' }}</a>
        @if (editor.stored()) {
          <zp-undo sentenceEnd [document]="editor" />
        }
      </zp-sentence>
      @if (editor.state() === 'missing') {
        <main class="layer page-fill empty">
          <p class="fault-text">{{ editor.message() }}</p>
          <a class="btn btn-solid" routerLink="/tunes">Go to the tunes</a>
        </main>
      } @else if (comparison(); as both) {
        <zp-conflict name="This text" [isText]="true" [comparison]="both" (resolved)="editor.resolve($event)" />
      } @else if (editor.draft(); as draft) {
        <section class="band" aria-label="The text">
          <div class="band-said">
            @if (isReadable()) {
              <p class="band-todo">
                {{ editor.state() === 'away' || editor.state() === 'refused' ? editor.message() : 'The text saves itself as you type.' }}
              </p>
            } @else {
              <p class="band-todo">The text cannot be read yet, so the tune stays as it was.</p>
            }
            <p class="band-else">Undo goes back step by step, even after you reload the page.</p>
          </div>
          <div class="band-actions">
            <a class="btn btn-solid" [routerLink]="['/tunes', id()]">Back to the tune</a>
            <button type="button" class="btn btn-line" [disabled]="isMoving() || !isReadable()" (click)="moveKey(-1)">Down a semitone</button>
            <button type="button" class="btn btn-line" [disabled]="isMoving() || !isReadable()" (click)="moveKey(1)">Up a semitone</button>
            <zp-tip about="up or down a semitone">Writes the whole tune a semitone higher or lower. Undo brings it back.</zp-tip>
          </div>
        </section>
        <main class="layer page-fill">
          @if (found().text) {
            <p class="fault-text" role="alert">{{ found().text }}</p>
          }
          @if (found().faults.length > 0) {
            <zp-abc-faults [faults]="found().faults" [abc]="draft.abc" />
          }
          <label class="form-label" for="abc">ABC (standard 2.1)</label>
          <textarea id="abc" class="form-control abc-text" style="min-height: 55vh" spellcheck="false" [value]="draft.abc" (input)="typed($event)"></textarea>
        </main>
      } @else {
        <main class="layer page-fill"><p class="second" role="status">Opening the text …</p></main>
      }
    </div>
  `,
})
export class TuneTextPage {
  private readonly shelf = inject(InstrumentShelf);
  private readonly notices = inject(NoticeService);
  protected readonly editor = inject(TuneEditor);

  readonly id = input.required<string>();
  protected readonly found = signal(readable);
  protected readonly isMoving = signal(false);
  protected readonly isReadable = computed(() => this.found().faults.length === 0 && this.found().text === '');
  protected readonly comparison = computed(() => {
    const conflict = this.editor.conflict();
    return conflict === undefined ? undefined : compareTexts(conflict.base, conflict.mine, conflict.theirs);
  });

  constructor() {
    this.editor.follow(this.id);
    effect((onCleanup) => {
      const abc = this.editor.draft()?.abc;
      if (abc === undefined) return;
      const timer = setTimeout(() => this.read(abc), quietMs);
      onCleanup(() => clearTimeout(timer));
    });
  }

  protected typed(event: Event): void {
    this.editor.setText((event.target as HTMLTextAreaElement).value, 'the text', 'text');
  }

  protected async moveKey(semitones: number): Promise<void> {
    this.isMoving.set(true);
    try {
      await this.editor.moveKey(semitones);
    } catch (error) {
      this.notices.done(messageOf(error));
    } finally {
      this.isMoving.set(false);
    }
  }

  private read(abc: string): void {
    const instrument = this.shelf.known(this.editor.draft()?.instrument);
    if (this.editor.draft()?.abc === abc) this.found.set(textFaults(instrument, abc));
  }
}
