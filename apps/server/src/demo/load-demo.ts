import { noTuneNotes, type Student } from '@zelpit/contract';
import {
  changesOfTune,
  heldPhrase,
  instrumentById,
  movementFromWritten,
  practiceChanter,
  readBook,
  readWrittenForm,
  tenMinuteSheet,
  usualMovementSettings,
  type Instrument,
  type ReadEntry,
} from '@zelpit/core';
import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { AccountRepository } from '../accounts/account.repository';
import { hashPassword } from '../accounts/password';
import { insertAll } from '../archive/archive-part';
import { AttemptEntity } from '../attempts/attempt.entity';
import { Database } from '../database/database';
import { LessonRepository } from '../lessons/lesson.repository';
import { SheetRepository } from '../sheets/sheet.repository';
import { TrialEntity } from '../trials/trial.entity';
import { StudentRepository } from '../students/student.repository';
import { keptTuneOf } from '../tunes/kept-tune';
import { TuneRepository } from '../tunes/tune.repository';
import { FingeringRepository } from '../fingerings/fingering.repository';
import { InstrumentRepository } from '../instruments/instrument.repository';
import { MovementRepository } from '../movements/movement.repository';
import {
  demoFingerings,
  demoInstruments,
  demoMovements,
  demoSignIn,
  demoLearners,
  demoPeople,
  demoReview,
  demoLessons,
  demoStudio,
  demoSyllables,
  demoTuneNotes,
} from './demo-studio.data';
import { demoLog, weeksOfLog } from './demo-log';
import { demoBooks } from './demo-tunes.data';

const dayMs = 86_400_000;

/** Removes the demo studio with all that is in it, and nothing else. */
export async function removeDemo(dataSource: DataSource): Promise<void> {
  await new AccountRepository(new Database(dataSource)).dropDemoStudio();
}

/** Puts the demo studio into the database: its teacher, students, tunes and a first sheet. */
export async function loadDemo(dataSource: DataSource): Promise<void> {
  const database = new Database(dataSource);
  await database.transaction(() => fillDemo(database));
}

async function fillDemo(database: Database): Promise<void> {
  const accounts = new AccountRepository(database);
  const studioId = await accounts.addStudio(demoStudio.studio, true);
  const { email, password } = demoSignIn;
  const teacherId = await accounts.addAccount({ name: demoStudio.teacher, email, passwordHash: await hashPassword(password) });
  await database.inStudio(studioId, () => fillStudio(database, studioId, teacherId));
}

async function fillStudio(database: Database, studioId: string, teacherId: string): Promise<void> {
  await new AccountRepository(database).join(studioId, teacherId, 'owner');
  const students = new StudentRepository(database);
  const added: Student[] = [];
  for (const alias of demoStudio.students)
    added.push(await students.add(studioId, { ...demoPeople[alias], alias, movements: [...(demoMovements.had[alias] ?? [])] }));
  const [first] = added;
  const tunes = new TuneRepository(database);
  for (const { instrument, abc } of demoBooks.slice(1)) {
    const wanted = instrumentById(instrument);
    await tunes.addAll(
      studioId,
      entriesOf(wanted, abc).map((entry) => keptTuneOf(wanted, entry)),
    );
  }
  const [{ instrument: chanterId, abc }] = demoBooks;
  const instrument = instrumentById(chanterId);
  const entries = entriesOf(instrument, abc);
  const saved = await tunes.addAll(
    studioId,
    entries.map((entry) => keptTuneOf(instrument, entry)),
  );
  for (const { id, title } of (await tunes.list(studioId, { limit: 100 })).items)
    if (title in demoTuneNotes) await tunes.setAbout(studioId, id, 1, { ...noTuneNotes, ...demoTuneNotes[title] });
  await fillSheets(database, studioId, added);
  const plan = tenMinuteSheet(instrument, changesOfTune(instrument, entries[0].tune).open);
  await new SheetRepository(database).add(studioId, {
    studentId: first.id,
    tuneId: saved[0].id,
    instrument: instrument.id,
    title: `Ten minutes for ${first.alias}`,
    note: heldPhrase(plan),
    lines: plan.lines.map((line) => ({ ...line, kind: 'line', point: '' })),
  });
  await fillInstruments(database, { studioId, teacherId, students: added });
  await fillMovements(database, studioId);
  await fillLog(database, studioId, added);
  await fillEars(database, studioId, added);
  await fillLessons(database, studioId, added);
}

/** What each student has at home: the review that Pim was sent, the changes that the others practise now. */
async function fillSheets(database: Database, studioId: string, students: readonly Student[]): Promise<void> {
  const sheets = new SheetRepository(database);
  const dayBefore = (days: number): string => new Date(Date.now() - days * dayMs).toISOString().slice(0, 10);
  for (const { alias, model, items } of demoLearners) {
    const student = students.find((each) => each.alias === alias);
    if (student === undefined) continue;
    if (alias !== demoReview.of) {
      const lines = items.flatMap(({ pair, to, between }) =>
        pair === undefined || between[1] < weeksOfLog
          ? []
          : [{ ...{ home: pair[0], other: pair[1], repetitions: 3, tempo: Math.min(300, to), point: '' }, kind: 'line' as const }],
      );
      await sheets.add(studioId, { studentId: student.id, tuneId: null, instrument: model, title: `Lines for ${alias}`, note: '', lines });
      continue;
    }
    const { priority, weeks, lines } = demoReview;
    const review = {
      ...{ on: dayBefore(7), until: dayBefore(0), minutes: student.dayMinutes, struck: [], proposed: [] },
      priority: { ...priority, until: dayBefore(7 - 7 * weeks) },
    };
    const id = await sheets.add(
      studioId,
      { studentId: student.id, tuneId: null, instrument: model, title: `Review for ${alias}`, note: '', lines: lines.map((line) => ({ ...line })) },
      { review },
    );
    await database.query(
      "UPDATE sheet SET sent_at = now() - interval '7 days', opened_at = now() - interval '166 hours', updated_at = now() - interval '7 days' WHERE id = $1",
      [id],
    );
  }
}

/** Weekly lessons for two months, so that there is a day to look at whenever the demo is filled. */
async function fillLessons(database: Database, studioId: string, students: readonly Student[]): Promise<void> {
  const lessons = new LessonRepository(database);
  const weeksBefore = 8;
  for (const { alias, after, time, minutes } of demoLessons) {
    const student = students.find((each) => each.alias === alias);
    const on = new Date(Date.now() + (after - 7 * weeksBefore) * dayMs).toISOString().slice(0, 10);
    if (student !== undefined) await lessons.add(studioId, { studentId: student.id, on, time, minutes, repeats: 'weekly', until: null, note: '' });
  }
}

/** Half a year of practice that ends yesterday, judged by the students themselves; every fifth try in a lesson. */
async function fillLog(database: Database, studioId: string, students: readonly Student[]): Promise<void> {
  const rows = demoLearners.flatMap((learner, seed) => {
    const studentId = students.find(({ alias }) => alias === learner.alias)?.id;
    if (studentId === undefined) return [];
    return demoLog(learner, Date.now(), seed + 1).map(({ at, ...attempt }, index) => ({
      ...{ ...attempt, studioId, id: randomUUID() as string, studentId, at: new Date(at), by: index % 5 === 4 ? ('teacher' as const) : ('student' as const) },
    }));
  });
  await insertAll(database, AttemptEntity, rows);
}

/** An ear test of each student's first change every sixth week: what is just heard gets shorter, more slowly each time. */
async function fillEars(database: Database, studioId: string, students: readonly Student[]): Promise<void> {
  const rows = demoLearners.flatMap(({ alias, model, items, diligence }) => {
    const studentId = students.find((each) => each.alias === alias)?.id;
    const pair = items.find((each) => each.pair !== undefined)?.pair;
    if (studentId === undefined || pair === undefined) return [];
    return [24, 18, 12, 6, 1].map((weeksAgo, test) => {
      const thresholdMs = Math.round(18 + 60 * Math.exp(-test * diligence));
      const result = { kind: 'ear' as const, from: pair[0], to: pair[1], thresholdMs, lowMs: thresholdMs - 6, highMs: thresholdMs + 6, right: 30, asked: 40 };
      return { studioId, id: randomUUID() as string, studentId, model, kind: result.kind, result, createdAt: new Date(Date.now() - weeksAgo * 7 * dayMs) };
    });
  });
  await insertAll(database, TrialEntity, rows);
}

async function fillMovements(database: Database, studioId: string): Promise<void> {
  const movements = new MovementRepository(database);
  for (const each of demoMovements.confirmed) await movements.keep(studioId, demoStudio.teacher, '2026-11-04', { movement: each, definition: null });
  const { id, name, written, before } = demoMovements.own;
  const definition = movementFromWritten(
    practiceChanter,
    readWrittenForm(practiceChanter, written),
    before,
    { id, name, arrives: 'everywhere' },
    usualMovementSettings,
  );
  await movements.keep(studioId, demoStudio.teacher, '2026-11-04', { movement: id, definition });
  await movements.saveChoices(studioId, { settings: usualMovementSettings, syllables: demoSyllables, ornaments: {} }, 1);
}

const entriesOf = (instrument: Instrument, abc: string): ReadEntry[] =>
  [...readBook(instrument, abc)].flatMap((reading) => (reading.kind === 'read' ? [reading.entry] : []));

interface DemoPeople {
  readonly studioId: string;
  readonly teacherId: string;
  readonly students: readonly Student[];
}

async function fillInstruments(database: Database, { studioId, teacherId, students }: DemoPeople): Promise<void> {
  const instruments = new InstrumentRepository(database);
  for (const { of, name, model, hands = 'left-on-top', highG, schools = {}, hertz = null, known, note = '' } of demoInstruments) {
    await instruments.add(studioId, teacherId, {
      studentId: students.find(({ alias }) => alias === of)?.id ?? null,
      ...{ name, model, hands, written: 'as-charted' as const, note, schools: { ...schools }, referenceHertz: hertz, knownNotes: [...known] },
      tuning: highG === undefined ? { kind: 'chart' } : { kind: 'ratios', ratios: { 'high-g': highG } },
    });
  }
  const fingerings = new FingeringRepository(database);
  for (const { model, note, pattern, remark, forNow } of demoFingerings) {
    const later = forNow === null ? null : { ...forNow, eventually: [...forNow.eventually] };
    const kept = { model, note, pattern: [...pattern], isFirst: false, isHidden: false, remark, forNow: later };
    await fingerings.keep(studioId, demoStudio.teacher, '2026-11-02', kept);
  }
}
