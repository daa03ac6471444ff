import type { MigrationInterface, QueryRunner } from 'typeorm';

const [firstYear, lastYear] = [2025, 2036];

/** What was practised: a log in one partition for each year, corrections beside it. And lessons. */
export class Attempts1765238400000 implements MigrationInterface {
  readonly name = 'Attempts1765238400000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE attempt (
      studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
      id uuid NOT NULL,
      student_id uuid NOT NULL,
      item_id uuid,
      lesson_id uuid,
      title text NOT NULL,
      kind text NOT NULL,
      model text NOT NULL,
      tempo int,
      count int NOT NULL,
      rating text NOT NULL,
      ladder jsonb,
      seconds int NOT NULL,
      device text NOT NULL,
      note text NOT NULL,
      by text NOT NULL,
      at timestamptz NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (studio_id, id, at),
      FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE
    ) PARTITION BY RANGE (at)`);
    for (let year = firstYear; year <= lastYear; year += 1)
      await runner.query(`CREATE TABLE attempt_${year} PARTITION OF attempt FOR VALUES FROM ('${year}-01-01Z') TO ('${year + 1}-01-01Z')`);
    await runner.query('CREATE TABLE attempt_other PARTITION OF attempt DEFAULT');
    await runner.query(`CREATE TABLE attempt_correction (
      studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
      id uuid NOT NULL,
      attempt_id uuid NOT NULL,
      student_id uuid NOT NULL,
      rating text NOT NULL,
      note text NOT NULL,
      who text NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (studio_id, id),
      FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE
    )`);
    await runner.query('CREATE INDEX attempt_by_student ON attempt (studio_id, student_id, at DESC, id DESC)');
    await runner.query('CREATE INDEX attempt_by_time ON attempt (studio_id, at DESC, id DESC)');
    await runner.query('CREATE INDEX attempt_by_id ON attempt (studio_id, id)');
    await runner.query('CREATE INDEX attempt_correction_by_attempt ON attempt_correction (studio_id, attempt_id, created_at DESC)');
    await runner.query('CREATE INDEX attempt_correction_by_student ON attempt_correction (studio_id, student_id)');
    await runner.query(`CREATE TABLE lesson (
      studio_id uuid NOT NULL REFERENCES studio(id) ON DELETE CASCADE,
      id uuid NOT NULL,
      student_id uuid NOT NULL,
      weekly_id uuid,
      day date NOT NULL,
      time text NOT NULL,
      minutes int NOT NULL,
      repeats text NOT NULL,
      until date,
      note text NOT NULL,
      plan jsonb NOT NULL,
      begun_at timestamptz,
      ended_at timestamptz,
      version int NOT NULL,
      created_at timestamptz NOT NULL DEFAULT now(),
      PRIMARY KEY (studio_id, id),
      UNIQUE (studio_id, weekly_id, day),
      FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE,
      FOREIGN KEY (studio_id, weekly_id) REFERENCES lesson (studio_id, id) ON DELETE SET NULL (weekly_id)
    )`);
    await runner.query('CREATE INDEX lesson_by_day ON lesson (studio_id, day)');
    await runner.query("CREATE INDEX lesson_weekly ON lesson (studio_id) WHERE repeats = 'weekly'");
    await runner.query('CREATE INDEX lesson_by_student ON lesson (studio_id, student_id)');
    await runner.query('CREATE INDEX attempt_by_lesson ON attempt (studio_id, lesson_id) WHERE lesson_id IS NOT NULL');
    for (const table of ['attempt', 'attempt_correction', 'lesson']) {
      await runner.query(`ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY`);
      await runner.query(`CREATE POLICY own_studio ON ${table} USING (studio_id = current_studio())`);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE attempt_correction, attempt, lesson');
  }
}
