import { Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { ImportResult } from '@zelpit/contract';
import { count } from '@zelpit/core/words';
import { AbcFaultsComponent } from '../../documents/tune/abc-faults.component';

/** Named one by one; of more only how many. */
const shown = { added: 6, toCheck: 12, places: 3, refused: 20 } as const;

/** What came of tunes that were brought in: those that are there, what to look at in them, and what could not be read. */
@Component({
  selector: 'zp-import-result',
  imports: [RouterLink, AbcFaultsComponent],
  template: `
    @if (result().saved.length > 0) {
      <p class="mb-1">
        {{ count(result().saved.length, 'tune') }} added:
        @for (tune of result().saved.slice(0, shown.added); track tune.id) {
          <a class="word me-3" [routerLink]="['/tunes', tune.id]">{{ tune.title }}</a>
        }
        @if (result().saved.length > shown.added) {
          and {{ result().saved.length - shown.added }} more
        }
      </p>
    }
    @if (toCheck().length > 0) {
      <p class="mb-1">{{ toCheck().length === 1 ? 'One has' : toCheck().length + ' have' }} something to look at:</p>
      <ul class="rows mb-2">
        @for (tune of toCheck().slice(0, shown.toCheck); track tune.id) {
          <li class="py-1">
            <a class="word" [routerLink]="['/tunes', tune.id]">{{ tune.title }}</a>
            @for (place of tune.look.slice(0, shown.places); track $index) {
              <small class="second ms-3">{{ place.text }}</small>
            }
            @if (tune.look.length > shown.places) {
              <small class="second ms-3">and {{ tune.look.length - shown.places }} more</small>
            }
            @if (tune.outside > 0) {
              <small class="wrongly ms-3">{{ count(tune.outside, 'note') }} not on the instrument</small>
            }
          </li>
        }
      </ul>
      @if (toCheck().length > shown.toCheck) {
        <p class="second">and {{ count(toCheck().length - shown.toCheck, 'more tune') }}; the list below marks them.</p>
      }
    }
    @for (refused of result().refused.slice(0, shown.refused); track $index) {
      <zp-abc-faults [title]="refused.title" [faults]="refused.faults" [abc]="refused.abc" [firstLine]="refused.firstLine" />
    }
    @if (result().refused.length > shown.refused) {
      <p class="fault-text">{{ count(result().refused.length - shown.refused, 'more tune') }} could not be saved.</p>
    }
  `,
})
export class ImportResultComponent {
  protected readonly count = count;
  protected readonly shown = shown;
  readonly result = input.required<ImportResult>();
  protected readonly toCheck = computed(() => this.result().saved.filter(({ look, outside }) => look.length > 0 || outside > 0));
}
