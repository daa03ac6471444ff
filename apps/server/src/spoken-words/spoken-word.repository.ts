import { wordDays, type SpokenWord } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { SpokenWordEntity } from './spoken-word.entity';

/** A word with where its sound lies. */
export type KeptWord = SpokenWord & Pick<SpokenWordEntity, 'blobId'>;

const dayMs = 86_400_000;

const shown = ({ id, lessonId, title, seconds, at, keptUntil }: SpokenWordEntity): SpokenWord => ({
  ...{ id, lessonId, title, seconds },
  at: at.toISOString(),
  keptUntil: keptUntil.toISOString(),
});

/** Words that were spoken in lessons. */
export class SpokenWordRepository {
  constructor(private readonly database: Database) {}

  /** In the order in which they were said. */
  async ofLesson(studioId: string, lessonId: string): Promise<SpokenWord[]> {
    return (await this.database.of(SpokenWordEntity).find({ where: { studioId, lessonId }, order: { at: 'ASC', id: 'ASC' } })).map(shown);
  }

  async get(studioId: string, id: string): Promise<KeptWord | undefined> {
    const row = await this.database.of(SpokenWordEntity).findOneBy({ studioId, id });
    return row === null ? undefined : { ...shown(row), blobId: row.blobId };
  }

  async add(studioId: string, word: Pick<SpokenWordEntity, 'lessonId' | 'blobId' | 'title' | 'seconds'>): Promise<SpokenWord> {
    const at = new Date();
    const row = { ...word, studioId, id: randomUUID(), at, keptUntil: new Date(at.getTime() + wordDays * dayMs) };
    await this.database.of(SpokenWordEntity).insert(row);
    return shown(row);
  }

  /** With its sound: the word goes with it. */
  async drop(studioId: string, { blobId }: KeptWord): Promise<void> {
    await this.database.query('DELETE FROM blob WHERE studio_id = $1 AND id = $2', [studioId, blobId]);
  }

  /** Those whose time is over, of the studio in hand. */
  async clear(): Promise<void> {
    await this.database.query('DELETE FROM blob WHERE (studio_id, id) IN (SELECT studio_id, blob_id FROM spoken_word WHERE kept_until < now())');
  }
}
