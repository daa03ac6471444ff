import { createHash } from 'node:crypto';
import type { Request } from 'express';
import type { Database } from '../database/database';
import { HttpProblem } from '../http/problem';

/** How often something may be tried before each further try must wait, twice as long each time. Seconds. */
interface Kind {
  readonly free: number;
  readonly firstPause: number;
  readonly longestPause: number;
  readonly forgetAfter: number;
  readonly what: string;
}

const day = 24 * 3600;

/**
 * From one address an account gets slow soon. Over all addresses it never gets so slow that whoever guesses keeps its owner out, and an address never so slow
 * that a school behind it is.
 */
const kinds = {
  'password from there': { free: 5, firstPause: 2, longestPause: 15 * 60, forgetAfter: day, what: 'wrong passwords' },
  'password of account': { free: 20, firstPause: 1, longestPause: 30, forgetAfter: day, what: 'wrong passwords' },
  'password from address': { free: 60, firstPause: 1, longestPause: 20, forgetAfter: 3600, what: 'wrong passwords' },
  'reset of account': { free: 4, firstPause: 60, longestPause: 3600, forgetAfter: day, what: 'requests for a new password' },
  'code of link': { free: 10, firstPause: 2, longestPause: 3600, forgetAfter: day, what: 'wrong codes' },
  'asking from address': { free: 30, firstPause: 2, longestPause: 60, forgetAfter: 900, what: 'requests' },
} as const satisfies Readonly<Record<string, Kind>>;

type TryKind = keyof typeof kinds;

/** Tries counted in the database, over all servers. Of an account's address only a hash is kept. */
export class Tries {
  constructor(private readonly database: Database) {}

  /**
   * Counts a try before anything is done, so that many at once do not slip through.
   * @throws HttpProblem `too-many-tries` with the seconds to wait
   */
  async take(kind: TryKind, whose: string): Promise<void> {
    const { free, firstPause, longestPause, forgetAfter, what } = kinds[kind];
    const [{ seconds }] = await this.database.query<{ seconds: number }>('SELECT tries_take($1, $2, $3, $4, $5) AS seconds', [
      keyOf(kind, whose),
      free,
      firstPause,
      longestPause,
      forgetAfter,
    ]);
    if (seconds === 0) return;
    throw new HttpProblem('too-many-tries', `Too many ${what}. Try again in ${waitText(seconds)}.`, { retryAfter: seconds });
  }

  /** Counts a try of a password. @throws HttpProblem as `take` */
  async takePassword(email: string, request: Request): Promise<void> {
    const address = addressOf(request);
    await this.take('password from there', `${email} ${address}`);
    await this.take('password of account', email);
    await this.take('password from address', address);
  }

  /** A right password ends the counting of the account's wrong ones, and was no wrong one from its address. */
  async passwordWasRight(email: string, request: Request): Promise<void> {
    await this.database.query('SELECT tries_forget($1), tries_forget($2)', [
      keyOf('password from there', `${email} ${addressOf(request)}`),
      keyOf('password of account', email),
    ]);
    await this.database.query('SELECT tries_give_back($1)', [keyOf('password from address', addressOf(request))]);
  }

  /** A right code ends the counting of the wrong ones. */
  async codeWasRight(link: string): Promise<void> {
    await this.database.query('SELECT tries_forget($1)', [keyOf('code of link', link)]);
  }

  async clear(): Promise<void> {
    await this.database.query('SELECT tries_clear()');
  }
}

const keyOf = (kind: TryKind, whose: string): string => `${kind}: ${createHash('sha256').update(whose.toLowerCase()).digest('hex')}`;

const waitText = (seconds: number): string => {
  if (seconds === 1) return 'a second';
  return seconds < 120 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
};

/** Where a request comes from. Who has an address of the new kind usually has a whole block of 64 bits. */
export function addressOf({ ip = '' }: Request): string {
  return ip.includes(':') && !ip.startsWith('::ffff:') ? ip.split(':').slice(0, 4).join(':') : ip;
}
