import { inject, Injectable } from '@angular/core';
import type { RowKind } from '@zelpit/core/excerpt';
import type { Instrument } from '@zelpit/core/fingering';
import { asFingered, halfOfMusic, lineCountInBeats, musicOfLine, type Line, type LineHalf, type LineMusic, type PacedLine } from '@zelpit/core/line';
import { freeTempo } from '@zelpit/core/plan';
import type { PlayedNote } from '@zelpit/core/sound';
import { usualGraceNoteMs } from '@zelpit/core/timing';
import { SoundSettings } from '../sound/sound-settings.service';
import { Transport, type Playable } from '../sound/transport.service';

/** Plays exercise lines. */
@Injectable({ providedIn: 'root' })
export class LinePlayer {
  private readonly transport = inject(Transport);
  private readonly sound = inject(SoundSettings);

  /** Tempo at which a line sounds now; a free line has a gentle one of its own. */
  tempoOf(line: PacedLine): number {
    return Math.max(10, Math.round(((line.tempo ?? freeTempo) * this.sound.percent()) / 100));
  }

  /**
   * @param times how often the line is played; 0 for on and on
   * @param isFaulty with the chosen fault in every change
   */
  play(id: string, instrument: Instrument, line: PacedLine, times: number, isFaulty = false, how: HowPlayed = {}): void {
    void this.transport.play(this.playable(id, instrument, line, times, isFaulty, how));
  }

  /** A line as it is played, with the settings that hold on every page. */
  playable(id: string, instrument: Instrument, line: PacedLine, times: number, isFaulty = false, how: HowPlayed = {}): Playable {
    const fingered = asFingered(instrument, line);
    const music = playedMusic(fingered, line, how);
    const { beatsInBar, firstBeat } = music;
    // A lead-in is counted up to: the bar before it is whole.
    const usual = line.excerpt == null ? lineCountInBeats : beatsInBar + (firstBeat > 1e-6 ? firstBeat : 0);
    const countIn = how.countIn ?? usual;
    return {
      id,
      instrument: fingered,
      notes: how.onlyClick === true ? playedNotes(music).map((played) => ({ ...played, note: null, graceNotes: [] })) : playedNotes(music),
      settings: {
        tempo: this.tempoOf(line),
        beatsInBar,
        countInBeats: this.sound.hasCountIn() ? countIn : 0,
        isClickOn: line.tempo !== null || how.onlyClick === true || this.sound.hasClick(),
        firstBeat,
        graceNoteMs: usualGraceNoteMs,
        ...(isFaulty && { fault: { kind: this.sound.fault(), ms: this.sound.faultMs() } }),
      },
      times,
    };
  }
}

/** What of a line is played, and how it is counted in. */
export interface HowPlayed {
  /** Of a piece of a tune; in full where none is given. */
  readonly row?: RowKind;
  /** All of it where none is given. */
  readonly half?: LineHalf;
  /** Beats; the usual count-in where none are given. */
  readonly countIn?: number;
  /** True where only the click sounds, and the notes are left to the player. */
  readonly onlyClick?: boolean;
}

/** A line, or half of it, as it sounds once. */
export function playedMusic(instrument: Instrument, line: Line, { row, half }: HowPlayed = {}): LineMusic {
  const whole = musicOfLine(instrument, line, row);
  return half === undefined ? whole : halfOfMusic(whole, half);
}

/** The notes of a line as they are played. */
export const playedNotes = ({ sounds }: LineMusic): readonly PlayedNote[] =>
  sounds.map(({ note, graceNotes, beats, isTied }, index): PlayedNote => ({ note, graceNotes, beats, isTied, index }));
