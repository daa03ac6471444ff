import { NgTemplateOutlet } from '@angular/common';
import { Component, computed, contentChild, input, output, type TemplateRef } from '@angular/core';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap/dropdown';
import { ShortenedComponent } from '../sentence/shortened.component';

export interface Choice<T> {
  readonly value: T;
  readonly label: string;
  /** Words beside its drawing, where it has one. */
  readonly beside?: string;
}

/** The label of a value; nothing where it cannot be chosen. */
export const labelOf = <T>(choices: readonly Choice<T>[], value: T): string => choices.find((each) => each.value === value)?.label ?? '';

/**
 * An underlined word of the sentence that opens its choices. What is chosen is told by its value, so that two choices of one name are still two:
 * values are ids, numbers or words.
 */
@Component({
  selector: 'zp-chooser',
  imports: [NgbDropdownModule, NgTemplateOutlet, ShortenedComponent],
  template: `
    <span ngbDropdown class="chooser" container="body" (openChange)="$event && opening.emit()">
      <button type="button" class="chooser-word" ngbDropdownToggle [attr.aria-label]="purpose() + ': ' + shown()">
        @if (shortens()) {
          <zp-shortened [text]="shown()" />
        } @else {
          @if (figure(); as drawn) {
            <ng-container [ngTemplateOutlet]="drawn" [ngTemplateOutletContext]="{ $implicit: value() }" />
          } @else {
            {{ shown() }}
          }
        }
      </button>
      <span ngbDropdownMenu role="menu" class="chooser-menu">
        @for (choice of choices(); track choice.value) {
          <button
            type="button"
            ngbDropdownItem
            role="menuitem"
            [class.is-chosen]="choice.value === value()"
            [attr.aria-current]="choice.value === value() || null"
            [attr.aria-label]="figure() ? choice.label : null"
            (click)="valueChange.emit(choice.value)"
          >
            @if (figure(); as drawn) {
              <ng-container [ngTemplateOutlet]="drawn" [ngTemplateOutletContext]="{ $implicit: choice.value }" />
              {{ choice.beside }}
            } @else {
              {{ choice.label }}
            }
          </button>
        } @empty {
          <span class="px-3">Nothing to choose yet.</span>
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
  /** True for a word that gives way in its middle where the sentence has no room. */
  readonly shortens = input(false);
  readonly valueChange = output<T>();
  /** Draws a choice by its value, where a drawing says it better than its label. */
  protected readonly figure = contentChild<TemplateRef<unknown>>('figure');

  /** It is being opened: choices that take a moment to find are found now. */
  readonly opening = output<void>();

  protected readonly shown = computed(() => this.word() || labelOf(this.choices(), this.value()));
}
