import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Long work with what it takes and gives, files in pieces, and how much room each studio takes. */
export class Jobs1765497600000 implements MigrationInterface {
  readonly name = 'Jobs1765497600000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE blob (
      studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
      id uuid NOT NULL,
      -- Null while it is still coming in.
      bytes bigint,
      created_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (studio_id, id)
    )`);
    await runner.query(`CREATE TABLE blob_piece (
      studio_id uuid NOT NULL,
      blob_id uuid NOT NULL,
      position int NOT NULL,
      content bytea NOT NULL,
      PRIMARY KEY (studio_id, blob_id, position),
      FOREIGN KEY (studio_id, blob_id) REFERENCES blob (studio_id, id) ON DELETE CASCADE
    )`);
    // What comes in is packed already.
    await runner.query('ALTER TABLE blob_piece ALTER COLUMN content SET STORAGE EXTERNAL');
    await runner.query(`CREATE TABLE job (
      studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
      id uuid NOT NULL,
      teacher_id uuid NOT NULL,
      who text NOT NULL,
      kind text NOT NULL,
      name text NOT NULL,
      settings jsonb NOT NULL,
      state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'running', 'done', 'failed', 'stopped')),
      done int NOT NULL DEFAULT 0,
      of int,
      input_id uuid,
      output_id uuid,
      result jsonb,
      problem text NOT NULL DEFAULT '',
      -- How often it was begun: what ends the server each time is not begun for ever.
      begun int NOT NULL DEFAULT 0,
      worker uuid,
      beat_at timestamptz,
      created_at timestamptz NOT NULL DEFAULT now(),
      ended_at timestamptz,
      PRIMARY KEY (studio_id, id),
      FOREIGN KEY (studio_id, teacher_id) REFERENCES membership (studio_id, account_id) ON DELETE CASCADE,
      FOREIGN KEY (studio_id, input_id) REFERENCES blob (studio_id, id) ON DELETE SET NULL (input_id),
      FOREIGN KEY (studio_id, output_id) REFERENCES blob (studio_id, id) ON DELETE SET NULL (output_id)
    )`);
    await runner.query('CREATE INDEX job_by_teacher ON job (studio_id, teacher_id, created_at)');
    await runner.query("CREATE INDEX job_open ON job (studio_id, created_at) WHERE state IN ('waiting', 'running')");
    await runner.query('CREATE INDEX job_input ON job (studio_id, input_id) WHERE input_id IS NOT NULL');
    await runner.query('CREATE INDEX job_output ON job (studio_id, output_id) WHERE output_id IS NOT NULL');
    for (const table of ['blob', 'blob_piece', 'job']) {
      await runner.query(`ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY`);
      await runner.query(`CREATE POLICY own_studio ON ${table} USING (studio_id = current_studio())`);
    }
    // How much room a studio takes, as it was counted last.
    await runner.query('ALTER TABLE studio ADD COLUMN bytes_stored bigint, ADD COLUMN bytes_counted_at timestamptz');
    // Which studios have work is asked before any studio is named; nothing but their ids comes out.
    await runner.query(`CREATE FUNCTION studios_with_work(stale_seconds int) RETURNS SETOF uuid LANGUAGE sql SECURITY DEFINER SET search_path = pg_catalog, public AS
      $$ SELECT DISTINCT studio_id FROM job
         WHERE state = 'waiting' OR (state = 'running' AND beat_at < now() - make_interval(secs => stale_seconds)) $$`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP FUNCTION studios_with_work(int)');
    await runner.query('ALTER TABLE studio DROP COLUMN bytes_stored, DROP COLUMN bytes_counted_at');
    await runner.query('DROP TABLE job, blob_piece, blob');
  }
}
