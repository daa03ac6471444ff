import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Sheets become reviews: what they say of each item, their lesson, when they were sent; and what a teacher knows of a student's day. */
export class Reviews1765324800000 implements MigrationInterface {
  readonly name = 'Reviews1765324800000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sheet_line ADD COLUMN details jsonb');
    await runner.query(`ALTER TABLE sheet
      ADD COLUMN review jsonb,
      ADD COLUMN lesson_id uuid,
      ADD COLUMN sent_at timestamptz,
      ADD COLUMN opened_at timestamptz,
      ADD COLUMN replaces_id uuid,
      ADD FOREIGN KEY (studio_id, lesson_id) REFERENCES lesson (studio_id, id) ON DELETE SET NULL (lesson_id),
      ADD FOREIGN KEY (studio_id, replaces_id) REFERENCES sheet (studio_id, id) ON DELETE SET NULL (replaces_id)`);
    // Two teachers who begin the review of one lesson at once get the same one; so do two who write it anew.
    await runner.query(
      'CREATE UNIQUE INDEX sheet_review_of_lesson ON sheet (studio_id, lesson_id) WHERE lesson_id IS NOT NULL AND replaces_id IS NULL AND deleted_at IS NULL',
    );
    await runner.query('CREATE UNIQUE INDEX sheet_anew ON sheet (studio_id, replaces_id) WHERE replaces_id IS NOT NULL AND deleted_at IS NULL');
    await runner.query(`ALTER TABLE student
      ADD COLUMN level text,
      ADD COLUMN day_minutes int NOT NULL DEFAULT 20,
      ADD COLUMN mail_to text,
      ADD COLUMN groups jsonb NOT NULL DEFAULT '[]'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE student DROP COLUMN level, DROP COLUMN day_minutes, DROP COLUMN mail_to, DROP COLUMN groups');
    await runner.query('ALTER TABLE sheet DROP COLUMN review, DROP COLUMN lesson_id, DROP COLUMN sent_at, DROP COLUMN opened_at, DROP COLUMN replaces_id');
    await runner.query('ALTER TABLE sheet_line DROP COLUMN details');
  }
}
