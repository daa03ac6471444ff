import { codeSchema, sheetCreateSchema, sheetSaveSchema, type SheetDetail, type SheetLineInput } from '@zelpit/contract';
import { instrumentById, linesAsAbc, noteOf } from '@zelpit/core';
import { Router } from 'express';
import { studioOf } from '../accounts/session';
import { idOf } from '../http/id-of';
import { HttpProblem, notFound } from '../http/problem';
import type { StudentRepository } from '../students/student.repository';
import type { TuneRepository } from '../tunes/tune.repository';
import type { SheetRepository } from './sheet.repository';

/** A line must be two different notes of its instrument. @throws ZelpitFault `unknown-note` */
function assertPlayable(instrumentId: string, lines: readonly SheetLineInput[]): void {
  const instrument = instrumentById(instrumentId);
  for (const { home, other } of lines) {
    const name = noteOf(instrument, home).schoolName;
    noteOf(instrument, other);
    if (home === other) throw new HttpProblem(422, 'Cannot be done', `A line goes between two notes; here both are ${name}.`);
  }
}

export function sheetRoutes(sheets: SheetRepository, students: StudentRepository, tunes: TuneRepository): Router {
  const router = Router();

  const sheetOr404 = async (studioId: string, id: string): Promise<SheetDetail> => {
    const sheet = await sheets.get(studioId, id);
    if (sheet === undefined) throw notFound('sheet');
    return sheet;
  };

  router.get('/sheets', async (request, response) => {
    response.json(await sheets.list(studioOf(request)));
  });

  router.post('/sheets', async (request, response) => {
    const studioId = studioOf(request);
    const input = sheetCreateSchema.parse(request.body);
    if (!(await students.has(studioId, input.studentId))) throw notFound('student');
    if (input.tuneId !== null && !(await tunes.has(studioId, input.tuneId))) throw notFound('tune');
    assertPlayable(input.instrument, input.lines);
    const id = await sheets.add(studioId, input);
    response.status(201).json(await sheetOr404(studioId, id));
  });

  router.get('/sheets/:id', async (request, response) => {
    response.json(await sheetOr404(studioOf(request), idOf(request, 'sheet')));
  });

  router.put('/sheets/:id', async (request, response) => {
    const studioId = studioOf(request);
    const id = idOf(request, 'sheet');
    const input = sheetSaveSchema.parse(request.body);
    assertPlayable((await sheetOr404(studioId, id)).instrument, input.lines);
    const outcome = await sheets.save(studioId, id, input);
    if (outcome === 'missing') throw notFound('sheet');
    if (outcome === 'stale')
      throw new HttpProblem(409, 'Changed elsewhere', 'This sheet was changed in another window after you opened it. Your version was not saved over it.');
    response.json(await sheetOr404(studioId, id));
  });

  router.get('/sheets/:id/lines.abc', async (request, response) => {
    const sheet = await sheetOr404(studioOf(request), idOf(request, 'sheet'));
    const abc = linesAsAbc(instrumentById(sheet.instrument), sheet.title, sheet.lines);
    response
      .type('text/vnd.abc; charset=utf-8')
      .attachment(`${sheet.title.replace(/[^\p{L}\p{N} -]+/gu, '').trim() || 'lines'}.abc`)
      .send(abc);
  });

  router.delete('/sheets/:id', async (request, response) => {
    if (!(await sheets.remove(studioOf(request), idOf(request, 'sheet')))) throw notFound('sheet');
    response.status(204).end();
  });

  router.post('/sheets/:id/restore', async (request, response) => {
    if (!(await sheets.restore(studioOf(request), idOf(request, 'sheet')))) throw notFound('sheet');
    response.status(204).end();
  });

  router.get('/lines/:code', async (request, response) => {
    const code = codeSchema.safeParse(request.params['code']);
    const line = code.success ? await sheets.lineByCode(studioOf(request), code.data) : undefined;
    if (line === undefined)
      throw new HttpProblem(404, 'No such line', 'No line of this studio has that code. Codes have four letters or figures, as printed beside the line.');
    response.json(line);
  });

  return router;
}
