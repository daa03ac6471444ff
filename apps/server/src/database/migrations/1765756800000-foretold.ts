import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A kind of trial more: what was foretold of takes, and what came of it. */
export class Foretold1765756800000 implements MigrationInterface {
  readonly name = 'Foretold1765756800000';

  async up(runner: QueryRunner): Promise<void> {
    await allowKinds(runner, "'fingers', 'ear', 'fault-hunt', 'foretold'");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM trial WHERE kind = 'foretold'");
    await allowKinds(runner, "'fingers', 'ear', 'fault-hunt'");
  }
}

/** The database gave the check its name by itself, and not the same one everywhere. */
async function allowKinds(runner: QueryRunner, kinds: string): Promise<void> {
  await runner.query(`DO $kinds$
    DECLARE rule name;
    BEGIN
      SELECT conname INTO STRICT rule FROM pg_constraint
        WHERE conrelid = 'trial'::regclass AND contype = 'c' AND pg_get_constraintdef(oid) LIKE '%fault-hunt%';
      EXECUTE format('ALTER TABLE trial DROP CONSTRAINT %I', rule);
    END
    $kinds$`);
  await runner.query(`ALTER TABLE trial ADD CONSTRAINT trial_kinds CHECK (kind IN (${kinds}))`);
}
