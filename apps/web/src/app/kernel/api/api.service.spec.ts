import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { onceHeader, studentSchema, tokenHeader } from '@zelpit/contract';
import { SessionToken } from '../session/session-token';
import { tokenInterceptor } from '../session/token.interceptor';
import { ApiFault, ApiService, saidBy } from './api.service';

function service(): { api: ApiService; http: HttpTestingController } {
  TestBed.configureTestingModule({ providers: [provideHttpClient(withInterceptors([tokenInterceptor])), provideHttpClientTesting()] });
  TestBed.inject(SessionToken).value = 'the token';
  return { api: TestBed.inject(ApiService), http: TestBed.inject(HttpTestingController) };
}

const pim = { id: '1', alias: 'Pim', consent: null, movements: [], version: 1 };
const problem = { type: 'about:blank', title: 'Not here', status: 404, detail: 'There is no such student in this studio.' };

describe('ApiService', () => {
  it('gives what the schema promises', () => {
    const { api, http } = service();
    let got: unknown;
    api.get('/api/students/1', studentSchema).subscribe((student) => (got = student));
    http.expectOne('/api/students/1').flush({ ...pim, more: 'is left out' });
    expect(got).toEqual(pim);
  });

  it('refuses an answer of another shape rather than passing it on', () => {
    const { api, http } = service();
    let fault: unknown;
    api.get('/api/students/1', studentSchema).subscribe({ error: (error: unknown) => (fault = error) });
    http.expectOne('/api/students/1').flush({ id: 1 });
    expect(fault).toBeDefined();
    expect(saidBy(fault)).toContain('Something unexpected happened here');
  });

  it("turns the server's problem into its sentence and status", () => {
    const { api, http } = service();
    let fault: unknown;
    api.get('/api/students/1', studentSchema).subscribe({ error: (error: unknown) => (fault = error) });
    http.expectOne('/api/students/1').flush(problem, { status: 404, statusText: 'Not Found' });
    expect(fault).toBeInstanceOf(ApiFault);
    expect(fault).toMatchObject({ status: 404, said: problem.detail });
  });

  it('reads a problem that came as text', () => {
    const { api, http } = service();
    let fault: unknown;
    api.text('/api/sheets/1/lines.abc').subscribe({ error: (error: unknown) => (fault = error) });
    http.expectOne('/api/sheets/1/lines.abc').flush(JSON.stringify(problem), { status: 404, statusText: 'Not Found' });
    expect(saidBy(fault)).toBe(problem.detail);
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
      api.get('/api/students/1', studentSchema).subscribe({ error: (error: unknown) => (fault = error) });
      failing(http, '/api/students/1');
      http.expectNone('/api/students/1');
      expect(fault).toMatchObject({ status: 0, isAway: true });
      expect(saidBy(fault)).toContain('The server does not answer');
    });

    it('sends a write again under one key, so that it is done once, and another write under another', () => {
      const { api, http } = service();
      api.send('DELETE', '/api/tunes/1').subscribe({ error: () => undefined });
      const keys = failing(http, '/api/tunes/1');
      expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);
      expect(new Set(keys).size).toBe(1);
      api.send('DELETE', '/api/tunes/1').subscribe({ error: () => undefined });
      expect(failing(http, '/api/tunes/1')[0]).not.toBe(keys[0]);
    });

    it('never repeats what the server refused', () => {
      const { api, http } = service();
      api.send('POST', '/api/c').subscribe({ error: () => undefined });
      http.expectOne('/api/c').flush(problem, { status: 422, statusText: 'Unprocessable' });
      jest.advanceTimersByTime(10_000);
      http.expectNone('/api/c');
    });
  });

  it('fetches a list page after page', () => {
    const { api, http } = service();
    let got: unknown;
    api.all('/api/students', studentSchema).subscribe((students) => (got = students));
    http.expectOne('/api/students').flush({ items: [pim], next: 'a b' });
    http.expectOne('/api/students?after=a%20b').flush({ items: [{ ...pim, id: '2' }], next: null });
    expect(got).toEqual([pim, { ...pim, id: '2' }]);
  });

  it('takes a new token and sends a write once more where the page was too old', () => {
    const { api, http } = service();
    let isDone = false;
    api.send('POST', '/api/c').subscribe(() => (isDone = true));
    http.expectOne('/api/c').flush({ ...problem, status: 403, title: 'Page too old' }, { status: 403, statusText: 'Forbidden' });
    http.expectOne('/api/session').flush({ token: 'a new token', demo: null, isNew: false, canCreateStudio: false, hasOutbox: false, signedIn: null });
    const again = http.expectOne('/api/c');
    expect(again.request.headers.get(tokenHeader)).toBe('a new token');
    again.flush(null, { status: 204, statusText: 'No Content' });
    expect(isDone).toBe(true);
  });

  it('counts each answer that says that nobody is signed in', () => {
    const { api, http } = service();
    api.get('/api/tunes/1', studentSchema).subscribe({ error: () => undefined });
    http.expectOne('/api/tunes/1').flush({ ...problem, status: 401 }, { status: 401, statusText: 'Unauthorized' });
    expect(TestBed.inject(SessionToken).ended()).toBe(1);
  });

  it('sends the token with writes and not with reads', () => {
    const { api, http } = service();
    api.get('/api/a', studentSchema).subscribe({ error: () => undefined });
    api.put('/api/b', {}, studentSchema).subscribe({ error: () => undefined });
    api.send('POST', '/api/c').subscribe({ error: () => undefined });
    expect(http.expectOne('/api/a').request.headers.has(tokenHeader)).toBe(false);
    expect(http.expectOne('/api/b').request.headers.get(tokenHeader)).toBe('the token');
    expect(http.expectOne('/api/c').request.headers.get(tokenHeader)).toBe('the token');
  });
});
