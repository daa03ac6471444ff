import type { Student, StudentInput } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import type { DataSource, Repository } from 'typeorm';
import { StudentEntity } from '../database/entities';

export class StudentRepository {
  private readonly students: Repository<StudentEntity>;

  constructor(dataSource: DataSource) {
    this.students = dataSource.getRepository(StudentEntity);
  }

  async list(studioId: string): Promise<Student[]> {
    const found = await this.students.find({ where: { studioId }, order: { alias: 'ASC' } });
    return found.map(({ id, alias }) => ({ id, alias }));
  }

  async has(studioId: string, id: string): Promise<boolean> {
    return this.students.existsBy({ studioId, id });
  }

  async add(studioId: string, { alias }: StudentInput): Promise<Student> {
    const id = randomUUID();
    await this.students.insert({ id, studioId, alias });
    return { id, alias };
  }

  async rename(studioId: string, id: string, { alias }: StudentInput): Promise<boolean> {
    const { affected } = await this.students.update({ studioId, id }, { alias });
    return affected === 1;
  }

  async remove(studioId: string, id: string): Promise<boolean> {
    return (await this.students.softDelete({ studioId, id })).affected === 1;
  }

  async restore(studioId: string, id: string): Promise<boolean> {
    return (await this.students.restore({ studioId, id })).affected === 1;
  }
}
