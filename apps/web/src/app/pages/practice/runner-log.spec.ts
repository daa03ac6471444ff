import { TestBed } from '@angular/core/testing';
import type { AttemptInput, OpenedLine } from '@zelpit/contract';
import { of, throwError } from 'rxjs';
import { NoticeService } from '../../kernel/notices/notice.service';
import { KeptForLater } from '../../kernel/saving/outgoing.service';
import { AttemptsService } from '../../studio/attempts/attempts.service';
import { RunnerLog } from './runner-log';

const opened = { line: { id: 'l1', kind: 'line' }, student: { id: 's1', alias: 'Pim' }, instrument: 'practice-chanter' } as unknown as OpenedLine;

describe('what the runner logs', () => {
  let logged: AttemptInput[];
  let faults: unknown[];
  let add: (attempt: AttemptInput) => unknown;
  const start = (): RunnerLog => {
    const log = TestBed.inject(RunnerLog);
    log.open(opened, 'B to E');
    return log;
  };

  beforeEach(() => {
    jest.useFakeTimers({ now: Date.parse('2026-12-01T16:00:00Z') });
    [logged, faults] = [[], []];
    add = (attempt) => {
      logged.push(attempt);
      return of({});
    };
    TestBed.configureTestingModule({
      providers: [
        RunnerLog,
        { provide: AttemptsService, useValue: { add: (attempt: AttemptInput) => add(attempt), of: () => of([]) } },
        { provide: NoticeService, useValue: { fault: (error: unknown) => faults.push(error) } },
      ],
    });
  });
  afterEach(() => jest.useRealTimers());

  const play = (log: RunnerLog, seconds: number, isWhole = true): void => {
    log.began(60);
    jest.advanceTimersByTime(seconds * 1000);
    log.ended(8, isWhole);
  };

  it('a try judged by a key, with its tempo, count and seconds', () => {
    const log = start();
    play(log, 64);
    expect(log.isAsking()).toBe(true);
    log.judge('clean');
    expect(logged).toEqual([expect.objectContaining({ title: 'B to E', itemId: 'l1', tempo: 60, count: 8, seconds: 64, rating: 'clean', ladder: null })]);
    expect([log.isAsking(), log.best()]).toEqual([false, 60]);
  });

  it('a try that nobody judged as that, once something else begins, and none of a few seconds', () => {
    const log = start();
    play(log, 30);
    log.began(60);
    expect(logged.map(({ rating }) => rating)).toEqual(['unjudged']);
    jest.advanceTimersByTime(2000);
    log.ended(0, false);
    log.flush();
    expect(logged).toHaveLength(1);
  });

  it('a ladder as one try with its rungs: clean at 60, slipped at 66', () => {
    const log = start();
    log.startLadder(90);
    expect(log.ladder()?.next).toBe(54);
    for (const rating of ['clean', 'clean', 'slip'] as const) {
      log.began(null);
      jest.advanceTimersByTime(40_000);
      log.rungEnded();
      log.rated(rating);
    }
    expect(log.ladder()).toBeUndefined();
    expect(logged).toEqual([
      expect.objectContaining({
        ...{ tempo: 66, count: 3, seconds: 120, rating: 'not-yet' },
        ladder: { start: 54, step: 6, ceiling: 90, rungs: [expect.anything(), { tempo: 60, rating: 'clean' }, { tempo: 66, rating: 'slip' }] },
      }),
    ]);
    expect([log.best(), log.lastWords()]).toEqual([60, 'Clean at 60, slipped at 66. Next time starts at 42.']);
  });

  it('asks once at the end of a ladder that nobody judged, and raises nothing unless it was clean', () => {
    const log = start();
    log.startLadder(60);
    for (const rating of ['unjudged', 'unjudged', 'unjudged', 'unjudged', 'unjudged'] as const) log.rated(rating);
    expect([log.isClimbing(), log.isAsking()]).toEqual([false, true]);
    expect(log.ladderText()).toContain('Were the others clean?');
    log.judgeRest(false);
    expect([logged.at(-1)?.rating, log.best()]).toEqual(['unjudged', undefined]);
    log.startLadder(60);
    for (let rung = 0; rung < 9; rung += 1) if (log.isClimbing()) log.rated('unjudged');
    log.judgeRest(true);
    expect([logged.at(-1)?.rating, log.best()]).toEqual(['clean', 60]);
  });

  it('says nothing where it waits for the server, and says what the server refused', () => {
    add = () => throwError(() => new KeptForLater(0, 'kept'));
    const log = start();
    play(log, 20);
    log.judge('nearly');
    expect(faults).toEqual([]);
    add = () => throwError(() => new Error('refused'));
    play(log, 20);
    log.judge('nearly');
    expect(faults).toHaveLength(1);
  });
});
