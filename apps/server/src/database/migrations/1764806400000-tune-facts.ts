import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What lists need of a tune, the reader that worked it out, and which of its voices is read. Tunes of before are read again when a server starts. */
export class TuneFacts1764806400000 implements MigrationInterface {
  readonly name = 'TuneFacts1764806400000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE tune ADD COLUMN voice text NOT NULL DEFAULT '', ADD COLUMN reader int NOT NULL DEFAULT 1, ADD COLUMN facts jsonb NOT NULL DEFAULT '{}';
      CREATE INDEX tune_by_reader ON tune (studio_id, reader);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX tune_by_reader; ALTER TABLE tune DROP COLUMN voice, DROP COLUMN reader, DROP COLUMN facts');
  }
}
