import { Component } from '@angular/core';
import { restPhrase } from '@zelpit/core/plan';

/** What stands wherever lines are practised. */
@Component({
  selector: 'zp-pain-caution',
  template: `
    <p class="caution">
      <b>Stop if anything hurts, tingles or goes numb.</b> {{ rest }} after each line. If it comes back, see a health professional. No exercise is worth it.
    </p>
  `,
})
export class PainCautionComponent {
  protected readonly rest = restPhrase;
}
