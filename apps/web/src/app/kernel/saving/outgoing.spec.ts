import 'fake-indexeddb/auto';
import { TestBed } from '@angular/core/testing';
import { firstValueFrom, of, throwError, type Observable } from 'rxjs';
import { studentRoutes, tuneRoutes, type Route } from '@zelpit/contract';
import { ApiFault, ApiService } from '../api/api.service';
import { addressOf } from '../api/call';
import { SessionService } from '../session/session.service';
import { NoticeService } from '../notices/notice.service';
import { KeptForLater, OutgoingService } from './outgoing.service';

class FakeApi {
  readonly sent: { path: string; body: unknown; key: string }[] = [];
  answer: () => Observable<unknown> = () => of({ id: '1' });
  call = (route: Route, request: { body?: unknown }, { key }: { key: string }): Observable<unknown> =>
    this.resend(addressOf(route, request), request.body, key);
  resend = (path: string, body: unknown, key: string): Observable<unknown> => {
    this.sent.push({ path, body, key });
    return this.answer();
  };
}

const away = (): Observable<never> => throwError(() => new ApiFault(0, 'away'));
const make = (service: OutgoingService): Observable<unknown> => service.make(studentRoutes.addStudent, { body: { alias: 'Pim' } }, 'pim');

function outgoing(person: string): { service: OutgoingService; api: FakeApi; notices: NoticeService } {
  TestBed.resetTestingModule();
  const api = new FakeApi();
  TestBed.configureTestingModule({
    providers: [
      { provide: ApiService, useValue: api },
      { provide: SessionService, useValue: { workOwner: () => person } },
    ],
  });
  return { service: TestBed.inject(OutgoingService), api, notices: TestBed.inject(NoticeService) };
}

describe('OutgoingService', () => {
  it('sends at once what can go at once, and keeps nothing', async () => {
    const { service, api } = outgoing('a');
    expect(await firstValueFrom(make(service))).toEqual({ id: '1' });
    await service.sendKept('a');
    expect(api.sent).toHaveLength(1);
  });

  it('keeps what cannot go, says so, and sends it later under the same key, once', async () => {
    const { service, api, notices } = outgoing('b');
    api.answer = away;
    const fault = await firstValueFrom(make(service)).catch((error: unknown) => error);
    expect(fault).toBeInstanceOf(KeptForLater);
    expect((fault as KeptForLater).message).toContain('Pim is kept in this browser');
    expect(await service.sendKept('b')).toBe('away');
    api.answer = () => of({ id: '1' });
    let arrived = 0;
    service.arrived.subscribe(() => (arrived += 1));
    expect(await service.sendKept('b')).toBe('done');
    expect(await service.sendKept('b')).toBe('done');
    expect(api.sent).toHaveLength(3);
    expect(new Set(api.sent.map(({ key }) => key)).size).toBe(1);
    expect(arrived).toBe(1);
    expect(notices.notices().at(-1)?.message).toBe('Pim has been saved on the server.');
  });

  it('keeps a pasted text too, and what was made as the session ended', async () => {
    const { service, api } = outgoing('c');
    api.answer = () => throwError(() => new ApiFault(401, 'Nobody is signed in.'));
    await firstValueFrom(service.make(tuneRoutes.bringTunes, { query: { instrument: 'whistle-d' }, body: new Blob(['X:1']) }, 'the tunes')).catch(
      () => undefined,
    );
    api.answer = () => of({});
    expect(await service.sendKept('somebody else')).toBe('done');
    expect(api.sent).toHaveLength(1);
    await service.sendKept('c');
    expect(api.sent.map(({ path }) => path)).toEqual(['/api/tunes/import?instrument=whistle-d', '/api/tunes/import?instrument=whistle-d']);
  });

  it('does not keep what the server refuses', async () => {
    const { service, api } = outgoing('d');
    api.answer = () => throwError(() => new ApiFault(400, 'An alias has at most 60 characters.'));
    const fault = await firstValueFrom(make(service)).catch((error: unknown) => error);
    expect(fault).not.toBeInstanceOf(KeptForLater);
    await service.sendKept('d');
    expect(api.sent).toHaveLength(1);
  });
});
