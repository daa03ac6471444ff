import { usualDayMinutes, type Page, type PageQuery, type Student, type StudentInput, type StudentSave, type Tablet } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { IsNull } from 'typeorm';
import type { Database } from '../database/database';
import { StudentEntity } from './student.entity';
import { containing, cursorOf, cutPage, readCursor } from '../http/cursor';
import type { SaveOutcome } from '../http/save-outcome';

const shown = ({ id, alias, consent, movements, level, dayMinutes, mailTo, groups, version }: Student): Student => ({
  ...{ id, alias, consent, movements, level, dayMinutes, mailTo, groups, version },
});

export class StudentRepository {
  constructor(private readonly database: Database) {}

  async list(studioId: string, { limit, after, find }: PageQuery & { readonly find?: string }): Promise<Page<Student>> {
    const [alias, id] = readCursor(after, 'name');
    const rows = await this.database.query<Student>(
      `SELECT id, alias, consent, movements, level, day_minutes AS "dayMinutes", mail_to AS "mailTo", groups, version FROM student
       WHERE studio_id = $1 AND deleted_at IS NULL
         AND ($2::text IS NULL OR (alias, id) > ($2, $3::uuid))
         AND ($4::text IS NULL OR alias ILIKE $4)
       ORDER BY alias, id LIMIT $5`,
      [studioId, alias ?? null, id ?? null, containing(find), limit + 1],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.alias, row.id), shown);
  }

  async get(studioId: string, id: string): Promise<Student | undefined> {
    const found = await this.database.of(StudentEntity).findOneBy({ studioId, id });
    return found === null ? undefined : shown(found);
  }

  async has(studioId: string, id: string): Promise<boolean> {
    return this.database.of(StudentEntity).existsBy({ studioId, id });
  }

  async add(studioId: string, input: StudentInput): Promise<Student> {
    const id = randomUUID();
    const { alias, consent = null, movements = [], level = null, dayMinutes = usualDayMinutes, mailTo = null, groups = [] } = input;
    const student = { id, alias, consent, movements, level, dayMinutes, mailTo, groups, version: 1 };
    await this.database.of(StudentEntity).insert({ studioId, ...student });
    return student;
  }

  /** Sets the alias, and whatever else is named, unless a later version is there. */
  async save(studioId: string, id: string, { version, ...named }: StudentSave): Promise<SaveOutcome> {
    const change = Object.fromEntries(Object.entries(named).filter(([, value]) => value !== undefined));
    const { affected } = await this.database.of(StudentEntity).update({ studioId, id, version, deletedAt: IsNull() }, { ...change, version: version + 1 });
    if (affected === 1) return 'saved';
    return (await this.has(studioId, id)) ? 'stale' : 'missing';
  }

  /** Puts away, and gives the alias back; undefined where there is no such student. */
  async remove(studioId: string, id: string): Promise<string | undefined> {
    const student = await this.get(studioId, id);
    await this.database.of(StudentEntity).softDelete({ studioId, id });
    return student?.alias;
  }

  async restore(studioId: string, id: string): Promise<string | undefined> {
    await this.database.of(StudentEntity).restore({ studioId, id });
    return (await this.get(studioId, id))?.alias;
  }

  /** Where a student is signed in, newest first. */
  async tablets(studentId: string): Promise<Tablet[]> {
    const rows = await this.database.query<{ tablet: string; since: string }>('SELECT tablet, since FROM tablets_of($1)', [studentId]);
    return rows.map(({ tablet, since }) => ({ id: tablet, since: new Date(Number(since)).toISOString() }));
  }

  /** Signs one tablet out, and gives the student's id; undefined where there is no such tablet in this studio. */
  async endTablet(tablet: string): Promise<string | undefined> {
    return (await this.database.query<{ student: string | null }>('SELECT tablet_end($1) AS student', [tablet]))[0].student ?? undefined;
  }

  /** Ends the sessions on a student's own tablet. */
  async endSessions(studentId: string): Promise<void> {
    await this.database.query('SELECT sessions_end_of_student($1)', [studentId]);
  }
}
