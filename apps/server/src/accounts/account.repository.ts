import type { InHand, MemberRole, Teacher } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import type { Visitor } from '../http/endpoints';
import { MembershipEntity, StudioEntity } from './account.entities';

/** A person who can sign in, in one studio or in several. */
export interface Account {
  readonly id: string;
  readonly name: string;
  /** Lower case. */
  readonly email: string;
  readonly passwordHash: string;
}

/** A studio that somebody belongs to. */
export interface OwnStudio {
  readonly id: string;
  readonly name: string;
  readonly isDemo: boolean;
  readonly role: MemberRole;
}

export type NewAccount = Omit<Account, 'id'>;

interface AccountRow {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly password_hash: string;
}

/** Studios, their teachers, and who is signed in. What stands outside of studios is asked for through functions of the database. */
export class AccountRepository {
  constructor(private readonly database: Database) {}

  byEmail(email: string): Promise<Account | undefined> {
    return this.account('account_by_email($1)', email.toLowerCase());
  }

  byId(id: string): Promise<Account | undefined> {
    return this.account('account_by_id($1)', id);
  }

  /** The studios of an account, in the order in which it came to them. */
  async studiosOf(accountId: string): Promise<readonly OwnStudio[]> {
    const rows = await this.database.query<{ id: string; name: string; is_demo: boolean; role: MemberRole }>('SELECT * FROM studios_of($1)', [accountId]);
    return rows.map(({ id, name, is_demo: isDemo, role }) => ({ id, name, isDemo, role }));
  }

  /** True for the account of the demo, whose password everyone can read. */
  async isOfDemo(accountId: string): Promise<boolean> {
    return (await this.studiosOf(accountId)).some(({ isDemo }) => isDemo);
  }

  /** Undefined for somebody who does not belong to the studio, or no longer. */
  async teacherVisitor(studioId: string, teacherId: string): Promise<Visitor | undefined> {
    const [found] = await this.database.query<{ name: string; role: MemberRole; studio: string }>('SELECT * FROM member_of($1, $2)', [studioId, teacherId]);
    return found === undefined ? undefined : { role: found.role, studioId, studioName: found.studio, teacherId, name: found.name };
  }

  async studentVisitor(studioId: string, studentId: string): Promise<Visitor | undefined> {
    const [found] = await this.database.query<{ name: string; studio: string }>('SELECT * FROM student_of($1, $2)', [studioId, studentId]);
    return found === undefined ? undefined : { role: 'student', studioId, studioName: found.studio, studentId, name: found.name };
  }

  /** Inside the studio. */
  async studioName(studioId: string): Promise<string> {
    return (await this.database.of(StudioEntity).findOneByOrFail({ id: studioId })).name;
  }

  /** What somebody had in hand last in the studio in hand. */
  async inHandOf(studioId: string, accountId: string): Promise<InHand> {
    const [row] = await this.database.query<InHand>(
      'SELECT in_hand_student AS student, in_hand_tune AS tune FROM membership WHERE studio_id = $1 AND account_id = $2',
      [studioId, accountId],
    );
    return row ?? { student: null, tune: null };
  }

  /** Keeps what is named and is there; nothing else changes. */
  async keepInHand(studioId: string, accountId: string, { student, tune }: Partial<InHand>): Promise<void> {
    const there = (table: string, at: string): string => `(SELECT id FROM ${table} WHERE studio_id = $1 AND id = ${at}::uuid AND deleted_at IS NULL)`;
    await this.database.query(
      `UPDATE membership SET in_hand_student = CASE WHEN $3 THEN ${there('student', '$4')} ELSE in_hand_student END,
         in_hand_tune = CASE WHEN $5 THEN ${there('tune', '$6')} ELSE in_hand_tune END
       WHERE studio_id = $1 AND account_id = $2`,
      [studioId, accountId, student !== undefined, student ?? null, tune !== undefined, tune ?? null],
    );
  }

  async hasDemoStudio(): Promise<boolean> {
    return (await this.database.query<{ has: boolean }>('SELECT has_demo_studio() AS has'))[0].has;
  }

  async hasAnyStudio(): Promise<boolean> {
    return (await this.database.query<{ has: boolean }>('SELECT has_any_studio() AS has'))[0].has;
  }

  async allStudios(): Promise<readonly string[]> {
    return (await this.database.query<{ id: string }>('SELECT all_studios() AS id')).map(({ id }) => id);
  }

  async dropDemoStudio(): Promise<void> {
    await this.database.query('SELECT drop_demo_studio()');
  }

  async addStudio(name: string, isDemo = false): Promise<string> {
    const id = randomUUID();
    await this.database.query('SELECT studio_add($1, $2, $3)', [id, name, isDemo]);
    return id;
  }

  /** Inside the studio. */
  async renameStudio(id: string, name: string): Promise<void> {
    await this.database.of(StudioEntity).update({ id }, { name });
  }

  async addAccount({ name, email, passwordHash }: NewAccount): Promise<string> {
    const id = randomUUID();
    await this.database.query('SELECT account_add($1, $2, $3, $4)', [id, name, email, passwordHash]);
    return id;
  }

  /** Inside the studio. */
  async join(studioId: string, accountId: string, role: MemberRole): Promise<void> {
    await this.database.of(MembershipEntity).insert({ studioId, accountId, role });
  }

  /** The teachers of the studio in hand. */
  teachers(): Promise<Teacher[]> {
    return this.database.query<Teacher>('SELECT id, name, email, role FROM members() ORDER BY name, id');
  }

  /** The teachers of the studio in hand, of whom nobody else changes the roles until the transaction ends. */
  async lockTeachers(studioId: string): Promise<Teacher[]> {
    await this.database.query('SELECT id FROM studio WHERE id = $1 FOR UPDATE', [studioId]);
    return this.teachers();
  }

  async setRole(studioId: string, accountId: string, role: MemberRole): Promise<void> {
    await this.database.of(MembershipEntity).update({ studioId, accountId }, { role });
  }

  /** Takes somebody out of the studio; an account that belongs to none any more goes. */
  async removeTeacher(studioId: string, accountId: string): Promise<void> {
    await this.endSessions(accountId, { studioId });
    await this.database.of(MembershipEntity).delete({ studioId, accountId });
    await this.database.query('SELECT account_drop_if_homeless($1)', [accountId]);
  }

  async setPassword(id: string, passwordHash: string): Promise<void> {
    await this.database.query('SELECT account_set_password($1, $2)', [id, passwordHash]);
  }

  /** Ends the sessions of an account on all computers, in one studio or in all of them; the one named stays. */
  async endSessions(accountId: string, { studioId, except }: { readonly studioId?: string; readonly except?: string } = {}): Promise<void> {
    await this.database.query('SELECT sessions_end($1, $2, $3)', [accountId, studioId ?? null, except ?? '']);
  }

  /** Forgets sessions that are over. */
  async clearSessions(): Promise<void> {
    await this.database.query('SELECT sessions_clear()');
  }

  private async account(call: string, value: string): Promise<Account | undefined> {
    const [row] = await this.database.query<AccountRow>(`SELECT id, name, email, password_hash FROM ${call}`, [value]);
    if (row === undefined) return undefined;
    const { id, name, email, password_hash: passwordHash } = row;
    return { id, name, email, passwordHash };
  }
}
