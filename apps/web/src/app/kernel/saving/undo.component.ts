import { Component, inject, input, type OnDestroy, type OnInit } from '@angular/core';
import { KeyService } from '../keys/key.service';

/** What can go back and on again; it says what the step changes. */
export interface Undoable {
  readonly undoes: () => string | undefined;
  readonly redoes: () => string | undefined;
  undo(): void;
  redo(): void;
}

/** One step back and one step on, as buttons and as keys. */
@Component({
  selector: 'zp-undo',
  host: { class: 'd-flex gap-3' },
  template: `
    <button
      type="button"
      class="word"
      [disabled]="document().undoes() === undefined"
      [attr.aria-label]="undoText()"
      [title]="undoText()"
      (click)="document().undo()"
    >
      Undo
    </button>
    <button
      type="button"
      class="word"
      [disabled]="document().redoes() === undefined"
      [attr.aria-label]="redoText()"
      [title]="redoText()"
      (click)="document().redo()"
    >
      Redo
    </button>
  `,
})
export class UndoComponent implements OnInit, OnDestroy {
  private readonly keys = inject(KeyService);
  readonly document = input.required<Undoable>();
  private release = (): void => undefined;

  ngOnInit(): void {
    this.release = this.keys.use('undo', {
      undo: () => this.document().undo(),
      redo: () => this.document().redo(),
      redoToo: () => this.document().redo(),
    });
  }

  ngOnDestroy(): void {
    this.release();
  }

  protected undoText(): string {
    const text = this.document().undoes();
    return text === undefined ? 'Nothing to undo' : `Undo: ${text}`;
  }

  protected redoText(): string {
    const text = this.document().redoes();
    return text === undefined ? 'Nothing to redo' : `Redo: ${text}`;
  }
}
