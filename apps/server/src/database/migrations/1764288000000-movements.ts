import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a studio says of movements, how it plays and speaks them, and which ones a student has. */
export class Movements1764288000000 implements MigrationInterface {
  readonly name = 'Movements1764288000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE student ADD COLUMN movements jsonb NOT NULL DEFAULT '[]';
      ALTER TABLE studio ADD COLUMN movement_choices jsonb, ADD COLUMN movement_choices_version int NOT NULL DEFAULT 1;

      CREATE TABLE movement (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        movement text NOT NULL,
        definition jsonb,
        kept_by text NOT NULL,
        kept_on text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        UNIQUE (studio_id, movement)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE movement;
      ALTER TABLE studio DROP COLUMN movement_choices, DROP COLUMN movement_choices_version;
      ALTER TABLE student DROP COLUMN movements;
    `);
  }
}
