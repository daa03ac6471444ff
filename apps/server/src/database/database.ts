import { AsyncLocalStorage } from 'node:async_hooks';
import type { DataSource, EntityManager, EntityTarget, ObjectLiteral, QueryRunner, Repository } from 'typeorm';
import type { ObjectStore } from '../blobs/object-store';

export type Isolation = 'READ COMMITTED' | 'REPEATABLE READ';

/** What a transaction may do; PostgreSQL itself refuses a write in one that only reads. */
type Access = 'READ WRITE' | 'READ ONLY';

/** A transaction that runs, and whose rows it sees: none of any studio before one was named. */
interface Underway {
  readonly manager: EntityManager;
  readonly isolation: Isolation;
  studioId: string | undefined;
}

const uuid = /^[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}$/i;

/**
 * The tables, for repositories: inside a transaction every repository works in it without being told. Rows of a studio are there only in a transaction that
 * named this studio; PostgreSQL itself sees to it.
 */
export class Database {
  private readonly underway = new AsyncLocalStorage<Underway>();

  /** @param files where files lie beside the tables; absent where they lie in them */
  constructor(
    private readonly dataSource: DataSource,
    readonly files?: ObjectStore,
  ) {}

  get manager(): EntityManager {
    return this.underway.getStore()?.manager ?? this.dataSource.manager;
  }

  of<T extends ObjectLiteral>(entity: EntityTarget<T>): Repository<T> {
    return this.manager.getRepository(entity);
  }

  query<T>(sql: string, values: readonly unknown[] = []): Promise<T[]> {
    return this.manager.query<T[]>(sql, [...values]);
  }

  /**
   * All of the work or nothing of it. Inside another transaction the work belongs to that one.
   * @throws Error where that one is less isolated than this work needs: it would see things change under its hands
   */
  async transaction<T>(work: () => Promise<T>, isolation: Isolation = 'READ COMMITTED'): Promise<T> {
    const outer = this.underway.getStore();
    if (outer === undefined) return this.begin(work, isolation, undefined);
    if (isolation === 'REPEATABLE READ' && outer.isolation !== isolation)
      throw new Error(`A transaction that needs ${isolation} cannot run inside one of ${outer.isolation}.`);
    return work();
  }

  /**
   * The same with the rows of one studio, and of no other.
   * @param access `READ ONLY` where PostgreSQL itself is to refuse a write
   * @throws Error inside a transaction of another studio: none spans two
   */
  async inStudio<T>(studioId: string, work: () => Promise<T>, isolation: Isolation = 'READ COMMITTED', access: Access = 'READ WRITE'): Promise<T> {
    if (!uuid.test(studioId)) throw new Error(`“${studioId}” is no studio's id.`);
    const outer = this.underway.getStore();
    if (outer === undefined) return this.begin(work, isolation, studioId, access);
    if (outer.studioId !== undefined && outer.studioId !== studioId) throw new Error('A transaction of one studio cannot reach into another.');
    if (outer.studioId === undefined) {
      await outer.manager.query("SELECT set_config('zelpit.studio', $1, true)", [studioId]);
      outer.studioId = studioId;
    }
    return this.transaction(work, isolation);
  }

  /** Work that goes on by itself, whatever transaction it is begun in: it is in none. */
  apart<T>(work: () => T): T {
    return this.underway.exit(work);
  }

  /** What did not even begin has done nothing: it begins again on another connection, until one is there that was not cut while nobody used it. */
  private async begin<T>(work: () => Promise<T>, isolation: Isolation, studioId: string | undefined, access: Access = 'READ WRITE'): Promise<T> {
    for (let cut = 0; ; cut += 1) {
      try {
        return await this.once(work, isolation, studioId, access);
      } catch (error) {
        if (!(error instanceof NotBegun)) throw error;
        if (cut === mostCut) throw error.cause;
      }
    }
  }

  /** The studio is named in the same round trip that begins, and only for this transaction, so that it holds through a pooler too. */
  private async once<T>(work: () => Promise<T>, isolation: Isolation, studioId: string | undefined, access: Access): Promise<T> {
    const runner = this.dataSource.createQueryRunner();
    const beginning = `BEGIN ISOLATION LEVEL ${isolation} ${access}${studioId === undefined ? '' : `; SET LOCAL zelpit.studio = '${studioId}'`}`;
    const run = (): Promise<T> => this.underway.run({ manager: runner.manager, isolation, studioId }, work);
    try {
      await runner.connect();
      // What TypeORM does in several statements is not to begin a transaction of its own.
      (runner as { isTransactionActive: boolean }).isTransactionActive = true;
      const begun = runner.query(beginning).catch((error: unknown) => Promise.reject(new NotBegun(error)));
      return await (access === 'READ ONLY' ? reading(runner, begun, run) : writing(runner, begun, run));
    } catch (error) {
      await end(runner, 'ROLLBACK');
      throw error;
    }
  }
}

/** More than any pool holds. */
const mostCut = 100;

/** The connection did not answer that a transaction begins; `cause` says why. */
class NotBegun extends Error {
  constructor(override readonly cause: unknown) {
    super('No transaction began.');
  }
}

async function writing<T>(runner: QueryRunner, begun: Promise<unknown>, run: () => Promise<T>): Promise<T> {
  await begun;
  const result = await run();
  await runner.query('COMMIT');
  await release(runner);
  return result;
}

/** A read goes out right behind its beginning, and what it found does not wait for its end: nothing hangs on either. */
async function reading<T>(runner: QueryRunner, begun: Promise<unknown>, run: () => Promise<T>): Promise<T> {
  // Heard at once, so that it is nobody's unheard fault; asked only where the read failed, as it does with its beginning.
  begun.catch(() => undefined);
  try {
    const result = await run();
    void end(runner, 'COMMIT');
    return result;
  } catch (error) {
    await begun;
    throw error;
  }
}

/** Where the connection is gone there is nothing to end: the database has done it. */
async function end(runner: QueryRunner, how: 'COMMIT' | 'ROLLBACK'): Promise<void> {
  try {
    await runner.query(how);
  } catch {
    // A fault before this one is the one to tell.
  }
  await release(runner);
}

async function release(runner: QueryRunner): Promise<void> {
  (runner as { isTransactionActive: boolean }).isTransactionActive = false;
  await runner.release();
}
