import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Lines with their own music, fingerings pinned with a tune, results of trials. */
export class ChangeBench1764201600000 implements MigrationInterface {
  readonly name = 'ChangeBench1764201600000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE sheet_line ADD COLUMN exercise jsonb;
      ALTER TABLE tune ADD COLUMN pins jsonb NOT NULL DEFAULT '[]';

      CREATE TABLE trial (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        student_id uuid REFERENCES student(id) ON DELETE CASCADE,
        model text NOT NULL,
        kind text NOT NULL CHECK (kind IN ('fingers', 'ear', 'fault-hunt')),
        result jsonb NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX trial_by_studio ON trial (studio_id, created_at DESC, id DESC);
      CREATE INDEX trial_by_student ON trial (student_id, created_at DESC);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE trial; ALTER TABLE tune DROP COLUMN pins; ALTER TABLE sheet_line DROP COLUMN exercise;');
  }
}
