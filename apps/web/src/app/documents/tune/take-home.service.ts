import { inject, Injectable } from '@angular/core';
import type { MusicItemInput } from '@zelpit/contract';
import { arrangedTune } from '@zelpit/core/arrange';
import { chunkOf } from '@zelpit/core/chunk';
import { excerptOf, hardestPair } from '@zelpit/core/excerpt';
import type { FormPart, Form } from '@zelpit/core/form';
import type { Tune } from '@zelpit/core/tune';
import { map, type Observable } from 'rxjs';
import { ArrangementsService } from './arrangements.service';
import type { OpenedTune } from './tunes.service';

/** Makes what a student takes home of a tune: all of it or a part, as this student plays it. */
@Injectable({ providedIn: 'root' })
export class TakeHome {
  private readonly arrangements = inject(ArrangementsService);

  /** @param tempo beats a minute */
  itemOf(opened: OpenedTune, student: string, tempo: number, form: Form, part?: FormPart): Observable<Omit<MusicItemInput, 'id'>> {
    return this.arrangements.get(opened.detail.id, student).pipe(
      map(({ arrangement }) => {
        const played = arrangedTune(opened.instrument, opened.tune, arrangement);
        const music = part === undefined ? played : partOf(opened, played, form, part);
        const [home, other] = hardestPair(opened.instrument, music);
        return {
          ...{ kind: part === undefined ? ('tune' as const) : ('part' as const), home, other, repetitions: part === undefined ? 1 : 2, tempo, point: '' },
          ...{ exercise: null, fingering: null, speeds: null },
          excerpt: excerptOf(opened.detail.title, part === undefined ? '' : `Part ${part.letter}`, music),
        };
      }),
    );
  }
}

/** A part with what leads into it. */
function partOf({ instrument, detail }: OpenedTune, played: Tune, { measures }: Form, { first, end }: FormPart): Tune {
  const found = chunkOf(instrument, played, { kind: 'bars', from: measures[first].number, to: measures[end - 1].number }, detail.chordNote);
  return found.kind === 'chunk' ? found.chunk.tune : played;
}
