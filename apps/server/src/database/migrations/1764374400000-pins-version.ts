import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Fixed fingerings of a tune have a version of their own, so that two windows do not write over each other. */
export class PinsVersion1764374400000 implements MigrationInterface {
  readonly name = 'PinsVersion1764374400000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE tune ADD COLUMN pins_version int NOT NULL DEFAULT 1');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE tune DROP COLUMN pins_version');
  }
}
