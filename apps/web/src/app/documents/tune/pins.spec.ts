import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting, type TestRequest } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { noTuneNotes, problemType, type TunePin } from '@zelpit/contract';
import { patternKey } from '@zelpit/core/fingering';
import { NoticeService } from '../../kernel/notices/notice.service';
import { PinnedFingers } from './pins.service';

const id = '5c6d1d0a-7a51-4a3a-9d0c-0a0a0a0a0a0a';
const [usual, other] = [
  [0, 0, 0, 1, 1, 1, 1, 1],
  [0, 0, 1, 1, 1, 1, 1, 1],
];
const detail = (pins: TunePin[], pinsVersion: number): object => ({
  ...{ id, title: 'The Paper Lighthouse', rhythm: 'air', meter: '4/4', key: 'HP', bars: 1, outside: 0, instrument: 'practice-chanter' },
  ...{ notes: [], movements: [], theme: [], form: 'A', hard: 'little', uses: [], before: '', after: '', findings: 0, voice: '', chordNote: 'highest' },
  ...{ about: noTuneNotes, aboutVersion: 1 },
  ...{ abc: 'X:1\nK:HP\nA|', version: 1, pins, pinsVersion },
});
const stale = (request: TestRequest): void =>
  request.flush(
    { type: problemType('changed-elsewhere'), title: 'Changed somewhere else', status: 409, detail: 'It was changed meanwhile.' },
    { status: 409, statusText: 'Conflict' },
  );

function opened(pins: TunePin[]): { fingers: PinnedFingers; http: HttpTestingController; notices: NoticeService } {
  TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
  const fingers = TestBed.inject(PinnedFingers);
  fingers.take({ id, pins, pinsVersion: 1 });
  return { fingers, http: TestBed.inject(HttpTestingController), notices: TestBed.inject(NoticeService) };
}

describe('PinnedFingers', () => {
  it('keeps what another window fixed for another note', () => {
    const { fingers, http } = opened([]);
    fingers.pin(id, 'c', usual, 'C');
    stale(http.expectOne(`/api/tunes/${id}/pins`));
    http.expectOne(`/api/tunes/${id}`).flush(detail([{ note: 'e', pattern: other }], 2));
    const again = http.expectOne(`/api/tunes/${id}/pins`);
    expect(again.request.body).toEqual({
      version: 2,
      pins: [
        { note: 'e', pattern: other },
        { note: 'c', pattern: usual },
      ],
    });
  });

  it('says so where another window fixed the same note, and shows what is kept', () => {
    const { fingers, http, notices } = opened([]);
    fingers.pin(id, 'c', usual, 'C');
    stale(http.expectOne(`/api/tunes/${id}/pins`));
    http.expectOne(`/api/tunes/${id}`).flush(detail([{ note: 'c', pattern: other }], 2));
    http.verify();
    expect(fingers.of(id).get('c')).toBe(patternKey(other));
    expect(notices.notices().at(-1)?.message).toContain('changed meanwhile');
  });

  it('takes a fixed fingering back with one undo', () => {
    const { fingers, http, notices } = opened([{ note: 'c', pattern: other }]);
    fingers.pin(id, 'c', usual, 'C');
    http.expectOne(`/api/tunes/${id}/pins`).flush(detail([{ note: 'c', pattern: usual }], 2));
    const notice = notices.notices().at(-1);
    expect(notice?.message).toBe('The fingering of C is fixed.');
    notice?.undo?.();
    expect(http.expectOne(`/api/tunes/${id}/pins`).request.body).toEqual({ version: 2, pins: [{ note: 'c', pattern: other }] });
  });
});
