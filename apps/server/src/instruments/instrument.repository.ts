import type { HeldInstrument, HeldInstrumentInput, HeldInstrumentSave, Page, PageQuery } from '@zelpit/contract';
import { randomUUID } from 'node:crypto';
import { IsNull } from 'typeorm';
import type { Database } from '../database/database';
import { InstrumentEntity } from './instrument.entity';
import { cursorOf, cutPage, readCursor } from '../http/cursor';
import type { SaveOutcome } from '../http/save-outcome';

type Row = Omit<HeldInstrument, 'owner'> & {
  readonly studentId: string | null;
  readonly teacherId: string | null;
  readonly student: string | null;
  readonly teacher: string | null;
};

const columns = `i.id, i.name, i.model, i.hands, i.written, i.tuning, i.schools, i.reference_hertz AS "referenceHertz", i.known_notes AS "knownNotes", i.note, i.version,
  i.student_id AS "studentId", i.teacher_id AS "teacherId", s.alias AS student,
  CASE WHEN i.teacher_id IS NOT NULL THEN (SELECT m.name FROM members() m WHERE m.id = i.teacher_id) END AS teacher
  FROM instrument i LEFT JOIN student s ON s.studio_id = i.studio_id AND s.id = i.student_id`;

/** Instruments that students and teachers play. One whose student is put away is not listed. */
export class InstrumentRepository {
  constructor(private readonly database: Database) {}

  /** By name; of one student where that is asked for. */
  async list(studioId: string, { limit, after, student }: PageQuery & { readonly student?: string }): Promise<Page<HeldInstrument>> {
    const [name, id] = readCursor(after, 'name');
    const rows = await this.database.query<Row>(
      `SELECT ${columns}
       WHERE i.studio_id = $1 AND i.deleted_at IS NULL AND s.deleted_at IS NULL
         AND ($2::text IS NULL OR (i.name, i.id) > ($2, $3::uuid))
         AND ($4::uuid IS NULL OR i.student_id = $4)
       ORDER BY i.name, i.id LIMIT $5`,
      [studioId, name ?? null, id ?? null, student ?? null, limit + 1],
    );
    return cutPage(rows, limit, (row) => cursorOf(row.name, row.id), shown);
  }

  async get(studioId: string, id: string): Promise<HeldInstrument | undefined> {
    const [row] = await this.database.query<Row>(`SELECT ${columns} WHERE i.studio_id = $1 AND i.id = $2 AND i.deleted_at IS NULL`, [studioId, id]);
    return row === undefined ? undefined : shown(row);
  }

  /** Gives the new one's id. `teacherId` is the owner where no student is. */
  async add(studioId: string, teacherId: string | undefined, { studentId, ...rest }: HeldInstrumentInput): Promise<string> {
    const id = randomUUID();
    await this.database
      .of(InstrumentEntity)
      .insert({ ...rest, id, studioId, studentId, teacherId: studentId === null ? (teacherId ?? null) : null, version: 1 });
    return id;
  }

  /** Saves unless a later version is there. */
  async save(studioId: string, id: string, { version, ...rest }: HeldInstrumentSave): Promise<SaveOutcome> {
    const { affected } = await this.database.of(InstrumentEntity).update({ studioId, id, version, deletedAt: IsNull() }, { ...rest, version: version + 1 });
    if (affected === 1) return 'saved';
    return (await this.database.of(InstrumentEntity).existsBy({ studioId, id })) ? 'stale' : 'missing';
  }

  /** Puts away, and gives the name back; undefined where there is no such instrument. */
  async remove(studioId: string, id: string): Promise<string | undefined> {
    const name = await this.nameOf(studioId, id);
    await this.database.of(InstrumentEntity).softDelete({ studioId, id });
    return name;
  }

  async restore(studioId: string, id: string): Promise<string | undefined> {
    await this.database.of(InstrumentEntity).restore({ studioId, id });
    return this.nameOf(studioId, id);
  }

  /** How many instruments are of a model. */
  async countOf(studioId: string, model: string): Promise<number> {
    return this.database.of(InstrumentEntity).countBy({ studioId, model });
  }

  private async nameOf(studioId: string, id: string): Promise<string | undefined> {
    return (await this.database.of(InstrumentEntity).findOne({ select: { id: true, name: true }, where: { studioId, id } }))?.name;
  }
}

function shown({ studentId, teacherId, student, teacher, ...rest }: Row): HeldInstrument {
  return { ...rest, owner: ownerOf(studentId, student) ?? ownerOf(teacherId, teacher, 'teacher') ?? { kind: 'studio', id: null, name: 'the studio' } };
}

function ownerOf(id: string | null, name: string | null, kind: 'student' | 'teacher' = 'student'): HeldInstrument['owner'] | undefined {
  return id === null ? undefined : { kind, id, name: name ?? '' };
}
