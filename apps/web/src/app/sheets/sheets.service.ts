import { inject, Injectable } from '@angular/core';
import {
  openedLineSchema,
  sheetDetailSchema,
  sheetSummarySchema,
  type OpenedLine,
  type SheetCreate,
  type SheetDetail,
  type SheetLine,
  type SheetLineInput,
  type SheetSave,
  type SheetSummary,
} from '@zelpit/contract';
import type { Observable } from 'rxjs';
import * as z from 'zod';
import { ApiService } from '../api/api.service';

/** The studio's practice sheets. */
@Injectable({ providedIn: 'root' })
export class SheetsService {
  private readonly api = inject(ApiService);

  list(): Observable<SheetSummary[]> {
    return this.api.get('/api/sheets', z.array(sheetSummarySchema));
  }

  get(id: string): Observable<SheetDetail> {
    return this.api.get(`/api/sheets/${id}`, sheetDetailSchema);
  }

  add(sheet: SheetCreate): Observable<SheetDetail> {
    return this.api.post('/api/sheets', sheet, sheetDetailSchema);
  }

  save(id: string, sheet: SheetSave): Observable<SheetDetail> {
    return this.api.put(`/api/sheets/${id}`, sheet, sheetDetailSchema);
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

/** A line as it is sent back: without its code, which the server keeps. */
export function lineInput({ id, home, other, repetitions, tempo, point }: SheetLine): SheetLineInput {
  return { id, home, other, repetitions, tempo, point };
}
