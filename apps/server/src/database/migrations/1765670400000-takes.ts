import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Takes that are kept; their sound lies in pieces beside all other files. */
export class Takes1765670400000 implements MigrationInterface {
  readonly name = 'Takes1765670400000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE take (
      studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
      id uuid NOT NULL,
      -- Null for a teacher's own.
      student_id uuid,
      blob_id uuid NOT NULL,
      title text NOT NULL,
      asked jsonb NOT NULL,
      model text NOT NULL,
      seconds int NOT NULL,
      places int NOT NULL,
      faulty int NOT NULL,
      text text NOT NULL,
      by text NOT NULL,
      remarks jsonb NOT NULL DEFAULT '[]',
      -- Null where it stays until somebody deletes it.
      kept_until timestamptz,
      version int NOT NULL DEFAULT 1,
      at timestamptz NOT NULL,
      PRIMARY KEY (studio_id, id),
      UNIQUE (studio_id, blob_id),
      FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE,
      -- What has lost its sound is no take any more.
      FOREIGN KEY (studio_id, blob_id) REFERENCES blob (studio_id, id) ON DELETE CASCADE
    )`);
    await runner.query('CREATE INDEX take_by_time ON take (studio_id, at DESC, id DESC)');
    await runner.query('CREATE INDEX take_by_student ON take (studio_id, student_id, at DESC, id DESC)');
    await runner.query('CREATE INDEX take_kept_until ON take (studio_id, kept_until) WHERE kept_until IS NOT NULL');
    await runner.query('ALTER TABLE take ENABLE ROW LEVEL SECURITY');
    await runner.query('CREATE POLICY own_studio ON take USING (studio_id = current_studio())');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE take');
  }
}
