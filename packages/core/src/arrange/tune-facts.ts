import type { Instrument, NoteId } from '../fingering';
import type { MovementReader } from '../movement';
import { levels, RiskTable } from '../timing';
import { findingText, type Tune } from '../tune';
import { formOf } from '../form';
import { howHard, LieWeigher, type HowHard } from './lie';

/**
 * Which reader a kept tune was read by. It grows when what is read of a text changes; what is kept of older readings is worked out again then.
 * 1: texts with abcjs; 2: the score; 3: theme notes, melody, form and how hard it is; 4: no meter where none is written.
 */
export const readerVersion = 4;

/** What lists need of a tune beyond its title and meter. */
export interface TuneFacts {
  /** Notes that it asks for, grace notes too, in the order of the chart. */
  readonly notes: readonly NoteId[];
  /** Theme notes that it asks for, in the order of the chart: who knows these can play it. */
  readonly theme: readonly NoteId[];
  /** Its theme notes in their order as one text with blanks around each, so that a phrase is found in it; tied notes once. */
  readonly melody: string;
  /** "AABB" */
  readonly form: string;
  /** How much a learner has to mind in it. */
  readonly hard: HowHard;
  /** Names of the movements that are written in it. */
  readonly movements: readonly string[];
  /** What was passed over and what does not add up. */
  readonly findings: readonly { readonly bar: number; readonly text: string }[];
  readonly voices: readonly { readonly id: string; readonly name: string }[];
}

/** So many findings of one tune are kept. */
const mostFindings = 12;
const longestFinding = 200;
const longestForm = 40;
/** Of a longer tune the beginning can be found by its melody. */
const mostMelody = 2000;

/** A learner's risks by the instrument, kept: a book is read for one. */
const tables = new WeakMap<Instrument, RiskTable>();

function learnersTable(instrument: Instrument): RiskTable {
  const table = tables.get(instrument) ?? new RiskTable(instrument, levels.learner);
  tables.set(instrument, table);
  return table;
}

/** Notes as a melody is kept: " c e low-a ". */
export const melodyText = (notes: readonly NoteId[]): string => (notes.length === 0 ? '' : ` ${notes.slice(0, mostMelody).join(' ')} `);

/** @param reader of the instrument's movements */
export function factsOf(instrument: Instrument, tune: Tune, reader: MovementReader): TuneFacts {
  const used = new Set<NoteId>();
  const theme = new Set<NoteId>();
  const melody: NoteId[] = [];
  const movements = new Set<string>();
  tune.notes.forEach(({ written, graceNotes, strayGraceNotes, isTiedFromPrevious }, index) => {
    for (const grace of graceNotes) used.add(grace);
    if (written.kind !== 'note') return;
    used.add(written.note);
    theme.add(written.note);
    if (!isTiedFromPrevious) melody.push(written.note);
    const before = tune.notes[index - 1]?.written;
    if (graceNotes.length < 2 || strayGraceNotes.length > 0) return;
    const recognised = reader.read(before?.kind === 'note' ? before.note : null, graceNotes, written.note);
    if (recognised.kind === 'known') movements.add(recognised.candidates[0].movement.names[0]);
  });
  return {
    notes: instrument.notes.flatMap(({ id }) => (used.has(id) ? [id] : [])),
    theme: instrument.notes.flatMap(({ id }) => (theme.has(id) ? [id] : [])),
    melody: melodyText(melody),
    form: formOf(instrument, tune).order.slice(0, longestForm),
    hard: howHard(new LieWeigher(instrument, tune, 'slurred', learnersTable(instrument)).at(tune.notes.map(() => 0))),
    movements: [...movements].sort(),
    findings: tune.findings.slice(0, mostFindings).map((finding) => ({ bar: finding.bar, text: findingText(finding).slice(0, longestFinding) })),
    voices: tune.score.voices.map(({ id, name }) => ({ id: id.slice(0, 40), name: name.slice(0, 60) })),
  };
}
