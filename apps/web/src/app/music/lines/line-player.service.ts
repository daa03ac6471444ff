import { inject, Injectable } from '@angular/core';
import type { RowKind } from '@zelpit/core/excerpt';
import type { Instrument } from '@zelpit/core/fingering';
import { asFingered, lineCountInBeats, musicOfLine, type Line, type PacedLine } from '@zelpit/core/line';
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
   * @param row of a piece of a tune; in full where none is given
   */
  play(id: string, instrument: Instrument, line: PacedLine, times: number, isFaulty = false, row?: RowKind): void {
    void this.transport.play(this.playable(id, instrument, line, times, isFaulty, row));
  }

  /** A line as it is played, with the settings that hold on every page. */
  playable(id: string, instrument: Instrument, line: PacedLine, times: number, isFaulty = false, row?: RowKind): Playable {
    const fingered = asFingered(instrument, line);
    const { beatsInBar, firstBeat } = musicOfLine(fingered, line, row);
    // A lead-in is counted up to: the bar before it is whole.
    const countIn = line.excerpt == null ? lineCountInBeats : beatsInBar + (firstBeat > 1e-6 ? firstBeat : 0);
    return {
      id,
      instrument: fingered,
      notes: playedLine(fingered, line, row),
      settings: {
        tempo: this.tempoOf(line),
        beatsInBar,
        countInBeats: this.sound.hasCountIn() ? countIn : 0,
        isClickOn: line.tempo !== null || this.sound.hasClick(),
        firstBeat,
        graceNoteMs: usualGraceNoteMs,
        ...(isFaulty && { fault: { kind: this.sound.fault(), ms: this.sound.faultMs() } }),
      },
      times,
    };
  }
}

/** The notes of a line as they are played. */
export function playedLine(instrument: Instrument, line: Line, row?: RowKind): readonly PlayedNote[] {
  return musicOfLine(instrument, line, row).sounds.map(({ note, graceNotes, beats, isTied }, index): PlayedNote => ({
    note,
    graceNotes,
    beats,
    isTied,
    index,
  }));
}
