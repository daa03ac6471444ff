import { Component } from '@angular/core';
import { RouterLink } from '@angular/router';
import { SentenceComponent } from '../../kernel/sentence/sentence.component';

@Component({
  selector: 'zp-not-here',
  imports: [RouterLink, SentenceComponent],
  template: `
    <div class="page">
      <zp-sentence><span>Nothing is here</span></zp-sentence>
      <main class="layer empty">
        <p>This address leads nowhere. It may have been copied in part.</p>
        <a class="btn btn-solid" routerLink="/tunes">To the tunes</a>
      </main>
    </div>
  `,
})
export class NotHerePage {}
