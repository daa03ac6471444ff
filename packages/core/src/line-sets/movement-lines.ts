import { changeBetween, type Change } from '../change';
import { chartedPattern, fingerCoverage, noteOf, type Instrument, type NoteId } from '../fingering';
import { capital } from '../words';
import {
  compileMovement,
  firstAllowed,
  isTapAlone,
  lightTapNotes,
  movementHints,
  openers,
  tapOf,
  type MovementDefinition,
  type MovementSettings,
  type Tap,
} from '../movement';
import type { Line } from '../line';
import { bar, filled, quarter, type Exercise, type LineNote } from '../line';
import type { ExerciseLines } from './exercise-sets';

/**
 * How a movement is practised: on each note in turn up and down, into one note from every other, from each note with its opener back to one, there and back between
 * two notes, again and again between two notes, on one note in the form of the top hand; or the exercises of single taps and of grace notes in a row.
 */
export type MovementExercise = 'scale' | 'from-every-note' | 'opened-and-back' | 'repeated' | 'both-ways' | 'same-note' | 'taps' | 'runs';
export const movementExercises: readonly MovementExercise[] = [
  'scale',
  'from-every-note',
  'opened-and-back',
  'repeated',
  'both-ways',
  'same-note',
  'taps',
  'runs',
];

interface Wish {
  readonly kind: MovementExercise;
  readonly movement: MovementDefinition;
  /** The theme note of `from-every-note`, `opened-and-back`, `repeated` and `both-ways`. */
  readonly after: NoteId;
  /** The note before of `repeated` and `both-ways`. */
  readonly before: NoteId;
  readonly settings: MovementSettings;
}

const barsOnLine = 5;
const half = 2 * quarter;
/** Grace notes of a run on one note, in their order. */
const runLetters: readonly NoteId[] = ['high-g', 'd', 'e'];

/**
 * Lines that practise a movement; starts that are degenerate, or from which it cannot be played, are left out and named.
 * @throws ZelpitFault `unknown-note`
 */
export function movementLines(instrument: Instrument, wish: Wish): ExerciseLines {
  const writer = new Writer(instrument, wish);
  const { after, before } = wish;
  const title = capital(wish.movement.names[0]);
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  switch (wish.kind) {
    case 'scale': {
      const on = writer.possible();
      if (on.length < 2) return movementLines(instrument, { ...wish, kind: 'from-every-note', after: on[0] ?? after });
      // Up on one line, down on the next: a scale begins with its first note.
      const ways = [on, [...on].reverse()].map((all) => all.flatMap((id, index) => writer.decorated(index === 0 ? null : all[index - 1], id)));
      return writer.parts(`${title} scale`, ways);
    }
    case 'from-every-note':
      return writer.lines(
        `${title} on ${name(after)} from every note`,
        startsFor(writer, wish).map((start) => joined({ note: start, twelfths: half }, writer.decorated(start, after))),
      );
    case 'opened-and-back':
      return writer.lines(`${title} scale to ${name(after)}`, openedAndBack(writer, wish));
    case 'repeated':
      return writer.lines(
        `${title}, ${name(before)} to ${name(after)}`,
        times(4, () => joined({ note: before, twelfths: half }, writer.decorated(before, after))),
      );
    case 'both-ways':
      return writer.lines(
        `${title}, ${name(before)} to ${name(after)} and back`,
        times(4, () => [...writer.decorated(before, after), ...writer.decorated(after, before)]),
      );
    case 'same-note':
      return writer.lines(`${title} on one note`, onOneNote(writer));
    case 'taps':
      return tapsExercise(writer);
    case 'runs':
      return writer.lines('Grace notes in a row', runs(writer));
  }
}

/** From which notes: where the movement itself leaves its note and comes back, that note first; else it is left out, as nothing would be practised. */
function startsFor(writer: Writer, { movement, after }: Wish): readonly NoteId[] {
  if (movement.returns === true) return [after, ...writer.others(after)];
  writer.leaveOut(`from ${noteOf(writer.instrument, after).schoolName} itself: the same note before and after`);
  return writer.others(after);
}

/** Each note with its own opener, then the movement down or up to one note. */
function openedAndBack(writer: Writer, wish: Wish): readonly (readonly LineNote[])[] {
  const { after } = wish;
  const starts = new Set(startsFor(writer, wish));
  const all = writer.instrument.notes.map(({ id }) => id).filter((id) => starts.has(id));
  return [...all, ...all.slice(0, -1).reverse()].map((start) => joined(writer.opened(start), writer.decorated(start, after)));
}

/**
 * The form of the top hand: a theme note with its own opener, the movement, the same theme note again; then all of it once more from the highest note, where
 * nothing opens it. Only the lowest finger of the lower hand has to be where it was, so it is played on the notes of the upper hand whose lower hand lies but
 * for that finger.
 */
function onOneNote(writer: Writer): readonly (readonly LineNote[])[] {
  const { instrument } = writer;
  const upper = instrument.fingers[0].hand;
  const lower = instrument.fingers.filter(({ hand, thumb }) => hand !== upper && !thumb);
  const highest = instrument.notes[instrument.notes.length - 1].id;
  const onNotes = instrument.notes.flatMap(({ id, schoolName }): NoteId[] => {
    const pattern = chartedPattern(instrument, id);
    const isLying = lower.every((finger, index) => (index === lower.length - 1 ? 0 : 1) === fingerCoverage(instrument, pattern, finger.id));
    const isTopHand = instrument.fingers.some(({ id: finger, hand }) => hand === upper && fingerCoverage(instrument, pattern, finger) < 1);
    if (isLying && isTopHand) return [id];
    writer.leaveOut(isLying ? `on ${schoolName}: a note of the lower hand` : `on ${schoolName}: the lower hand would move too`);
    return [];
  });
  const after = (first: readonly LineNote[], id: NoteId): readonly LineNote[] => {
    const again = writer.decorated(id, id);
    return again.length === 0 ? [] : [...first, ...again];
  };
  const opened = onNotes.map((id) => after([writer.opened(id)], id));
  const plain = (note: NoteId): LineNote => ({ note, twelfths: half });
  const fromHighest = onNotes.map((id) => {
    const group = id === highest ? after([plain(id)], id) : after([plain(highest), plain(id)], id);
    return group.length === 0 ? [] : filled(group);
  });
  return [...opened, ...fromHighest];
}

/** A line for each note: the grace note, the tap's note, the note, tapped, twice; then a grace note and three taps. A note that is tapped lightly too has two. */
function tapsExercise(writer: Writer): ExerciseLines {
  const { instrument } = writer;
  const lines = instrument.notes.flatMap(({ id, schoolName }): Line[] => {
    const tap = tapOf(instrument, id);
    if (tap === undefined) {
      writer.leaveOut(`on ${schoolName}: it cannot be tapped`);
      return [];
    }
    const light = tapOf(instrument, id, 'light');
    const weights =
      light === undefined || !lightTapNotes.includes(id)
        ? [{ tap, name: '' }]
        : [
            { tap, name: 'heavy ' },
            { tap: light, name: 'light ' },
          ];
    return weights.flatMap(({ tap: each, name }) => writer.line(`Taps on ${name}${schoolName}`, tapsOn(writer, id, each)));
  });
  return { lines, leftOut: writer.left() };
}

function tapsOn(writer: Writer, id: NoteId, tap: Tap): readonly LineNote[] {
  const { instrument } = writer;
  const tapped: LineNote = { note: id, twelfths: quarter, graceNotes: [tap.written], movement: 'tap' };
  const plain: LineNote = { note: id, twelfths: quarter };
  const opened = { ...writer.opened(id), twelfths: quarter };
  const low: LineNote = { note: tap.written, twelfths: quarter };
  const isSweep = tap.written === id || instrument.fingers.some(({ id: finger, thumb }) => thumb && tap.closes.includes(finger));
  const group = isSweep ? [opened, tapped, plain, tapped] : [opened, low, plain, tapped];
  return [...group, ...group, opened, tapped, tapped, tapped];
}

/** G, D and E grace notes one after the other on a repeated note; what the note does not allow is dropped. */
function runs(writer: Writer): readonly (readonly LineNote[])[] {
  const { instrument } = writer;
  return instrument.notes.flatMap(({ id, schoolName }): (readonly LineNote[])[] => {
    const possible = runLetters.filter((written) => firstAllowed(instrument, [written], id) !== undefined);
    const dropped = runLetters.filter((written) => !possible.includes(written)).map((written) => noteOf(instrument, written).schoolName);
    if (dropped.length > 0) writer.leaveOut(`on ${schoolName}: ${dropped.join(', ')}`);
    if (possible.length < 2) return [];
    const run = possible.map((written): LineNote => ({ note: id, twelfths: quarter, graceNotes: [written], movement: graceNoteMovement(written) }));
    // A plain note fills the bar.
    return [[...run, { note: id, twelfths: (4 - run.length) * quarter }]];
  });
}

const graceNoteMovement = (written: NoteId): string => ({ 'high-g': 'g-grace-note', d: 'd-grace-note', e: 'e-grace-note' })[written] ?? 'grace-note';

const times = <T>(count: number, make: () => T): readonly T[] => Array.from({ length: count }, make);
/** A note and what follows it; nothing where that cannot be. */
const joined = (first: LineNote, rest: readonly LineNote[]): readonly LineNote[] => (rest.length === 0 ? [] : [first, ...rest]);

/** Writes notes with movements, and keeps what had to be left out. */
class Writer {
  private readonly leftOut: string[] = [];

  constructor(
    readonly instrument: Instrument,
    private readonly wish: Wish,
  ) {}

  leaveOut(text: string): void {
    this.leftOut.push(text);
  }

  others(after: NoteId): readonly NoteId[] {
    return this.instrument.notes.map(({ id }) => id).filter((id) => id !== after);
  }

  /** Notes for which the movement can be played; the others are named. */
  possible(): readonly NoteId[] {
    return this.instrument.notes.flatMap(({ id, schoolName }) => {
      if (compileMovement(this.instrument, this.wish.movement, null, id, this.wish.settings).kind === 'compiled') return [id];
      this.leaveOut(`on ${schoolName}`);
      return [];
    });
  }

  /** A note with the movement before it, as it follows the note before; nothing where it cannot be. */
  decorated(before: NoteId | null, after: NoteId): readonly LineNote[] {
    const { movement, settings } = this.wish;
    // It is played plain first.
    if (isTapAlone(movement) && before !== after) return joined({ note: after, twelfths: half }, this.decorated(after, after));
    const compiled = compileMovement(this.instrument, movement, before, after, settings);
    if (compiled.kind === 'unplayable') {
      this.leaveOut(compiled.reason.replace(/\.$/, ''));
      return [];
    }
    return [{ note: after, twelfths: half, graceNotes: compiled.steps.map(({ written }) => written), movement: movement.id }];
  }

  /** A note with the grace note that opens it where nothing is known of the note before. */
  opened(note: NoteId): LineNote {
    const opener = firstAllowed(this.instrument, openers, note);
    return { note, twelfths: half, ...(opener !== undefined && { graceNotes: [opener.written], movement: 'grace-note' }) };
  }

  /** What was left out, each once. */
  left(): readonly string[] {
    return [...new Set(this.leftOut)];
  }

  /** Groups that stay together, laid out in lines of a few bars. */
  lines(title: string, groups: readonly (readonly LineNote[])[]): ExerciseLines {
    const whole = groups.filter((group) => group.length > 0);
    if (whole.flat().length < 2) return { lines: [], leftOut: this.left() };
    // Shared out evenly, so that no line is left with a single group.
    const all = lengthOf(whole.flat());
    const count = Math.ceil(all / (barsOnLine * bar));
    const parts: LineNote[][] = [[]];
    for (const group of whole) {
      const last = parts[parts.length - 1];
      const isFull = last.length > 0 && lengthOf(last) + lengthOf(group) / 2 > all / count;
      if (isFull && parts.length < count) parts.push([...group]);
      else last.push(...group);
    }
    return this.parts(title, parts);
  }

  /** Parts with a line for each. */
  parts(title: string, parts: readonly (readonly LineNote[])[]): ExerciseLines {
    const name = (index: number): string => (parts.length === 1 ? title : `${title} (${index + 1} of ${parts.length})`);
    return { lines: parts.flatMap((part, index) => this.line(name(index), part)), leftOut: this.left() };
  }

  /** What to listen for, and the hint for the hands. */
  private purposes(notes: readonly LineNote[]): Pick<Exercise, 'musical' | 'physical'> {
    const on = [...new Set(notes.flatMap(({ note, movement }) => (movement === this.wish.movement.id ? [note] : [])))];
    const { listen, physical } = movementHints(this.instrument, this.wish.movement, on.length === 1 ? on[0] : null);
    return { musical: listen, physical };
  }

  line(title: string, notes: readonly LineNote[]): readonly Line[] {
    if (notes.length < 2) return [];
    const pair = firstMoving(this.instrument, notes);
    const [first, second] = this.instrument.notes;
    const exercise: Exercise = {
      title: title.slice(0, 120),
      ...this.purposes(notes),
      focus: 'fingers',
      notes: filled(notes),
    };
    // A line on one note only has no change of its own: the instrument's first step stands for it.
    return [{ home: pair?.from ?? first.id, other: pair?.to ?? second.id, exercise }];
  }
}

const lengthOf = (notes: readonly LineNote[]): number => notes.reduce((sum, { twelfths }) => sum + twelfths, 0);

function firstMoving(instrument: Instrument, notes: readonly LineNote[]): Change | undefined {
  return notes
    .slice(1)
    .flatMap(({ note }, index) => (note === notes[index].note ? [] : [changeBetween(instrument, notes[index].note, note)]))
    .find(({ kind }) => kind !== 'none');
}
