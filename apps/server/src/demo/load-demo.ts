import { changesOfTune, heldPhrase, instrumentById, readBook, tenMinuteSheet, type ReadEntry } from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { hashPassword } from '../accounts/password';
import { StudioEntity, TeacherEntity } from '../database/entities';
import { SheetRepository } from '../sheets/sheet.repository';
import { StudentRepository } from '../students/student.repository';
import { parseAbc } from '../tunes/abc-parser';
import { TuneRepository } from '../tunes/tune.repository';
import { demoSignIn, demoStudio } from './demo-studio.data';
import { demoBook } from './demo-tunes.data';

/** Removes the demo studio with all that is in it, and nothing else. */
export async function removeDemo(dataSource: DataSource): Promise<void> {
  await dataSource.getRepository(StudioEntity).delete({ isDemo: true });
}

/** Puts the demo studio into the database: its teacher, students, tunes and a first sheet. */
export async function loadDemo(dataSource: DataSource): Promise<void> {
  const studioId = randomUUID();
  await dataSource.getRepository(StudioEntity).insert({ id: studioId, name: demoStudio.studio, isDemo: true });
  await dataSource.getRepository(TeacherEntity).insert({
    id: randomUUID(),
    studioId,
    name: demoStudio.teacher,
    email: demoSignIn.email,
    passwordHash: await hashPassword(demoSignIn.password),
  });
  const students = new StudentRepository(dataSource);
  const [first] = await Promise.all(demoStudio.students.map((alias) => students.add(studioId, { alias })));
  const instrument = instrumentById('practice-chanter');
  const entries = [...readBook(instrument, demoBook, parseAbc)].flatMap((reading): ReadEntry[] => (reading.kind === 'read' ? [reading.entry] : []));
  const saved = await new TuneRepository(dataSource).addAll(studioId, instrument.id, entries);
  const plan = tenMinuteSheet(instrument, changesOfTune(instrument, entries[0].tune).open);
  await new SheetRepository(dataSource).add(studioId, {
    studentId: first.id,
    tuneId: saved[0].id,
    instrument: instrument.id,
    title: `Ten minutes for ${first.alias}`,
    note: heldPhrase(plan),
    lines: plan.lines.map((line) => ({ ...line, point: '' })),
  });
}
