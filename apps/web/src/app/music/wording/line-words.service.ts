import { computed, inject, Injectable, signal } from '@angular/core';
import type { LineWords } from '@zelpit/core/excerpt';
import { MovementBook } from '../../studio/movement-book/movement-book.service';
import { labelOf, type Choice } from '../../kernel/chooser/chooser.component';

/** What can be chosen: the kinds of words, and letters by the names of other countries. */
type Kind = LineWords['kind'] | 'german' | 'solfege';

const storageKey = 'zelpit.words';
const kinds: readonly Choice<Kind>[] = [
  { value: 'none', label: 'nothing' },
  { value: 'letters', label: 'letters' },
  { value: 'german', label: 'letters with H and B' },
  { value: 'solfege', label: 'do re mi' },
  { value: 'count', label: 'the count' },
  { value: 'words', label: 'words of the tune' },
  { value: 'holes', label: 'numbers of the holes' },
  { value: 'syllables', label: 'syllables' },
];

/** What stands under the notes of lines and tunes, on screen and on paper: chosen once in this browser. */
@Injectable({ providedIn: 'root' })
export class LineWordsChoice {
  private readonly book = inject(MovementBook);
  readonly choices = kinds;
  readonly kind = signal<Kind>(kinds.find(({ value }) => value === localStorage.getItem(storageKey))?.value ?? 'none');
  readonly text = computed(() => labelOf(kinds, this.kind()));
  readonly words = computed((): LineWords => {
    const kind = this.kind();
    if (kind === 'syllables') return { kind, set: this.book.syllables() };
    return kind === 'german' || kind === 'solfege' ? { kind: 'letters', naming: kind } : { kind };
  });

  choose(kind: Kind): void {
    this.kind.set(kind);
    localStorage.setItem(storageKey, kind);
  }

  /** The next of them, in their order. */
  next(): void {
    const place = kinds.findIndex(({ value }) => value === this.kind());
    this.choose(kinds[(place + 1) % kinds.length].value);
  }
}
