import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Trial } from '@zelpit/contract';
import { levels } from '@zelpit/core/timing';
import { SessionService } from '../../kernel/session/session.service';
import { StudioState } from '../state/studio-state.service';
import { PlayerTimings } from './player-timings.service';

const [runa, pim] = ['5c6d1d0a-7a51-4a3a-9d0c-0a0a0a0a0a0a', '6d7e2e1b-8b62-4b4b-8e1d-1b1b1b1b1b1b'];
const timing = { sigma: 31, sigmaOf: {}, biasOf: {}, rho: 0.5, lead: 3 };
const trial = (studentId: string): Trial => ({
  ...{ id: `of ${studentId}`, studentId, model: 'practice-chanter', at: '2026-03-09T14:02:00Z' },
  result: { kind: 'fingers', from: 'b', to: 'e', verdicts: { clean: 1, low: 0, run: 0, 'over-open': 0 }, meanMs: 9, timing, fingers: [], isTaken: true },
});
const latestOf = (student: string): string => `/api/trials?student=${student}&kind=fingers&taken=true&limit=1`;

describe('PlayerTimings', () => {
  it('asks for the last timing of the student in hand, once each, and for nothing else', () => {
    const student = signal({ id: runa });
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        { provide: SessionService, useValue: { role: () => 'teacher', person: () => ({ id: 'maren' }) } },
        { provide: StudioState, useValue: { student, isOfStudent: () => false } },
      ],
    });
    const [timings, http] = [TestBed.inject(PlayerTimings), TestBed.inject(HttpTestingController)];
    TestBed.tick();
    http.expectOne(latestOf(runa)).flush({ items: [trial(runa)], next: null });
    expect(timings.timing()).toEqual(timing);
    student.set({ id: pim });
    TestBed.tick();
    http.expectOne(latestOf(pim)).flush({ items: [], next: null });
    expect(timings.timing()).toBe(levels.learner);
    student.set({ id: runa });
    TestBed.tick();
    http.verify();
    expect(timings.timing()).toEqual(timing);
  });
});
