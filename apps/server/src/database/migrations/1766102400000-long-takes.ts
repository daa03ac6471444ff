import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whom a job hears: it goes with that student. */
export class LongTakes1766102400000 implements MigrationInterface {
  readonly name = 'LongTakes1766102400000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE job ADD COLUMN student_id uuid');
    await runner.query('ALTER TABLE job ADD FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE');
    await runner.query('CREATE INDEX job_by_student ON job (studio_id, student_id) WHERE student_id IS NOT NULL');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM job WHERE kind = 'listen'");
    await runner.query('ALTER TABLE job DROP COLUMN student_id');
  }
}
