import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is said in a lesson, until its time is over. */
export class SpokenWords1765929600000 implements MigrationInterface {
  readonly name = 'SpokenWords1765929600000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE spoken_word (
      studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
      id uuid NOT NULL,
      lesson_id uuid NOT NULL,
      blob_id uuid NOT NULL,
      title text NOT NULL,
      seconds int NOT NULL,
      at timestamptz NOT NULL,
      kept_until timestamptz NOT NULL,
      PRIMARY KEY (studio_id, id),
      UNIQUE (studio_id, blob_id),
      FOREIGN KEY (studio_id, lesson_id) REFERENCES lesson (studio_id, id) ON DELETE CASCADE,
      -- What has lost its sound is no word any more.
      FOREIGN KEY (studio_id, blob_id) REFERENCES blob (studio_id, id) ON DELETE CASCADE
    )`);
    await runner.query('CREATE INDEX spoken_word_of_lesson ON spoken_word (studio_id, lesson_id, at)');
    await runner.query('CREATE INDEX spoken_word_kept_until ON spoken_word (studio_id, kept_until)');
    await runner.query('ALTER TABLE spoken_word ENABLE ROW LEVEL SECURITY');
    await runner.query('CREATE POLICY own_studio ON spoken_word USING (studio_id = current_studio())');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE spoken_word');
  }
}
