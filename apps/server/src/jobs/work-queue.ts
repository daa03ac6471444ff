import PgBoss from 'pg-boss';

/** The queue in which stands which studio has work. */
export const workQueue = 'studio-work';
const schema = 'job_queue';

/** A message that nobody answers for goes back after so long; the jobs themselves are looked after by `JobWorker`. */
const patienceSeconds = 3600;

/** The queue's tables, made by the role that owns the tables; the server's own role may make none. */
export async function makeWorkQueue(ownersUrl: string): Promise<void> {
  const boss = new PgBoss({ connectionString: ownersUrl, schema, supervise: false, schedule: false, max: 1 });
  // A fault comes out of what is awaited; without somebody who listens it would end the process.
  boss.on('error', () => undefined);
  await boss.start();
  try {
    // One message of a studio waits at most, whatever it has to do.
    await boss.createQueue(workQueue, { name: workQueue, policy: 'short', retryLimit: 0, expireInSeconds: patienceSeconds });
  } finally {
    await boss.stop({ graceful: false, wait: true });
  }
}

/** The queue for a server, as the role that reads and writes rows. */
export const openWorkQueue = (rowsUrl: string): PgBoss =>
  new PgBoss({ connectionString: rowsUrl, schema, migrate: false, schedule: false, max: 3, application_name: 'zelpit jobs' });

/** What the server's role needs in the schema of the queue. */
export const queueGrants = (role: string): string => `
  GRANT USAGE ON SCHEMA ${schema} TO ${role};
  GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA ${schema} TO ${role};`;
