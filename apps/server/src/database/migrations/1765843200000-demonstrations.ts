import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A teacher's own take that students hear beside theirs. */
export class Demonstrations1765843200000 implements MigrationInterface {
  readonly name = 'Demonstrations1765843200000';

  async up(runner: QueryRunner): Promise<void> {
    // A student's take is shown to nobody else.
    await runner.query('ALTER TABLE take ADD COLUMN is_shown boolean NOT NULL DEFAULT false, ADD CHECK (student_id IS NULL OR NOT is_shown)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE take DROP COLUMN is_shown');
  }
}
