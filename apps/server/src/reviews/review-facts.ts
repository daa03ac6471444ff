import { hasMusic, type Attempt, type Lesson, type SheetDetail, type SheetLineInput, type Student, type TuneDetail } from '@zelpit/contract';
import {
  changesOfTune,
  chunkOf,
  excerptOf,
  hardestPair,
  itemName,
  readTune,
  reviewItemTitle,
  type Instrument,
  type MusicReviewItem,
  type ReviewFacts,
  type Tune,
  type TryInLesson,
} from '@zelpit/core';
import { AttemptRepository } from '../attempts/attempt.repository';
import type { Database } from '../database/database';
import { InstrumentRepository } from '../instruments/instrument.repository';
import { ModelRepository } from '../models/model.repository';
import { SheetRepository } from '../sheets/sheet.repository';
import { TuneRepository } from '../tunes/tune.repository';

const dayMs = 86_400_000;
/** So far back the log is read. Our own choice: what is older is stale. */
const logDays = 42;
const mostAttempts = 400;
/** A longer tune is not read while somebody waits, in characters. */
const longestRead = 15_000;
/** Where neither an instrument nor a sheet says what is played. */
const usualInstrument = 'practice-chanter';
const takenBack = 'taken back';

/** What a review is proposed from, and on which instrument. */
export interface FoundFacts {
  readonly facts: ReviewFacts;
  /** Its id in this studio. */
  readonly model: string;
}

/** For whom, after which lesson, on which day. */
export interface ReviewWish {
  readonly student: Student;
  readonly lesson: Lesson | undefined;
  readonly on: string;
}

/** Reads what a review is proposed from: the last sheet, the lesson, the log of some weeks, the tune in hand and one that is known. */
export async function factsForReview(database: Database, studioId: string, { student, lesson, on }: ReviewWish): Promise<FoundFacts> {
  const [sheets, attempts, models] = [new SheetRepository(database), new AttemptRepository(database), new ModelRepository(database)];
  const [last] = (await sheets.list({ studioId }, { limit: 1, student: student.id })).items;
  const before = last === undefined ? undefined : await sheets.get({ studioId }, last.id);
  const [held] = (await new InstrumentRepository(database).list(studioId, { limit: 1, student: student.id })).items;
  const model = before?.instrument ?? held?.model ?? usualInstrument;
  const instrument = await models.known(studioId, model);
  const now = Date.now();
  const since = new Date(now - logDays * dayMs).toISOString();
  const log = await attempts.logged(studioId, student.id, since);
  const inLesson = lesson === undefined ? [] : (await attempts.list(studioId, { limit: mostAttempts, lesson: lesson.id })).items;
  const set = (before?.lines ?? []).map((line) => ({ item: nameOf(instrument, line), content: contentOf(line) }));
  const known = held?.knownNotes ?? [];
  const facts: ReviewFacts = {
    ...{ instrument, today: on, dayMinutes: student.dayMinutes, now, before: set },
    standing: await sheets.lastPriority(studioId, student.id),
    planned: (lesson?.plan ?? []).map(({ kind, title }) => ({ item: itemName({ kind, title }), title })),
    lesson: inLesson.filter(({ correction }) => correction?.note !== takenBack).map(tryOf),
    log,
    ...(await tunesFor(database, studioId, instrument, before, known)),
  };
  return { facts, model };
}

const nameOf = (instrument: Instrument, line: SheetDetail['lines'][number]): string =>
  itemName({ kind: line.kind, title: reviewItemTitle(instrument, contentOf(line)) });

/** An item without what it was only on that sheet. */
function contentOf(line: SheetDetail['lines'][number]): SheetLineInput {
  const { id: _, code: __, ...content } = line;
  return content;
}

function tryOf({ kind, title, rating, tempo, note, correction }: Attempt): TryInLesson {
  return { item: itemName({ kind, title }), title, kind, rating: correction?.rating ?? rating, tempo, note };
}

/** Bars of the tune in hand where none is set yet, and a whole tune of notes that are known. */
async function tunesFor(
  database: Database,
  studioId: string,
  instrument: Instrument,
  before: SheetDetail | undefined,
  known: readonly string[],
): Promise<Pick<ReviewFacts, 'piece' | 'known'>> {
  const tunes = new TuneRepository(database);
  const lines = (before?.lines ?? []).filter(hasMusic);
  const inHand = before?.tune ?? null;
  const hasPiece = lines.some(({ kind }) => kind === 'chunk' || kind === 'part');
  const short = async (id: string): Promise<TuneDetail | undefined> => {
    const found = await tunes.get(studioId, id);
    return found === undefined || found.abc.length > longestRead ? undefined : found;
  };
  const tune = inHand === null || hasPiece ? undefined : await short(inHand.id);
  const piece = tune === undefined ? undefined : hardestBar(instrument, readTune(instrument, tune.abc, { voice: tune.voice, chordNote: tune.chordNote }));
  if (lines.some(({ kind }) => kind === 'tune') || known.length === 0) return { piece };
  const titles = new Set([inHand?.title, ...lines.map(({ excerpt }) => excerpt?.tune)]);
  const found = (await tunes.list(studioId, { limit: 6, instrument: instrument.id, within: known })).items.find(({ title }) => !titles.has(title));
  const easy = found === undefined ? undefined : await short(found.id);
  return {
    piece,
    known: easy === undefined ? undefined : wholeTune(instrument, readTune(instrument, easy.abc, { voice: easy.voice, chordNote: easy.chordNote })),
  };
}

/** The bar with the hardest change of a tune, as it is learned: the bare notes first. */
function hardestBar(instrument: Instrument, tune: Tune): MusicReviewItem | undefined {
  const { open, underGraceNotes, tongued } = changesOfTune(instrument, tune);
  const all = [...open, ...underGraceNotes, ...tongued];
  const hardest = all.reduce<(typeof all)[number] | undefined>(
    (best, each) => (best === undefined || each.difficulty > best.difficulty ? each : best),
    undefined,
  );
  const bar = hardest?.places.at(0)?.bar;
  const found = bar === undefined ? undefined : chunkOf(instrument, tune, { kind: 'bars', from: bar, to: bar });
  if (hardest === undefined || found?.kind !== 'chunk') return undefined;
  const { from, to } = hardest.change;
  const excerpt = { ...excerptOf(tune.title, `Bar ${bar ?? ''}`, found.chunk.tune), rows: ['bare', 'full', 'count'] as const };
  return { kind: 'chunk', home: from, other: to, repetitions: 6, tempo: null, point: '', excerpt, details: { focus: 'fingers', tooFast: 'Bare notes only.' } };
}

function wholeTune(instrument: Instrument, tune: Tune): MusicReviewItem {
  const [home, other] = hardestPair(instrument, tune);
  const point = 'For pleasure: play on, whatever happens.';
  return { kind: 'tune', home, other, repetitions: 1, tempo: null, point, excerpt: excerptOf(tune.title, '', tune), details: { focus: 'pleasure' } };
}
