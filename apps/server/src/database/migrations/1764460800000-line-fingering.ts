import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A line may be practised in other fingers than the ones taught first. */
export class LineFingering1764460800000 implements MigrationInterface {
  readonly name = 'LineFingering1764460800000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sheet_line ADD COLUMN fingering jsonb');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sheet_line DROP COLUMN fingering');
  }
}
