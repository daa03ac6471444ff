import { Component, computed, input } from '@angular/core';

/** What was heard, first of all: the count, then the worst place, and what is heard there in vermilion. */
@Component({
  selector: 'zp-take-sentence',
  template: `
    @if (text()) {
      <p class="take-sentence" role="status" aria-label="What was heard">
        {{ parts()[0] }}
        @if (parts()[1]) {
          <span> {{ parts()[1] }}</span><span class="wrongly"> {{ parts()[2] }}</span>
        }
      </p>
    }
  `,
})
export class TakeSentenceComponent {
  /** "Six of eight clean. Change 3: low A sounds for 22 ms before E." */
  readonly text = input.required<string>();
  protected readonly parts = computed(() => /^(\S.*?\.)(?: ([^:.]+:) (.*))?$/.exec(this.text())?.slice(1) ?? [this.text()]);
}
