import type { Role } from '@zelpit/contract';
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
    this.pool.query<SessionRow>('SELECT * FROM session_get($1)', [sid]).then(
      ({ rows: [row] }) => done(null, row === undefined ? null : withVisitor(row)),
      (error: unknown) => done(error),
    );
  }

  override set(sid: string, data: SessionData, done?: Done): void {
    this.call('SELECT session_put($1, $2, $3)', [sid, JSON.stringify({ ...data, seen: undefined }), expiryOf(data)], done);
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

interface SessionRow {
  readonly sess: SessionData;
  readonly name: string | null;
  readonly role: Role | null;
  readonly studio: string | null;
}

/** Who the session is of now comes with it in one round trip; it is no part of what is stored. */
const withVisitor = ({ sess, name, role, studio }: SessionRow): SessionData => ({
  ...sess,
  seen: name === null || role === null || studio === null ? null : { name, role, studio },
});

const expiryOf = ({ cookie }: SessionData): Date => (cookie.expires instanceof Date ? cookie.expires : new Date(cookie.expires ?? Date.now()));
