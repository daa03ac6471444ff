import { adviceFor, headingOf, heldThroughout, outcomesOf, troubleOf, type Advice, type Change, type Outcomes, type Trouble } from '../change';
import { chartedFingering, chosenOf, wayIdOf, type ChosenFingering, type Fingering, type Instrument, type NoteId } from '../fingering';
import { changesAlong, graceSteps, hidingGraceNote, type GraceStep } from '../movement';
import { levels, RiskTable, tongueSilenceMs, usualGraceNoteMs, type Hiding } from '../timing';
import { isTongued, type Articulation, type Tune, type TuneNote } from './tune';

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
  /** Holes that stay covered throughout, under its grace notes too. */
  readonly held: number;
  readonly places: readonly Place[];
  /** The grace note that hides it, or the written group that it goes through; empty for an open change. */
  readonly under: string;
  /** Where it goes through a group: the change of that group which is judged, the hardest of those inside; undefined where two fingers never go together. */
  readonly inside?: Change | undefined;
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
  /** What stands over it: nothing for an open change. */
  readonly under: Under | undefined;
}

/** How the notes of a tune are fingered, by their indices; a note that is not there has the fingering taught first. */
export type TuneFingerings = ReadonlyMap<number, Fingering>;

/** A learner's risks by the instrument, kept: a book of tunes comes back to the same changes. */
const learnersTables = new WeakMap<Instrument, RiskTable>();

function learnersTable(instrument: Instrument): RiskTable {
  const table = learnersTables.get(instrument) ?? new RiskTable(instrument, levels.learner);
  learnersTables.set(instrument, table);
  return table;
}

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
  risks: RiskTable = learnersTable(instrument),
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
    const [from, to] = [fingeringOf(before.index, before.written.note), fingeringOf(after.index, after.written.note)];
    gather(kindOf(after), before, after, { before: from, after: to, under: underOf(instrument, before.written.note, after) });
  }
  return {
    open: ranked(instrument, risks, open),
    underGraceNotes: ranked(instrument, risks, hidden),
    tongued: ranked(instrument, risks, tongued, tongue),
  };
}

/** A change under one grace note is one change, by itself or as the opener of a doubling; through a group of its own it is another. */
function gather(into: Map<string, Gathered>, before: TuneNote, after: TuneNote, change: Omit<Gathered, 'places'>): void {
  const cover = change.under === undefined ? '' : ` under ${change.under.phrase}`;
  const id = `${wayIdOf(change.before)}>${wayIdOf(change.after)}${cover}`;
  const gathered = into.get(id) ?? { ...change, places: [] };
  into.set(id, gathered);
  gathered.places.push({ from: before.index, to: after.index, bar: after.bar, beat: after.beat, isAcrossRepeat: after.index !== before.index + 1 });
}

/** What stands over a change: the grace note that hides it, or the group as written that it goes through. */
interface Under {
  readonly phrase: string;
  readonly steps: readonly GraceStep[];
  readonly hiding: Hiding | undefined;
}

function underOf(instrument: Instrument, before: NoteId, { graceNotes, written }: TuneNote): Under | undefined {
  if (graceNotes.length === 0 || written.kind !== 'note') return undefined;
  const steps = graceSteps(instrument, graceNotes, written.note);
  const opener = hidingGraceNote(instrument, before, steps);
  const abc = graceNotes.map((letter) => instrument.notes.find((note) => note.id === letter)?.abc ?? '');
  const phrase = opener?.name ?? `{${abc.join('')}}`;
  return { phrase, steps, hiding: opener === undefined ? undefined : { kind: 'grace-note', opens: opener.fingers, lengthMs: usualGraceNoteMs } };
}

/** Pairs of notes that follow each other when the tune is played, each pair once. */
function* neighbours(tune: Tune): Generator<readonly [TuneNote, TuneNote]> {
  const seen = new Set<number>();
  let previous: TuneNote | undefined;
  for (const barIndex of tune.playedBars) {
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

function ranked(instrument: Instrument, risks: RiskTable, all: ReadonlyMap<string, Gathered>, tongueOver?: Hiding): readonly TuneChange[] {
  const changes = [...all].map(([id, { before, after, places, under }]): TuneChange => {
    const { change, outcomes, trouble } = risks.heardOf(before, after);
    const common = {
      ...{ id, change, fingering: chosenOf([before, after]), occurrences: places.length, under: under?.phrase ?? '' },
      held: heldThroughout(before.pattern, ...(under?.steps ?? []).map(({ pattern }) => pattern), after.pattern),
      places: [...places].sort((one, other) => one.to - other.to),
    };
    if (under !== undefined && under.hiding === undefined) return { ...common, ...throughGroup(instrument, risks, before, under.steps, after) };
    return {
      ...common,
      outcomes,
      trouble,
      // Said of the few that are looked at, so not before.
      get advice(): Advice {
        return adviceFor(instrument, change, trouble);
      },
      difficulty: risks.difficultyOf(change, under?.hiding ?? tongueOver).total,
    };
  });
  return byWhatIsHeard(changes);
}

/** A change through a group is judged as part of it, by the hardest change inside: a low note that the movement wants never cuts in. */
function throughGroup(
  instrument: Instrument,
  risks: RiskTable,
  before: Fingering,
  steps: readonly GraceStep[],
  after: Fingering,
): Pick<TuneChange, 'outcomes' | 'trouble' | 'advice' | 'difficulty' | 'inside'> {
  const places = [before, ...steps.map(({ written, pattern }) => ({ note: written, pattern })), after];
  const judged = changesAlong(instrument, places).map(({ change }) => {
    const outcomes = outcomesOf(instrument, change);
    return { change, outcomes, trouble: troubleOf(instrument, change, outcomes), difficulty: risks.difficultyOf(change).total };
  });
  const [hardest] = judged.filter(({ trouble }) => trouble.kind !== 'none').sort((one, other) => other.difficulty - one.difficulty);
  if (hardest === undefined)
    return {
      outcomes: { run: [], wrongOrder: [] },
      trouble: { kind: 'none' },
      advice: { todo: 'No two fingers cross in it.', otherwise: 'Nothing can cut in.' },
      difficulty: 0,
      inside: undefined,
    };
  const { change, outcomes, trouble, difficulty } = hardest;
  return { outcomes, trouble, advice: adviceFor(instrument, change, trouble), difficulty, inside: change };
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
