import { Component, computed, inject, signal } from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { RouterLink } from '@angular/router';
import { mostLines, proofExamples, proofread, proofText } from '@zelpit/core/proof';
import { proofreadMovement } from '@zelpit/core/proofreading';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { ChooserComponent } from '../../kernel/chooser/chooser.component';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';
import { ChartState } from '../../studio/state/chart-state.service';

/** Lines of a handout read against a chart. */
@Component({
  selector: 'zp-proof',
  imports: [SentenceComponent, ChooserComponent, RouterLink, NgTemplateOutlet],
  template: `
    <div class="page">
      <zp-sentence>
        <a class="chooser-word" routerLink="/charts">Chart</a>
        <span class="quiet">, checking a handout for </span>
        <zp-chooser purpose="Instrument" [value]="state.choice()" [word]="state.text()" [choices]="state.choices()" (valueChange)="state.choose($event)" />
      </zp-sentence>
      <section class="band" aria-label="What was found">
        <div class="band-said" role="status">
          <p class="band-todo">{{ found() }}</p>
          <p class="band-else">
            One note to a line: its holes, or what changes from another note.
            @if (isPipes()) {
              Movements too, element by element.
            }
          </p>
        </div>
      </section>
      <main class="layer page-fill proof">
        <div>
          <label class="form-label" for="handout">The handout's lines</label>
          <textarea
            id="handout"
            class="form-control proof-text"
            spellcheck="false"
            [placeholder]="example()"
            [value]="text()"
            (input)="typed($event)"
          ></textarea>
          @if (lines().length > 0) {
            <details class="mt-2">
              <summary>What is read, by an example each</summary>
              <ng-container [ngTemplateOutlet]="forms" />
            </details>
          }
          @if (isCut()) {
            <p class="fault-text">Only the first {{ most }} lines were read.</p>
          }
        </div>
        <ng-template #forms>
          <ul class="plain-list">
            @for (each of examples(); track each.text) {
              <li class="mb-2">
                <span class="quiet">{{ each.form }}: </span>
                <button type="button" class="word text-start" [attr.aria-label]="'Put in: ' + each.text" (click)="put(each.text)">{{ each.text }}</button>
              </li>
            }
          </ul>
        </ng-template>
        @if (lines().length === 0) {
          <section aria-label="What is read">
            <h2 class="group-title">What is read, by an example each</h2>
            <ng-container [ngTemplateOutlet]="forms" />
          </section>
        }
        <ol class="rows" aria-label="Line by line">
          @for (line of lines(); track line.line) {
            <li class="proof-line">
              <span class="proof-number">{{ line.line }}</span>
              <span>
                <b>{{ line.text }}</b>
                <span class="proof-said" [class.wrongly]="line.isWrong">{{ line.answer }}</span>
              </span>
            </li>
          }
        </ol>
      </main>
    </div>
  `,
})
export class ProofPage {
  private readonly book = inject(MovementBook);
  protected readonly state = inject(ChartState);
  protected readonly examples = computed(() => proofExamples(this.state.instrument()));
  protected readonly example = computed(() =>
    this.examples()
      .slice(0, 4)
      .map(({ text }) => text)
      .join('\n'),
  );
  protected readonly isPipes = computed(() => this.state.instrument().family === 'pipes');
  protected readonly most = mostLines;
  protected readonly text = signal('');
  protected readonly name = this.state.text;
  protected readonly isCut = computed(() => this.text().split('\n').length > mostLines);

  protected readonly lines = computed(() => {
    const instrument = this.state.instrument();
    return proofread(instrument, this.text(), this.state.otherModel())
      .filter(({ proof }) => proof.kind !== 'empty')
      .map(({ line, text, proof }) => {
        const movement = proof.kind === 'right' ? undefined : proofreadMovement(instrument, text, { own: this.book.own(), settings: this.book.settings() });
        if (movement !== undefined) return { line, text, answer: movement.text, isWrong: movement.kind !== 'right' };
        return { line, text, answer: proofText(instrument, proof), isWrong: proof.kind !== 'right' };
      });
  });

  protected readonly found = computed(() => {
    const lines = this.lines();
    if (lines.length === 0) return 'Paste or type the lines of a handout.';
    const wrong = lines.filter(({ isWrong }) => isWrong).length;
    if (wrong === 0) return lines.length === 1 ? 'The line is right.' : `All ${lines.length} lines are right.`;
    return `${wrong} of ${lines.length} lines ${wrong === 1 ? 'needs' : 'need'} a look.`;
  });

  /** An example goes under what stands there. */
  protected put(example: string): void {
    this.text.update((text) => (text.trim() === '' ? example : `${text.trimEnd()}\n${example}`));
  }

  protected typed(event: Event): void {
    this.text.set((event.target as HTMLTextAreaElement).value);
  }
}
