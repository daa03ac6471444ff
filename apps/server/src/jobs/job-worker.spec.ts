import type PgBoss from 'pg-boss';
import { pino } from 'pino';
import type { AuditRepository } from '../audit/audit.repository';
import type { Database } from '../database/database';
import type { JobRepository } from './job.repository';
import { JobWorker } from './job-worker';

/** A queue in which messages stand, and whose database goes away when a message is to be ended. */
function failingQueue(messages: { id: string; data: { studioId: string } }[]) {
  return {
    on: () => undefined,
    start: async () => undefined,
    stop: async () => undefined,
    send: async () => 'sent',
    fetch: async () => messages.splice(0, 1),
    complete: jest.fn(async () => Promise.reject(Object.assign(new Error('terminating connection'), { code: '57P01' }))),
  };
}

it('goes on where the database goes away while a message is ended', async () => {
  const faults: unknown[] = [];
  const note = (error: unknown): void => void faults.push(error);
  process.on('unhandledRejection', note);
  const done: string[] = [];
  const jobs = {
    begin: async (studioId: string) => void done.push(studioId),
    studiosWithWork: async () => Promise.reject(new Error('connect ECONNREFUSED')),
  } as unknown as JobRepository;
  const database = { apart: <T>(work: () => T) => work(), inStudio: async <T>(_: string, work: () => Promise<T>) => work() } as unknown as Database;
  const boss = failingQueue(['one', 'two', 'three'].map((studioId) => ({ id: studioId, data: { studioId } })));
  const worker = new JobWorker(boss as unknown as PgBoss, { database, jobs, audit: {} as AuditRepository, logger: pino({ level: 'silent' }) }, []);
  await worker.start();
  for (let round = 0; round < 20; round += 1) {
    worker.wake();
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  await worker.close();
  process.off('unhandledRejection', note);
  expect(done.sort()).toEqual(['one', 'three', 'two']);
  expect(boss.complete).toHaveBeenCalledTimes(3);
  expect(faults).toEqual([]);
});
