import { semitoneOf, type Score, type ScoreVoice } from './score';
import { playingOrder } from './playing-order';

/** A note as it sounds when a tune is played through, all in whole notes from its start. */
export interface HeardNote {
  readonly start: number;
  readonly length: number;
  /** Height with A4 = 69. */
  readonly semitone: number;
  readonly isGrace: boolean;
}

/** A bar as it is played. */
export interface HeardBar {
  readonly start: number;
  /** Index into the voice's bars. */
  readonly bar: number;
}

export interface HeardVoice {
  readonly notes: readonly HeardNote[];
  readonly bars: readonly HeardBar[];
  readonly length: number;
}

/** Grace notes take at most so much of the note that follows. */
const mostOfNote = 0.6;
/** The shortest sound, in whole notes. */
const shortest = 1 / 512;

/**
 * A voice played through: repeats, endings and parts in their order, ties as one note, grace notes before their note and in its time.
 * @param graceLength of one grace note, in whole notes
 */
export function heardVoice(score: Score, voice: ScoreVoice, graceLength: number): HeardVoice {
  const notes: HeardNote[] = [];
  const bars: HeardBar[] = [];
  /** The last note of each pitch, by its place: a tie makes it longer. */
  const sounding = new Map<number, number>();
  let at = 0;
  for (const index of playingOrder(voice.bars, score.partOrder)) {
    const bar = voice.bars[index];
    bars.push({ start: at, bar: index });
    for (let place = bar.first; place < bar.end; place += 1) {
      const { pitches, graceNotes, duration } = voice.events[place];
      const each = graceNotes.length === 0 ? 0 : Math.min(graceLength, (mostOfNote * duration) / graceNotes.length);
      graceNotes.forEach((grace, order) => notes.push({ start: at + order * each, length: each, semitone: semitoneOf(grace) + voice.soundsAt, isGrace: true }));
      const taken = each * graceNotes.length;
      for (const pitch of pitches) {
        const semitone = semitoneOf(pitch) + voice.soundsAt;
        const before = sounding.get(semitone);
        if (pitch.isTiedFromPrevious && before !== undefined && isNextTo(notes[before], at)) {
          const tied = notes[before];
          notes[before] = { ...tied, length: at + duration - tied.start };
        } else {
          sounding.set(semitone, notes.length);
          notes.push({ start: at + taken, length: Math.max(shortest, duration - taken), semitone, isGrace: false });
        }
      }
      at += duration;
    }
  }
  return { notes, bars, length: at };
}

const isNextTo = ({ start, length }: HeardNote, at: number): boolean => Math.abs(start + length - at) < 1e-6;
