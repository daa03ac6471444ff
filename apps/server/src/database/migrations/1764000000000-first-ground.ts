import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Studio, teacher, student, tune, sheet, its lines, and the sessions of connect-pg-simple. */
export class FirstGround1764000000000 implements MigrationInterface {
  readonly name = 'FirstGround1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE studio (
        id uuid PRIMARY KEY,
        name text NOT NULL,
        is_demo boolean NOT NULL DEFAULT false,
        created_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE TABLE teacher (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        name text NOT NULL,
        email text NOT NULL UNIQUE,
        password_hash text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE TABLE student (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        alias text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        deleted_at timestamptz
      );
      CREATE INDEX student_by_studio ON student (studio_id);
      CREATE TABLE tune (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        title text NOT NULL,
        rhythm text NOT NULL,
        meter text NOT NULL,
        music_key text NOT NULL,
        bars int NOT NULL,
        outside int NOT NULL,
        instrument text NOT NULL,
        abc text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        updated_at timestamptz NOT NULL DEFAULT now(),
        deleted_at timestamptz
      );
      CREATE INDEX tune_by_studio ON tune (studio_id, title);
      CREATE TABLE sheet (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        student_id uuid NOT NULL REFERENCES student(id) ON DELETE CASCADE,
        tune_id uuid REFERENCES tune(id) ON DELETE SET NULL,
        instrument text NOT NULL,
        title text NOT NULL,
        note text NOT NULL,
        version int NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        updated_at timestamptz NOT NULL DEFAULT now(),
        deleted_at timestamptz
      );
      CREATE INDEX sheet_by_studio ON sheet (studio_id, updated_at DESC);
      CREATE TABLE sheet_line (
        id uuid PRIMARY KEY,
        sheet_id uuid NOT NULL REFERENCES sheet(id) ON DELETE CASCADE,
        position int NOT NULL,
        code text NOT NULL UNIQUE,
        home text NOT NULL,
        other text NOT NULL,
        repetitions int NOT NULL,
        tempo int,
        point text NOT NULL
      );
      CREATE INDEX sheet_line_by_sheet ON sheet_line (sheet_id, position);
      CREATE TABLE session (
        sid varchar NOT NULL PRIMARY KEY,
        sess json NOT NULL,
        expire timestamp(6) NOT NULL
      );
      CREATE INDEX session_by_expiry ON session (expire);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE session, sheet_line, sheet, tune, student, teacher, studio');
  }
}
