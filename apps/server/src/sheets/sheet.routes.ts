import { codeSchema, hasMusic, sheetRoutes, type SheetDetail } from '@zelpit/contract';
import { linesAsAbc } from '@zelpit/core';
import { respond, idOf, type Endpoints, type Visitor } from '../http/endpoints';
import { fileNameOf } from '../http/file-name';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import { ModelRepository } from '../models/model.repository';
import { serveAwayAndBack } from '../put-away/away-and-back';
import { StudentRepository } from '../students/student.repository';
import { TuneRepository } from '../tunes/tune.repository';
import { assertPlayable } from './playable';
import { SheetRepository, type SheetScope } from './sheet.repository';
import type { ThingParts } from '../things/thing';

const scopeOf = ({ studioId, studentId }: Visitor): SheetScope => ({ studioId, studentId });

export function serveSheets(endpoints: Endpoints, { database }: ThingParts): void {
  const [sheets, students] = [new SheetRepository(database), new StudentRepository(database)];
  const [tunes, models] = [new TuneRepository(database), new ModelRepository(database)];

  const sheetOr404 = async (scope: SheetScope, id: string): Promise<SheetDetail> => {
    const sheet = await sheets.get(scope, id);
    if (sheet === undefined) throw notFound('sheet');
    return sheet;
  };

  endpoints.serve(sheetRoutes.sheets, async ({ visitor, query }) => respond(200, await sheets.list(scopeOf(visitor), query)));

  endpoints.serve(sheetRoutes.addSheet, async ({ visitor: { studioId }, body }) => {
    if (!(await students.has(studioId, body.studentId))) throw notFound('student');
    if (body.tuneId !== null && !(await tunes.has(studioId, body.tuneId))) throw notFound('tune');
    assertPlayable(await models.known(studioId, body.instrument), body.lines);
    const id = await sheets.add(studioId, body);
    return respond(201, await sheetOr404({ studioId }, id), { audit: { did: 'added', kind: 'sheet', id, name: body.title } });
  });

  endpoints.serve(sheetRoutes.sheet, async ({ request, visitor }) => respond(200, await sheetOr404(scopeOf(visitor), idOf(request, 'sheet'))));

  endpoints.serve(sheetRoutes.saveSheet, async ({ request, visitor: { studioId }, body }) => {
    const id = idOf(request, 'sheet');
    const kind = await sheets.kindOf(studioId, id);
    if (kind === undefined) throw notFound('sheet');
    if (body.review !== undefined && !kind.isReview)
      throw new HttpProblem('not-possible', 'This is a sheet and no review. Begin a review for the student instead.');
    assertPlayable(await models.known(studioId, kind.instrument), body.lines);
    assertSaved(await sheets.save(studioId, id, body), 'sheet');
    return respond(200, await sheetOr404({ studioId }, id), { audit: { did: 'changed', kind: 'sheet', id, name: body.title } });
  });

  endpoints.serve(sheetRoutes.linesOfSheet, async ({ request, visitor }) => {
    const sheet = await sheetOr404(scopeOf(visitor), idOf(request, 'sheet'));
    const name = `${fileNameOf(sheet.title, 'lines')}.abc`;
    return respond(200, linesAsAbc(await models.known(visitor.studioId, sheet.instrument), sheet.title, sheet.lines.filter(hasMusic)), { fileName: name });
  });

  serveAwayAndBack(endpoints, sheets, { away: sheetRoutes.putSheetAway, back: sheetRoutes.bringSheetBack, kind: 'sheet', thing: 'sheet' });

  endpoints.serve(sheetRoutes.lineByCode, async ({ request, visitor }) => {
    const code = codeSchema.safeParse(request.params['code']);
    const line = code.success ? await sheets.lineByCode(scopeOf(visitor), code.data) : undefined;
    if (line === undefined)
      throw new HttpProblem('not-found', 'No line in this studio has that code. Codes have four letters or digits, as printed beside the line.');
    return respond(200, line);
  });
}
