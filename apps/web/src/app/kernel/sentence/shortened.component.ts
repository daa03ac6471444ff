import { Component, computed, input } from '@angular/core';

/** Letters at the end that always stay. */
const tail = 6;

/** A word of the sentence that gives way in its middle where there is no room; in full in its tooltip and for screen readers. */
@Component({
  selector: 'zp-shortened',
  template: `<span class="shortened">{{ head() }}</span
    ><span class="shortened-tail">{{ end() }}</span>`,
  host: { class: 'is-shortened', '[attr.title]': 'text()' },
})
export class ShortenedComponent {
  readonly text = input.required<string>();
  /** A blank at its end would be lost there. */
  protected readonly head = computed(() => this.text().slice(0, -tail).replace(/ $/, '\u00a0'));
  protected readonly end = computed(() => this.text().slice(-tail));
}
