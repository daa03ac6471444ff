import { Component, input } from '@angular/core';

/** A page for somebody who is not signed in: the mark, what this is, and one form. */
@Component({
  selector: 'zp-front',
  template: `
    <main class="page">
      <div class="layer page-fill front">
        <svg width="88" height="88" viewBox="0 0 40 40" aria-hidden="true">
          <path class="mark-wood" d="M4 34.5H36" />
          <path class="mark-ribbon" d="M9 9.5H27C35 9.5 31 17 24 19C15 21.5 10 28.5 20 28.5H32" />
        </svg>
        <h1 class="heading mt-3">{{ heading() }}</h1>
        <ng-content />
      </div>
      <ng-content select="[band]" />
    </main>
  `,
})
export class FrontComponent {
  readonly heading = input.required<string>();
}
