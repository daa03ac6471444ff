import { createHash, randomUUID } from 'node:crypto';
import { Readable } from 'node:stream';
import type { Database } from '../database/database';
import { HttpProblem, tooLarge } from '../http/problem';
import type { ObjectStore } from './object-store';

/** Files of a studio, in pieces, so that none ever stands in memory whole. */
export interface KeptBlob {
  readonly id: string;
  readonly bytes: number;
  /** SHA-256, in hexadecimal. */
  readonly sum: string;
}

const pieceBytes = 256 * 1024;

/** Who names a file: a job by what it takes or gives, a take and a spoken word by their sound. */
const isNamedByNothing = `NOT EXISTS (SELECT 1 FROM job WHERE job.studio_id = blob.studio_id AND blob.id IN (job.input_id, job.output_id))
  AND NOT EXISTS (SELECT 1 FROM take WHERE take.studio_id = blob.studio_id AND take.blob_id = blob.id)
  AND NOT EXISTS (SELECT 1 FROM spoken_word word WHERE word.studio_id = blob.studio_id AND word.blob_id = blob.id)`;

/** Where a file is uploaded to before the transaction that names it has ended, what it left is deleted after so long. */
const abandonedAfter = "interval '1 day'";
/** Files deleted from the store in one go. */
const sweptAtOnce = 500;

const nameOf = (studioId: string, id: string): string => `${studioId}/${id}`;

/**
 * The files. Their content lies in the database, or, where one is set, in a store beside it: what was kept before stays where it is. Every file has its row,
 * and goes with it.
 */
export class BlobRepository {
  constructor(private readonly database: Database) {}

  /**
   * Keeps what comes, piece by piece. Each piece is a transaction of its own: none is held while somebody's line is slow. What does not come to its end is cleared later.
   * @param most in bytes; errors: `HttpProblem` `too-large`, `files-away`
   */
  async keep(studioId: string, coming: AsyncIterable<Uint8Array>, most: number): Promise<KeptBlob> {
    const [id, { files }] = [randomUUID(), this.database];
    const counted = new CountedPieces(coming, most);
    await this.database.inStudio(studioId, () =>
      this.database.query('INSERT INTO blob (studio_id, id, is_beside) VALUES ($1, $2, $3)', [studioId, id, files !== undefined]),
    );
    try {
      if (files === undefined) await this.putPieces(studioId, id, counted, (put) => this.database.inStudio(studioId, put));
      else await files.keep(nameOf(studioId, id), counted);
      await this.database.inStudio(studioId, () =>
        this.database.query('UPDATE blob SET bytes = $3 WHERE studio_id = $1 AND id = $2', [studioId, id, counted.bytes]),
      );
    } catch (error) {
      await this.remove(studioId, id).catch(() => undefined);
      throw error;
    }
    return { id, bytes: counted.bytes, sum: counted.sum() };
  }

  /** Its pieces in their order, each fetched when the one before was taken. Errors: `HttpProblem` `files-away` */
  async *read(studioId: string, id: string): AsyncGenerator<Buffer> {
    if (await this.database.inStudio(studioId, () => this.isBeside(studioId, id))) {
      yield* this.storeOf().read(nameOf(studioId, id));
      return;
    }
    for (let position = 0; ; position += 1) {
      const rows = await this.database.inStudio(studioId, () =>
        this.database.query<{ content: Buffer }>('SELECT content FROM blob_piece WHERE studio_id = $1 AND blob_id = $2 AND position = $3', [
          studioId,
          id,
          position,
        ]),
      );
      if (rows.length === 0) return;
      yield rows[0].content;
    }
  }

  /** The same as a stream whose first piece is there already: what cannot be read is told before an answer has begun. */
  async open(studioId: string, id: string): Promise<Readable> {
    const pieces = this.read(studioId, id);
    const first = await pieces.next();
    return Readable.from(
      (async function* () {
        if (first.done !== true) yield first.value;
        yield* pieces;
      })(),
    );
  }

  /** All of a file that is short enough to stand in memory. Belongs into a transaction. */
  async whole(studioId: string, id: string): Promise<Buffer> {
    if (await this.isBeside(studioId, id)) {
      const all: Buffer[] = [];
      for await (const piece of this.storeOf().read(nameOf(studioId, id))) all.push(piece);
      return Buffer.concat(all);
    }
    const rows = await this.database.query<{ content: Buffer }>('SELECT content FROM blob_piece WHERE studio_id = $1 AND blob_id = $2 ORDER BY position', [
      studioId,
      id,
    ]);
    return Buffer.concat(rows.map(({ content }) => content));
  }

  /** Keeps a file that stands in memory, together with what names it. Belongs into a transaction. @returns its id */
  async put(studioId: string, file: Buffer): Promise<string> {
    const [id, { files }, content] = [randomUUID(), this.database, pieces(Readable.from([file]))];
    if (files !== undefined) {
      // Noted apart: where this transaction comes to nothing, what lies in the store goes all the same.
      await this.database.apart(() =>
        this.database.inStudio(studioId, () =>
          this.database.query(`INSERT INTO blob_gone (studio_id, id, since) VALUES ($1, $2, now() + ${abandonedAfter})`, [studioId, id]),
        ),
      );
      await files.keep(nameOf(studioId, id), content);
    }
    await this.database.query('INSERT INTO blob (studio_id, id, bytes, is_beside) VALUES ($1, $2, $3, $4)', [studioId, id, file.length, files !== undefined]);
    if (files === undefined) await this.putPieces(studioId, id, content, (put) => put());
    return id;
  }

  private async putPieces(
    studioId: string,
    id: string,
    coming: AsyncIterable<Buffer>,
    within: (put: () => Promise<unknown>) => Promise<unknown>,
  ): Promise<void> {
    let position = 0;
    for await (const piece of coming) {
      const at = position;
      await within(() =>
        this.database.query('INSERT INTO blob_piece (studio_id, blob_id, position, content) VALUES ($1, $2, $3, $4)', [studioId, id, at, piece]),
      );
      position += 1;
    }
  }

  private async isBeside(studioId: string, id: string): Promise<boolean> {
    const [row] = await this.database.query<{ isBeside: boolean }>('SELECT is_beside AS "isBeside" FROM blob WHERE studio_id = $1 AND id = $2', [studioId, id]);
    return (row as { isBeside: boolean } | undefined)?.isBeside === true;
  }

  /** @throws HttpProblem where a file lies in a store that this server was not told of */
  private storeOf(): ObjectStore {
    const { files } = this.database;
    if (files === undefined)
      throw new HttpProblem(
        'files-away',
        'This file lies in a store that this server knows nothing of any more. Whoever looks after the server has to set it again.',
      );
    return files;
  }

  /** Deletes from the store what is gone from the tables, whichever studio it was of. */
  async sweep(): Promise<void> {
    const { files } = this.database;
    if (files === undefined) return;
    for (const { id: studioId } of await this.database.query<{ id: string }>('SELECT studios_with_gone_files() AS id')) {
      const gone = await this.database.inStudio(studioId, () =>
        this.database.query<{ id: string; isThere: boolean }>(
          `SELECT gone.id, EXISTS (SELECT 1 FROM blob WHERE blob.studio_id = gone.studio_id AND blob.id = gone.id) AS "isThere"
           FROM blob_gone gone WHERE gone.studio_id = $1 AND gone.since <= now() LIMIT ${sweptAtOnce}`,
          [studioId],
        ),
      );
      await files.remove(gone.filter(({ isThere }) => !isThere).map(({ id }) => nameOf(studioId, id)));
      await this.database.inStudio(studioId, () =>
        this.database.query('DELETE FROM blob_gone WHERE studio_id = $1 AND id = ANY($2::uuid[])', [studioId, gone.map(({ id }) => id)]),
      );
    }
  }

  async remove(studioId: string, id: string): Promise<void> {
    await this.database.inStudio(studioId, () => this.database.query('DELETE FROM blob WHERE studio_id = $1 AND id = $2', [studioId, id]));
  }

  /** Whether a file of at most so many bytes has come in whole and belongs to nothing yet. */
  async isFree(studioId: string, id: string, most: number): Promise<boolean> {
    const rows = await this.database.query(`SELECT 1 FROM blob WHERE studio_id = $1 AND id = $2 AND bytes <= $3 AND ${isNamedByNothing}`, [studioId, id, most]);
    return rows.length === 1;
  }

  /** Takes away what never came to its end, and what nothing names any more, of the studio in hand. */
  async clear(): Promise<void> {
    await this.database.query(`DELETE FROM blob WHERE created_at < now() - interval '1 day' AND (bytes IS NULL OR (${isNamedByNothing}))`);
  }
}

/** The same bytes in pieces, counted and summed as they go by. */
class CountedPieces implements AsyncIterable<Buffer> {
  bytes = 0;
  private readonly hash = createHash('sha256');

  constructor(
    private readonly coming: AsyncIterable<Uint8Array>,
    /** In bytes. */
    private readonly most: number,
  ) {}

  /** SHA-256 of all that went by, in hexadecimal; once. */
  sum(): string {
    return this.hash.digest('hex');
  }

  async *[Symbol.asyncIterator](): AsyncGenerator<Buffer> {
    for await (const piece of pieces(this.coming)) {
      this.bytes += piece.length;
      if (this.bytes > this.most) throw tooLarge();
      this.hash.update(piece);
      yield piece;
    }
  }
}

/** The same bytes in pieces of one size but for the last. */
async function* pieces(coming: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let [waiting, length]: [Uint8Array[], number] = [[], 0];
  for await (const part of coming) {
    waiting.push(part);
    length += part.length;
    while (length >= pieceBytes) {
      const all = Buffer.concat(waiting);
      yield all.subarray(0, pieceBytes);
      [waiting, length] = [[all.subarray(pieceBytes)], all.length - pieceBytes];
    }
  }
  if (length > 0) yield Buffer.concat(waiting);
}
