import { noteOf, type Instrument, type NoteId } from '../fingering';
import { changeName, kindPhrase, supportHint } from '../change';
import { layerName } from '../excerpt';
import { MovementReader, usualMovementSettings, type MovementDefinition } from '../movement';
import type { Level } from '../timing';
import { movementsOfTune, type Tune, type TuneChange, type TuneChanges, type TuneMovement } from '../tune';
import { capital, count, listed } from '../words';

/** How hard one bar is. */
export interface BarDifficulty {
  /** As counted aloud. */
  readonly bar: number;
  /** Of all its changes together; no unit. */
  readonly difficulty: number;
  /** Its hardest change by name; empty where no finger moves. */
  readonly hardest: string;
}

/** What is hard about a tune, in a teacher's words. */
export interface HardPlaces {
  readonly bars: readonly BarDifficulty[];
  /** "Two hard places: bar 7 (C to E) and bar 15 (D to low A)." */
  readonly text: string;
  /** Longest stretch without a rest; undefined for a bag, which needs no breath. */
  readonly breath: { readonly seconds: number; readonly from: number; readonly to: number; readonly text: string } | undefined;
  /** Where the fingers hardly hold the instrument, and how it is held up there; undefined where they always do. */
  readonly comfort: string | undefined;
  /** Movements that their notes are too short for at this tempo, and the layers that fit; undefined where all have the time they need. */
  readonly tooFast: string | undefined;
  /** What it needs, one skill a line. */
  readonly skills: readonly string[];
}

/** A bar this much harder than the middle one is a hard place. Our own choice. */
const hardTimes = 1.8;
const mostPlaces = 4;
/** What a place adds to its bar's difficulty where the instrument is hardly held, and where a movement has no time. Our own choice. */
const [hardlyHeld, tooShort] = [2, 4];
/** So many seconds on one breath, by who plays. Our own choice. */
const breaths: Readonly<Record<Level, number>> = { beginner: 5, learner: 8, fluent: 14 };

/**
 * The curve of difficulty over the bars, the hard places, breath and skills.
 * @param tempo beats of the meter a minute
 */
export function hardPlaces(
  instrument: Instrument,
  tune: Tune,
  changes: TuneChanges,
  { tempo = tune.tempo, level = 'learner', own = [] }: { readonly tempo?: number; readonly level?: Level; readonly own?: readonly MovementDefinition[] } = {},
): HardPlaces {
  const all = [...changes.open, ...changes.underGraceNotes, ...changes.tongued];
  const reader = new MovementReader(instrument, own);
  const loose = looseChanges(instrument, all);
  const hasty =
    instrument.family === 'pipes'
      ? movementsOfTune(instrument, tune, reader, { tempo, settings: usualMovementSettings, own }).filter(({ fits }) => fits !== undefined)
      : [];
  const extra = new Map<number, number>();
  const add = (bar: number, more: number): void => void extra.set(bar, (extra.get(bar) ?? 0) + more);
  for (const { change } of loose) for (const { bar } of change.places) add(bar, hardlyHeld);
  for (const { note } of hasty) add(note.bar, tooShort);
  const bars = barsOf(instrument, tune, all).map((bar) => ({ ...bar, difficulty: bar.difficulty + (extra.get(bar.bar) ?? 0) }));
  const sorted = bars.map(({ difficulty }) => difficulty).sort((one, other) => one - other);
  const middle = sorted[Math.floor(sorted.length / 2)] ?? 0;
  const hard = bars
    .filter(({ difficulty }) => difficulty > 0 && difficulty >= hardTimes * Math.max(middle, 1))
    .sort((one, other) => other.difficulty - one.difficulty);
  const shown = hard.slice(0, mostPlaces).sort((one, other) => one.bar - other.bar);
  return {
    ...{ bars, text: placesText(shown), breath: breathOf(instrument, tune, tempo, level), skills: skillsOf(instrument, tune, all, reader) },
    ...{ comfort: comfortText(instrument, loose), tooFast: tooFastText(instrument, hasty) },
  };
}

interface LooseChange {
  readonly change: TuneChange;
  readonly hint: string;
}

/** Changes throughout which one hole or none stays covered. */
const looseChanges = (instrument: Instrument, all: readonly TuneChange[]): readonly LooseChange[] =>
  all.flatMap((change) => {
    const hint = supportHint(instrument, change.held);
    return hint === undefined ? [] : [{ change, hint }];
  });

function comfortText(instrument: Instrument, loose: readonly LooseChange[]): string | undefined {
  const [first] = loose;
  if (first === undefined) return undefined;
  const named = loose.slice(0, mostPlaces).map(({ change }) => `${changeName(instrument, change.change)} (bar ${Math.max(1, change.places[0].bar)})`);
  return `${capital(listed(named))}: ${first.hint.charAt(0).toLowerCase()}${first.hint.slice(1)}`;
}

function tooFastText(instrument: Instrument, hasty: readonly TuneMovement[]): string | undefined {
  if (hasty.length === 0) return undefined;
  const named = hasty.slice(0, mostPlaces).map(({ note, recognised, fits = [] }) => {
    const name = recognised.kind === 'known' ? recognised.candidates[0].movement.names[0] : 'movement';
    const fuller = fits.at(-1);
    return `the ${name} in bar ${Math.max(1, note.bar)}${fuller === undefined ? '' : ` (${layerName(instrument, fuller, name)} fits)`}`;
  });
  const more = hasty.length - named.length;
  return `Too fast at this tempo: ${listed(named)}${more > 0 ? ` and ${more} more` : ''}.`;
}

const numbers = ['No', 'One', 'Two', 'Three', 'Four'];

function placesText(places: readonly BarDifficulty[]): string {
  if (places.length === 0) return 'No place is much harder than the others.';
  const named = places.map(({ bar, hardest }) => `${bar === 0 ? 'the lead-in' : `bar ${bar}`}${hardest === '' ? '' : ` (${hardest})`}`);
  return `${numbers[places.length]} hard ${places.length === 1 ? 'place' : 'places'}: ${listed(named)}.`;
}

function barsOf(instrument: Instrument, tune: Tune, all: readonly TuneChange[]): readonly BarDifficulty[] {
  const sums = new Map<number, { difficulty: number; worst: number; hardest: string }>();
  for (const { number } of tune.bars) if (!sums.has(number)) sums.set(number, { difficulty: 0, worst: 0, hardest: '' });
  for (const { places, difficulty, trouble, change } of all) {
    if (trouble.kind === 'none') continue;
    for (const { bar } of places) {
      const sum = sums.get(bar);
      if (sum === undefined) continue;
      sum.difficulty += difficulty;
      if (difficulty > sum.worst) Object.assign(sum, { worst: difficulty, hardest: changeName(instrument, change) });
    }
  }
  return [...sums].map(([bar, { difficulty, hardest }]) => ({ bar, difficulty, hardest }));
}

/** The longest stretch as it is played in which nothing rests. */
function breathOf(instrument: Instrument, { playedBars, bars, notes, meter }: Tune, tempo: number, level: Level): HardPlaces['breath'] {
  if (instrument.family === 'pipes' || instrument.family === 'irish-pipes') return undefined;
  const beatSeconds = 60 / tempo;
  let [best, from, to] = [0, 0, 0];
  let [length, start] = [0, -1];
  const end = (): void => {
    start = -1;
    length = 0;
  };
  for (const index of playedBars) {
    const bar = bars[index];
    for (let place = bar.first; place < bar.end; place += 1) {
      const { written, duration } = notes[place];
      if (written.kind === 'rest') {
        end();
        continue;
      }
      if (start === -1) start = bar.number;
      length += ((duration / meter.beat) * beatSeconds) / bar.pace;
      if (length > best) [best, from, to] = [length, start, bar.number];
    }
  }
  if (best === 0) return undefined;
  const needed = breaths[level];
  const breathsNeeded = Math.ceil(best / needed);
  const where = from <= to ? `from bar ${Math.max(1, from)} to bar ${Math.max(1, to)}` : 'over the repeat';
  const text =
    breathsNeeded <= 1
      ? `The longest stretch without a rest is ${Math.round(best)} seconds, ${where}: one breath is enough.`
      : `The longest stretch without a rest is ${Math.round(best)} seconds, ${where}: plan ${count(breathsNeeded - 1, 'place')} to breathe in it.`;
  return { seconds: best, from, to, text };
}

const mostSkills = 8;

function skillsOf(instrument: Instrument, tune: Tune, all: readonly TuneChange[], reader: MovementReader): readonly string[] {
  const movements = new Map<string, number>();
  const notes = new Set<NoteId>();
  tune.notes.forEach(({ written, graceNotes }, index) => {
    if (written.kind !== 'note') return;
    notes.add(written.note);
    const before = tune.notes[index - 1]?.written;
    if (instrument.family !== 'pipes' || graceNotes.length === 0) return;
    const read = reader.read(before?.kind === 'note' ? before.note : null, graceNotes, written.note);
    if (read.kind === 'known') movements.set(read.candidates[0].movement.names[0], (movements.get(read.candidates[0].movement.names[0]) ?? 0) + 1);
  });
  const crosses = all
    .filter(({ change, trouble }) => change.kind === 'cross' && trouble.kind !== 'none')
    .sort((one, other) => other.occurrences - one.occurrences);
  const names = instrument.notes.flatMap(({ id, schoolName }) => (notes.has(id) ? [schoolName] : []));
  return [
    ...(names.length === 0 ? [] : [`${count(names.length, 'note')}: ${names.length > 6 ? `${names[0]} to ${names[names.length - 1]}` : listed(names)}`]),
    ...[...movements]
      .sort(([, one], [, other]) => other - one)
      .slice(0, mostSkills)
      .map(([name, times]) => `${capital(name)}, ${count(times, 'time')}`),
    ...crosses.slice(0, 3).map(({ change, occurrences }) => `${capital(changeName(instrument, change))}, ${kindPhrase(change)}, ${count(occurrences, 'time')}`),
  ];
}

/** Notes of a tune that somebody does not know; none where nothing is known of them. */
export function newNotesOf(instrument: Instrument, tune: Tune, known: readonly NoteId[]): readonly NoteId[] {
  if (known.length === 0) return [];
  const used = new Set(tune.notes.flatMap(({ written }) => (written.kind === 'note' ? [written.note] : [])));
  return instrument.notes.flatMap(({ id }) => (used.has(id) && !known.includes(id) ? [noteOf(instrument, id).id] : []));
}
