import { movementChoicesSchema, type ArchiveContent, type ArchiveResult, type MovementChoices } from '@zelpit/contract';
import type { ReadEntry } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { In, type EntityTarget, type ObjectLiteral } from 'typeorm';
import type { Database } from '../database/database';
import {
  FingeringEntity,
  InstrumentEntity,
  ModelEntity,
  SheetEntity,
  SheetLineEntity,
  StudentEntity,
  StudioEntity,
  TrialEntity,
  TuneEntity,
} from '../database/entities';
import type { FingeringRepository } from '../instruments/fingering.repository';
import type { MovementRepository } from '../movements/movement.repository';
import type { SheetRepository } from '../sheets/sheet.repository';
import { fieldsOf } from '../tunes/tune.repository';

const batch = 200;
const iso = (date: Date): string => date.toISOString();
const isoOrNull = (date: Date | null): string | null => (date === null ? null : date.toISOString());
const dateOrNull = (text: string | null): Date | null => (text === null ? null : new Date(text));

/** A whole studio out of the tables and into them. */
export class ArchiveRepository {
  constructor(
    private readonly database: Database,
    private readonly sheets: SheetRepository,
    private readonly fingerings: FingeringRepository,
    private readonly movements: MovementRepository,
  ) {}

  /** Everything of the studio as it was at one moment, what is put away too. Teachers, their passwords and the list of changes stay here. */
  async read(studioId: string): Promise<ArchiveContent> {
    return this.database.transaction(async () => {
      const everything = { where: { studioId }, withDeleted: true, order: { createdAt: 'ASC', id: 'ASC' } } as const;
      const studio = await this.database.of(StudioEntity).findOneByOrFail({ id: studioId });
      const students = await this.database.of(StudentEntity).find(everything);
      const tunes = await this.database.of(TuneEntity).find(everything);
      const sheets = await this.database.of(SheetEntity).find(everything);
      const lines = await this.database.query<SheetLineEntity & { sheet_id: string }>(
        `SELECT l.* FROM sheet_line l JOIN sheet s ON s.id = l.sheet_id WHERE s.studio_id = $1 AND l.removed_at IS NULL ORDER BY l.sheet_id, l.position`,
        [studioId],
      );
      const models = await this.database.of(ModelEntity).find(everything);
      const modelSigns = signs('m', models);
      const modelOf = (id: string): string => modelSigns.get(id) ?? id;
      const studentSigns = signs('s', students);
      const tuneSigns = signs('t', tunes);
      const sheetSigns = signs('p', sheets);
      const linesOf = bySheet(lines);
      return {
        'studio.json': { name: studio.name },
        'students.json': students.map(({ id, alias, consent, movements, createdAt, deletedAt }) => ({
          sign: signOf(studentSigns, id),
          alias,
          consent,
          movements,
          created: iso(createdAt),
          putAway: isoOrNull(deletedAt),
        })),
        'tunes.json': tunes.map(({ id, instrument, abc, pins, createdAt, updatedAt, deletedAt }) => ({
          sign: signOf(tuneSigns, id),
          instrument: modelOf(instrument),
          abc,
          pins,
          changed: iso(updatedAt),
          created: iso(createdAt),
          putAway: isoOrNull(deletedAt),
        })),
        'sheets.json': sheets.map((sheet) => ({
          sign: signOf(sheetSigns, sheet.id),
          student: signOf(studentSigns, sheet.studentId),
          tune: sheet.tuneId === null ? null : signOf(tuneSigns, sheet.tuneId),
          instrument: modelOf(sheet.instrument),
          title: sheet.title,
          note: sheet.note,
          changed: iso(sheet.updatedAt),
          lines: (linesOf.get(sheet.id) ?? []).map(({ home, other, repetitions, tempo, point, exercise, code }) => ({
            ...{ home, other, repetitions, tempo, point, exercise, code },
          })),
          created: iso(sheet.createdAt),
          putAway: isoOrNull(sheet.deletedAt),
        })),
        'models.json': models.map(({ id, instrument, madeBy, createdAt, updatedAt, deletedAt }) => ({
          sign: signOf(modelSigns, id),
          instrument,
          by: madeBy,
          changed: iso(updatedAt),
          created: iso(createdAt),
          putAway: isoOrNull(deletedAt),
        })),
        ...(await this.readInstruments(studioId, studentSigns, modelOf)),
        'trials.json': await this.readTrials(studioId, studentSigns, modelOf),
        'movements.json': {
          choices: studio.movementChoices === null ? null : withModels(movementChoicesSchema.parse(studio.movementChoices), modelOf),
          kept: (await this.movements.all(studioId)).map(({ movement, definition, by, on }) => ({ movement, definition, by, on })),
        },
      };
    }, 'REPEATABLE READ');
  }

  private async readTrials(
    studioId: string,
    studentSigns: ReadonlyMap<string, string>,
    modelOf: (id: string) => string,
  ): Promise<ArchiveContent['trials.json']> {
    const trials = await this.database.of(TrialEntity).find({ where: { studioId }, order: { createdAt: 'ASC', id: 'ASC' } });
    return trials.map(({ studentId, model, result, createdAt }) => ({
      student: studentId === null ? null : signOf(studentSigns, studentId),
      model: modelOf(model),
      result,
      at: iso(createdAt),
    }));
  }

  private async readInstruments(
    studioId: string,
    studentSigns: ReadonlyMap<string, string>,
    modelOf: (id: string) => string,
  ): Promise<Pick<ArchiveContent, 'instruments.json' | 'fingerings.json'>> {
    const everything = { where: { studioId }, withDeleted: true, order: { createdAt: 'ASC', id: 'ASC' } } as const;
    const held = await this.database.of(InstrumentEntity).find(everything);
    const fingerings = await this.database.of(FingeringEntity).find({ where: { studioId }, order: { createdAt: 'ASC', id: 'ASC' } });
    return {
      'instruments.json': held.map(({ name, model, hands, tuning, schools, referenceHertz, knownNotes, note, ...each }, index) => ({
        sign: `i${index + 1}`,
        student: each.studentId === null ? null : signOf(studentSigns, each.studentId),
        ...{ name, model: modelOf(model), hands, tuning, schools, referenceHertz, knownNotes, note },
        changed: iso(each.updatedAt),
        created: iso(each.createdAt),
        putAway: isoOrNull(each.deletedAt),
      })),
      'fingerings.json': fingerings.map(({ model, kept, confirmedBy, confirmedOn }) => ({
        ...kept,
        model: modelOf(model),
        by: confirmedBy,
        on: confirmedOn,
      })),
    };
  }

  /** True where the studio holds nothing, what is put away left aside. */
  async isEmpty(studioId: string): Promise<boolean> {
    for (const entity of [StudentEntity, TuneEntity, SheetEntity, InstrumentEntity, ModelEntity])
      if (await this.database.of<StudentEntity>(entity).existsBy({ studioId })) return false;
    return true;
  }

  /** Puts everything of the studio away, to be found again for as long as things are kept. */
  async putAllAway(studioId: string): Promise<number> {
    let count = 0;
    for (const entity of [SheetEntity, TuneEntity, InstrumentEntity, ModelEntity, StudentEntity])
      count += (await this.database.of<StudentEntity>(entity).softDelete({ studioId })).affected ?? 0;
    return count;
  }

  /** Writes all of an archive into the studio; `entries` are its tunes, read. Belongs into a transaction. */
  async write(studioId: string, content: ArchiveContent, entries: ReadonlyMap<string, ReadEntry>): Promise<Omit<ArchiveResult, 'putAway'>> {
    const { 'students.json': students, 'tunes.json': tunes, 'sheets.json': sheets, 'models.json': models } = content;
    const ids = new Map([...students, ...tunes, ...sheets, ...models].map((each) => [each.sign, randomUUID() as string]));
    const idOf = (sign: string): string => ids.get(sign) as string;
    const modelOf = (model: string): string => ids.get(model) ?? model;
    await this.insert(
      StudentEntity,
      students.map(({ sign, alias, consent, movements, created, putAway }) => ({
        id: idOf(sign),
        studioId,
        alias,
        consent,
        movements,
        version: 1,
        createdAt: new Date(created),
        deletedAt: dateOrNull(putAway),
      })),
    );
    await this.insert(
      TuneEntity,
      tunes.map(({ sign, instrument, pins, created, changed, putAway }) => ({
        ...fieldsOf(entries.get(sign) as ReadEntry),
        id: idOf(sign),
        studioId,
        instrument: modelOf(instrument),
        pins,
        version: 1,
        createdAt: new Date(created),
        updatedAt: new Date(changed),
        deletedAt: dateOrNull(putAway),
      })),
    );
    await this.insert(
      SheetEntity,
      sheets.map(({ sign, student, tune, instrument, title, note, created, changed, putAway }) => ({
        id: idOf(sign),
        studioId,
        studentId: idOf(student),
        tuneId: tune === null ? null : idOf(tune),
        instrument: modelOf(instrument),
        title,
        note,
        version: 1,
        createdAt: new Date(created),
        updatedAt: new Date(changed),
        deletedAt: dateOrNull(putAway),
      })),
    );
    const lines = sheets.flatMap((sheet) =>
      sheet.lines.map((line, position) => ({ ...line, id: randomUUID() as string, sheetId: idOf(sheet.sign), position, removedAt: null })),
    );
    const newCodes = await this.giveCodes(lines);
    await this.insert(SheetLineEntity, lines);
    await this.writeInstruments(studioId, content, idOf, modelOf);
    await this.writeTrials(studioId, content, idOf, modelOf);
    await this.writeMovements(studioId, content['movements.json'], modelOf);
    return {
      students: students.length,
      tunes: tunes.length,
      sheets: sheets.length,
      instruments: content['instruments.json'].length,
      models: models.length,
      fingerings: content['fingerings.json'].length,
      trials: content['trials.json'].length,
      movements: content['movements.json'].kept.length,
      newCodes,
    };
  }

  /** What the archive says of movements comes over what is here. */
  private async writeMovements(studioId: string, { choices, kept }: ArchiveContent['movements.json'], modelOf: (model: string) => string): Promise<void> {
    for (const { by, on, ...each } of kept) await this.movements.keep(studioId, by, on, each);
    if (choices !== null) await this.movements.saveChoices(studioId, withModels(choices, modelOf), (await this.movements.choices(studioId)).version);
  }

  private async writeTrials(studioId: string, content: ArchiveContent, idOf: (sign: string) => string, modelOf: (model: string) => string): Promise<void> {
    await this.insert(
      TrialEntity,
      content['trials.json'].map(({ student, model, result, at }) => ({
        id: randomUUID(),
        studioId,
        studentId: student === null ? null : idOf(student),
        model: modelOf(model),
        kind: result.kind,
        result,
        createdAt: new Date(at),
      })),
    );
  }

  private async writeInstruments(studioId: string, content: ArchiveContent, idOf: (sign: string) => string, modelOf: (model: string) => string): Promise<void> {
    await this.insert(
      ModelEntity,
      content['models.json'].map(({ sign, instrument, by, created, changed, putAway }) => ({
        id: idOf(sign),
        studioId,
        name: instrument.name,
        instrument: { ...instrument, id: idOf(sign) },
        madeBy: by,
        version: 1,
        createdAt: new Date(created),
        updatedAt: new Date(changed),
        deletedAt: dateOrNull(putAway),
      })),
    );
    await this.insert(
      InstrumentEntity,
      content['instruments.json'].map(({ sign: _sign, student, model, created, changed, putAway, ...rest }) => ({
        ...rest,
        id: randomUUID(),
        studioId,
        studentId: student === null ? null : idOf(student),
        teacherId: null,
        model: modelOf(model),
        version: 1,
        createdAt: new Date(created),
        updatedAt: new Date(changed),
        deletedAt: dateOrNull(putAway),
      })),
    );
    for (const { model, by, on, ...kept } of content['fingerings.json']) await this.fingerings.keep(studioId, by, on, { ...kept, model: modelOf(model) });
  }

  /** Keeps each line's code where nobody has it, and gives a new one where somebody has. */
  private async giveCodes(lines: { code: string }[]): Promise<number> {
    const taken = new Set<string>();
    for (let start = 0; start < lines.length; start += batch) {
      const wanted = lines.slice(start, start + batch).map((line) => line.code);
      for (const { code } of await this.database.of(SheetLineEntity).findBy({ code: In(wanted) })) taken.add(code);
    }
    const clashing = lines.filter(({ code }) => {
      const isTaken = taken.has(code);
      taken.add(code);
      return isTaken;
    });
    for (const line of clashing) {
      do [line.code] = await this.sheets.freshCodes(1);
      while (taken.has(line.code));
      taken.add(line.code);
    }
    return clashing.length;
  }

  private async insert<T extends ObjectLiteral>(entity: EntityTarget<T>, rows: readonly object[]): Promise<void> {
    for (let start = 0; start < rows.length; start += batch) {
      const some = rows.slice(start, start + batch) as never[];
      await this.database.of(entity).insert(some);
    }
  }
}

/** Ornaments are chosen by model: by its sign in an archive, by its id in the studio. */
const withModels = (choices: MovementChoices, modelOf: (model: string) => string): MovementChoices => ({
  ...choices,
  ornaments: Object.fromEntries(Object.entries(choices.ornaments).map(([model, chosen]) => [modelOf(model), chosen])),
});

const signs = (letter: string, things: readonly { readonly id: string }[]): ReadonlyMap<string, string> =>
  new Map(things.map(({ id }, index) => [id, `${letter}${index + 1}`]));
const signOf = (all: ReadonlyMap<string, string>, id: string): string => all.get(id) as string;

function bySheet<T extends { readonly sheet_id: string }>(lines: readonly T[]): ReadonlyMap<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const line of lines) groups.set(line.sheet_id, [...(groups.get(line.sheet_id) ?? []), line]);
  return groups;
}
