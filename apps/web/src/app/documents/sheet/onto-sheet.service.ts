import { inject, Injectable } from '@angular/core';
import { sheetLimits, sheetRoutes, type SheetDetail } from '@zelpit/contract';
import { map, switchMap, type Observable } from 'rxjs';
import { ApiService } from '../../kernel/api/api.service';
import { NoticeService } from '../../kernel/notices/notice.service';
import { lineInput } from './line-input';
import type { PlannedItem } from './planned-lines';
import { SheetsService } from './sheets.service';

/** For whom something goes onto a sheet, and from which tune or under which name. */
export interface OntoWhat {
  readonly student: { readonly id: string; readonly alias: string };
  /** Id of the model. */
  readonly instrument: string;
  /** Without an id where it comes from no tune. */
  readonly tune: { readonly id?: string; readonly title: string };
}

/** A sheet with what was put on it, and how that is taken off again. */
export interface PutOnSheet {
  readonly sheet: SheetDetail;
  readonly undo: () => Observable<unknown>;
}

/** Puts items on a student's sheet in one step: on the one that was changed last for this instrument, on a new one where there is none. */
@Injectable({ providedIn: 'root' })
export class OntoSheet {
  private readonly api = inject(ApiService);
  private readonly sheets = inject(SheetsService);
  private readonly notices = inject(NoticeService);

  put({ student, instrument, tune }: OntoWhat, items: readonly PlannedItem[]): Observable<PutOnSheet> {
    return this.api.call(sheetRoutes.sheets, { query: { student: student.id, limit: 50 } }).pipe(
      switchMap(({ items: found }) => {
        // What was sent does not change any more.
        const last = found.find((sheet) => sheet.sentAt === null && sheet.instrument === instrument && sheet.lineCount + items.length <= sheetLimits.lines);
        if (last !== undefined) return this.sheets.append(last.id, items).pipe(map((sheet) => this.onOld(sheet, items.length)));
        const title = `${tune.title} for ${student.alias}`.slice(0, sheetLimits.title);
        return this.sheets
          .add({ title, studentId: student.id, tuneId: tune.id ?? null, instrument, note: '', lines: [...items] })
          .pipe(map((sheet) => ({ sheet, undo: () => this.sheets.putAway(sheet.id) })));
      }),
    );
  }

  /**
   * The same, said with Undo.
   * @param isThere told when it stands there, and when it was taken off again
   */
  putSaying(what: OntoWhat, items: readonly PlannedItem[], isThere: (is: boolean) => void): void {
    const fault = (error: unknown): void => this.notices.fault(error);
    this.put(what, items).subscribe({
      next: ({ sheet, undo }) => {
        isThere(true);
        this.notices.done(`It is on ${what.student.alias}’s sheet “${sheet.title}”.`, () => undo().subscribe({ next: () => isThere(false), error: fault }));
      },
      error: fault,
    });
  }

  /** What was put there is the last of its items. */
  private onOld(sheet: SheetDetail, count: number): PutOnSheet {
    const added = new Set(sheet.lines.slice(-count).map(({ id }) => id));
    const undo = (): Observable<unknown> =>
      this.api
        .call(sheetRoutes.sheet, { id: sheet.id })
        .pipe(
          switchMap(({ id, title, note, version, lines }) =>
            this.sheets.save(id, { title, note, version, lines: lines.filter((line) => !added.has(line.id)).map(lineInput) }),
          ),
        );
    return { sheet, undo };
  }
}
