import { computed, inject, Injectable, signal } from '@angular/core';
import type { Change } from '@zelpit/core/change';
import type { RowKind } from '@zelpit/core/excerpt';
import type { Instrument } from '@zelpit/core/fingering';
import { countUnit, hasTwoCounts, type CountWay } from '@zelpit/core/form';
import type { PlayedNote } from '@zelpit/core/sound';
import { usualGraceNoteMs } from '@zelpit/core/timing';
import type { Tune } from '@zelpit/core/tune';
import { playedNotesOf, type OpenedTune } from '../../documents/tune/tunes.service';
import { SoundSettings } from '../../music/sound/sound-settings.service';
import { Transport } from '../../music/sound/transport.service';

/** A first tempo, as a share of the tune's own. */
const firstShare = 0.55;
const [slowest, fastest, step] = [20, 300, 4];

/** Where a tap fell against the click. */
interface Tap {
  /** Beats from the first note. */
  readonly beat: number;
  /** Early where negative, in ms, against the nearest beat. */
  readonly offMs: number;
}

/** Plays the rows of a chunk: slowly at first, the click only with the count; and hears where taps fall. */
@Injectable()
export class ChunkPlayer {
  private readonly transport = inject(Transport);
  private readonly sound = inject(SoundSettings);
  private again: (() => void) | undefined;
  private unit = 1;
  private firstBeat = 0;

  /** Beats a minute. */
  readonly tempo = signal(40);
  readonly isSlow = signal(false);
  readonly taps = signal<readonly Tap[]>([]);
  /** Place in the chunk of the note that sounds; -1 for none. */
  readonly playing = computed(() => this.transport.position()?.note ?? -1);

  /** How the taps fell: "8 taps, 12 ms late, within 30 ms"; empty for none. */
  readonly tapText = computed(() => {
    const taps = this.taps();
    if (taps.length === 0) return '';
    const mean = taps.reduce((sum, { offMs }) => sum + offMs, 0) / taps.length;
    const spread = Math.max(...taps.map(({ offMs }) => Math.abs(offMs - mean)));
    const rounded = Math.round(Math.abs(mean));
    const where = rounded < 5 ? 'on the beat' : `${rounded} ms ${mean > 0 ? 'late' : 'early'}`;
    return `${taps.length} ${taps.length === 1 ? 'tap' : 'taps'}, ${where} on average, at most ${Math.round(spread)} ms from that.`;
  });

  begin({ tempo }: Tune): void {
    this.tempo.set(Math.max(slowest, Math.round(tempo * firstShare)));
  }

  play(opened: Pick<OpenedTune, 'tune' | 'articulation' | 'path' | 'instrument'>, row: RowKind, count: CountWay): void {
    const { tune, instrument } = opened;
    const notes = playedNotesOf(opened, tune.playedBars);
    if (notes.length === 0) return;
    this.again = () => this.play(opened, row, count);
    this.taps.set([]);
    this.unit = countUnit(tune.meter, count.in) / tune.meter.beat;
    this.firstBeat = tune.notes[notes[0].index].beat - 1;
    const hasClick = row === 'count' || this.sound.hasClick();
    // The click says what the count says.
    const isDotted = hasTwoCounts(tune.meter);
    const divided = count.in === 'six' || isDotted ? 3 : 2;
    const clicksInBeat = row === 'count' && (count.detail === 'divided' || count.in === 'six') ? divided : 1;
    const beats = tune.meter.beats;
    const countIn = this.firstBeat > 1e-6 ? beats + this.firstBeat : beats;
    void this.transport.play({
      id: 'chunk',
      instrument,
      notes,
      settings: {
        ...{ tempo: this.played(), beatsInBar: beats, firstBeat: this.firstBeat, graceNoteMs: usualGraceNoteMs, isClickOn: hasClick, clicksInBeat },
        countInBeats: this.sound.hasCountIn() ? countIn : 0,
      },
      times: this.sound.repeats() ? 0 : 1,
    });
  }

  /** There and back, twice, without grace notes. */
  playChange(instrument: Instrument, { from, to, fromPattern, toPattern }: Change, note: number, isFaulty: boolean): void {
    this.again = () => this.playChange(instrument, { from, to, fromPattern, toPattern } as Change, note, isFaulty);
    const fingeringOf = (id: string, pattern: readonly number[]) =>
      instrument.fingerings.find((each) => each.note === id && each.pattern.join() === pattern.join());
    const notes = [0, 1, 2, 3].map((index): PlayedNote => {
      const isSecond = index % 2 === 1;
      const fingering = isSecond ? fingeringOf(to, toPattern) : fingeringOf(from, fromPattern);
      return { note: isSecond ? to : from, graceNotes: [], beats: 1, index: isSecond ? note : note - 1, isTied: false, fingering };
    });
    const settings = { tempo: this.played(), beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: usualGraceNoteMs };
    const fault = { fault: { kind: this.sound.fault(), ms: this.sound.faultMs() } };
    void this.transport.play({ id: 'change', instrument, notes, settings: { ...settings, ...(isFaulty && fault) }, times: 1 });
  }

  /** Somebody taps along. */
  tap(): void {
    const position = this.transport.position();
    if (position === undefined || position.id !== 'chunk') return;
    const inBar = position.beat + this.firstBeat;
    const nearest = Math.round(inBar / this.unit) * this.unit;
    this.taps.update((taps) => [...taps.slice(-63), { beat: position.beat, offMs: ((inBar - nearest) * 60_000) / this.played() }]);
  }

  clearTaps(): void {
    this.taps.set([]);
  }

  slower(): void {
    this.change(-step);
  }

  faster(): void {
    this.change(step);
  }

  private change(by: number): void {
    this.tempo.update((tempo) => Math.max(slowest, Math.min(fastest, tempo + by)));
    if (this.transport.playing() !== undefined) this.again?.();
  }

  private played(): number {
    return this.isSlow() ? Math.max(10, this.tempo() / 2) : this.tempo();
  }
}
