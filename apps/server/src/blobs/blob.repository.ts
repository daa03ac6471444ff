import { randomUUID, createHash } from 'node:crypto';
import type { Database } from '../database/database';
import { tooLarge } from '../http/problem';

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

export class BlobRepository {
  constructor(private readonly database: Database) {}

  /**
   * Keeps what comes, piece by piece. Each piece is a transaction of its own: none is held while somebody's line is slow. What does not come to its end is cleared later.
   * @param most in bytes; errors: `HttpProblem` `too-large`
   */
  async keep(studioId: string, coming: AsyncIterable<Uint8Array>, most: number): Promise<KeptBlob> {
    const id = randomUUID();
    const hash = createHash('sha256');
    let [bytes, position] = [0, 0];
    await this.database.inStudio(studioId, () => this.database.query('INSERT INTO blob (studio_id, id) VALUES ($1, $2)', [studioId, id]));
    try {
      for await (const piece of pieces(coming)) {
        bytes += piece.length;
        if (bytes > most) throw tooLarge();
        hash.update(piece);
        const at = position;
        await this.database.inStudio(studioId, () => this.putPiece(studioId, id, at, piece));
        position += 1;
      }
      await this.database.inStudio(studioId, () => this.database.query('UPDATE blob SET bytes = $3 WHERE studio_id = $1 AND id = $2', [studioId, id, bytes]));
    } catch (error) {
      await this.remove(studioId, id).catch(() => undefined);
      throw error;
    }
    return { id, bytes, sum: hash.digest('hex') };
  }

  /** Its pieces in their order, each fetched when the one before was taken. */
  async *read(studioId: string, id: string): AsyncGenerator<Buffer> {
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

  /** All of a file that is short enough to stand in memory. Belongs into a transaction. */
  async whole(studioId: string, id: string): Promise<Buffer> {
    const rows = await this.database.query<{ content: Buffer }>('SELECT content FROM blob_piece WHERE studio_id = $1 AND blob_id = $2 ORDER BY position', [
      studioId,
      id,
    ]);
    return Buffer.concat(rows.map(({ content }) => content));
  }

  /** Keeps a file that stands in memory, together with what names it. Belongs into a transaction. @returns its id */
  async put(studioId: string, file: Buffer): Promise<string> {
    const id = randomUUID();
    await this.database.query('INSERT INTO blob (studio_id, id, bytes) VALUES ($1, $2, $3)', [studioId, id, file.length]);
    for (let position = 0; position * pieceBytes < file.length; position += 1)
      await this.putPiece(studioId, id, position, file.subarray(position * pieceBytes, (position + 1) * pieceBytes));
    return id;
  }

  private async putPiece(studioId: string, id: string, position: number, content: Buffer): Promise<void> {
    await this.database.query('INSERT INTO blob_piece (studio_id, blob_id, position, content) VALUES ($1, $2, $3, $4)', [studioId, id, position, content]);
  }

  async remove(studioId: string, id: string): Promise<void> {
    await this.database.inStudio(studioId, () => this.database.query('DELETE FROM blob WHERE studio_id = $1 AND id = $2', [studioId, id]));
  }

  /** Whether a file has come in whole and belongs to nothing yet. */
  async isFree(studioId: string, id: string): Promise<boolean> {
    const rows = await this.database.query(`SELECT 1 FROM blob WHERE studio_id = $1 AND id = $2 AND bytes IS NOT NULL AND ${isNamedByNothing}`, [studioId, id]);
    return rows.length === 1;
  }

  /** Takes away what never came to its end, and what nothing names any more, of the studio in hand. */
  async clear(): Promise<void> {
    await this.database.query(`DELETE FROM blob WHERE created_at < now() - interval '1 day' AND (bytes IS NULL OR (${isNamedByNothing}))`);
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
