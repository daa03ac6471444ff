import type { NoteId } from '../fingering';
import type { Meter, Score, ScoreBar, ScoreNotice, ScoreVoice } from '../score';

/** What a written note asks of the instrument. `outside`: the instrument has no such note; `said` names it for people, `semitone` is its height with A4 = 69. */
export type WrittenNote =
  { readonly kind: 'note'; readonly note: NoteId } | { readonly kind: 'outside'; readonly text: string; readonly semitone: number } | { readonly kind: 'rest' };

/** A sign over a note that stands for an ornament. */
export type OrnamentSign = 'roll' | 'trill' | 'upper-mordent' | 'lower-mordent' | 'slide';

export interface TuneNote {
  readonly index: number;
  readonly written: WrittenNote;
  /** Grace notes before it, first to last; those outside the instrument are left out and named in the notices. */
  readonly graceNotes: readonly NoteId[];
  /** Grace notes before it that the instrument does not have: where they stand among all, and what they are called. */
  readonly strayGraceNotes: readonly { readonly at: number; readonly text: string }[];
  /** In whole notes; triplets counted as they sound. */
  readonly duration: number;
  /** Bar number as counted aloud; 0 for the lead-in. */
  readonly bar: number;
  /** Beat within the bar, 1 for the first; 1.5 halfway to the second. */
  readonly beat: number;
  readonly isTiedFromPrevious: boolean;
  /** The ornament that a sign over it asks for. */
  readonly sign: OrnamentSign | undefined;
  /** True where a slur joins it to the note before. */
  readonly isSlurred: boolean;
  /** Character range in the tune's text. */
  readonly source: { readonly start: number; readonly end: number };
}

/** Which note of a chord is played. */
export type ChordNote = 'highest' | 'lowest' | 'first';

/** Of what is written, what is read. */
export interface ReadingChoice {
  /** Id of a voice; the first where none is given or none has that name. */
  readonly voice?: string;
  /** The highest where nothing is said. */
  readonly chordNote?: ChordNote;
}

/** How the notes of a tune follow each other: each with the tongue, none, or as slurs stand on the page. */
export type Articulation = 'slurred' | 'tongued' | 'written';

/** True where the tongue begins the note, so that nothing between it and the note before is heard. */
export function isTongued({ isTiedFromPrevious, isSlurred }: Pick<TuneNote, 'isTiedFromPrevious' | 'isSlurred'>, articulation: Articulation): boolean {
  if (isTiedFromPrevious || articulation === 'slurred') return false;
  return articulation === 'tongued' || !isSlurred;
}

/** A stretch of notes between two bar lines. */
export interface Bar extends ScoreBar {
  readonly endsPart: boolean;
  /** How fast it goes beside the tempo at the start: 2 for twice as fast. */
  readonly pace: number;
}

export interface Tune {
  readonly title: string;
  /** "march", "reel" …; empty where the text does not say. */
  readonly rhythm: string;
  readonly key: string;
  readonly meter: Meter;
  /** Beats of the meter a minute. */
  readonly tempo: number;
  /** One for each event of the voice that is read, in its order. */
  readonly notes: readonly TuneNote[];
  readonly bars: readonly Bar[];
  /** The bars in the order in which they sound, as indices into `bars`. */
  readonly playedBars: readonly number[];
  /** What a teacher should know of this tune on this instrument: notes that it does not have. */
  readonly notices: readonly Notice[];
  /** What was read and not used, and what does not add up. */
  readonly findings: readonly ScoreNotice[];
  /** Everything that is written, all voices. */
  readonly score: Score;
  /** The voice that is read. */
  readonly voice: ScoreVoice;
}

export interface Notice {
  readonly text: string;
  readonly bar: number;
  readonly beat: number;
}

/**
 * Where a note stands, as it is counted aloud.
 * @example placePhrase(3, 2.5) // 'bar 3, after beat 2'
 */
export function placePhrase(bar: number, beat: number): string {
  if (bar === 0) return 'lead-in';
  const whole = Math.floor(beat + 1e-6);
  return `bar ${bar}, ${beat - whole > 0.01 ? 'after ' : ''}beat ${whole}`;
}
