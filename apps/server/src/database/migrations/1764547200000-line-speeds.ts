import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A line may be drilled at several speeds, one after the other. */
export class LineSpeeds1764547200000 implements MigrationInterface {
  readonly name = 'LineSpeeds1764547200000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sheet_line ADD COLUMN speeds jsonb');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sheet_line DROP COLUMN speeds');
  }
}
