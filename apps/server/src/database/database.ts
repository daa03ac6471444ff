import { AsyncLocalStorage } from 'node:async_hooks';
import type { DataSource, EntityManager, EntityTarget, ObjectLiteral, Repository } from 'typeorm';

type Isolation = 'READ COMMITTED' | 'REPEATABLE READ';

/** The tables, for repositories: inside a transaction every repository works in it without being told. */
export class Database {
  private readonly underway = new AsyncLocalStorage<{ readonly manager: EntityManager; readonly isolation: Isolation }>();

  constructor(private readonly dataSource: DataSource) {}

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
    if (outer === undefined) return this.dataSource.transaction(isolation, (manager) => this.underway.run({ manager, isolation }, work));
    if (isolation === 'REPEATABLE READ' && outer.isolation !== isolation)
      throw new Error(`A transaction that needs ${isolation} cannot run inside one of ${outer.isolation}.`);
    return work();
  }
}
