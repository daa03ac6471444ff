import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Instruments that people play, models that a studio made, fingerings that teachers confirmed. */
export class Instruments1764115200000 implements MigrationInterface {
  readonly name = 'Instruments1764115200000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE model (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        name text NOT NULL,
        instrument jsonb NOT NULL,
        made_by text NOT NULL,
        version int NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        updated_at timestamptz NOT NULL DEFAULT now(),
        deleted_at timestamptz
      );
      CREATE INDEX model_by_studio ON model (studio_id, name, id);

      CREATE TABLE instrument (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        student_id uuid REFERENCES student(id) ON DELETE CASCADE,
        teacher_id uuid REFERENCES teacher(id) ON DELETE SET NULL,
        name text NOT NULL,
        model text NOT NULL,
        hands text NOT NULL CHECK (hands IN ('left-on-top', 'right-on-top')),
        tuning jsonb NOT NULL,
        schools jsonb NOT NULL,
        reference_hertz float8,
        known_notes jsonb NOT NULL,
        note text NOT NULL,
        version int NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        updated_at timestamptz NOT NULL DEFAULT now(),
        deleted_at timestamptz,
        CHECK (student_id IS NULL OR teacher_id IS NULL)
      );
      CREATE INDEX instrument_by_studio ON instrument (studio_id, name, id);
      CREATE INDEX instrument_by_student ON instrument (student_id);

      CREATE TABLE fingering (
        id uuid PRIMARY KEY,
        studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
        model text NOT NULL,
        note text NOT NULL,
        pattern_key text NOT NULL,
        kept jsonb NOT NULL,
        confirmed_by text NOT NULL,
        confirmed_on text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        UNIQUE (studio_id, model, note, pattern_key)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE fingering, instrument, model');
  }
}
