import { tuneRoutes, type TuneDetail } from '@zelpit/contract';
import { bookOf, noteOf } from '@zelpit/core';
import { respond, idOf, type Endpoints } from '../http/endpoints';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { serveAwayAndBack } from '../put-away/away-and-back';
import { ModelRepository } from '../models/model.repository';
import type { ThingParts } from '../things/thing';
import { auditOfTunes, writeReadings } from './bring-tunes';
import { TuneRepository } from './tune.repository';

export function serveTunes(endpoints: Endpoints, { database, readers }: ThingParts): void {
  const [tunes, models] = [new TuneRepository(database), new ModelRepository(database)];

  const tuneOr404 = async (studioId: string, id: string): Promise<TuneDetail> => {
    const tune = await tunes.get(studioId, id);
    if (tune === undefined) throw notFound('tune');
    return tune;
  };

  endpoints.serve(tuneRoutes.tunes, async ({ visitor, query }) => respond(200, await tunes.list(visitor.studioId, query)));

  endpoints.serve(tuneRoutes.openings, async ({ visitor, query }) => respond(200, await tunes.openings(visitor.studioId, query)));

  endpoints.serve(tuneRoutes.book, async ({ visitor, query }) => respond(200, { abc: bookOf(await tunes.texts(visitor.studioId, query.instrument)) }));

  endpoints.serve(tuneRoutes.tune, async ({ request, visitor }) => respond(200, await tuneOr404(visitor.studioId, idOf(request, 'tune'))));

  endpoints.servePrepared(
    tuneRoutes.bringTunes,
    async ({ request, visitor: { studioId }, query }) => {
      const instrument = await database.inStudio(studioId, () => models.known(studioId, query.instrument));
      return readers.read(studioId, instrument, Buffer.isBuffer(request.body) ? request.body : '');
    },
    async ({ visitor }, readings) => {
      const result = await writeReadings(tunes, visitor.studioId, readings);
      return result.saved.length === 0 ? respond(200, result) : respond(201, result, { audit: auditOfTunes(result) });
    },
  );

  endpoints.servePrepared(
    tuneRoutes.saveTune,
    async ({ request, visitor: { studioId }, body: { abc, instrument: moved, voice, chordNote } }) => {
      const id = idOf(request, 'tune');
      const { instrument, choice } = await database.inStudio(studioId, async () => {
        const tune = await tuneOr404(studioId, id);
        return {
          instrument: await models.known(studioId, moved ?? tune.instrument),
          choice: { voice: voice ?? tune.voice, chordNote: chordNote ?? tune.chordNote },
        };
      });
      // Whoever moved it to an instrument meant that one, whatever the key says.
      const readings = await readers.read(studioId, instrument, abc, { isMeant: true, choice });
      if (readings.length !== 1)
        throw new HttpProblem('not-one-tune', `This text has ${readings.length} tunes, but there is room for one here. Add the others from the list of tunes.`);
      return readings[0];
    },
    async ({ request, visitor: { studioId }, body: { version } }, reading) => {
      const id = idOf(request, 'tune');
      if (reading.kind === 'refused') {
        await tuneOr404(studioId, id);
        return respond(200, { kind: 'refused', faults: [...reading.entry.faults] });
      }
      assertSaved(await tunes.replace(studioId, id, version, reading.tune), 'tune');
      const tune = await tuneOr404(studioId, id);
      return respond(200, { kind: 'saved', tune }, { audit: { did: 'changed', kind: 'tune', id, name: tune.title } });
    },
  );

  endpoints.serve(tuneRoutes.saveTuneNotes, async ({ request, visitor: { studioId }, body: { notes, version } }) => {
    const id = idOf(request, 'tune');
    assertSaved(await tunes.setAbout(studioId, id, version, notes), 'tune');
    const tune = await tuneOr404(studioId, id);
    return respond(200, tune, { audit: { did: 'changed', kind: 'tune', id, name: tune.title } });
  });

  servePins(endpoints, { tunes, models, tuneOr404 });
  serveAwayAndBack(endpoints, tunes, { away: tuneRoutes.putTuneAway, back: tuneRoutes.bringTuneBack, kind: 'tune', thing: 'tune' });
}

interface PinParts {
  readonly tunes: TuneRepository;
  readonly models: ModelRepository;
  readonly tuneOr404: (studioId: string, id: string) => Promise<TuneDetail>;
}

function servePins(endpoints: Endpoints, { tunes, models, tuneOr404 }: PinParts): void {
  endpoints.serve(tuneRoutes.pinFingers, async ({ request, visitor: { studioId }, body: { pins, version } }) => {
    const id = idOf(request, 'tune');
    const { instrument: model, title } = await tuneOr404(studioId, id);
    const instrument = await models.known(studioId, model);
    const seen = new Set<string>();
    for (const { note, pattern } of pins) {
      const name = noteOf(instrument, note).schoolName;
      if (pattern.length !== instrument.holes.length)
        throw new HttpProblem(
          'not-possible',
          `The ${instrument.name} has ${instrument.holes.length} holes, but the fingering for ${name} has ${pattern.length}.`,
        );
      if (seen.has(note)) throw new HttpProblem('not-possible', `${name} has two fixed fingerings; it can have only one.`);
      seen.add(note);
    }
    assertSaved(await tunes.pin(studioId, id, version, pins), 'tune');
    return respond(200, await tuneOr404(studioId, id), { audit: { did: 'changed', kind: 'tune', id, name: title } });
  });
}
