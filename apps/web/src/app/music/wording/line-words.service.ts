import { computed, inject, Injectable, signal } from '@angular/core';
import type { LineWords } from '@zelpit/core';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { labelOf, type Choice } from '../../kernel/chooser/chooser.component';

type Kind = LineWords['kind'];

const storageKey = 'zelpit.words';
const kinds: readonly Choice<Kind>[] = [
  { value: 'none', label: 'nothing' },
  { value: 'letters', label: 'letters' },
  { value: 'syllables', label: 'syllables' },
];

/** What stands under the notes of lines, on screen and on paper: chosen once in this browser. */
@Injectable({ providedIn: 'root' })
export class LineWordsChoice {
  private readonly book = inject(MovementBook);
  readonly choices = kinds;
  readonly kind = signal<Kind>(kinds.find(({ value }) => value === localStorage.getItem(storageKey))?.value ?? 'none');
  readonly text = computed(() => labelOf(kinds, this.kind()));
  readonly words = computed((): LineWords => {
    const kind = this.kind();
    return kind === 'syllables' ? { kind, set: this.book.syllables() } : { kind };
  });

  choose(kind: Kind): void {
    this.kind.set(kind);
    localStorage.setItem(storageKey, kind);
  }
}
