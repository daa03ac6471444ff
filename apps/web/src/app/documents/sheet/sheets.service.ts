import { inject, Injectable } from '@angular/core';
import { sheetLimits, sheetRoutes, type OpenedLine, type SheetCreate, type SheetDetail, type SheetSave, type SheetSummary } from '@zelpit/contract';
import { forkJoin, of, switchMap, tap, throwError, type Observable } from 'rxjs';
import { ApiFault, ApiService, type Sending } from '../../kernel/api/api.service';
import { OutgoingService } from '../../kernel/saving/outgoing.service';
import { lineInput } from './line-input';
import type { PlannedItem } from './planned-lines';

/** The studio's practice sheets. */
@Injectable({ providedIn: 'root' })
export class SheetsService {
  private readonly api = inject(ApiService);
  private readonly outgoing = inject(OutgoingService);
  /** The sheet that was made or added to just now, as the server answered. */
  private answered: SheetDetail | undefined;

  list(): Observable<SheetSummary[]> {
    return this.api.all(sheetRoutes.sheets, {});
  }

  get(id: string): Observable<SheetDetail> {
    const answered = this.answered;
    this.answered = undefined;
    // The answer that made it is the newest there is: the page that opens it need not ask again.
    if (answered?.id === id) return of(answered);
    return this.api.call(sheetRoutes.sheet, { id });
  }

  add(sheet: SheetCreate): Observable<SheetDetail> {
    return this.outgoing.make(sheetRoutes.addSheet, { body: sheet }, `the sheet “${sheet.title}”`).pipe(tap((made) => (this.answered = made)));
  }

  /** Puts lines at the end of a sheet. Errors: `ApiFault` where it would hold more lines than a sheet can. */
  append(id: string, lines: readonly PlannedItem[]): Observable<SheetDetail> {
    return this.api.call(sheetRoutes.sheet, { id }).pipe(
      switchMap(({ title, note, version, lines: before }) => {
        const all = [...before.map(lineInput), ...lines];
        if (all.length > sheetLimits.lines)
          return throwError(
            () => new ApiFault(422, `A sheet holds at most ${sheetLimits.lines} lines; “${title}” would have ${all.length}. Start a new sheet.`),
          );
        return this.save(id, { title, note, version, lines: all });
      }),
      tap((saved) => (this.answered = saved)),
    );
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

  /** The sheets of a student that were changed last, whole. */
  ofStudent(student: string, most: number): Observable<SheetDetail[]> {
    return this.api
      .call(sheetRoutes.sheets, { query: { student, limit: most } })
      .pipe(switchMap(({ items }) => (items.length === 0 ? of([]) : forkJoin(items.map(({ id }) => this.api.call(sheetRoutes.sheet, { id }))))));
  }

  lineByCode(code: string): Observable<OpenedLine> {
    return this.api.call(sheetRoutes.lineByCode, { code });
  }

  abcOf(id: string): Observable<string> {
    return this.api.call(sheetRoutes.linesOfSheet, { id });
  }
}
