import { inject, Injectable } from '@angular/core';
import { sheetRoutes, type OpenedLine, type SheetCreate, type SheetDetail, type SheetSave, type SheetSummary } from '@zelpit/contract';
import type { Observable } from 'rxjs';
import { ApiService, type Sending } from '../../kernel/api/api.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';

/** The studio's practice sheets. */
@Injectable({ providedIn: 'root' })
export class SheetsService {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);

  list(): Observable<SheetSummary[]> {
    return this.api.all(sheetRoutes.sheets, {});
  }

  get(id: string): Observable<SheetDetail> {
    return this.api.call(sheetRoutes.sheet, { id });
  }

  add(sheet: SheetCreate): Observable<SheetDetail> {
    return this.outgoing.make(sheetRoutes.addSheet, { body: sheet }, `the sheet “${sheet.title}”`);
  }

  save(id: string, sheet: SheetSave, sending?: Sending): Observable<SheetDetail> {
    return this.api.call(sheetRoutes.saveSheet, { id, body: sheet }, sending);
  }

  putAway(id: string): Observable<undefined> {
    return this.api.call(sheetRoutes.putSheetAway, { id });
  }

  bringBack(id: string): Observable<undefined> {
    return this.api.call(sheetRoutes.bringSheetBack, { id });
  }

  lineByCode(code: string): Observable<OpenedLine> {
    return this.api.call(sheetRoutes.lineByCode, { code });
  }

  abcOf(id: string): Observable<string> {
    return this.api.call(sheetRoutes.linesOfSheet, { id });
  }
}
