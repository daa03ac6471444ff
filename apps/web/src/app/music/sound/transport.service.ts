import { inject, Injectable, signal } from '@angular/core';
import type { Instrument } from '@zelpit/core/fingering';
import { heldTone, renderTimeline, type PlayedNote, type PlaySettings, type Timeline } from '@zelpit/core/sound';
import { filter, firstValueFrom, fromEvent, map, take } from 'rxjs';
import { NoticeService } from '../../kernel/notices/notice.service';
import type { SoundAnswer, SoundRequest } from './sound-messages';
import { SoundSettings } from './sound-settings.service';
import { startSoundWorker } from './sound-worker';

/** Something that can be played; `id` tells pages whether it is theirs. */
export interface Playable {
  readonly id: string;
  readonly instrument: Instrument;
  readonly notes: readonly PlayedNote[];
  readonly settings: PlaySettings;
  /** When the voices of a round enter, in beats after the first; one voice where nothing is said. */
  readonly entries?: readonly number[];
  /** Times through; 0 for on and on. */
  readonly times: number;
}

export interface Position {
  readonly id: string;
  /** Note that sounds, by the caller's number; undefined while counting in. */
  readonly note: number | undefined;
  /** Position in the list of notes, for lists that repeat notes; -1 while counting in. */
  readonly place: number;
  /** Beat since the first note; negative while counting in. */
  readonly beat: number;
  /** Which time through, from 1. */
  readonly time: number;
}

const startDelaySeconds = 0.06;

/** Plays computed samples through Web Audio, one thing at a time, and says where it is. */
@Injectable({ providedIn: 'root' })
export class Transport {
  private readonly settings = inject(SoundSettings);
  private readonly notices = inject(NoticeService);
  private context?: AudioContext;
  private gain?: GainNode;
  private worker?: Worker;
  private source?: AudioBufferSourceNode;
  private nextId = 1;
  private frame = 0;

  /** What plays or is being prepared; undefined in silence. */
  readonly playing = signal<string | undefined>(undefined);
  /** True while one sound is heard that was made at once. */
  readonly isHolding = signal(false);
  readonly position = signal<Position | undefined>(undefined);

  async play(what: Playable): Promise<void> {
    this.stop();
    if (what.notes.length === 0) return;
    this.playing.set(what.id);
    const ticket = this.nextId++;
    try {
      const context = this.ready();
      const { samples, timeline } = await this.render(ticket, what, context.sampleRate);
      if (this.playing() !== what.id || ticket !== this.nextId - 1) return;
      this.start(context, what, samples, timeline);
    } catch (error) {
      if (this.playing() === what.id) this.playing.set(undefined);
      this.notices.fault(error);
    }
  }

  /** What would sound, once through, for a file. */
  async samples(what: Playable, sampleRate: number): Promise<Float32Array> {
    return (await this.render(this.nextId++, what, sampleRate)).samples;
  }

  /** Plays one tone that is made at once; nothing follows it on the page. */
  hold(made: (sampleRate: number) => Float32Array<ArrayBuffer>): void {
    this.stop();
    const context = this.ready();
    const { source, gain } = this.connected(context, made(context.sampleRate));
    source.onended = () => this.stop();
    source.start();
    this.source = source;
    this.gain = gain;
    this.isHolding.set(true);
  }

  /** Plays a timeline that is made at once, balanced and with a drone as the settings say. */
  sound(instrument: Instrument, timeline: Timeline): void {
    this.hold((sampleRate) => renderTimeline(instrument, timeline, { sampleRate, ...this.settings.colour() }));
  }

  /** Holds one pitch, in Hz, in the colour of an instrument's family. */
  holdTone({ family }: Instrument, hertz: number, seconds: number): void {
    this.hold((sampleRate) => heldTone(family, hertz, seconds, sampleRate));
  }

  stop(): void {
    cancelAnimationFrame(this.frame);
    if (this.source !== undefined) {
      this.source.onended = null;
      this.fadeOut(this.source);
    }
    this.source = undefined;
    this.isHolding.set(false);
    this.playing.set(undefined);
    this.position.set(undefined);
  }

  setLevel(level: number): void {
    this.settings.level.set(level);
    if (this.context !== undefined) this.gain?.gain.setTargetAtTime(level, this.context.currentTime, 0.02);
  }

  private ready(): AudioContext {
    this.context ??= new AudioContext({ latencyHint: 'interactive' });
    void this.context.resume();
    return this.context;
  }

  /** Ends the sound over a few milliseconds, so that stopping makes no noise of its own. */
  private fadeOut(source: AudioBufferSourceNode): void {
    const { context, gain } = this;
    if (context === undefined || gain === undefined) return;
    gain.gain.setTargetAtTime(0, context.currentTime, 0.006);
    source.stop(context.currentTime + 0.04);
    this.gain = undefined;
  }

  private async render(id: number, what: Playable, sampleRate: number): Promise<{ samples: Float32Array<ArrayBuffer>; timeline: Timeline }> {
    this.worker ??= startSoundWorker();
    const answer = firstValueFrom(
      fromEvent<MessageEvent<SoundAnswer>>(this.worker, 'message').pipe(
        map((event) => event.data),
        filter((data) => data.id === id),
        take(1),
      ),
    );
    const request: SoundRequest = {
      kind: 'render',
      id,
      instrument: what.instrument,
      notes: what.notes,
      settings: what.settings,
      entries: what.entries,
      sampleRate,
      ...this.settings.colour(),
    };
    this.worker.postMessage(request);
    const data = await answer;
    if (data.kind === 'failed') throw new Error(data.text);
    return data;
  }

  /** A source of these samples that goes through a gain of its own to the loudspeaker. */
  private connected(context: AudioContext, samples: Float32Array<ArrayBuffer>): { readonly source: AudioBufferSourceNode; readonly gain: GainNode } {
    const buffer = context.createBuffer(1, samples.length, context.sampleRate);
    buffer.copyToChannel(samples, 0);
    const gain = context.createGain();
    gain.gain.value = this.settings.level();
    gain.connect(context.destination);
    const source = context.createBufferSource();
    source.buffer = buffer;
    source.connect(gain);
    return { source, gain };
  }

  private start(context: AudioContext, what: Playable, samples: Float32Array<ArrayBuffer>, timeline: Timeline): void {
    const countIn = (what.settings.countInBeats * 60) / what.settings.tempo;
    const lastEntry = (Math.max(0, ...(what.entries ?? [])) * 60) / what.settings.tempo;
    const once = timeline.length / 1000 - countIn + lastEntry;
    const { source, gain } = this.connected(context, samples);
    source.loop = what.times !== 1;
    source.loopStart = countIn;
    source.loopEnd = countIn + once;
    const startsAt = context.currentTime + startDelaySeconds;
    source.start(startsAt);
    if (what.times > 1) source.stop(startsAt + countIn + what.times * once);
    source.onended = () => this.stop();
    this.source = source;
    this.gain = gain;
    this.follow(context, what, startsAt + countIn, once);
  }

  private follow(context: AudioContext, what: Playable, firstNoteAt: number, once: number): void {
    const ends: number[] = [];
    what.notes.reduce((sum, note) => {
      ends.push(sum + note.beats);
      return sum + note.beats;
    }, 0);
    const look = (): void => {
      const seconds = context.currentTime - firstNoteAt;
      const time = seconds < 0 ? 1 : Math.floor(seconds / once) + 1;
      const beat = ((seconds < 0 ? seconds : seconds % once) * what.settings.tempo) / 60;
      const place = beat < 0 ? -1 : ends.findIndex((end) => beat < end);
      this.position.set({ id: what.id, beat, time, place, note: place < 0 ? undefined : what.notes[place].index });
      this.frame = requestAnimationFrame(look);
    };
    look();
  }
}
