import { inject, Injectable, signal } from '@angular/core';
import type { PlayedNote, PlaySettings } from '@zelpit/core/sound';
import { usualGraceNoteMs } from '@zelpit/core/timing';
import type { TuneChange } from '@zelpit/core/tune';
import { playedNotesOf, type OpenedTune } from '../../documents/tune/tunes.service';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { Transport, type Playable } from '../../music/sound/transport.service';

/** Plays a tune, one of its bars or one of its changes, clean or faulty, as the sound settings say. */
@Injectable()
export class TunePlayer {
  private readonly transport = inject(Transport);
  private readonly sound = inject(SoundSettings);
  private again: (() => void) | undefined;

  /** Index of the first note of what plays; -1 before anything played. */
  readonly firstPlayed = signal(-1);

  tempoOf(opened: OpenedTune): number {
    return Math.round((opened.tune.tempo * this.sound.percent()) / 100);
  }

  /** From a bar to the end, repeats and endings played out. */
  playTune(opened: OpenedTune, fromBar: number, isFaulty: boolean): void {
    const order = opened.tune.playedBars;
    const from = order.findIndex((index) => opened.tune.bars[index].number >= fromBar);
    const start = fromBar === 1 ? 0 : Math.max(0, from);
    this.play(opened, 'tune', playedNotesOf(opened, order.slice(start)), isFaulty, () => this.playTune(opened, fromBar, isFaulty));
  }

  playBar(opened: OpenedTune, number: number, isFaulty = false): void {
    const bars = opened.tune.bars.flatMap((bar, index) => (bar.number === number ? [index] : []));
    this.play(opened, 'bar', playedNotesOf(opened, bars), isFaulty, () => this.playBar(opened, number, isFaulty));
  }

  /** There and back, twice, one beat a note, without grace notes. */
  playChange(opened: OpenedTune, change: TuneChange, isFaulty: boolean): void {
    const [place] = change.places;
    const { from, to } = change.change;
    const notes = [from, to, from, to].map((note, index): PlayedNote => ({
      note,
      graceNotes: [],
      beats: 1,
      index: index % 2 === 0 ? place.from : place.to,
      isTied: false,
      fingering: opened.path.get(index % 2 === 0 ? place.from : place.to)?.fingering,
    }));
    this.play(opened, isFaulty ? 'faulty' : 'clean', notes, isFaulty, () => this.playChange(opened, change, isFaulty));
  }

  /** At another tempo what plays starts anew. */
  playAgain(): void {
    if (this.transport.playing() !== undefined) this.again?.();
  }

  private play(opened: OpenedTune, id: string, notes: readonly PlayedNote[], isFaulty: boolean, again: () => void): void {
    if (notes.length === 0) return;
    this.again = again;
    this.firstPlayed.set(notes[0].index);
    const { meter } = opened.tune;
    const isChange = id === 'clean' || id === 'faulty';
    const firstBeat = isChange ? 0 : firstBeatOf(opened, notes);
    const countIn = firstBeat > 1e-6 ? meter.beats + firstBeat : meter.beats;
    void this.transport.play({
      id,
      instrument: opened.instrument,
      notes,
      settings: {
        ...this.settingsOf(opened, firstBeat, isFaulty),
        countInBeats: !isChange && this.sound.hasCountIn() ? countIn : 0,
        isClickOn: !isChange && this.sound.hasClick(),
      },
      times: this.sound.repeats() ? 0 : 1,
    });
  }

  /** The tune once through, without a count-in: what a file of its sound holds. */
  onceThrough(opened: OpenedTune, isFaulty: boolean): Playable {
    const notes = playedNotesOf(opened, opened.tune.playedBars);
    const settings = this.settingsOf(opened, firstBeatOf(opened, notes), isFaulty);
    return { id: 'file', instrument: opened.instrument, notes, settings, times: 1 };
  }

  private settingsOf(opened: OpenedTune, firstBeat: number, isFaulty: boolean): PlaySettings {
    return {
      ...{ tempo: this.tempoOf(opened), beatsInBar: opened.tune.meter.beats, countInBeats: 0, isClickOn: this.sound.hasClick(), firstBeat },
      ...{ graceNoteMs: usualGraceNoteMs, ...(isFaulty && { fault: { kind: this.sound.fault(), ms: this.sound.faultMs() } }) },
    };
  }
}

/** Beats into its bar at which the first of the notes stands. */
const firstBeatOf = ({ tune }: OpenedTune, [first]: readonly PlayedNote[]): number => tune.notes[first.index].beat - 1;
