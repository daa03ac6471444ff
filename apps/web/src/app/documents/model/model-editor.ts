import { inject, Injectable } from '@angular/core';
import type { OwnModel } from '@zelpit/contract';
import type { Instrument } from '@zelpit/core/fingering';
import { InstrumentShelf } from '../../studio/shelf/instrument-shelf.service';
import { KeptDocument } from '../../kernel/saving/kept-document';
import { modelKind, type ModelDraft } from './model-kind';

/** A model of the studio under the hand. Belongs to a page. */
@Injectable()
export class ModelEditor extends KeptDocument<ModelDraft, OwnModel> {
  protected readonly kind = modelKind(inject(InstrumentShelf));

  /** Changes some of it; edits of one field that follow each other are one step back. */
  change(change: (instrument: Instrument) => Partial<Instrument>, text: string, field = ''): void {
    this.edit(({ instrument }) => ({ instrument: { ...instrument, ...change(instrument) } }), text, field);
  }
}
