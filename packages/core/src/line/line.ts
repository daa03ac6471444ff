import { adviceFor, changeBetween, troubleOf, type Advice, type Change, type Trouble } from '../change';
import { assertChosen, chosenFingeringSchema, noteOf, patternKey, wayName, withChosen, type ChosenFingering, type Instrument, type NoteId } from '../fingering';
import { beatsOfExcerpt, excerptTitle, layersOfExcerpt, longestExcerpt, tuneAtRow, underTune, type Excerpt, type LineWords, type RowKind } from '../excerpt';
import { ZelpitFault } from '../fault';
import { readAbc, writeAbc } from '../score';
import type { Tune } from '../tune';
import * as z from 'zod';
import { count } from '../words';
import { beatsOf, mostLineNotes, pairsIn, quarter, type Exercise, type LineNote } from './exercise';
import { exerciseMusic } from './exercise-music';
import { keyOfSigns, lettersUnder, signsOf } from './key-signature';
import { wordsField } from './line-words';

/** One exercise line: a change there and back, eight times, or music of its own in which that change is the hardest. */
export interface Line {
  readonly home: NoteId;
  readonly other: NoteId;
  /** The line's own music; null or absent for the change there and back. */
  readonly exercise?: Exercise | null;
  /** The piece of a tune that it is; null or absent for a line. */
  readonly excerpt?: Excerpt | null;
  /** How its notes are fingered where that is not the way taught first; null or absent for that way throughout. */
  readonly fingering?: readonly ChosenFingering[] | null;
}

/** A line with its pace. */
export interface PacedLine extends Line {
  /** Beats a minute; null for free. The first of its speeds, where it has several. */
  readonly tempo: number | null;
  /** Speeds at which it is played one after the other, in beats a minute, until the first slip; null or absent for one pace. */
  readonly speeds?: readonly number[] | null;
}

/** A line with its pace and how often it is played. */
export interface CountedLine extends PacedLine {
  /** Times through the line, at each of its speeds. */
  readonly repetitions: number;
}

/** Ways of a line's notes; each note has one. */
export const lineFingeringSchema = z.array(chosenFingeringSchema).max(mostLineNotes, `A line has at most ${mostLineNotes} fingerings.`).readonly();

/** The instrument as a line fingers it. */
export const asFingered = (instrument: Instrument, { fingering }: Pick<Line, 'fingering'>): Instrument => withChosen(instrument, fingering);

/**
 * Refuses a line whose notes or fingerings the instrument does not have.
 * @throws ZelpitFault `unknown-note`; `invalid-pattern`; `not-abc-text` for a piece of a tune that cannot be read
 */
export function assertLine(instrument: Instrument, line: Line): void {
  const notes = [line.home, line.other, ...(line.exercise?.notes ?? []).flatMap(({ note, graceNotes = [] }) => [note, ...graceNotes])];
  if (line.excerpt != null) {
    assertExcerpt(line.excerpt);
    notes.push(...notesOfLine(instrument, line).map(({ note }) => note));
  }
  for (const note of notes) noteOf(instrument, note);
  assertChosen(instrument, line.fingering, new Set(notes));
}

function assertExcerpt(excerpt: Excerpt): void {
  const { faults, score } = readAbc(excerpt.abc);
  const [fault] = faults;
  const title = excerptTitle(excerpt);
  if (fault !== undefined) throw new ZelpitFault('not-abc-text', `The music of “${title}” cannot be read: ${fault.problem}`, { title });
  const events = score.voices.at(0)?.events.length ?? 0;
  if (events === 0) throw new ZelpitFault('not-abc-text', `“${title}” has no notes.`, { title });
  const beyond = [...layersOfExcerpt(excerpt).keys()].find((index) => index >= events);
  if (beyond !== undefined)
    throw new ZelpitFault('out-of-range', `“${title}” has ${count(events, 'note')}: there is no note ${beyond + 1} to set simpler.`, { title, longestExcerpt });
}

/** A line is four bars of four quarter notes, home-other-home-other. */
export const lineBars = 4;
export const lineBeats = 16;
/** How often the change there is played in one line. */
export const changesInLine = 8;
export const lineCountInBeats = 4;

/** The notes of a line with their lengths; of a piece of a tune as it is played in full, rests left out. */
export function notesOfLine(instrument: Instrument, line: Line): readonly LineNote[] {
  if (line.excerpt == null) return line.exercise?.notes ?? lineNotes(line).map((note) => ({ note, twelfths: quarter }));
  const tune = tuneAtRow(instrument, line.excerpt);
  return playedIn(tune).flatMap(({ written, graceNotes, duration }) =>
    written.kind === 'note' ? [{ note: written.note, twelfths: duration * 4 * quarter, graceNotes }] : [],
  );
}

/** A note of a line as it sounds; `note` is null for silence. */
export interface LineSound {
  readonly note: NoteId | null;
  readonly graceNotes: readonly NoteId[];
  readonly beats: number;
  readonly isTied: boolean;
  readonly isSlurred: boolean;
}

/** A line as it sounds, once through. */
export interface LineMusic {
  readonly sounds: readonly LineSound[];
  /** Length of once through, in beats. */
  readonly beats: number;
  readonly beatsInBar: number;
  /** Beats from a bar line to the first note: a lead-in begins late. */
  readonly firstBeat: number;
}

/**
 * What sounds of a line.
 * @param row of a piece of a tune; in full where none is given
 */
export function musicOfLine(instrument: Instrument, line: Line, row?: RowKind): LineMusic {
  if (line.excerpt == null) {
    const notes = notesOfLine(instrument, line);
    const sounds = notes.map(({ note, twelfths, graceNotes = [] }, index): LineSound => {
      const before = notes.at(index - 1);
      return {
        note,
        graceNotes,
        beats: twelfths / quarter,
        isTied: index > 0 && before?.isTied === true && before.note === note,
        isSlurred: before?.isSlurred === true,
      };
    });
    return { sounds, beats: beatsOfLine(line), beatsInBar: 4, firstBeat: 0 };
  }
  const tune = tuneAtRow(instrument, line.excerpt, row);
  const played = playedIn(tune);
  const { beat, beats } = tune.meter;
  const sounds = played.map(({ written, graceNotes, duration, isTiedFromPrevious, isSlurred }): LineSound => {
    return { note: written.kind === 'note' ? written.note : null, graceNotes, beats: duration / beat, isTied: isTiedFromPrevious, isSlurred };
  });
  return { sounds, beats: sounds.reduce((sum, each) => sum + each.beats, 0), beatsInBar: beats, firstBeat: (played.at(0)?.beat ?? 1) - 1 };
}

/** The notes of a tune in the order in which they sound. */
const playedIn = ({ playedBars, bars, notes }: Tune): readonly Tune['notes'][number][] =>
  playedBars.flatMap((index) => notes.slice(bars[index].first, bars[index].end));

/** Length of a line in beats; of a piece of a tune in the beats of its meter. */
export function beatsOfLine({ exercise, excerpt }: Pick<Line, 'exercise' | 'excerpt'>): number {
  if (excerpt != null) return beatsOfExcerpt(excerpt);
  return exercise == null ? lineBeats : beatsOf(exercise.notes);
}

/** The paces at which a line is played, in their order; null for free. */
export const pacesOf = ({ tempo, speeds }: Pick<PacedLine, 'tempo' | 'speeds'>): readonly (number | null)[] =>
  speeds == null || speeds.length === 0 ? [tempo] : speeds;

/**
 * How often a line is played, and of what.
 * @example countText({ home: 'c', other: 'e', repetitions: 1 }) // '1 line (8 changes)'
 */
export function countText({ repetitions, exercise, excerpt, speeds }: Pick<CountedLine, 'repetitions' | 'exercise' | 'excerpt' | 'speeds'>): string {
  const times = repetitions === 1 ? 'once through' : `${repetitions} times through`;
  const amount = exercise == null && excerpt == null ? `${count(repetitions, 'line')} (${repetitions * changesInLine} changes)` : times;
  return speeds == null ? amount : `${amount} at each speed`;
}

/** The pace of a line, as it is said: "free", "60 beats a minute", "38, 48, 60 beats a minute, until the first slip". */
export function paceText(line: Pick<PacedLine, 'tempo' | 'speeds'>): string {
  const paces = pacesOf(line);
  if (paces[0] === null) return 'no click';
  return `${paces.join(', ')} beats a minute${paces.length > 1 ? ', until the first slip' : ''}`;
}

/** The pairs of notes that a line practises; there and back count as one, as first met. A piece of a tune is known by its hardest. */
export function pairsOfLine(line: Line): readonly Line[] {
  const { fingering } = line;
  if (line.exercise == null) return [{ home: line.home, other: line.other, fingering }];
  const pairs = pairsIn(line.exercise.notes).map(([home, other]) => ({ home, other, fingering }));
  return [...new Map(pairs.map((pair) => [pairKey(pair), pair] as const).reverse()).values()].reverse();
}

/** One text for a pair and how it is fingered, whichever of its notes comes first. */
export function pairKey({ home, other, fingering }: Line): string {
  const way = (note: NoteId): string => {
    const chosen = fingering?.find((each) => each.note === note);
    return chosen === undefined ? note : `${note} ${patternKey(chosen.pattern)}${chosen.foot ?? ''}`;
  };
  return [way(home), way(other)].sort().join('>');
}

/** The notes of a change line in their order, home first. */
export function lineNotes(line: Line): readonly NoteId[] {
  return Array.from({ length: lineBeats }, (_, index) => (index % 2 === 0 ? line.home : line.other));
}

/** The key signature of a line in sharps, or flats where it is negative; undefined where the instrument's letters have a key of their own. */
export const signsOfLine = (instrument: Instrument, { exercise }: Pick<Line, 'exercise'>): number | undefined =>
  instrument.ownKeys.length > 0 ? undefined : (exercise?.signs ?? signsOf(instrument));

/** The key under which a line is written in ABC. */
function keyOf(instrument: Instrument, line: Pick<Line, 'exercise'>): string {
  const signs = signsOfLine(instrument, line);
  return signs === undefined ? instrument.ownKeys[0] : keyOfSigns(signs);
}

/** The letters of a line's notes in ABC, under its key. */
function lettersOf(instrument: Instrument, line: Line): (note: NoteId) => string {
  const signs = signsOfLine(instrument, line);
  if (signs === undefined) return (note) => noteOf(instrument, note).abc;
  const letters = lettersUnder(instrument, soundedIn(line), signs);
  return (note) => letters.get(note) ?? noteOf(instrument, note).abc;
}

/** Every note of a line that is no piece of a tune, grace notes too. */
const soundedIn = ({ home, other, exercise }: Line): readonly NoteId[] =>
  exercise == null ? [home, other] : exercise.notes.flatMap(({ note, graceNotes = [] }) => [note, ...graceNotes]);

/**
 * The music of a line in ABC, without header.
 * @throws ZelpitFault `unknown-note`
 * @example lineMusic(practiceChanter, { home: 'c', other: 'e' }) // 'c e c e | c e c e | c e c e | c e c e |]'
 */
export function lineMusic(instrument: Instrument, line: Line): string {
  const letterOf = lettersOf(instrument, line);
  if (line.exercise != null) return exerciseMusic(line.exercise.notes, letterOf);
  const [home, other] = [letterOf(line.home), letterOf(line.other)];
  const bar = `${home} ${other} ${home} ${other}`;
  return `${Array.from({ length: lineBars }, () => bar).join(' | ')} |]`;
}

/**
 * A line's name, as it is said, with its fingers where they are not the ones taught first.
 * @throws ZelpitFault `unknown-note`
 * @example lineTitle(practiceChanter, { home: 'low-a', other: 'c' }) // 'low A to C'
 */
export function lineTitle(instrument: Instrument, line: Line): string {
  const name = (note: NoteId): string => {
    const chosen = line.fingering?.find((each) => each.note === note);
    return chosen === undefined ? noteOf(instrument, note).schoolName : wayName(instrument, chosen);
  };
  if (line.excerpt != null) return excerptTitle(line.excerpt);
  return line.exercise?.title ?? `${name(line.home)} to ${name(line.other)}`;
}

/** What is said and drawn beside a line: its change there, and what goes wrong in it. */
export interface DescribedLine extends Line {
  /** As the line fingers it. */
  readonly instrument: Instrument;
  readonly title: string;
  readonly change: Change;
  readonly trouble: Trouble;
  readonly advice: Advice;
  /** The movement that it practises, where it is a line of movements. */
  readonly shown: MovementShown | undefined;
}

/** One place of a line where a movement is played: what its figure shows. */
export interface MovementShown {
  readonly before: NoteId | null;
  readonly graceNotes: readonly NoteId[];
  readonly after: NoteId;
}

/** The first place of a line with the most grace notes of its movements, after another note if there is one; undefined where none is in it. */
export function movementShown({ exercise }: Pick<Line, 'exercise'>): MovementShown | undefined {
  const places = (exercise?.notes ?? []).map(({ note, graceNotes = [] }, index, all): MovementShown => {
    return { before: all[index - 1]?.note ?? null, graceNotes, after: note };
  });
  const weight = ({ before, graceNotes }: MovementShown): number => 2 * graceNotes.length + (before === null ? 0 : 1);
  const [fullest] = places.filter(({ graceNotes }) => graceNotes.length > 0).sort((one, other) => weight(other) - weight(one));
  return fullest;
}

/** @throws ZelpitFault `unknown-note` */
export function describedLine(chart: Instrument, line: Line): DescribedLine {
  const { home, other, exercise, excerpt, fingering } = line;
  const instrument = asFingered(chart, line);
  const change = changeBetween(instrument, home, other);
  const trouble = troubleOf(instrument, change);
  const plain = adviceFor(instrument, change, trouble);
  const own = exercise == null ? plain : { todo: exercise.musical, otherwise: exercise.physical };
  const advice = excerpt == null ? own : { todo: rowsAdvice(excerpt), otherwise: plain.otherwise };
  return { home, other, exercise, excerpt, fingering, instrument, title: lineTitle(chart, line), change, trouble, advice, shown: movementShown(line) };
}

/** What is done with a piece of a tune first. */
function rowsAdvice({ rows = [] }: Excerpt): string {
  if (rows.length < 2) return 'Slowly and clean at first, then nearer to its own tempo.';
  return 'One row at a time: the bare notes first, the click only at the end.';
}

/**
 * One line as ABC that an engraver can draw by itself, without title.
 * @param row of a piece of a tune; in full where none is given
 */
export function lineAbc(instrument: Instrument, line: Line, words: LineWords = { kind: 'none' }, row?: RowKind): string {
  if (line.excerpt != null) {
    // The last step is counted whatever else stands under the notes.
    return excerptAbcOf(instrument, tuneAtRow(instrument, line.excerpt, row), row === 'count' ? { kind: 'count' } : words);
  }
  return `X:1\nM:4/4\nL:1/4\nK:${keyOf(instrument, line)}\n${lineMusic(instrument, line)}\n${wordsField(instrument, notesOfLine(instrument, line), words)}`;
}

/** Lines as a book of ABC, one tune a line; `tempo` null means free. Text is kept on one line so that no field is broken. */
export function linesAsAbc(instrument: Instrument, title: string, lines: readonly (PacedLine & { readonly point: string })[]): string {
  const plain = (text: string): string => text.replace(/[\r\n%]+/g, ' ').trim();
  return lines
    .map((line, index) => {
      const tempo = line.tempo === null ? [] : [`Q:1/4=${line.tempo}`];
      const point = [line.speeds == null ? '' : paceText(line), line.point].map(plain).flatMap((text) => (text === '' ? [] : [`N:${text}`]));
      const head = [
        `X:${index + 1}`,
        `T:${lineTitle(instrument, line)}`,
        `T:${plain(title)}`,
        'R:exercise',
        'M:4/4',
        'L:1/4',
        ...tempo,
        ...point,
        `K:${keyOf(instrument, line)}`,
      ];
      if (line.excerpt != null) return `${[...head.slice(0, 3), ...pieceLines(instrument, line.excerpt)].join('\n')}\n`;
      return `${[...head, lineMusic(instrument, line)].join('\n')}\n`;
    })
    .join('\n');
}

/** A pace to begin with: crosses that pop want no click at first; the fewer fingers move, the quicker. A line for the timing always has a click. */
export function startingTempo(chart: Instrument, line: Line): number | null {
  if (line.excerpt != null) return null;
  if (line.exercise != null) return line.exercise.focus === 'timing' ? 60 : null;
  const instrument = asFingered(chart, line);
  const change = changeBetween(instrument, line.home, line.other);
  const { kind } = troubleOf(instrument, change);
  if (kind === 'pop') return null;
  return change.movers.length > 2 || kind === 'run' ? 48 : 60;
}

/** The text of a piece behind its titles: what its meter, key and tempo are, and its music. */
const pieceLines = (instrument: Instrument, excerpt: Excerpt): readonly string[] =>
  writeAbc(tuneAtRow(instrument, excerpt).score)
    .trimEnd()
    .split('\n')
    .filter((text) => !/^[XTW]:/.test(text));

/** A piece without title and tempo, with words under its notes. */
function excerptAbcOf(instrument: Instrument, tune: Tune, words: LineWords): string {
  const { score, voice } = tune;
  const under = words.kind === 'none' ? undefined : underTune(instrument, tune, words);
  const events = voice.events.map((event, index) => {
    if (under === undefined) return { ...event, lyrics: [] };
    return { ...event, lyrics: under[index].map((text) => ({ text: text.replace(/-$/, ''), joins: text.endsWith('-'), holds: false })) };
  });
  const drawn = writeAbc({ ...score, titles: [], tempo: undefined, words: [], voices: [{ ...voice, events }] });
  return drawn.replace(/^T:.*\n/m, '');
}
