import { Component, input, output } from '@angular/core';

export interface Part<T> {
  readonly value: T;
  readonly label: string;
}

/** What a page shows, one thing at a time: words over one wood, a finger under the one in view. Digits choose. */
@Component({
  selector: 'zp-parts',
  template: `
    @for (part of parts(); track part.value; let index = $index) {
      <button type="button" class="lane-word" [attr.aria-pressed]="part.value === value()" (click)="valueChange.emit(part.value)">
        {{ part.label }} <kbd>{{ index + 1 }}</kbd>
      </button>
    }
  `,
  host: { class: 'parts', role: 'group', '[attr.aria-label]': 'purpose()' },
})
export class PartsComponent<T> {
  readonly purpose = input.required<string>();
  readonly parts = input.required<readonly Part<T>[]>();
  readonly value = input.required<T>();
  readonly valueChange = output<T>();
}
