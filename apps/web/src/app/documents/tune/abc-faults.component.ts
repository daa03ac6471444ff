import { Component, computed, input } from '@angular/core';
import type { AbcFaultReport } from '@zelpit/contract';

/** Where an ABC text cannot be read: line, character, what was expected, and the line itself. */
@Component({
  selector: 'zp-abc-faults',
  template: `
    @if (title()) {
      <p class="mb-0">
        <b>{{ title() }}</b> was not saved:
      </p>
    }
    <ul class="rows mb-3">
      @for (fault of shown(); track $index) {
        <li class="py-1">
          <span class="fault-text">Line {{ fault.line }}, character {{ fault.column }}: {{ fault.problem }}</span> Expected: {{ fault.expected }}.
          @if (fault.text) {
            <pre class="mb-0" style="font-size: 17px"
              >{{ fault.text }}
{{ fault.pointer }}</pre>
          }
        </li>
      }
    </ul>
  `,
})
export class AbcFaultsComponent {
  readonly title = input('');
  readonly faults = input.required<readonly AbcFaultReport[]>();
  readonly abc = input('');
  readonly firstLine = input(1);

  protected readonly shown = computed(() => {
    const lines = this.abc().split('\n');
    return this.faults().map((fault) => {
      const text = lines[fault.line - this.firstLine()] ?? '';
      const from = Math.max(0, fault.column - 40);
      return { ...fault, text: text.slice(from, from + 80), pointer: `${' '.repeat(fault.column - 1 - from)}^` };
    });
  });
}
