import { adviceFor, headingOf, type Advice, type Change, type Outcomes, type Trouble } from '../change';
import { chartedFingering, chosenOf, wayIdOf, type ChosenFingering, type Fingering, type Instrument, type NoteId } from '../fingering';
import { graceSteps, hidingGraceNote, type GraceStep } from '../movement';
import { levels, RiskTable, tongueSilenceMs, usualGraceNoteMs, type Hiding } from '../timing';
import { isTongued, playedBars, type Articulation, type Tune, type TuneNote } from './tune';

/** Where a change happens: between two notes of the tune, said by the second. */
export interface Place {
  readonly from: number;
  readonly to: number;
  readonly bar: number;
  readonly beat: number;
  /** True where it happens only when a part is played again. */
  readonly isAcrossRepeat: boolean;
}

/** A distinct change of a tune with everything that is said of it. */
export interface TuneChange {
  readonly id: string;
  readonly change: Change;
  /** Its fingerings that are not the ones taught first. */
  readonly fingering: readonly ChosenFingering[];
  readonly outcomes: Outcomes;
  readonly trouble: Trouble;
  readonly advice: Advice;
  /** How hard it is under the timing that it was ranked by. */
  readonly difficulty: number;
  readonly occurrences: number;
  readonly places: readonly Place[];
  /** Names of the grace notes that hide it, or the written group that it goes through; empty for an open change. */
  readonly under: readonly string[];
}

export interface TuneChanges {
  /** Open changes, worst first. */
  readonly open: readonly TuneChange[];
  /** Changes under a grace note or through a group, worst first. */
  readonly underGraceNotes: readonly TuneChange[];
  /** Changes that the tongue hides, worst first. */
  readonly tongued: readonly TuneChange[];
}

interface Gathered {
  readonly before: Fingering;
  readonly after: Fingering;
  readonly places: Place[];
  /** Grace notes that it goes through, each group once. */
  readonly groups: Map<string, readonly NoteId[]>;
}

/** How the notes of a tune are fingered, by their indices; a note that is not there has the fingering taught first. */
export type TuneFingerings = ReadonlyMap<number, Fingering>;

const tongue: Hiding = { kind: 'tongue', lengthMs: tongueSilenceMs };

/**
 * Every distinct change between neighbouring theme notes, as played with repeats. What is heard alike stands together, the hardest first; what lets nothing be
 * heard stands last. Changes between the same notes in other fingers are other changes.
 * @param risks of the instrument's changes under a player's timing; a learner's where none are given
 */
export function changesOfTune(
  instrument: Instrument,
  tune: Tune,
  articulation: Articulation = 'slurred',
  fingerings: TuneFingerings = new Map(),
  risks: RiskTable = new RiskTable(instrument, levels.learner),
): TuneChanges {
  const first = new Map(instrument.fingerings.filter(({ rank }) => rank === 1).map((each) => [each.note, each]));
  const fingeringOf = (index: number, note: NoteId): Fingering => fingerings.get(index) ?? first.get(note) ?? chartedFingering(instrument, note);
  const open = new Map<string, Gathered>();
  const hidden = new Map<string, Gathered>();
  const tongued = new Map<string, Gathered>();
  const kindOf = (after: TuneNote): Map<string, Gathered> => {
    if (after.graceNotes.length > 0) return hidden;
    return isTongued(after, articulation) ? tongued : open;
  };
  for (const [before, after] of neighbours(tune)) {
    if (before.written.kind !== 'note' || after.written.kind !== 'note' || before.written.note === after.written.note) continue;
    gather(kindOf(after), before, after, fingeringOf(before.index, before.written.note), fingeringOf(after.index, after.written.note));
  }
  return {
    open: ranked(instrument, risks, open, () => undefined),
    underGraceNotes: ranked(instrument, risks, hidden, coverOf),
    tongued: ranked(instrument, risks, tongued, () => tongue),
  };
}

function gather(into: Map<string, Gathered>, before: TuneNote, after: TuneNote, from: Fingering, to: Fingering): void {
  const id = `${wayIdOf(from)}>${wayIdOf(to)}`;
  const gathered = into.get(id) ?? { before: from, after: to, places: [], groups: new Map<string, readonly NoteId[]>() };
  into.set(id, gathered);
  gathered.places.push({ from: before.index, to: after.index, bar: after.bar, beat: after.beat, isAcrossRepeat: after.index !== before.index + 1 });
  if (after.graceNotes.length > 0) gathered.groups.set(after.graceNotes.join(' '), after.graceNotes);
}

/** What a change goes through: the grace note that hides it, or the group as written. */
interface Under {
  readonly phrase: string;
  readonly hiding: GraceStep | undefined;
}

function undersOf(instrument: Instrument, { before, after, groups }: Gathered): readonly Under[] {
  return [...groups.values()].map((letters): Under => {
    const hiding = hidingGraceNote(instrument, before.note, graceSteps(instrument, letters, after.note));
    if (hiding?.name !== undefined) return { phrase: hiding.name, hiding };
    const abc = letters.map((letter) => instrument.notes.find((note) => note.id === letter)?.abc ?? '');
    return { phrase: `{${abc.join('')}}`, hiding };
  });
}

/** Pairs of notes that follow each other when the tune is played, each pair once. */
function* neighbours(tune: Tune): Generator<readonly [TuneNote, TuneNote]> {
  const seen = new Set<number>();
  let previous: TuneNote | undefined;
  for (const barIndex of playedBars(tune)) {
    const bar = tune.bars[barIndex];
    for (let index = bar.first; index < bar.end; index += 1) {
      const note = tune.notes[index];
      const pair = previous === undefined ? -1 : previous.index * tune.notes.length + index;
      if (previous !== undefined && !seen.has(pair)) yield [previous, note];
      seen.add(pair);
      previous = note;
    }
  }
}

/** The grace note that covers a change, where every group over it opens with one; a change through a group is as open as any. */
function coverOf(unders: readonly Under[]): Hiding | undefined {
  const [first] = unders;
  if (first?.hiding === undefined || unders.some(({ hiding }) => hiding === undefined)) return undefined;
  return { kind: 'grace-note', opens: first.hiding.fingers, lengthMs: usualGraceNoteMs };
}

function ranked(
  instrument: Instrument,
  risks: RiskTable,
  all: ReadonlyMap<string, Gathered>,
  hidingOf: (unders: readonly Under[]) => Hiding | undefined,
): readonly TuneChange[] {
  const changes = [...all].map(([id, gathered]): TuneChange => {
    const { before, after, places } = gathered;
    const { change, outcomes, trouble } = risks.heardOf(before, after);
    const unders = undersOf(instrument, gathered);
    const under = new Set(unders.map(({ phrase }) => phrase));
    const ordered = [...places].sort((one, other) => one.to - other.to);
    return {
      id,
      change,
      fingering: chosenOf([before, after]),
      outcomes,
      trouble,
      // Said of the few that are looked at, so not before.
      get advice(): Advice {
        return adviceFor(instrument, change, trouble);
      },
      difficulty: risks.difficultyOf(change, hidingOf(unders)).total,
      occurrences: places.length,
      places: ordered,
      under: [...under],
    };
  });
  return byWhatIsHeard(changes);
}

/** The headings by their hardest change, under each the hardest first; among equals what comes more often. */
function byWhatIsHeard(changes: readonly TuneChange[]): readonly TuneChange[] {
  const hardest = new Map<string, number>();
  const headed = changes.map((change) => ({ change, heading: headingOf(change.trouble) }));
  for (const { change, heading } of headed) hardest.set(heading, Math.max(hardest.get(heading) ?? 0, change.trouble.kind === 'none' ? 0 : change.difficulty));
  const rank = new Map([...hardest].sort(([one, its], [other, others]) => others - its || (one < other ? -1 : 1)).map(([heading], index) => [heading, index]));
  const placed = headed.map(({ change, heading }) => ({ change, place: rank.get(heading) as number }));
  placed.sort((one, other) => one.place - other.place || other.change.difficulty - one.change.difficulty || other.change.occurrences - one.change.occurrences);
  return placed.map(({ change }) => change);
}

/** Trouble of a tune: difficulty times occurrences over all changes that can be heard going wrong. No unit. */
export function troubleOfTune(changes: readonly TuneChange[]): number {
  return changes.reduce((sum, { difficulty, occurrences, trouble }) => sum + (trouble.kind === 'none' ? 0 : difficulty * occurrences), 0);
}
