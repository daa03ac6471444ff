import type { Teacher } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { Database } from '../database/database';
import { StudentEntity } from '../students/student.entity';
import { StudioEntity, TeacherEntity } from './account.entities';
import type { Visitor } from '../http/endpoints';

export interface TeacherAccount extends Teacher {
  readonly passwordHash: string;
  readonly studio: { readonly id: string; readonly name: string; readonly isDemo: boolean };
}

export interface NewTeacher {
  readonly name: string;
  /** Lower case. */
  readonly email: string;
  readonly passwordHash: string;
  readonly role: 'owner' | 'teacher';
}

/** Studios, their teachers, and who is signed in. */
export class AccountRepository {
  constructor(private readonly database: Database) {}

  byEmail(email: string): Promise<TeacherAccount | undefined> {
    return this.account({ email: email.toLowerCase() });
  }

  byId(id: string): Promise<TeacherAccount | undefined> {
    return this.account({ id });
  }

  async teacherVisitor(teacherId: string): Promise<Visitor | undefined> {
    const teacher = await this.database.of(TeacherEntity).findOneBy({ id: teacherId });
    return teacher === null ? undefined : { role: teacher.role, studioId: teacher.studioId, teacherId, name: teacher.name };
  }

  async studentVisitor(studentId: string): Promise<Visitor | undefined> {
    const student = await this.database.of(StudentEntity).findOneBy({ id: studentId });
    return student === null ? undefined : { role: 'student', studioId: student.studioId, studentId, name: student.alias };
  }

  async studioName(studioId: string): Promise<string> {
    return (await this.database.of(StudioEntity).findOneByOrFail({ id: studioId })).name;
  }

  async hasDemoStudio(): Promise<boolean> {
    return this.database.of(StudioEntity).existsBy({ isDemo: true });
  }

  async hasAnyStudio(): Promise<boolean> {
    return this.database.of(StudioEntity).exists();
  }

  async addStudio(name: string, isDemo = false): Promise<string> {
    const id = randomUUID();
    await this.database.of(StudioEntity).insert({ id, name, isDemo });
    return id;
  }

  async renameStudio(id: string, name: string): Promise<void> {
    await this.database.of(StudioEntity).update({ id }, { name });
  }

  async addTeacher(studioId: string, teacher: NewTeacher): Promise<string> {
    const id = randomUUID();
    await this.database.of(TeacherEntity).insert({ id, studioId, ...teacher });
    return id;
  }

  async teachers(studioId: string): Promise<Teacher[]> {
    const found = await this.database.of(TeacherEntity).find({ where: { studioId }, order: { name: 'ASC', id: 'ASC' } });
    return found.map(({ id, name, email, role }) => ({ id, name, email, role }));
  }

  /** The teachers of a studio, of whom nobody else changes the roles until the transaction ends. */
  async lockTeachers(studioId: string): Promise<Teacher[]> {
    await this.database.query('SELECT id FROM studio WHERE id = $1 FOR UPDATE', [studioId]);
    return this.teachers(studioId);
  }

  async setRole(id: string, role: 'owner' | 'teacher'): Promise<void> {
    await this.database.of(TeacherEntity).update({ id }, { role });
  }

  async removeTeacher(id: string): Promise<void> {
    await this.database.of(TeacherEntity).delete({ id });
  }

  async setPassword(id: string, passwordHash: string): Promise<void> {
    await this.database.of(TeacherEntity).update({ id }, { passwordHash });
  }

  /** Ends every session of a teacher, on all computers; the one named stays. */
  async endSessions(teacherId: string, exceptSession?: string): Promise<void> {
    await this.database.query("DELETE FROM session WHERE sess->>'teacherId' = $1 AND sid <> $2", [teacherId, exceptSession ?? '']);
  }

  private async account(where: { email: string } | { id: string }): Promise<TeacherAccount | undefined> {
    const teacher = await this.database.of(TeacherEntity).findOneBy(where);
    if (teacher === null) return undefined;
    const { id, name, email, role, passwordHash, studioId } = teacher;
    const studio = await this.database.of(StudioEntity).findOneByOrFail({ id: studioId });
    return { id, name, email, role, passwordHash, studio: { id: studio.id, name: studio.name, isDemo: studio.isDemo } };
  }
}
