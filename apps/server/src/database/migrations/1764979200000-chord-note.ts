import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which note of its chords a tune is read by. */
export class ChordNote1764979200000 implements MigrationInterface {
  readonly name = 'ChordNote1764979200000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE tune ADD COLUMN chord_note text NOT NULL DEFAULT 'highest'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE tune DROP COLUMN chord_note');
  }
}
