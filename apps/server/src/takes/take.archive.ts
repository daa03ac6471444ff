import { archiveTakeSchema, longestTakeBytes, type ArchiveTake, type TakeAsked } from '@zelpit/contract';
import { noteOf } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import { archivePart, isoOrNull, pagesOf, refused, type ArchiveTarget, type Signs } from '../archive/archive-part';
import { BlobRepository } from '../blobs/blob.repository';
import type { Database } from '../database/database';
import { checkOf } from '../models/model.archive';
import { studentsFile } from '../students/student.archive';
import { tunesFile } from '../tunes/tune.archive';
import { TakeEntity } from './take.entity';
import { isWave } from './wave';

/** Takes with their sound, one after the other: only where somebody chooses so, and of a student only where the guardian agrees at that moment. */
export const takeArchive = archivePart({
  file: 'takes.json',
  since: 8,
  isByChoice: true,
  schema: archiveTakeSchema,
  read: async function* (database, studioId, signs) {
    const agreed = await agreedTo(database);
    const blobs = new BlobRepository(database);
    for await (const rows of pagesOf(database, TakeEntity, studioId, 'at, id'))
      for (const row of rows) if (row.studentId === null || agreed.has(row.studentId)) yield [takenOut(row, signs, await blobs.whole(studioId, row.blobId))];
  },
  check: ({ signsIn, instruments }) => ({
    each: ({ student, asked, model, isShown, sound }) => {
      if (student !== null && !signsIn(studentsFile).has(student)) throw refused('A take in this backup belongs to a student who is not in it.');
      if (student !== null && isShown) throw refused('A student’s take in this backup is shown to others.');
      if (asked.kind === 'tune' && asked.tune !== null && !signsIn(tunesFile).has(asked.tune))
        throw refused('A take in this backup is of a tune that is not in it.');
      // A take outlives its instrument: one of a model that is gone is kept as it is.
      if (asked.kind === 'changes' && instruments.has(model))
        checkOf(instruments, 'a take', model, (instrument) => [noteOf(instrument, asked.from), noteOf(instrument, asked.to)]);
      const bytes = Buffer.from(sound, 'base64');
      if (!isWave(bytes) || bytes.length > longestTakeBytes) throw refused('The sound of a take in this backup cannot be read.');
    },
  }),
  write: (target) => {
    let count = 0;
    return {
      some: async (checked) => {
        for (const { item } of checked) {
          await bringIn(target, item);
          count += 1;
        }
      },
      brought: () => ({ count }),
    };
  },
});

/** Students whose guardians agree that they are recorded. */
async function agreedTo(database: Database): Promise<ReadonlySet<string>> {
  const rows = await database.query<{ id: string }>('SELECT id FROM student WHERE studio_id = current_studio() AND consent IS NOT NULL');
  return new Set(rows.map(({ id }) => id));
}

function takenOut({ studentId, asked, model, keptUntil, at, ...row }: TakeEntity, signs: Signs, sound: Buffer): ArchiveTake {
  const { title, seconds, places, faulty, text, by, remarks, isShown } = row;
  return {
    student: studentId === null ? null : signs.of(studentId),
    asked: asked.kind === 'tune' ? { kind: 'tune', tune: signs.find(asked.tuneId) ?? null, what: asked.what, click: asked.click } : asked,
    model: signs.ofModel(model),
    ...{ title, seconds, places, faulty, text, by, remarks, isShown, keptUntil: isoOrNull(keptUntil), at: at.toISOString(), sound: sound.toString('base64') },
  };
}

async function bringIn(target: ArchiveTarget, { student, asked, model, keptUntil, at, sound, ...take }: ArchiveTake): Promise<void> {
  const { database, studioId } = target;
  const blobId = await new BlobRepository(database).put(studioId, Buffer.from(sound, 'base64'));
  await database.of(TakeEntity).insert({
    ...take,
    ...{ studioId, id: randomUUID(), studentId: student === null ? null : target.idOf(student), blobId, version: 1 },
    ...{ asked: askedOf(target, asked), model: target.modelOf(model), keptUntil: keptUntil === null ? null : new Date(keptUntil), at: new Date(at) },
  });
}

/** Of a tune that was gone when it was written, it is gone here too. */
function askedOf({ idOf }: ArchiveTarget, asked: ArchiveTake['asked']): TakeAsked {
  if (asked.kind !== 'tune') return asked;
  const { tune, what, click } = asked;
  return { kind: 'tune', tuneId: tune === null ? randomUUID() : idOf(tune), what, ...(click !== undefined && { click }) };
}
