import { Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { KeyService } from '../keys/key.service';
import { SessionService } from '../session/session.service';

export type PlaceName = 'Today' | 'Tunes' | 'Fingers' | 'Students' | 'Studio';

const places: readonly { readonly name: PlaceName; readonly to: string }[] = [
  { name: 'Today', to: '/today' },
  { name: 'Tunes', to: '/tunes' },
  { name: 'Fingers', to: '/charts' },
  { name: 'Students', to: '/students' },
  { name: 'Studio', to: '/studio' },
];

/** The sentence at the head of a page: what, for whom, on which instrument. Its underlined words are the navigation. */
@Component({
  selector: 'zp-sentence',
  imports: [RouterLink],
  template: `
    <header class="sentence">
      <a class="home-mark" routerLink="/places" aria-label="All pages (G)" title="All pages (G)">
        <svg viewBox="0 0 40 40" aria-hidden="true">
          <path class="mark-wood" d="M4 34.5H36" />
          <path class="mark-ribbon" d="M9 9.5H27C35 9.5 31 17 24 19C15 21.5 10 28.5 20 28.5H32" />
        </svg>
      </a>
      <h1><ng-content /></h1>
      @if (place() && isStaff()) {
        <nav class="places-lane" aria-label="Groups of pages">
          @for (each of places; track each.name) {
            <a class="lane-word" [routerLink]="each.to" [attr.aria-current]="each.name === place() ? 'page' : null">{{ each.name }}</a>
          }
        </nav>
      }
      <div class="sentence-end">
        @if (state()) {
          <span class="save-state" role="status">{{ state() }}</span>
        }
        <ng-content select="[sentenceEnd]" />
        <button type="button" class="keys-button" (click)="showKeys()">Keys <kbd>?</kbd></button>
      </div>
    </header>
  `,
})
export class SentenceComponent {
  /** "Saved 14:02" and the like. */
  readonly state = input<string>('');
  /** The group that a list or an overview belongs to; a page for work shows none. */
  readonly place = input<PlaceName>();
  protected readonly places = places;
  protected readonly isStaff = computed(() => !this.session.isFamily());
  private readonly session = inject(SessionService);
  private readonly keys = inject(KeyService);

  protected showKeys(): void {
    this.keys
      .all()
      .find((binding) => binding.keys.includes('?'))
      ?.run('?');
  }
}
