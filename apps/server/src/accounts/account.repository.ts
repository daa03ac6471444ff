import type { DataSource } from 'typeorm';
import { StudioEntity, TeacherEntity } from '../database/entities';

export interface TeacherAccount {
  readonly id: string;
  readonly name: string;
  readonly passwordHash: string;
  readonly studio: { readonly id: string; readonly name: string; readonly isDemo: boolean };
}

export class AccountRepository {
  constructor(private readonly dataSource: DataSource) {}

  async byEmail(email: string): Promise<TeacherAccount | undefined> {
    return this.account({ email: email.toLowerCase() });
  }

  async byId(id: string): Promise<TeacherAccount | undefined> {
    return this.account({ id });
  }

  async has(id: string): Promise<boolean> {
    return this.dataSource.getRepository(TeacherEntity).existsBy({ id });
  }

  async hasDemoStudio(): Promise<boolean> {
    return this.dataSource.getRepository(StudioEntity).existsBy({ isDemo: true });
  }

  async hasAnyStudio(): Promise<boolean> {
    return this.dataSource.getRepository(StudioEntity).exists();
  }

  async setPassword(id: string, passwordHash: string): Promise<void> {
    await this.dataSource.getRepository(TeacherEntity).update({ id }, { passwordHash });
  }

  /** Ends every session of a teacher, on all computers; the one named stays. */
  async endSessions(teacherId: string, exceptSession?: string): Promise<void> {
    await this.dataSource.query("DELETE FROM session WHERE sess->>'teacherId' = $1 AND sid <> $2", [teacherId, exceptSession ?? '']);
  }

  private async account(where: { email: string } | { id: string }): Promise<TeacherAccount | undefined> {
    const teacher = await this.dataSource.getRepository(TeacherEntity).findOneBy(where);
    if (teacher === null) return undefined;
    const studio = await this.dataSource.getRepository(StudioEntity).findOneByOrFail({ id: teacher.studioId });
    return { id: teacher.id, name: teacher.name, passwordHash: teacher.passwordHash, studio: { id: studio.id, name: studio.name, isDemo: studio.isDemo } };
  }
}
