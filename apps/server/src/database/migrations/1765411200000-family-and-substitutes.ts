import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Substitutes among those who teach, and what each had in hand; links for parents, and private ones with a code. */
export class FamilyAndSubstitutes1765411200000 implements MigrationInterface {
  readonly name = 'FamilyAndSubstitutes1765411200000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE membership DROP CONSTRAINT membership_role_check');
    await runner.query("ALTER TABLE membership ADD CONSTRAINT membership_role_check CHECK (role IN ('owner', 'teacher', 'substitute'))");
    await runner.query('ALTER TABLE one_time_link DROP CONSTRAINT one_time_link_purpose_check');
    await runner.query(
      "ALTER TABLE one_time_link ADD CONSTRAINT one_time_link_purpose_check CHECK (purpose IN ('invitation', 'reset', 'student', 'parent', 'door'))",
    );
    await runner.query(`ALTER TABLE membership
      ADD COLUMN in_hand_student uuid,
      ADD COLUMN in_hand_tune uuid,
      ADD FOREIGN KEY (studio_id, in_hand_student) REFERENCES student (studio_id, id) ON DELETE SET NULL (in_hand_student),
      ADD FOREIGN KEY (studio_id, in_hand_tune) REFERENCES tune (studio_id, id) ON DELETE SET NULL (in_hand_tune)`);
    await runner.query('CREATE INDEX membership_in_hand_student ON membership (studio_id, in_hand_student)');
    await runner.query('CREATE INDEX membership_in_hand_tune ON membership (studio_id, in_hand_tune)');
    // A mail about a student goes with the student.
    await runner.query(
      `ALTER TABLE mail ADD COLUMN student_id uuid, ADD FOREIGN KEY (studio_id, student_id) REFERENCES student (studio_id, id) ON DELETE CASCADE`,
    );
    await runner.query('CREATE INDEX mail_by_student ON mail (studio_id, student_id) WHERE student_id IS NOT NULL');
    await runner.query('ALTER TABLE one_time_link ADD COLUMN code_hash text');
    await runner.query("CREATE UNIQUE INDEX one_time_link_door ON one_time_link (studio_id, student_id) WHERE purpose = 'door'");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM one_time_link WHERE purpose IN ('parent', 'door')");
    await runner.query("UPDATE membership SET role = 'teacher' WHERE role = 'substitute'");
    await runner.query('ALTER TABLE mail DROP COLUMN student_id');
    await runner.query('ALTER TABLE membership DROP COLUMN in_hand_student, DROP COLUMN in_hand_tune');
    await runner.query('ALTER TABLE one_time_link DROP COLUMN code_hash');
    await runner.query('ALTER TABLE one_time_link DROP CONSTRAINT one_time_link_purpose_check');
    await runner.query("ALTER TABLE one_time_link ADD CONSTRAINT one_time_link_purpose_check CHECK (purpose IN ('invitation', 'reset', 'student'))");
    await runner.query('ALTER TABLE membership DROP CONSTRAINT membership_role_check');
    await runner.query("ALTER TABLE membership ADD CONSTRAINT membership_role_check CHECK (role IN ('owner', 'teacher'))");
  }
}
