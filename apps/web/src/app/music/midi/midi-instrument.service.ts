import { Injectable, signal } from '@angular/core';
import type { HoleEvent, PlayedKey } from '@zelpit/core/listening';

/** What somebody played without a sound: fingers as they moved, or the keys of a MIDI instrument. */
export type PlayedEvents = { readonly kind: 'fingers'; readonly events: readonly HoleEvent[] } | { readonly kind: 'keys'; readonly keys: readonly PlayedKey[] };

/** Why there is no MIDI instrument, as a sentence that says what helps. */
export class MidiFault extends Error {}

const elsewhere = 'This browser does not hear MIDI instruments. Another one may; a MIDI file can be opened in any.';
const refused = 'The browser may not use MIDI instruments. Allow it where the address stands (the lock or the sliders beside it), then try again.';
const none = 'No MIDI instrument was found. Plug one in, then try again.';

/** The first control that stands for a hole, the thumb's; the next seven and more follow it. Our own choice: controls that nothing else uses. */
const firstHoleControl = 20;
const breathControl = 2;
const mostHoles = 12;
/** Kinds of message, and from which value on a control is on. */
const [noteOff, noteOn, control, on] = [0x80, 0x90, 0xb0, 64];

/** Takes what a MIDI instrument plays: notes, or holes as controls (20 for the first hole: 64 and more covers it; 2 for the breath). */
@Injectable({ providedIn: 'root' })
export class MidiInstrument {
  /** Its name while it is taken from; undefined else. */
  readonly name = signal<string | undefined>(undefined);
  /** Notes, or fingers that moved, so far. */
  readonly count = signal(0);
  private access: MIDIAccess | undefined;
  /** Counts starts and stops: whoever was stopped while the browser asked does not begin any more. */
  private turn = 0;
  private inputs: readonly MIDIInput[] = [];
  private since: number | undefined;
  private events: HoleEvent[] = [];
  private keys: PlayedKey[] = [];
  private readonly held = new Map<number, number>();

  /** False in a browser that knows nothing of MIDI: then it need not be offered. */
  readonly isKnown = 'requestMIDIAccess' in navigator;

  /**
   * Begins to take what is played.
   * @param unplugged where the last instrument goes away
   * @throws MidiFault with a sentence
   */
  async start(unplugged: () => void): Promise<void> {
    this.stop();
    const { turn } = this;
    if (!this.isKnown) throw new MidiFault(elsewhere);
    let access: MIDIAccess;
    try {
      access = await navigator.requestMIDIAccess();
    } catch {
      throw new MidiFault(refused);
    }
    if (turn !== this.turn) return;
    const inputs = [...access.inputs.values()].filter(({ state }) => state === 'connected');
    if (inputs.length === 0) throw new MidiFault(none);
    [this.access, this.inputs, this.since, this.events, this.keys] = [access, inputs, undefined, [], []];
    this.held.clear();
    this.count.set(0);
    for (const input of inputs) input.onmidimessage = (message) => this.hear(message);
    access.onstatechange = () => {
      if (inputs.every(({ state }) => state === 'disconnected')) unplugged();
    };
    this.name.set(inputs.map((input) => input.name ?? 'MIDI instrument').join(', '));
  }

  /** Ends it, and gives what was played; undefined where nothing was. */
  stop(): PlayedEvents | undefined {
    this.turn += 1;
    for (const input of this.inputs) input.onmidimessage = null;
    if (this.access !== undefined) this.access.onstatechange = null;
    [this.access, this.inputs] = [undefined, []];
    const wasOpen = this.name() !== undefined;
    this.name.set(undefined);
    if (!wasOpen) return undefined;
    const now = performance.now() - (this.since ?? 0);
    for (const [key, start] of this.held) this.keys.push({ start, end: now, key });
    this.held.clear();
    if (this.events.some((event) => 'hole' in event)) return { kind: 'fingers', events: this.events };
    return this.keys.length === 0 ? undefined : { kind: 'keys', keys: [...this.keys].sort((one, other) => one.start - other.start) };
  }

  private hear({ data, timeStamp }: MIDIMessageEvent): void {
    if (data === null || data.length < 3) return;
    const [status, number, value] = data;
    const at = timeStamp - (this.since ??= timeStamp);
    const kind = status & 0xf0;
    if (kind === noteOff || kind === noteOn) this.key(number, at, kind === noteOn && value > 0);
    else if (kind === control && number === breathControl) this.finger({ at, breath: value > 0 });
    else if (kind === control && number >= firstHoleControl && number < firstHoleControl + mostHoles)
      this.finger({ at, hole: number - firstHoleControl + 1, covers: value >= on });
  }

  private finger(event: HoleEvent): void {
    this.events.push(event);
    this.count.update((count) => count + 1);
  }

  private key(key: number, at: number, isDown: boolean): void {
    const start = this.held.get(key);
    if (start !== undefined) this.keys.push({ start, end: at, key });
    this.held.delete(key);
    if (!isDown) return;
    this.held.set(key, at);
    this.count.update((count) => count + 1);
  }
}
