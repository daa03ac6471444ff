import { AsyncLocalStorage } from 'node:async_hooks';
import type { DataSource, EntityManager, EntityTarget, ObjectLiteral, Repository } from 'typeorm';

type Isolation = 'READ COMMITTED' | 'REPEATABLE READ';

/** The tables, for repositories: inside a transaction every repository works in it without being told. */
export class Database {
  private readonly underway = new AsyncLocalStorage<EntityManager>();

  constructor(private readonly dataSource: DataSource) {}

  get manager(): EntityManager {
    return this.underway.getStore() ?? this.dataSource.manager;
  }

  of<T extends ObjectLiteral>(entity: EntityTarget<T>): Repository<T> {
    return this.manager.getRepository(entity);
  }

  query<T>(sql: string, values: readonly unknown[] = []): Promise<T[]> {
    return this.manager.query<T[]>(sql, [...values]);
  }

  /** All of the work or nothing of it. Inside another transaction the work belongs to that one. */
  transaction<T>(work: () => Promise<T>, isolation: Isolation = 'READ COMMITTED'): Promise<T> {
    if (this.underway.getStore() !== undefined) return work();
    return this.dataSource.transaction(isolation, (manager) => this.underway.run(manager, work));
  }
}
