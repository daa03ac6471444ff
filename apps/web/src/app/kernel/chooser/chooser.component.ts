import { Component, computed, input, output } from '@angular/core';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';

export interface Choice<T> {
  readonly value: T;
  readonly label: string;
}

/** The label of a value; nothing where it cannot be chosen. */
export const labelOf = <T>(choices: readonly Choice<T>[], value: T): string => choices.find((each) => each.value === value)?.label ?? '';

/**
 * An underlined word of the sentence that opens its choices. What is chosen is told by its value, so that two choices of one name are still two:
 * values are ids, numbers or words.
 */
@Component({
  selector: 'zp-chooser',
  imports: [NgbDropdownModule],
  template: `
    <span ngbDropdown class="chooser" container="body" (openChange)="$event && opening.emit()">
      <button type="button" class="chooser-word" ngbDropdownToggle [attr.aria-label]="purpose() + ': ' + shown()">{{ shown() }}</button>
      <span ngbDropdownMenu role="menu" class="chooser-menu">
        @for (choice of choices(); track choice.value) {
          <button
            type="button"
            ngbDropdownItem
            role="menuitem"
            [class.is-chosen]="choice.value === value()"
            [attr.aria-current]="choice.value === value() || null"
            (click)="valueChange.emit(choice.value)"
          >
            {{ choice.label }}
          </button>
        } @empty {
          <span class="px-3">Nothing to choose from yet.</span>
        }
      </span>
    </span>
  `,
})
export class ChooserComponent<T> {
  /** What is chosen here, for screen readers: "Student". */
  readonly purpose = input.required<string>();
  readonly choices = input.required<readonly Choice<T>[]>();
  readonly value = input.required<T>();
  /** What is shown instead of the label: where the choices are not here yet, or the sentence needs other words. */
  readonly word = input('');
  readonly valueChange = output<T>();

  /** It is being opened: choices that take a moment to find are found now. */
  readonly opening = output<void>();

  protected readonly shown = computed(() => this.word() || labelOf(this.choices(), this.value()));
}
