import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What teachers say of a tune beside its text, and how a student plays it. */
export class Arrangements1765152000000 implements MigrationInterface {
  readonly name = 'Arrangements1765152000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE tune ADD COLUMN about jsonb NOT NULL DEFAULT '{}', ADD COLUMN about_version int NOT NULL DEFAULT 1`);
    await runner.query(`CREATE TABLE arrangement (
      studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
      id uuid NOT NULL,
      student_id uuid NOT NULL,
      tune_id uuid NOT NULL,
      arrangement jsonb NOT NULL,
      version int NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      updated_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (studio_id, id),
      UNIQUE (studio_id, student_id, tune_id),
      FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE,
      FOREIGN KEY (studio_id, tune_id) REFERENCES tune (studio_id, id) ON DELETE CASCADE
    )`);
    await runner.query('CREATE INDEX arrangement_by_tune ON arrangement (studio_id, tune_id)');
    await runner.query('ALTER TABLE arrangement ENABLE ROW LEVEL SECURITY');
    await runner.query('CREATE POLICY own_studio ON arrangement USING (studio_id = current_studio())');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE arrangement');
    await runner.query('ALTER TABLE tune DROP COLUMN about, DROP COLUMN about_version');
  }
}
