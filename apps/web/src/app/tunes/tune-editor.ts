import { inject, Injectable } from '@angular/core';
import type { TuneDetail } from '@zelpit/contract';
import { KeptDocument } from '../saving/kept-document';
import { tuneKind, type TuneDraft } from './tune-kind';
import { TunesService } from './tunes.service';

/** The text of one tune under the hand. Belongs to a page. */
@Injectable()
export class TuneEditor extends KeptDocument<TuneDraft, TuneDetail> {
  protected readonly kind = tuneKind(inject(TunesService));

  setText(abc: string, said = 'the text', field = ''): void {
    this.edit(() => ({ abc }), said, field);
  }
}
