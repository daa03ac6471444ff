import { Component } from '@angular/core';
import { RouterLink } from '@angular/router';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';

@Component({
  selector: 'zp-not-here',
  imports: [RouterLink, SentenceComponent],
  template: `
    <div class="page">
      <zp-sentence><span>Page not found</span></zp-sentence>
      <main class="layer empty">
        <p>There is no page at this address. Part of it may be missing.</p>
        <a class="btn btn-solid" routerLink="/tunes">Go to the tunes</a>
      </main>
    </div>
  `,
})
export class NotHerePage {}
