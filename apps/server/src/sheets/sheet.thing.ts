import { sheetRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { sheetArchive } from './sheet.archive';
import { SheetEntity, SheetLineEntity } from './sheet.entity';
import { serveSheets } from './sheet.routes';

export const sheetThing: Thing = {
  kind: 'sheet',
  routes: sheetRoutes,
  entities: [SheetEntity, SheetLineEntity],
  serve: serveSheets,
  // A line that was taken off keeps its code for as long as a thing that was put away.
  putAway: { table: 'sheet', name: 'title', isOfStudent: true, alsoClears: { table: 'sheet_line', since: 'removed_at' } },
  archive: sheetArchive,
};
