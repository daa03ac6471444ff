/** A thing of a score while it is read: what is written once later is still open. */
export type Draft<T> = { -readonly [K in keyof T]: T[K] };

/** An accidental as it stands before a note. */
export type Accidental = 'sharp' | 'flat' | 'natural' | 'double-sharp' | 'double-flat';

/** A pitch on the page. */
export interface ScorePitch {
  /** Steps of the scale above middle C; 7 to the octave. */
  readonly step: number;
  /** Semitones by which key, bar and accidental raise it; negative lowers. */
  readonly alter: number;
  /** The accidental that stands before it. */
  readonly accidental: Accidental | undefined;
  /** True where a tie goes on to the next note of this pitch. */
  readonly isTiedOn: boolean;
  readonly isTiedFromPrevious: boolean;
}

/** A group that is played in the time of other notes: `actual` in the time of `normal`. */
export interface Tuplet {
  readonly actual: number;
  readonly normal: number;
  readonly isFirst: boolean;
  readonly isLast: boolean;
}

/** Characters of a text, from `start` up to, not including, `end`. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/** A note, a chord or a rest. */
export interface ScoreEvent {
  /** Empty for a rest; of a chord in the order of the text. */
  readonly pitches: readonly ScorePitch[];
  /** True for a rest that is not shown. */
  readonly isHidden: boolean;
  readonly graceNotes: readonly ScorePitch[];
  readonly isGraceSlashed: boolean;
  /** As it sounds, in whole notes. */
  readonly duration: number;
  /** As it is written, in whole notes: a triplet's eighth is an eighth. */
  readonly written: number;
  /** The tuplets that it stands in, the outermost first. */
  readonly tuplets: readonly Tuplet[];
  /** Names of the signs over it, as ABC 2.1 calls them. */
  readonly decorations: readonly string[];
  readonly chordSymbol: string;
  /** Words over or under it, without their place. */
  readonly annotations: readonly string[];
  /** One syllable a verse; `text` is empty where the verse has none here. */
  readonly lyrics: readonly Syllable[];
  readonly slurStarts: number;
  readonly slurEnds: number;
  /** True where it is written close to the event before, as under one beam. */
  readonly joinsPrevious: boolean;
  readonly source: Span;
}

/** A syllable under a note; `joins` where the word goes on under the next one, `holds` where it is held over this note. */
export interface Syllable {
  readonly text: string;
  readonly joins: boolean;
  readonly holds: boolean;
}

export interface Meter {
  readonly beats: number;
  /** Length of a beat in whole notes: 1/4, or 3/8 in 6/8. */
  readonly beat: number;
  /** Length of a bar in whole notes; 0 where bars have no fixed length. */
  readonly bar: number;
  /** "6/8", "2+3/8", "free" */
  readonly text: string;
}

export interface Key {
  /** "G", "E minor", "HP"; empty for none. */
  readonly name: string;
  /** Sharps, or flats where negative, of its signature. */
  readonly fifths: number;
  /** What it raises or lowers, by letter, in semitones. */
  readonly alters: ReadonlyMap<string, number>;
  /** True under `K:HP` and `K:Hp`, where letters stand for the pipes' own notes. */
  readonly isPipes: boolean;
}

/** Beats of `beat` whole notes a minute; `words` as they stand, "Allegro". */
export interface Tempo {
  readonly beat: number;
  readonly perMinute: number;
  readonly words: string;
}

/** Where playing jumps, and where it may be told to jump to. */
export type Mark = 'segno' | 'coda' | 'fine' | 'da-capo' | 'dal-segno' | 'to-coda';

export type BarLine = 'single' | 'double' | 'end' | 'begin' | 'dotted' | 'none';

/** A stretch of music between two bar lines. */
export interface ScoreBar {
  /** As musicians count: 0 for the lead-in; both halves of a bar that a repeat cuts have one number. */
  readonly number: number;
  /** Events from `first` up to, not including, `end`. */
  readonly first: number;
  readonly end: number;
  /** In whole notes, as it sounds. */
  readonly length: number;
  /** Where in the counted bar its first note stands, in whole notes: a lead-in stands before the bar line, the second half of a cut bar after the first. */
  readonly offset: number;
  readonly meter: Meter;
  readonly key: Key;
  /** A tempo that begins here. */
  readonly tempo: Tempo | undefined;
  /** Label of the part that begins here; empty where none does. */
  readonly part: string;
  readonly opensRepeat: boolean;
  /** How often what it closes is played in all; 0 where it closes nothing. */
  readonly closesRepeat: number;
  /** Passes on which it is played: 1 and 3 under `[1,3`; empty for every pass. */
  readonly passes: readonly number[];
  /** True where an ending begins. */
  readonly opensEnding: boolean;
  /** The line that closes it. */
  readonly line: BarLine;
  readonly marks: readonly BarMark[];
  /** Other notes at the same time (`&`), kept and not played. */
  readonly overlays: readonly (readonly ScoreEvent[])[];
  /** True where a line of the text begins with it. */
  readonly startsLine: boolean;
  /** Its closing bar line included. */
  readonly source: Span;
}

export interface BarMark {
  readonly mark: Mark;
  /** True where it stands before the first note. */
  readonly isAtStart: boolean;
}

export interface ScoreVoice {
  readonly id: string;
  readonly name: string;
  readonly events: readonly ScoreEvent[];
  readonly bars: readonly ScoreBar[];
  /** Semitones from what is written to what sounds, by its clef and `transpose=`. */
  readonly soundsAt: number;
}

/** What was read and not used, how something was read, or what does not add up; `bar` is the written number, 0 for none. */
export interface ScoreNotice {
  readonly kind: 'passed-over' | 'read' | 'length' | 'order' | 'words' | 'key';
  readonly text: string;
  readonly bar: number;
  readonly beat: number;
}

/** A field of the head: its letter and its text. */
export interface HeaderField {
  readonly letter: string;
  readonly text: string;
}

/** A tune as it is written. */
export interface Score {
  /** All titles, the first one first; empty strings are left out. */
  readonly titles: readonly string[];
  /** "march", "reel" …; empty where the text does not say. */
  readonly rhythm: string;
  readonly header: readonly HeaderField[];
  readonly meter: Meter;
  readonly key: Key;
  readonly tempo: Tempo | undefined;
  readonly voices: readonly ScoreVoice[];
  /** Labels of the parts in the order in which they are played; empty where the text gives none. */
  readonly partOrder: readonly string[];
  /** Words that stand after the music. */
  readonly words: readonly string[];
  readonly notices: readonly ScoreNotice[];
}

const semitoneOfStep = [0, 2, 4, 5, 7, 9, 11];
export const letterOfStep = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
const middleC = 60;

/** The letter of a pitch: "C" for every C. */
export const letterOf = (step: number): string => letterOfStep[((step % 7) + 7) % 7];

/** Height of a written pitch with A4 = 69. */
export function semitoneOf({ step, alter }: Pick<ScorePitch, 'step' | 'alter'>): number {
  const octave = Math.floor(step / 7);
  return middleC + octave * 12 + semitoneOfStep[step - octave * 7] + alter;
}
