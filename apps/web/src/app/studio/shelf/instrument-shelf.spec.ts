import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import type { HeldInstrument, OwnModel } from '@zelpit/contract';
import { asPlayed, practiceChanter } from '@zelpit/core/fingering';
import { describedLine } from '@zelpit/core/line';
import { InstrumentShelf } from './instrument-shelf.service';

const own = (id: string, name: string): OwnModel => ({
  ...{ id, instrument: { ...practiceChanter, id, name }, by: 'Maren Tolvik', changed: '2026-03-09T14:02:00Z', version: 1 },
});
const held: HeldInstrument = {
  ...{
    id: 'h',
    name: 'Runa’s chanter',
    owner: { kind: 'student', id: 'runa', name: 'Runa' },
    model: 'practice-chanter',
    hands: 'right-on-top',
    written: 'as-charted',
  },
  ...{ tuning: { kind: 'chart' }, schools: {}, referenceHertz: null, knownNotes: [], note: '', version: 1 },
};

function shelf(): { shelf: InstrumentShelf; http: HttpTestingController } {
  TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
  return { shelf: TestBed.inject(InstrumentShelf), http: TestBed.inject(HttpTestingController) };
}

describe('InstrumentShelf', () => {
  it('asks for one model alone, and puts it where it stood', () => {
    const { shelf: instruments, http } = shelf();
    instruments.ownModels.set([own('a', 'first'), own('b', 'second')]);
    instruments.fetchModel('a').subscribe();
    http.expectOne('/api/models/a').flush(own('a', 'first, later'));
    http.verify();
    expect(instruments.ownModels().map(({ instrument }) => instrument.name)).toEqual(['first, later', 'second']);
  });

  it('leaves a saved model at its place in the list', () => {
    const { shelf: instruments, http } = shelf();
    instruments.ownModels.set([own('a', 'first'), own('b', 'second')]);
    instruments.saveModel('a', 1, own('a', 'first').instrument).subscribe();
    http.expectOne('/api/models/a').flush({ ...own('a', 'renamed'), version: 2 });
    expect(instruments.ownModels().map(({ instrument }) => instrument.name)).toEqual(['renamed', 'second']);
  });

  it('shows what is written for a model on the student’s own instrument, with the hands that the student has', () => {
    const { shelf: instruments } = shelf();
    instruments.held.set([held]);
    const line = { home: 'c', other: 'e' };
    const advice = (student: string): string => describedLine(instruments.instrumentFor(student, 'practice-chanter'), line).advice.todo;
    expect(advice('somebody else')).toBe(describedLine(practiceChanter, line).advice.todo);
    expect(advice('runa')).not.toBe(advice('somebody else'));
    expect(advice('runa')).toBe(describedLine(asPlayed(practiceChanter, held), line).advice.todo);
  });
});
