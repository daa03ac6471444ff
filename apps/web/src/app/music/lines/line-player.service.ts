import { inject, Injectable } from '@angular/core';
import {
  asFingered,
  freeTempo,
  lineCountInBeats,
  notesOfLine,
  quarter,
  usualGraceNoteMs,
  type PacedLine,
  type Line,
  type Instrument,
  type PlayedNote,
} from '@zelpit/core';
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
  play(id: string, instrument: Instrument, line: PacedLine, times: number, isFaulty = false): void {
    void this.transport.play(this.playable(id, instrument, line, times, isFaulty));
  }

  /** A line as it is played, with the settings that hold on every page. */
  playable(id: string, instrument: Instrument, line: PacedLine, times: number, isFaulty = false): Playable {
    return {
      id,
      instrument: asFingered(instrument, line),
      notes: playedLine(line),
      settings: {
        tempo: this.tempoOf(line),
        beatsInBar: 4,
        countInBeats: this.sound.hasCountIn() ? lineCountInBeats : 0,
        isClickOn: line.tempo !== null || this.sound.hasClick(),
        firstBeat: 0,
        graceNoteMs: usualGraceNoteMs,
        ...(isFaulty && { fault: { kind: this.sound.fault(), ms: this.sound.faultMs() } }),
      },
      times,
    };
  }
}

/** The notes of a line as they are played. */
export function playedLine(line: Line): readonly PlayedNote[] {
  const notes = notesOfLine(line);
  return notes.map(({ note, twelfths, graceNotes = [] }, index): PlayedNote => ({
    ...{ note, graceNotes, beats: twelfths / quarter, index },
    isTied: notes[index - 1]?.isTied === true && notes[index - 1].note === note,
  }));
}
