import { codeSchema, routes, type SheetDetail } from '@zelpit/contract';
import { linesAsAbc } from '@zelpit/core';
import { said, idOf, type Endpoints, type Visitor } from '../http/endpoints';
import { fileNameOf } from '../http/file-name';
import { HttpProblem, notFound } from '../http/problem';
import { assertSaved } from '../http/save-outcome';
import type { ModelRepository } from '../instruments/model.repository';
import { serveAwayAndBack } from '../put-away/away-and-back';
import type { StudentRepository } from '../students/student.repository';
import type { TuneRepository } from '../tunes/tune.repository';
import { assertPlayable } from './playable';
import type { SheetRepository, SheetScope } from './sheet.repository';

const scopeOf = ({ studioId, studentId }: Visitor): SheetScope => ({ studioId, studentId });

export function sheetRoutes(endpoints: Endpoints, sheets: SheetRepository, students: StudentRepository, tunes: TuneRepository, models: ModelRepository): void {
  const sheetOr404 = async (scope: SheetScope, id: string): Promise<SheetDetail> => {
    const sheet = await sheets.get(scope, id);
    if (sheet === undefined) throw notFound('sheet');
    return sheet;
  };

  endpoints.serve(routes.sheets, async ({ visitor, query }) => said(200, await sheets.list(scopeOf(visitor), query)));

  endpoints.serve(routes.addSheet, async ({ visitor: { studioId }, body }) => {
    if (!(await students.has(studioId, body.studentId))) throw notFound('student');
    if (body.tuneId !== null && !(await tunes.has(studioId, body.tuneId))) throw notFound('tune');
    assertPlayable(await models.known(studioId, body.instrument), body.lines);
    const id = await sheets.add(studioId, body);
    return said(201, await sheetOr404({ studioId }, id), { deed: { did: 'added', kind: 'sheet', id, name: body.title } });
  });

  endpoints.serve(routes.sheet, async ({ request, visitor }) => said(200, await sheetOr404(scopeOf(visitor), idOf(request, 'sheet'))));

  endpoints.serve(routes.saveSheet, async ({ request, visitor: { studioId }, body }) => {
    const id = idOf(request, 'sheet');
    const instrument = await sheets.instrumentOf(studioId, id);
    if (instrument === undefined) throw notFound('sheet');
    assertPlayable(await models.known(studioId, instrument), body.lines);
    assertSaved(await sheets.save(studioId, id, body), 'sheet');
    return said(200, await sheetOr404({ studioId }, id), { deed: { did: 'changed', kind: 'sheet', id, name: body.title } });
  });

  endpoints.serve(routes.linesOfSheet, async ({ request, visitor }) => {
    const sheet = await sheetOr404(scopeOf(visitor), idOf(request, 'sheet'));
    const name = `${fileNameOf(sheet.title, 'lines')}.abc`;
    return said(200, linesAsAbc(await models.known(visitor.studioId, sheet.instrument), sheet.title, sheet.lines), { fileName: name });
  });

  serveAwayAndBack(endpoints, sheets, { away: routes.putSheetAway, back: routes.bringSheetBack, kind: 'sheet', thing: 'sheet' });

  endpoints.serve(routes.lineByCode, async ({ request, visitor }) => {
    const code = codeSchema.safeParse(request.params['code']);
    const line = code.success ? await sheets.lineByCode(scopeOf(visitor), code.data) : undefined;
    if (line === undefined)
      throw new HttpProblem(404, 'No such line', 'No line of this studio has that code. Codes have four letters or figures, as printed beside the line.');
    return said(200, line);
  });
}
