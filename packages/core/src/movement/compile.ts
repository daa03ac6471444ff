import { chartedPattern, noteOf, withFingers, type FingerId, type Instrument, type NoteId, type Pattern } from '../fingering';
import { capital } from '../words';
import { usualMovementSettings, type MovementDefinition, type MovementPart, type MovementSettings } from './definition';
import { graceSteps } from './grace-steps';
import { allowsGraceNote, firstAllowed, graceNoteNamed, openerOf, tapOf, withNextFinger } from './laws';
import { openers } from './movements.data';

/** What a step is: an opening or other grace note, a tap, the lowest note, or a note of the chart. */
export type StepKind = 'opener' | 'grace' | 'tap' | 'low' | 'note';

/** One step of a movement. */
export interface MovementStep {
  readonly kind: StepKind;
  /** The note with whose letter it is written. */
  readonly written: NoteId;
  readonly pattern: Pattern;
  /** Fingers that open or close for it; empty for a note of the chart. */
  readonly fingers: readonly FingerId[];
  /** A tap made by drawing the finger back over its hole. */
  readonly isDragged?: true;
}

/** A movement from one note into another. */
export type CompiledMovement =
  | {
      readonly kind: 'compiled';
      readonly movement: MovementDefinition;
      readonly before: NoteId | null;
      readonly after: NoteId;
      readonly steps: readonly MovementStep[];
      /** Letters of the steps as ABC, in braces, and the theme note: "{gcd}c". */
      readonly written: string;
      /** What the law gave instead of the usual, each with its reason. */
      readonly text: readonly string[];
      /** True where a teacher wanted it so, and not the laws. */
      readonly isOverride: boolean;
      /** True where it begins and ends on the same note without having left it, which exercises from every note leave out. */
      readonly isDegenerate: boolean;
    }
  | { readonly kind: 'unplayable'; readonly movement: MovementDefinition; readonly before: NoteId | null; readonly after: NoteId; readonly reason: string };

interface Building {
  readonly steps: MovementStep[];
  readonly text: string[];
}

class Unplayable extends Error {}

/**
 * A movement as steps of fingers, for any note before and after. The movement names its parts; which grace note opens it, which the theme note allows, what a
 * tap closes and what stands in where something is impossible follow from the fingerings alone.
 * @param before null for the start of a phrase
 * @throws ZelpitFault `unknown-note`
 * @example compileMovement(practiceChanter, movementById('doubling'), 'e', 'c').written // '{gcd}c'
 */
export function compileMovement(
  instrument: Instrument,
  movement: MovementDefinition,
  before: NoteId | null,
  after: NoteId,
  settings: MovementSettings = usualMovementSettings,
): CompiledMovement {
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  const common = { movement, before, after } as const;
  noteOf(instrument, after);
  const arrivals = movement.arrivals === undefined ? undefined : [...movement.arrivals, ...(settings.classical ? [instrument.notes[0].id] : [])];
  if (arrivals !== undefined && !arrivals.includes(after))
    return {
      ...common,
      kind: 'unplayable',
      reason: `The ${movement.names[0]} can only end on ${movement.arrivals?.map(name).join(', ') ?? ''}, not on ${name(after)}.`,
    };
  const cell = movement.cells?.find((each) => each.before === before && each.after === after);
  if (cell !== undefined) return overridden(instrument, common, cell.graces);
  const building: Building = { steps: [], text: [] };
  try {
    for (const part of movement.parts) addPart(instrument, building, part, { ...common, settings });
  } catch (error) {
    if (error instanceof Unplayable) return { ...common, kind: 'unplayable', reason: error.message };
    throw error;
  }
  dropWhatSounds(instrument, building, { ...common, settings });
  return compiledOf(instrument, common, building, false);
}

type Ends = Pick<CompiledMovement, 'movement' | 'before' | 'after'>;

function compiledOf(instrument: Instrument, ends: Ends, { steps, text }: Building, isOverride: boolean): CompiledMovement {
  const { before, after } = ends;
  const written = writtenForm(
    instrument,
    steps.map((step) => step.written),
    after,
  );
  return { ...ends, kind: 'compiled', steps, written, text, isOverride, isDegenerate: before === after && ends.movement.returns !== true };
}

/** Grace notes in braces and the theme note, in the instrument's letters: "{gcd}c"; the bare letter where there are none. */
export function writtenForm(instrument: Instrument, graces: readonly NoteId[], after: NoteId): string {
  const letter = (id: NoteId): string => noteOf(instrument, id).abc;
  return graces.length === 0 ? letter(after) : `{${graces.map(letter).join('')}}${letter(after)}`;
}

/** A start and arrival as a teacher wrote it: the letters read by the instrument's table of grace notes. */
function overridden(instrument: Instrument, ends: Ends, graces: readonly NoteId[]): CompiledMovement {
  const lowest = instrument.notes[0].id;
  const kinds = { lifting: 'grace', tap: 'tap', charted: 'note' } as const;
  const steps = graceSteps(instrument, graces, ends.after).map(({ written, pattern, kind, fingers }, index): MovementStep => {
    if (kind === 'lifting' && index === 0 && openers.includes(written)) return { kind: 'opener', written, pattern, fingers };
    return { kind: kind === 'charted' && written === lowest ? 'low' : kinds[kind], written, pattern, fingers };
  });
  return compiledOf(instrument, ends, { steps, text: ['Your own form, not the usual one.'] }, true);
}

interface Place {
  readonly movement: MovementDefinition;
  readonly before: NoteId | null;
  readonly after: NoteId;
  readonly settings: MovementSettings;
}

const noteStep = (instrument: Instrument, note: NoteId, kind: 'low' | 'note'): MovementStep => ({
  kind,
  written: note,
  pattern: chartedPattern(instrument, note),
  fingers: [],
});

function addPart(instrument: Instrument, { steps, text }: Building, part: MovementPart, place: Place): void {
  const { before, after, movement, settings } = place;
  const lowest = instrument.notes[0].id;
  switch (part.part) {
    case 'opener':
      addOpener(instrument, steps, text, place);
      return;
    case 'theme':
      steps.push(noteStep(instrument, after, 'note'));
      return;
    case 'second': {
      const rule = firstAllowed(instrument, part.from, after);
      if (rule !== undefined) steps.push(lifted(instrument, rule.written, after, settings));
      // No grace note is possible on the theme note: it is sounded, tapped, and sounded again, without an opener.
      else tappedInstead(instrument, steps, text, after, movement);
      return;
    }
    case 'tap': {
      const tap = tapOf(instrument, after, part.weight ?? (settings.lightTaps.includes(after) ? 'light' : 'heavy'));
      if (tap === undefined) throw new Unplayable(`${capital(noteOf(instrument, after).schoolName)} cannot be tapped: every hole is closed.`);
      // A tap closes and opens again over its own note.
      if (steps.length === 0 && before !== null && before !== after)
        throw new Unplayable(
          `A tap needs its own note sounding: from ${noteOf(instrument, before).schoolName} there is nothing on ${noteOf(instrument, after).schoolName} to tap yet.`,
        );
      const isAgain = steps.some(({ kind }) => kind === 'tap') && tap.closes.length === 1;
      const isDragged = isAgain && settings.secondTap === 'drag';
      if (isDragged) text.push('For the second tap, draw the finger back over its hole.');
      steps.push({ kind: 'tap', written: tap.written, pattern: tap.pattern, fingers: tap.closes, ...(isDragged && { isDragged }) });
      return;
    }
    case 'low':
      steps.push(noteStep(instrument, lowest, 'low'));
      return;
    case 'inner': {
      const written = part.from.find((each) => each !== before) ?? part.from[0];
      if (written !== part.from[0])
        text.push(`After ${noteOf(instrument, part.from[0]).schoolName} the grace note inside is ${noteOf(instrument, written).schoolName}.`);
      steps.push(lifted(instrument, written, lowest, settings));
      return;
    }
    case 'charted':
      steps.push(noteStep(instrument, part.note, 'note'));
      return;
    case 'grace':
      if (steps.length === 0 && before !== null && part.over === undefined) assertLifts(instrument, part.written, before, after);
      steps.push(lifted(instrument, part.written, part.over ?? after, settings));
      return;
  }
}

/** A grace note lifts over the note before, while the other fingers change under it: what is up there already cannot lift. */
function assertLifts(instrument: Instrument, written: NoteId, before: NoteId, after: NoteId): void {
  const rule = graceNoteNamed(instrument, written);
  if (rule === undefined || allowsGraceNote(instrument, chartedPattern(instrument, before), rule)) return;
  const name = noteOf(instrument, before).schoolName;
  const instead = openers.includes(written) ? openerOf(instrument, openers, before, after) : undefined;
  const otherwise = instead === undefined ? '' : ` There the ${instead.name} opens it.`;
  throw new Unplayable(`The ${rule.name} is not possible from ${name}: its finger, or one above it, is already up.${otherwise}`);
}

/** A grace note's fingers opened over a note. */
function lifted(instrument: Instrument, written: NoteId, over: NoteId, { twoFingers }: MovementSettings): MovementStep {
  const rule = graceNoteNamed(instrument, written);
  const pattern = chartedPattern(instrument, over);
  if (rule === undefined) throw new Unplayable(`The ${instrument.name} has no grace note ${noteOf(instrument, written).schoolName}.`);
  if (!allowsGraceNote(instrument, pattern, rule))
    throw new Unplayable(`The ${rule.name} is not possible on ${noteOf(instrument, over).schoolName}: its finger, or one above it, is already up.`);
  const fingers = twoFingers.includes(written) ? withNextFinger(instrument, pattern, rule.opens) : rule.opens;
  return { kind: 'grace', written, pattern: withFingers(instrument, pattern, fingers, 0), fingers };
}

function addOpener(instrument: Instrument, steps: MovementStep[], text: string[], { movement, before, after, settings }: Place): void {
  const rule = openerOf(instrument, openers, before, after);
  const [usual] = openers;
  const name = (id: NoteId): string => noteOf(instrument, id).schoolName;
  if (rule === undefined) {
    const up = before !== null && firstAllowed(instrument, openers, before) === undefined ? before : after;
    text.push(`The thumb is up on ${name(up)}, so there is no opening grace note.`);
    return;
  }
  if (rule.written !== usual) {
    const usualRule = graceNoteNamed(instrument, usual);
    const isBefore = before !== null && usualRule !== undefined && !allowsGraceNote(instrument, chartedPattern(instrument, before), usualRule);
    if (isBefore && settings.thumbDown === 'plain' && movement.parts.length === 1) {
      text.push(`Coming down from ${name(before)} it has no grace note.`);
      return;
    }
    text.push(`The index finger is up on ${name(isBefore ? before : after)}, so the thumb opens it.`);
    const isOverBefore = settings.thumbOverUpper === 'thumb-first' && before !== null && !isBefore;
    const base = chartedPattern(instrument, isOverBefore ? before : after);
    steps.push({ kind: 'opener', written: rule.written, pattern: withFingers(instrument, base, rule.opens, 0), fingers: rule.opens });
    return;
  }
  steps.push({
    kind: 'opener',
    written: rule.written,
    pattern: withFingers(instrument, chartedPattern(instrument, after), rule.opens, 0),
    fingers: rule.opens,
  });
}

/** Sounded, tapped, sounded again: what a doubling is where its theme note allows no second grace note. */
function tappedInstead(instrument: Instrument, steps: MovementStep[], text: string[], after: NoteId, movement: MovementDefinition): void {
  const tap = tapOf(instrument, after);
  if (tap === undefined) throw new Unplayable(`No second grace note is possible on ${noteOf(instrument, after).schoolName}.`);
  steps.splice(0, steps.length, noteStep(instrument, after, 'note'), { kind: 'tap', written: tap.written, pattern: tap.pattern, fingers: tap.closes });
  text.splice(
    0,
    text.length,
    `On ${noteOf(instrument, after).schoolName} the ${movement.names[0]} is the note, a tap and the note again, because no second grace note is possible there.`,
  );
}

/** A first step that sounds already is left out: the low note from the lowest note, the theme note where it stood before. */
function dropWhatSounds(instrument: Instrument, { steps, text }: Building, { movement, before, settings: { fromLowest } }: Place): void {
  const [first] = steps;
  if (first === undefined || before === null || first.written !== before || (first.kind !== 'low' && first.kind !== 'note')) return;
  if (first.kind === 'low' && fromLowest === 'full') return;
  if (first.kind === 'note' && movement.skipsSounding !== true) return;
  steps.shift();
  text.push(`${capital(noteOf(instrument, before).schoolName)} is sounding already.`);
}
