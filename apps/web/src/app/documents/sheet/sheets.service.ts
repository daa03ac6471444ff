import { inject, Injectable } from '@angular/core';
import {
  openedLineSchema,
  sheetDetailSchema,
  sheetSummarySchema,
  type OpenedLine,
  type SheetCreate,
  type SheetDetail,
  type SheetSave,
  type SheetSummary,
} from '@zelpit/contract';
import type { Observable } from 'rxjs';
import { ApiService, type Sending } from '../../kernel/api/api.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';

/** The studio's practice sheets. */
@Injectable({ providedIn: 'root' })
export class SheetsService {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);

  list(): Observable<SheetSummary[]> {
    return this.api.all('/api/sheets', sheetSummarySchema);
  }

  get(id: string): Observable<SheetDetail> {
    return this.api.get(`/api/sheets/${id}`, sheetDetailSchema);
  }

  add(sheet: SheetCreate): Observable<SheetDetail> {
    return this.outgoing.make({ path: '/api/sheets', body: sheet, schema: sheetDetailSchema, said: `the sheet “${sheet.title}”` });
  }

  save(id: string, sheet: SheetSave, sending?: Sending): Observable<SheetDetail> {
    return this.api.put(`/api/sheets/${id}`, sheet, sheetDetailSchema, sending);
  }

  putAway(id: string): Observable<void> {
    return this.api.send('DELETE', `/api/sheets/${id}`);
  }

  bringBack(id: string): Observable<void> {
    return this.api.send('POST', `/api/sheets/${id}/restore`);
  }

  lineByCode(code: string): Observable<OpenedLine> {
    return this.api.get(`/api/lines/${encodeURIComponent(code)}`, openedLineSchema);
  }

  abcOf(id: string): Observable<string> {
    return this.api.text(`/api/sheets/${id}/lines.abc`);
  }
}
