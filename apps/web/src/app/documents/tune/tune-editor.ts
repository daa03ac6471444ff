import { inject, Injectable } from '@angular/core';
import type { TuneDetail } from '@zelpit/contract';
import { Engraver } from '../../music/score/engraver.service';
import { KeptDocument } from '../../kernel/saving/kept-document';
import { tuneKind, type TuneDraft } from './tune-kind';
import { TunesService } from './tunes.service';

/** The text of one tune under the hand. Belongs to a page. */
@Injectable()
export class TuneEditor extends KeptDocument<TuneDraft, TuneDetail> {
  private readonly engraver = inject(Engraver);
  protected readonly kind = tuneKind(inject(TunesService));

  /** The text in another key. Nothing happens where no text is open; rejects where it cannot be written so. */
  async moveKey(semitones: number): Promise<void> {
    const abc = this.draft()?.abc;
    if (abc !== undefined) this.setText(await this.engraver.moved(abc, semitones), 'the key');
  }

  setText(abc: string, text = 'the text', field = ''): void {
    this.edit((draft) => ({ ...draft, abc }), text, field);
  }

  /** Reads the tune for another instrument. */
  setInstrument(instrument: string): void {
    this.edit((draft) => ({ ...draft, instrument }), 'the instrument');
  }

  /** Reads another of its voices. */
  setVoice(voice: string): void {
    this.edit((draft) => ({ ...draft, voice }), 'the voice');
  }

  /** Plays another note of its chords. */
  setChordNote(chordNote: TuneDraft['chordNote']): void {
    this.edit((draft) => ({ ...draft, chordNote }), 'the note of its chords');
  }
}
