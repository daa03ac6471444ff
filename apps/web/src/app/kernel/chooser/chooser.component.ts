import { Component, input, output } from '@angular/core';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';

export interface Choice<T> {
  readonly value: T;
  readonly said: string;
}

/** What is said for a value; nothing where it cannot be chosen. */
export const saidOf = <T>(choices: readonly Choice<T>[], value: T): string => choices.find((each) => each.value === value)?.said ?? '';

/** An underlined word of the sentence that opens its choices. */
@Component({
  selector: 'zp-chooser',
  imports: [NgbDropdownModule],
  template: `
    <span ngbDropdown class="chooser" container="body">
      <button type="button" class="chooser-word" ngbDropdownToggle [attr.aria-label]="purpose() + ': ' + word()">{{ word() }}</button>
      <span ngbDropdownMenu role="menu" class="chooser-menu">
        @for (choice of choices(); track choice.said) {
          <button
            type="button"
            ngbDropdownItem
            role="menuitem"
            [class.is-chosen]="choice.said === word()"
            [attr.aria-current]="choice.said === word() || null"
            (click)="chosen.emit(choice.value)"
          >
            {{ choice.said }}
          </button>
        } @empty {
          <span class="px-3">Nothing to choose from yet.</span>
        }
      </span>
    </span>
  `,
})
export class ChooserComponent<T> {
  readonly word = input.required<string>();
  /** What is chosen here, for screen readers: "Student". */
  readonly purpose = input.required<string>();
  readonly choices = input.required<readonly Choice<T>[]>();
  readonly chosen = output<T>();
}
