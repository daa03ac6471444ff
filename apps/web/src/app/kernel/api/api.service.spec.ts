import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { auditRoutes, jobRoutes, onceHeader, problemType, sheetRoutes, studentRoutes, tokenHeader, tuneRoutes } from '@zelpit/contract';
import { firstValueFrom } from 'rxjs';
import { SessionToken } from '../session/session-token';
import { tokenInterceptor } from '../session/token.interceptor';
import { ApiFault, ApiService, messageOf } from './api.service';

function service(): { api: ApiService; http: HttpTestingController } {
  TestBed.configureTestingModule({ providers: [provideHttpClient(withInterceptors([tokenInterceptor])), provideHttpClientTesting()] });
  TestBed.inject(SessionToken).value = 'the token';
  return { api: TestBed.inject(ApiService), http: TestBed.inject(HttpTestingController) };
}

const pim = { id: '1', alias: 'Pim', consent: null, movements: [], level: null, dayMinutes: 20, mailTo: null, groups: [], version: 1 };
const sheet = {
  ...{ id: '1', title: 'Week 1', student: { id: '2', alias: 'Pim' }, tune: null, instrument: 'practice-chanter', lineCount: 0, isReview: false, sentAt: null },
  ...{ review: null, lessonId: null, openedAt: null, replaces: null, replacedBy: null },
  ...{ updatedAt: '2026-03-09T14:02:00Z', note: '', version: 1, lines: [] },
};
const problem = { type: problemType('not-found'), title: 'Not found', status: 404, detail: 'There is no such student in this studio.' };

describe('ApiService', () => {
  it('gives what the schema promises', () => {
    const { api, http } = service();
    let got: unknown;
    api.call(sheetRoutes.sheet, { id: '1' }).subscribe((answer) => (got = answer));
    http.expectOne('/api/sheets/1').flush({ ...sheet, more: 'is left out' });
    expect(got).toEqual(sheet);
  });

  it('refuses an answer of another shape rather than passing it on', () => {
    const { api, http } = service();
    let fault: unknown;
    api.call(sheetRoutes.sheet, { id: '1' }).subscribe({ error: (error: unknown) => (fault = error) });
    http.expectOne('/api/sheets/1').flush({ id: 1 });
    expect(fault).toBeDefined();
    expect(messageOf(fault)).toContain('Something went wrong on this page');
  });

  it("turns the server's problem into its sentence and status", () => {
    const { api, http } = service();
    let fault: unknown;
    api.call(sheetRoutes.sheet, { id: '1' }).subscribe({ error: (error: unknown) => (fault = error) });
    http.expectOne('/api/sheets/1').flush(problem, { status: 404, statusText: 'Not Found' });
    expect(fault).toBeInstanceOf(ApiFault);
    expect(fault).toMatchObject({ status: 404, message: problem.detail, code: 'not-found' });
  });

  it('reads a problem that came as text', () => {
    const { api, http } = service();
    let fault: unknown;
    api.call(sheetRoutes.linesOfSheet, { id: '1' }).subscribe({ error: (error: unknown) => (fault = error) });
    http.expectOne('/api/sheets/1/lines.abc').flush(JSON.stringify(problem), { status: 404, statusText: 'Not Found' });
    expect(messageOf(fault)).toBe(problem.detail);
  });

  it('reads a problem that came where a file was asked for', async () => {
    const { api, http } = service();
    const fault = firstValueFrom(api.call(jobRoutes.jobFile, { id: 'j1' })).catch((error: unknown) => error);
    http.expectOne('/api/jobs/j1/file').flush(new Blob([JSON.stringify(problem)]), { status: 404, statusText: 'Not Found' });
    expect(await fault).toMatchObject({ status: 404, message: problem.detail, code: 'not-found' });
  });

  it('says that the server is away where what came instead of a file is no problem', async () => {
    const { api, http } = service();
    const fault = firstValueFrom(api.call(jobRoutes.jobFile, { id: 'j1' })).catch((error: unknown) => error);
    http.expectOne('/api/jobs/j1/file').flush(new Blob(['<html>']), { status: 404, statusText: 'Not Found' });
    expect(messageOf(await fault)).toContain('The server is not answering');
  });

  describe('while the server is away', () => {
    beforeEach(() => jest.useFakeTimers());
    afterEach(() => jest.useRealTimers());

    /** Lets a request fail as often as it is tried, and gives the keys that the tries carried. */
    function failing(http: HttpTestingController, path: string): (string | null)[] {
      const keys: (string | null)[] = [];
      for (let tries = 0; tries < 4; tries += 1) {
        const sent = http.expectOne(path);
        keys.push(sent.request.headers.get(onceHeader));
        sent.error(new ProgressEvent('error'));
        jest.advanceTimersByTime(3000);
      }
      return keys;
    }

    it('tries four times in all and then says so', () => {
      const { api, http } = service();
      let fault: unknown;
      api.call(sheetRoutes.sheet, { id: '1' }).subscribe({ error: (error: unknown) => (fault = error) });
      failing(http, '/api/sheets/1');
      http.expectNone('/api/sheets/1');
      expect(fault).toMatchObject({ status: 0, isAway: true });
      expect(messageOf(fault)).toContain('The server is not answering');
    });

    it('sends a write again under one key, so that it is done once, and another write under another', () => {
      const { api, http } = service();
      api.call(tuneRoutes.putTuneAway, { id: '1' }).subscribe({ error: () => undefined });
      const keys = failing(http, '/api/tunes/1');
      expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);
      expect(new Set(keys).size).toBe(1);
      api.call(tuneRoutes.putTuneAway, { id: '1' }).subscribe({ error: () => undefined });
      expect(failing(http, '/api/tunes/1')[0]).not.toBe(keys[0]);
    });

    it('never repeats what the server refused', () => {
      const { api, http } = service();
      api.call(tuneRoutes.bringTuneBack, { id: '1' }).subscribe({ error: () => undefined });
      http.expectOne('/api/tunes/1/restore').flush(problem, { status: 422, statusText: 'Unprocessable' });
      jest.advanceTimersByTime(10_000);
      http.expectNone('/api/tunes/1/restore');
    });
  });

  it('fetches a list page after page', () => {
    const { api, http } = service();
    let got: unknown;
    api.all(studentRoutes.students, {}).subscribe((students) => (got = students));
    http.expectOne('/api/students').flush({ items: [pim], next: 'a b' });
    http.expectOne('/api/students?after=a+b').flush({ items: [{ ...pim, id: '2' }], next: null });
    expect(got).toEqual([pim, { ...pim, id: '2' }]);
  });

  it('takes a new token and sends a write once more where the page was too old', () => {
    const { api, http } = service();
    let isDone = false;
    api.call(tuneRoutes.bringTuneBack, { id: '1' }).subscribe(() => (isDone = true));
    http.expectOne('/api/tunes/1/restore').flush({ ...problem, type: problemType('page-too-old'), status: 403 }, { status: 403, statusText: 'Forbidden' });
    http.expectOne('/api/session').flush({ token: 'a new token', demo: null, isNew: false, canCreateStudio: false, hasOutbox: false, signedIn: null });
    const again = http.expectOne('/api/tunes/1/restore');
    expect(again.request.headers.get(tokenHeader)).toBe('a new token');
    again.flush(null, { status: 204, statusText: 'No Content' });
    expect(isDone).toBe(true);
  });

  it('counts each answer that says that nobody is signed in', () => {
    const { api, http } = service();
    api.call(tuneRoutes.tune, { id: '1' }).subscribe({ error: () => undefined });
    http.expectOne('/api/tunes/1').flush({ ...problem, status: 401 }, { status: 401, statusText: 'Unauthorized' });
    expect(TestBed.inject(SessionToken).ended()).toBe(1);
  });

  it('sends the token with writes and not with reads', () => {
    const { api, http } = service();
    api.call(tuneRoutes.tune, { id: 'a' }).subscribe({ error: () => undefined });
    api.call(sheetRoutes.saveSheet, { id: 'b', body: { title: 'x', note: '', lines: [], version: 1 } }).subscribe({ error: () => undefined });
    api.call(tuneRoutes.bringTuneBack, { id: '1' }).subscribe({ error: () => undefined });
    expect(http.expectOne('/api/tunes/a').request.headers.has(tokenHeader)).toBe(false);
    expect(http.expectOne('/api/sheets/b').request.headers.get(tokenHeader)).toBe('the token');
    expect(http.expectOne('/api/tunes/1/restore').request.headers.get(tokenHeader)).toBe('the token');
  });

  it('writes what varies into the path and the query, and leaves out what is not asked for', () => {
    const { api, http } = service();
    api.call(auditRoutes.audit, { query: { limit: 50, find: 'Łódź & co', after: undefined } }).subscribe();
    http.expectOne('/api/audit?limit=50&find=%C5%81%C3%B3d%C5%BA+%26+co').flush({ items: [], next: null });
    api.call(sheetRoutes.lineByCode, { code: 'a/b?' }).subscribe({ error: () => undefined });
    http.expectOne('/api/lines/a%2Fb%3F');
  });

  it('sends a file as it is, and gives one back as it is', () => {
    const { api, http } = service();
    let got: unknown;
    api.call(tuneRoutes.bringTunes, { query: { instrument: 'whistle-d' }, body: new Blob(['X:1']) }).subscribe((result) => (got = result));
    const sent = http.expectOne('/api/tunes/import?instrument=whistle-d');
    expect(sent.request.headers.get('content-type')).toBe('application/octet-stream');
    sent.flush({ saved: [], refused: [] });
    expect(got).toEqual({ saved: [], refused: [] });
    api.call(jobRoutes.jobFile, { id: 'j1' }).subscribe((file) => (got = file));
    http.expectOne('/api/jobs/j1/file').flush(new Blob(['whole']));
    expect((got as Blob).size).toBe(5);
  });
});
