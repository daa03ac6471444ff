import { Component, computed, inject, input } from '@angular/core';
import { SpokenWords } from './spoken-words';

/** What was said in a lesson, each to be heard or deleted. */
@Component({
  selector: 'zp-spoken-word-list',
  template: `
    <ul class="spoken-words" aria-label="Said aloud">
      @for (word of shown(); track word.id; let index = $index) {
        <li>
          <button
            type="button"
            class="word"
            [attr.aria-label]="(words.heard() === word.id ? 'Stop what' : 'Hear what') + ' was ' + nameOf(index)"
            (click)="words.hear(word)"
          >
            {{ words.heard() === word.id ? '■' : '▶' }} {{ word.seconds }} s
          </button>
          @if (title() === undefined) {
            <span dir="auto">{{ word.title }}</span>
          }
          <button type="button" class="word" [attr.aria-label]="'Delete what was ' + nameOf(index)" (click)="words.drop(word)">Delete</button>
        </li>
      }
      @for (word of words.unsent(); track word) {
        <li>
          <span>{{ word.seconds }} s about {{ word.title }}, not kept yet</span>
          <button type="button" class="word" (click)="words.send(word)">Send it again</button>
        </li>
      }
    </ul>
  `,
})
export class SpokenWordListComponent {
  protected readonly words = inject(SpokenWords);
  /** Only what was said about this; without one everything. */
  readonly title = input<string>();
  protected readonly shown = computed(() => this.words.all().filter(({ title }) => this.title() === undefined || title === this.title()));

  /** "Said about B to E, 2": unlike for each. */
  protected nameOf(index: number): string {
    return `said about ${this.shown()[index].title}, ${index + 1}`;
  }
}
