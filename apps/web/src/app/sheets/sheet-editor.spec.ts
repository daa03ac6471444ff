import { TestBed } from '@angular/core/testing';
import type { SheetDetail, SheetSave } from '@zelpit/contract';
import { of, Subject, throwError, type Observable } from 'rxjs';
import { ApiFault } from '../api/api.service';
import { SheetEditor } from './sheet-editor';
import { SheetsService } from './sheets.service';

const line = (home: string, other: string, code: string) => ({ id: `id-${code}`, code, home, other, repetitions: 8, tempo: null, point: '' });
const stored = (change: Partial<SheetDetail> = {}): SheetDetail => ({
  id: 'sheet-1',
  title: 'Week 1',
  student: { id: 's', alias: 'Pim' },
  tune: null,
  instrument: 'practice-chanter',
  lineCount: 2,
  updatedAt: '2026-03-09T14:02:00Z',
  note: '',
  version: 1,
  lines: [line('c', 'e', 'AAAA'), line('low-a', 'c', 'BBBB')],
  ...change,
});

/** Answers saves one by one, as the test lets it. */
class FakeSheets {
  readonly saves: SheetSave[] = [];
  answer: (save: SheetSave) => Observable<SheetDetail> = (save) =>
    of(
      stored({
        title: save.title,
        note: save.note,
        version: save.version + 1,
        lines: save.lines.map((each, index) => ({ ...each, id: each.id ?? `new-${index}`, code: each.id === undefined ? 'NEWC' : each.id.slice(3) })),
      }),
    );
  get = (): Observable<SheetDetail> => of(stored());
  save = (_: string, save: SheetSave): Observable<SheetDetail> => {
    this.saves.push(save);
    return this.answer(save);
  };
}

function opened(): { editor: SheetEditor; sheets: FakeSheets } {
  const sheets = new FakeSheets();
  TestBed.configureTestingModule({ providers: [SheetEditor, { provide: SheetsService, useValue: sheets }] });
  const editor = TestBed.inject(SheetEditor);
  editor.open('sheet-1');
  return { editor, sheets };
}

describe('SheetEditor', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  it('gathers quick edits into one save and says when it was', () => {
    const { editor, sheets } = opened();
    editor.edit((draft) => ({ ...draft, title: 'Week' }));
    editor.edit((draft) => ({ ...draft, title: 'Week 2' }));
    expect(editor.stateSaid()).toBe('Saving …');
    expect(sheets.saves).toHaveLength(0);
    jest.advanceTimersByTime(600);
    expect(sheets.saves.map((save) => save.title)).toEqual(['Week 2']);
    expect(editor.stateSaid()).toMatch(/^Saved \d\d:\d\d$/);
  });

  it('moves lines, keeps their ids, and ignores moves that lead off the sheet', () => {
    const { editor, sheets } = opened();
    editor.move(0, 1);
    editor.move(0, -1);
    editor.move(1, 2);
    jest.advanceTimersByTime(600);
    expect(sheets.saves[0].lines.map((each) => each.id)).toEqual(['id-BBBB', 'id-AAAA']);
  });

  it('learns ids and codes of new lines, so that the next save does not add them again', () => {
    const { editor, sheets } = opened();
    editor.edit((draft) => ({ ...draft, lines: [editor.newLine({ home: 'b', other: 'e', repetitions: 4, tempo: 60, point: '' }), ...draft.lines] }));
    jest.advanceTimersByTime(600);
    expect(editor.draft().lines[0].code).toBe('NEWC');
    editor.edit((draft) => ({ ...draft, title: 'Later' }));
    jest.advanceTimersByTime(600);
    expect(sheets.saves[1].lines.map((each) => each.id)).toEqual(['new-0', 'id-AAAA', 'id-BBBB']);
    expect(sheets.saves[1].version).toBe(2);
  });

  it('keeps what is typed while a save is under way, and sends it afterwards', () => {
    const { editor, sheets } = opened();
    const underway = new Subject<SheetDetail>();
    sheets.answer = () => underway;
    editor.edit((draft) => ({ ...draft, title: 'One' }));
    jest.advanceTimersByTime(600);
    editor.edit((draft) => ({ ...draft, title: 'Two' }));
    jest.advanceTimersByTime(600);
    expect(sheets.saves).toHaveLength(1);
    sheets.answer = (save) => of(stored({ title: save.title, version: save.version + 1 }));
    underway.next(stored({ title: 'One', version: 2 }));
    expect(sheets.saves.map((save) => [save.title, save.version])).toEqual([
      ['One', 1],
      ['Two', 2],
    ]);
    expect(editor.draft().title).toBe('Two');
    expect(editor.state()).toBe('saved');
  });

  it('waits for a server that is away and sends again by itself', () => {
    const { editor, sheets } = opened();
    const good = sheets.answer;
    sheets.answer = () => throwError(() => new ApiFault(0, 'The server does not answer.'));
    editor.edit((draft) => ({ ...draft, title: 'Typed offline' }));
    jest.advanceTimersByTime(600);
    expect(editor.state()).toBe('waiting');
    sheets.answer = good;
    jest.advanceTimersByTime(5000);
    expect(editor.state()).toBe('saved');
    expect(sheets.saves.at(-1)?.title).toBe('Typed offline');
  });

  it('asks whose version is right after a change elsewhere, and sends nothing until then', () => {
    const { editor, sheets } = opened();
    const good = sheets.answer;
    sheets.answer = () => throwError(() => new ApiFault(409, 'Changed elsewhere.'));
    editor.edit((draft) => ({ ...draft, title: 'Mine' }));
    jest.advanceTimersByTime(600);
    expect(editor.state()).toBe('conflict');
    editor.edit((draft) => ({ ...draft, title: 'Mine still' }));
    jest.advanceTimersByTime(5000);
    expect(sheets.saves).toHaveLength(1);
    sheets.get = () => of(stored({ title: 'Theirs', version: 7 }));
    sheets.answer = good;
    editor.keepMine();
    expect(sheets.saves.at(-1)).toMatchObject({ title: 'Mine still', version: 7 });
    expect(editor.state()).toBe('saved');
  });

  it('takes the other version when told to', () => {
    const { editor, sheets } = opened();
    sheets.answer = () => throwError(() => new ApiFault(409, 'Changed elsewhere.'));
    editor.edit((draft) => ({ ...draft, title: 'Mine' }));
    jest.advanceTimersByTime(600);
    sheets.get = () => of(stored({ title: 'Theirs', version: 7 }));
    editor.takeTheirs();
    expect(editor.draft().title).toBe('Theirs');
    expect(editor.state()).toBe('saved');
  });

  it('says what the server does not take, and keeps it', () => {
    const { editor, sheets } = opened();
    sheets.answer = () => throwError(() => new ApiFault(400, 'A title is missing.'));
    editor.edit((draft) => ({ ...draft, title: '' }));
    jest.advanceTimersByTime(600);
    expect(editor.state()).toBe('refused');
    expect(editor.said()).toBe('A title is missing.');
    expect(editor.draft().title).toBe('');
  });

  it('sends what is left when the page is left', () => {
    const { editor, sheets } = opened();
    editor.edit((draft) => ({ ...draft, title: 'Last word' }));
    editor.ngOnDestroy();
    expect(sheets.saves.map((save) => save.title)).toEqual(['Last word']);
  });
});
