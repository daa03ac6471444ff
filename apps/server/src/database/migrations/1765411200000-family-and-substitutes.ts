import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Substitutes among those who teach; links for parents, and private ones with a code. */
export class FamilyAndSubstitutes1765411200000 implements MigrationInterface {
  readonly name = 'FamilyAndSubstitutes1765411200000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE membership DROP CONSTRAINT membership_role_check');
    await runner.query("ALTER TABLE membership ADD CONSTRAINT membership_role_check CHECK (role IN ('owner', 'teacher', 'substitute'))");
    await runner.query('ALTER TABLE one_time_link DROP CONSTRAINT one_time_link_purpose_check');
    await runner.query(
      "ALTER TABLE one_time_link ADD CONSTRAINT one_time_link_purpose_check CHECK (purpose IN ('invitation', 'reset', 'student', 'parent', 'door'))",
    );
    await runner.query('ALTER TABLE one_time_link ADD COLUMN code_hash text');
    await runner.query("CREATE UNIQUE INDEX one_time_link_door ON one_time_link (studio_id, student_id) WHERE purpose = 'door'");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM one_time_link WHERE purpose IN ('parent', 'door')");
    await runner.query("UPDATE membership SET role = 'teacher' WHERE role = 'substitute'");
    await runner.query('ALTER TABLE one_time_link DROP COLUMN code_hash');
    await runner.query('ALTER TABLE one_time_link DROP CONSTRAINT one_time_link_purpose_check');
    await runner.query("ALTER TABLE one_time_link ADD CONSTRAINT one_time_link_purpose_check CHECK (purpose IN ('invitation', 'reset', 'student'))");
    await runner.query('ALTER TABLE membership DROP CONSTRAINT membership_role_check');
    await runner.query("ALTER TABLE membership ADD CONSTRAINT membership_role_check CHECK (role IN ('owner', 'teacher'))");
  }
}
