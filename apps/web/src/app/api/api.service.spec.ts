import { provideHttpClient, withInterceptors } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { studentSchema, tokenHeader } from '@zelpit/contract';
import { SessionToken } from '../session/session-token';
import { tokenInterceptor } from '../session/token.interceptor';
import { ApiFault, ApiService, saidBy } from './api.service';

function service(): { api: ApiService; http: HttpTestingController } {
  TestBed.configureTestingModule({ providers: [provideHttpClient(withInterceptors([tokenInterceptor])), provideHttpClientTesting()] });
  TestBed.inject(SessionToken).value = 'the token';
  return { api: TestBed.inject(ApiService), http: TestBed.inject(HttpTestingController) };
}

const problem = { type: 'about:blank', title: 'Not here', status: 404, detail: 'There is no such student in this studio.' };

describe('ApiService', () => {
  it('gives what the schema promises', () => {
    const { api, http } = service();
    let got: unknown;
    api.get('/api/students/1', studentSchema).subscribe((student) => (got = student));
    http.expectOne('/api/students/1').flush({ id: '1', alias: 'Pim', more: 'is left out' });
    expect(got).toEqual({ id: '1', alias: 'Pim' });
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

  it('says that the server is away where nothing answers', () => {
    const { api, http } = service();
    let fault: unknown;
    api.send('DELETE', '/api/tunes/1').subscribe({ error: (error: unknown) => (fault = error) });
    http.expectOne('/api/tunes/1').error(new ProgressEvent('error'));
    expect(fault).toMatchObject({ status: 0 });
    expect(saidBy(fault)).toContain('The server does not answer');
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
