import type { Instrument, NoteId } from '../fingering';
import type { MovementReader } from '../movement';
import type { ScoreNotice } from '../score';
import { capital } from '../words';
import type { Tune } from './tune';

/**
 * Which reader a kept tune was read by. It grows when what is read of a text changes; what is kept of older readings is worked out again then.
 * 1: texts with abcjs; 2: the score.
 */
export const readerVersion = 2;

/** What lists need of a tune beyond its title and meter. */
export interface TuneFacts {
  /** Notes that it asks for, grace notes too, in the order of the chart. */
  readonly notes: readonly NoteId[];
  /** Names of the movements that are written in it. */
  readonly movements: readonly string[];
  /** What was passed over and what does not add up. */
  readonly findings: readonly { readonly bar: number; readonly text: string }[];
  readonly voices: readonly { readonly id: string; readonly name: string }[];
}

/** So many findings of one tune are kept. */
const mostFindings = 12;
const longestFinding = 200;

/** @param reader of the instrument's movements */
export function factsOf(instrument: Instrument, tune: Tune, reader: MovementReader): TuneFacts {
  const used = new Set<NoteId>();
  const movements = new Set<string>();
  tune.notes.forEach(({ written, graceNotes, strayGraceNotes }, index) => {
    for (const grace of graceNotes) used.add(grace);
    if (written.kind !== 'note') return;
    used.add(written.note);
    const before = tune.notes[index - 1]?.written;
    if (graceNotes.length < 2 || strayGraceNotes.length > 0) return;
    const recognised = reader.read(before?.kind === 'note' ? before.note : null, graceNotes, written.note);
    if (recognised.kind === 'known') movements.add(recognised.candidates[0].movement.names[0]);
  });
  return {
    notes: instrument.notes.flatMap(({ id }) => (used.has(id) ? [id] : [])),
    movements: [...movements].sort(),
    findings: tune.findings.slice(0, mostFindings).map((finding) => ({ bar: finding.bar, text: findingText(finding).slice(0, longestFinding) })),
    voices: tune.score.voices.map(({ id, name }) => ({ id: id.slice(0, 40), name: name.slice(0, 60) })),
  };
}

/**
 * A finding as it is said, with its bar.
 * @example findingText({ kind: 'length', bar: 5, beat: 1, text: '3 beats instead of 4 beats' }) // 'Bar 5: 3 beats instead of 4 beats'
 */
export function findingText({ kind, bar, text }: ScoreNotice): string {
  const place = bar > 0 ? `bar ${bar}: ` : '';
  return capital(`${place}${kind === 'passed-over' ? 'not used: ' : ''}${text}`);
}
