import { changeBetween, type Change } from '../change';
import { noteOf, type Instrument, type NoteId } from '../fingering';
import { compileMovement, type MovementDefinition, type MovementSettings } from '../movement';
import type { ChangeLine } from './change-line';
import { filled, quarter, type Exercise, type LineNote } from './exercise';
import type { ExerciseLines } from './exercise-sets';

/** How a movement is practised: on each note in turn up and down, into one note from every other, or between two notes again and again. */
export type MovementExercise = 'scale' | 'from-every-note' | 'repeated';

interface Wish {
  readonly kind: MovementExercise;
  readonly movement: MovementDefinition;
  /** The theme note of `from-every-note` and `repeated`. */
  readonly after: NoteId;
  /** The note before of `repeated`. */
  readonly before: NoteId;
  readonly settings: MovementSettings;
}

const barsOnLine = 5;

/**
 * Lines that practise a movement; starts that are degenerate, or from which it cannot be played, are left out and named.
 * @throws ZelpitFault `unknown-note`
 */
export function movementLines(instrument: Instrument, wish: Wish): ExerciseLines {
  const { movement, settings } = wish;
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const leftOut: string[] = [];
  /** A note with the movement before it, as it follows the note before; undefined where it cannot be. */
  const decorated = (before: NoteId | null, after: NoteId, twelfths: number): LineNote | undefined => {
    const compiled = compileMovement(instrument, movement, before, after, settings);
    if (compiled.kind === 'unplayable') {
      leftOut.push(compiled.reason);
      return undefined;
    }
    return { note: after, twelfths, graceNotes: compiled.steps.map(({ written }) => written) };
  };
  const title = capital(movement.names[0]);
  switch (wish.kind) {
    case 'scale': {
      const ids = instrument.notes.map(({ id }) => id).filter((id) => compileMovement(instrument, movement, null, id, settings).kind === 'compiled');
      for (const { id } of instrument.notes) if (!ids.includes(id)) leftOut.push(`on ${name(id)}`);
      if (ids.length < 2) return movementLines(instrument, { ...wish, kind: 'from-every-note', after: ids[0] ?? wish.after });
      const all = [...ids, ...ids.slice(0, -1).reverse()];
      const notes = all.flatMap((id, index) => decorated(index === 0 ? null : all[index - 1], id, 2 * quarter) ?? []);
      return { lines: asLines(instrument, `${title} scale`, notes), leftOut };
    }
    case 'from-every-note': {
      const starts = instrument.notes.map(({ id }) => id).filter((id) => id !== wish.after);
      const notes = starts.flatMap((start): LineNote[] => {
        const note = decorated(start, wish.after, 2 * quarter);
        return note === undefined ? [] : [{ note: start, twelfths: 2 * quarter }, note];
      });
      leftOut.push(`from ${name(wish.after)} itself: the same note before and after`);
      return { lines: asLines(instrument, `${title} on ${name(wish.after)} from every note`, notes), leftOut };
    }
    case 'repeated': {
      const note = decorated(wish.before, wish.after, 2 * quarter);
      if (note === undefined) return { lines: [], leftOut };
      const notes = Array.from({ length: 4 }, () => [{ note: wish.before, twelfths: 2 * quarter }, note]).flat();
      return { lines: asLines(instrument, `${title}, ${name(wish.before)} to ${name(wish.after)}`, notes), leftOut };
    }
  }
}

function asLines(instrument: Instrument, title: string, notes: readonly LineNote[]): readonly ChangeLine[] {
  if (notes.length < 2) return [];
  // Two half notes a bar, the bars shared out evenly, so that no line is left with a single note.
  const count = Math.ceil(notes.length / (2 * barsOnLine));
  const size = 2 * Math.ceil(notes.length / count / 2);
  const parts = Array.from({ length: count }, (_, index) => notes.slice(index * size, (index + 1) * size));
  return parts.flatMap((part, index): ChangeLine[] => {
    const pair = firstMoving(instrument, part);
    if (pair === undefined) return [];
    const exercise: Exercise = {
      title: (parts.length === 1 ? title : `${title} (${index + 1} of ${parts.length})`).slice(0, 120),
      musical: 'Every element there, none more, all grace notes equally long.',
      physical: 'Small, quick fingers; what lies stays down.',
      focus: 'fingers',
      notes: filled(part),
    };
    return [{ home: pair.from, other: pair.to, exercise }];
  });
}

function firstMoving(instrument: Instrument, notes: readonly LineNote[]): Change | undefined {
  return notes
    .slice(1)
    .flatMap(({ note }, index) => (note === notes[index].note ? [] : [changeBetween(instrument, notes[index].note, note)]))
    .find(({ kind }) => kind !== 'none');
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
