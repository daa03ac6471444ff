import 'fake-indexeddb/auto';
import { TestBed } from '@angular/core/testing';
import type { SheetDetail, SheetSave } from '@zelpit/contract';
import { of, Subject, throwError, type Observable } from 'rxjs';
import { ApiFault } from '../../kernel/api/api.service';
import { documentName, whileClosed } from '../../kernel/saving/document-locks';
import { withFakeLocks } from '../../kernel/saving/fake-locks.spec-support';
import { SessionService } from '../../kernel/session/session.service';
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

const saved = ({ title, note, version, lines }: SheetSave): SheetDetail =>
  stored({ title, note, version: version + 1, lines: lines.map((each) => ({ ...each, id: each.id ?? '', code: 'CODE' })) });

/** Answers saves one by one, as the test lets it. */
class FakeSheets {
  readonly saves: SheetSave[] = [];
  readonly keys: (string | undefined)[] = [];
  now = stored();
  answer: (save: SheetSave) => Observable<SheetDetail> = (save) => of(saved(save));
  get = (): Observable<SheetDetail> => of(this.now);
  save = (_: string, save: SheetSave, sending?: { key?: string }): Observable<SheetDetail> => {
    this.saves.push(save);
    this.keys.push(sending?.key);
    return this.answer(save);
  };
}

const away = (): Observable<never> => throwError(() => new ApiFault(0, 'The server is not answering.'));
/** Lets so much time pass, with all that waits in it. */
const wait = (ms: number): Promise<void> => jest.advanceTimersByTimeAsync(ms);
const settled = 700;
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

let person = 0;
/** Each test has a person of its own, so that nothing is kept from the one before. */
async function opened(sheets = new FakeSheets(), id = `maren-${(person += 1)}`): Promise<{ editor: SheetEditor; sheets: FakeSheets; id: string }> {
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [SheetEditor, { provide: SheetsService, useValue: sheets }, { provide: SessionService, useValue: { workOwner: () => id } }],
  });
  const editor = TestBed.inject(SheetEditor);
  let isOpen = false;
  void editor.open('sheet-1').then(() => (isOpen = true));
  while (!isOpen) await wait(20);
  return { editor, sheets, id };
}

describe('SheetEditor', () => {
  it('gathers quick edits into one save and says when it was', async () => {
    const { editor, sheets } = await opened();
    editor.setTitle('Week');
    editor.setTitle('Week 2');
    expect(editor.stateLabel()).toBe('Saving …');
    expect(sheets.saves).toHaveLength(0);
    await wait(settled);
    expect(sheets.saves.map((save) => save.title)).toEqual(['Week 2']);
    expect(editor.stateLabel()).toMatch(/^Saved \d\d:\d\d$/);
  });

  it('moves lines, keeps their ids, and ignores moves that lead off the sheet', async () => {
    const { editor, sheets } = await opened();
    editor.move(0, 1);
    editor.move(0, -1);
    editor.move(1, 2);
    await wait(settled);
    expect(sheets.saves[0].lines.map((each) => each.id)).toEqual(['id-BBBB', 'id-AAAA']);
  });

  it('gives a new line an id of its own, by which the server and a later save know it', async () => {
    const { editor, sheets } = await opened();
    const [added] = editor.addAll([{ home: 'b', other: 'e', repetitions: 4, tempo: 60, point: '' }]);
    expect(editor.codeOf(added)).toBe('');
    await wait(settled);
    expect(editor.codeOf(added)).toBe('CODE');
    editor.setTitle('Later');
    await wait(settled);
    expect(sheets.saves[1].lines.at(-1)?.id).toBe(added.id);
    expect(sheets.saves[1].version).toBe(2);
  });

  it('keeps what is typed while a save is under way, and sends it afterwards', async () => {
    const { editor, sheets } = await opened();
    const underway = new Subject<SheetDetail>();
    sheets.answer = () => underway;
    editor.setTitle('One');
    await wait(settled);
    editor.setTitle('Two');
    await wait(settled);
    expect(sheets.saves).toHaveLength(1);
    sheets.answer = (save) => of(saved(save));
    underway.next(saved(sheets.saves[0]));
    expect(sheets.saves.map((save) => [save.title, save.version])).toEqual([
      ['One', 1],
      ['Two', 2],
    ]);
    expect(editor.state()).toBe('saved');
  });

  it('sends an unanswered save again under the same key, and what was typed since under another', async () => {
    const { editor, sheets } = await opened();
    sheets.answer = away;
    editor.setTitle('One');
    await wait(settled);
    expect(editor.state()).toBe('away');
    editor.setTitle('Two');
    sheets.answer = (save) => of(saved(save));
    window.dispatchEvent(new Event('online'));
    await wait(settled);
    expect(sheets.saves.map(({ title }) => title)).toEqual(['One', 'One', 'Two']);
    expect(sheets.keys[1]).toBe(sheets.keys[0]);
    expect(sheets.keys[2]).not.toBe(sheets.keys[0]);
    expect(editor.state()).toBe('saved');
  });

  it('undoes and redoes, also after a reload', async () => {
    const first = await opened();
    first.editor.setTitle('Week 2');
    first.editor.takeOff('id-AAAA');
    await wait(settled);
    first.sheets.now = saved(first.sheets.saves[0]);
    const { editor, sheets } = await opened(first.sheets, first.id);
    expect(editor.undoes()).toBe('a line taken off');
    editor.undo();
    expect(editor.shown().lines.map(({ id }) => id)).toEqual(['id-AAAA', 'id-BBBB']);
    editor.undo();
    expect(editor.shown().title).toBe('Week 1');
    editor.redo();
    await wait(settled);
    expect(sheets.saves.at(-1)).toMatchObject({ title: 'Week 2', version: 2 });
  });

  it('keeps what could not be sent over a reload, shows it without the server, and sends it once', async () => {
    const first = await opened();
    first.sheets.answer = away;
    first.editor.setTitle('Typed on the train');
    await wait(settled);
    first.sheets.get = away;
    const { editor, sheets } = await opened(first.sheets, first.id);
    expect([editor.shown().title, editor.state()]).toEqual(['Typed on the train', 'away']);
    sheets.answer = (save) => of(saved(save));
    window.dispatchEvent(new Event('online'));
    await wait(settled);
    expect(editor.state()).toBe('saved');
    expect(new Set(sheets.keys).size).toBe(1);
  });

  it('shows both versions after a change elsewhere, and sends nothing until one is chosen', async () => {
    const { editor, sheets } = await opened();
    sheets.answer = () => throwError(() => new ApiFault(409, 'Changed somewhere else.', 'changed-elsewhere'));
    sheets.now = stored({ title: 'Theirs', version: 7 });
    editor.setTitle('Mine');
    await wait(settled);
    expect(editor.state()).toBe('conflict');
    expect(editor.conflict()).toMatchObject({ base: { title: 'Week 1' }, mine: { title: 'Mine' }, theirs: { title: 'Theirs' } });
    await wait(settled);
    expect(sheets.saves).toHaveLength(1);
    sheets.answer = (save) => of(saved(save));
    editor.resolve({ ...editor.shown(), title: 'Mine and theirs' });
    await wait(settled);
    expect(sheets.saves.at(-1)).toMatchObject({ title: 'Mine and theirs', version: 7 });
    expect(editor.state()).toBe('saved');
  });

  it('saves nothing where the other version is taken as it is', async () => {
    const { editor, sheets } = await opened();
    sheets.answer = () => throwError(() => new ApiFault(409, 'Changed somewhere else.', 'changed-elsewhere'));
    sheets.now = stored({ title: 'Theirs', version: 7 });
    editor.setTitle('Mine');
    await wait(settled);
    editor.resolve((editor.conflict() as { theirs: ReturnType<SheetEditor['shown']> }).theirs);
    await wait(settled);
    expect(sheets.saves).toHaveLength(1);
    expect([editor.shown().title, editor.state()]).toEqual(['Theirs', 'saved']);
  });

  it('says what the server does not take, and keeps it', async () => {
    const { editor, sheets } = await opened();
    sheets.answer = () => throwError(() => new ApiFault(400, 'Enter a title.'));
    editor.setTitle('');
    await wait(settled);
    expect([editor.state(), editor.message(), editor.shown().title]).toEqual(['refused', 'Enter a title.', '']);
  });

  it('keeps the work of somebody whose session has ended, and shows it to nobody else', async () => {
    const first = await opened();
    first.sheets.answer = () => throwError(() => new ApiFault(401, 'Nobody is signed in.'));
    first.editor.setTitle('Before the session ended');
    await wait(settled);
    expect(first.editor.state()).toBe('signed-out');
    expect((await opened(first.sheets)).editor.shown().title).toBe('Week 1');
    first.sheets.answer = (save) => of(saved(save));
    const { editor } = await opened(first.sheets, first.id);
    await wait(settled);
    expect([editor.shown().title, editor.state()]).toEqual(['Before the session ended', 'saved']);
  });

  it('sends what is left when the page is left', async () => {
    const { editor, sheets } = await opened();
    editor.setTitle('Last word');
    editor.ngOnDestroy();
    expect(sheets.saves.map((save) => save.title)).toEqual(['Last word']);
  });

  it.each([
    ['was changed elsewhere', 409, () => of(stored({ title: 'Theirs', version: 7 }))],
    ['was changed elsewhere, and that cannot be looked at', 409, () => away()],
    ['cannot be reached', 0, () => of(stored())],
    ['is not taken as it is', 400, () => of(stored())],
  ])('lets go of a sheet that %s once its page is left', async (_, status, look) => {
    const takeAway = withFakeLocks();
    const { editor, sheets, id } = await opened();
    const isFree = async (): Promise<boolean> => (await whileClosed(documentName(id, 'sheet', 'sheet-1'), () => Promise.resolve(true))) === true;
    expect(await isFree()).toBe(false);
    sheets.answer = () => throwError(() => new ApiFault(status, 'No.', status === 409 ? 'changed-elsewhere' : undefined));
    sheets.get = look;
    editor.setTitle('Mine');
    await wait(settled);
    expect(await isFree()).toBe(false);
    editor.ngOnDestroy();
    await wait(settled);
    expect(await isFree()).toBe(true);
    takeAway();
  });

  it('holds a sheet whose page is left until its last save is answered', async () => {
    const takeAway = withFakeLocks();
    const { editor, sheets, id } = await opened();
    const isFree = async (): Promise<boolean> => (await whileClosed(documentName(id, 'sheet', 'sheet-1'), () => Promise.resolve(true))) === true;
    const answer = new Subject<SheetDetail>();
    sheets.answer = () => answer;
    editor.setTitle('Mine');
    editor.ngOnDestroy();
    await wait(settled);
    expect(await isFree()).toBe(false);
    answer.next(stored({ title: 'Mine', version: 2 }));
    await wait(settled);
    expect(await isFree()).toBe(true);
    takeAway();
  });
});
