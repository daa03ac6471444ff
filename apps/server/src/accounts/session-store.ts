import session, { type SessionData } from 'express-session';
import type { Pool } from 'pg';

type Done = (error?: unknown) => void;

const [touchEveryMs, mostTouched] = [60_000, 10_000];

/** Sessions in PostgreSQL, each reached by its id only, through functions of the database. A session that is used is touched at most once a minute. */
export class SessionStore extends session.Store {
  private readonly touched = new Map<string, number>();

  constructor(private readonly pool: Pool) {
    super();
  }

  override get(sid: string, done: (error: unknown, session?: SessionData | null) => void): void {
    this.pool.query<{ sess: SessionData | null }>('SELECT session_get($1) AS sess', [sid]).then(
      ({ rows: [{ sess }] }) => done(null, sess),
      (error: unknown) => done(error),
    );
  }

  override set(sid: string, data: SessionData, done?: Done): void {
    this.call('SELECT session_put($1, $2, $3)', [sid, JSON.stringify(data), expiryOf(data)], done);
  }

  override destroy(sid: string, done?: Done): void {
    this.touched.delete(sid);
    this.call('SELECT session_end($1)', [sid], done);
  }

  override touch(sid: string, data: SessionData, done?: Done): void {
    const now = Date.now();
    if (now - (this.touched.get(sid) ?? 0) < touchEveryMs) {
      done?.();
      return;
    }
    if (this.touched.size >= mostTouched) this.touched.clear();
    this.touched.set(sid, now);
    this.call('SELECT session_touch($1, $2)', [sid, expiryOf(data)], done);
  }

  private call(sql: string, values: readonly unknown[], done?: Done): void {
    this.pool.query(sql, [...values]).then(
      () => done?.(),
      (error: unknown) => done?.(error),
    );
  }
}

const expiryOf = ({ cookie }: SessionData): Date => (cookie.expires instanceof Date ? cookie.expires : new Date(cookie.expires ?? Date.now()));
