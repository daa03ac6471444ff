import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Roles, one-time links, mail, who changed what, answers kept for repeated writes, versions, consent, lines that come back. */
export class WholeStudio1764060000000 implements MigrationInterface {
  readonly name = 'WholeStudio1764060000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE teacher ADD role text NOT NULL DEFAULT 'owner' CHECK (role IN ('owner', 'teacher'));
      ALTER TABLE student
        ADD version int NOT NULL DEFAULT 1,
        ADD consent jsonb;
      ALTER TABLE tune ADD version int NOT NULL DEFAULT 1;
      ALTER TABLE sheet_line ADD removed_at timestamptz;
      DROP INDEX tune_by_studio;
      CREATE INDEX tune_by_studio ON tune (studio_id, title, id);
      DROP INDEX sheet_by_studio;
      CREATE INDEX sheet_by_studio ON sheet (studio_id, updated_at DESC, id);

      CREATE TABLE one_time_link (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        purpose text NOT NULL CHECK (purpose IN ('invitation', 'reset', 'student')),
        token_hash text NOT NULL UNIQUE,
        name text NOT NULL,
        email text NOT NULL,
        teacher_id uuid REFERENCES teacher(id) ON DELETE CASCADE,
        student_id uuid REFERENCES student(id) ON DELETE CASCADE,
        created_at timestamptz NOT NULL DEFAULT now(),
        expires_at timestamptz NOT NULL,
        used_at timestamptz
      );
      CREATE INDEX one_time_link_by_studio ON one_time_link (studio_id, purpose);

      CREATE TABLE mail (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        recipient text NOT NULL,
        subject text NOT NULL,
        body text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX mail_by_time ON mail (created_at DESC, id);

      CREATE TABLE audit_entry (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        teacher_id uuid REFERENCES teacher(id) ON DELETE SET NULL,
        who text NOT NULL,
        did text NOT NULL,
        kind text NOT NULL,
        thing_id uuid,
        thing text NOT NULL,
        first_at timestamptz NOT NULL DEFAULT now(),
        last_at timestamptz NOT NULL DEFAULT now(),
        times int NOT NULL DEFAULT 1
      );
      CREATE INDEX audit_entry_by_studio ON audit_entry (studio_id, last_at DESC, id);
      CREATE INDEX audit_entry_by_thing ON audit_entry (thing_id, last_at DESC);

      CREATE TABLE kept_answer (
        asked_by uuid NOT NULL,
        key uuid NOT NULL,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        request_hash text NOT NULL,
        status int,
        body text,
        created_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (asked_by, key)
      );
      CREATE INDEX kept_answer_by_time ON kept_answer (created_at);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE kept_answer, audit_entry, mail, one_time_link;
      DELETE FROM sheet_line WHERE removed_at IS NOT NULL;
      ALTER TABLE sheet_line DROP removed_at;
      ALTER TABLE tune DROP version;
      ALTER TABLE student DROP version, DROP consent;
      ALTER TABLE teacher DROP role;
    `);
  }
}
