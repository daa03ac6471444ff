import { longestBook, tuneInputSchema, tuneMoveSchema, type ImportResult, type RefusedTune, type TuneSave } from '@zelpit/contract';
import { instrumentById, readBook, type BookReading, type Instrument, type ReadEntry } from '@zelpit/core';
import express, { Router } from 'express';
import { studioOf } from '../accounts/session';
import { HttpProblem, notFound } from '../http/problem';
import { idOf } from '../http/id-of';
import { moveAbc, parseAbc } from './abc-parser';
import { decodeText } from './decode-text';
import type { TuneRepository } from './tune.repository';

/** Tunes read before the server turns to other requests. */
const readAtOnce = 20;

const nextTurn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Reads a book without keeping other requests waiting. */
async function readGently(instrument: Instrument, text: string): Promise<BookReading[]> {
  const readings: BookReading[] = [];
  for (const reading of readBook(instrument, text, parseAbc)) {
    readings.push(reading);
    if (readings.length % readAtOnce === 0) await nextTurn();
  }
  return readings;
}

export function tuneRoutes(tunes: TuneRepository): Router {
  const router = Router();
  const instrument = instrumentById('practice-chanter');

  router.get('/tunes', async (request, response) => {
    response.json(await tunes.list(studioOf(request)));
  });

  router.get('/tunes/:id', async (request, response) => {
    const tune = await tunes.get(studioOf(request), idOf(request, 'tune'));
    if (tune === undefined) throw notFound('tune');
    response.json(tune);
  });

  router.post('/tunes/import', express.raw({ type: () => true, limit: longestBook }), async (request, response) => {
    const text = Buffer.isBuffer(request.body) ? decodeText(request.body) : '';
    const readings = await readGently(instrument, text);
    const good: ReadEntry[] = [];
    const refused: RefusedTune[] = [];
    for (const reading of readings) {
      if (reading.kind === 'read') good.push(reading.entry);
      else refused.push({ ...reading.entry, faults: [...reading.entry.faults] });
    }
    const saved = await tunes.addAll(studioOf(request), instrument.id, good);
    const body: ImportResult = { saved, refused };
    response.status(saved.length > 0 ? 201 : 200).json(body);
  });

  const save = async (studioId: string, id: string, abc: string): Promise<TuneSave> => {
    const readings = await readGently(instrument, abc);
    const [reading] = readings;
    if (readings.length !== 1)
      throw new HttpProblem(422, 'Not one tune', `This text holds ${readings.length} tunes; here one is kept. Bring the others in from the list of tunes.`);
    if (reading.kind === 'refused') return { kind: 'refused', faults: [...reading.entry.faults] };
    if (!(await tunes.replace(studioId, id, reading.entry))) throw notFound('tune');
    const tune = await tunes.get(studioId, id);
    if (tune === undefined) throw notFound('tune');
    return { kind: 'saved', tune };
  };

  router.put('/tunes/:id', async (request, response) => {
    const { abc } = tuneInputSchema.parse(request.body);
    response.json(await save(studioOf(request), idOf(request, 'tune'), abc));
  });

  router.post('/tunes/:id/move', async (request, response) => {
    const { semitones } = tuneMoveSchema.parse(request.body);
    const id = idOf(request, 'tune');
    const tune = await tunes.get(studioOf(request), id);
    if (tune === undefined) throw notFound('tune');
    response.json(await save(studioOf(request), id, moveAbc(tune.abc, semitones)));
  });

  router.delete('/tunes/:id', async (request, response) => {
    if (!(await tunes.remove(studioOf(request), idOf(request, 'tune')))) throw notFound('tune');
    response.status(204).end();
  });

  router.post('/tunes/:id/restore', async (request, response) => {
    if (!(await tunes.restore(studioOf(request), idOf(request, 'tune')))) throw notFound('tune');
    response.status(204).end();
  });

  return router;
}
