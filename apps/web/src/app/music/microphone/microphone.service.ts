import { Injectable, signal } from '@angular/core';
import { inputLevel, type InputLevel } from '@zelpit/core/listening';
import { Subject } from 'rxjs';
import { joined } from '../sound/joined';

/** What a microphone gave. */
export interface Recording {
  /** One channel. */
  readonly samples: Float32Array;
  readonly sampleRate: number;
  /** Where it ended otherwise than by whoever began it. */
  readonly endedBy: 'hand' | 'length' | 'unplugged';
  /** Seconds for which the page was out of sight. */
  readonly hiddenSeconds: number;
}

/** A piece of what comes in, one channel. */
export interface InputPiece {
  readonly samples: Float32Array;
  readonly sampleRate: number;
}

/** Why there is no recording, as a sentence that says what helps. */
export class MicrophoneFault extends Error {}

/** Built beside the application: what makes sound runs no bundle. */
const recorderModule = 'worklets/recorder.js';

const sentences: Readonly<Record<string, string>> = {
  NotAllowedError: 'The browser may not use the microphone. Allow it where the address stands (the lock or the sliders beside it), then record again.',
  NotFoundError: 'No microphone was found. Plug one in, or open a recording made elsewhere.',
  NotReadableError: 'Another program holds the microphone. Close it there, then record again.',
};
const elsewhere = 'This browser cannot record here: it needs a safe address (https, or this computer itself). Open a recording made elsewhere.';
const unknown = 'The microphone could not be used. Unplug it and plug it in again, or open a recording made elsewhere.';

/** Nothing between the sound and us: what a browser does for talking takes short noises away. */
const untouched = { echoCancellation: false, noiseSuppression: false, autoGainControl: false } as const;

/** Records what a microphone hears, as it is. */
@Injectable({ providedIn: 'root' })
export class Microphone {
  readonly isRecording = signal(false);
  readonly level = signal<InputLevel | undefined>(undefined);
  readonly seconds = signal(0);
  /** True where the browser works on the sound although it was asked not to. */
  readonly isTouched = signal(false);
  /** What comes in, as it comes. */
  readonly pieces = new Subject<InputPiece>();
  private session: RecordingSession | undefined;

  /**
   * Begins to record; what is there so far is given by `stop`, and by `ended` where it ends by itself.
   * @param mostSeconds after which it ends by itself
   * @param isKept false where it is only listened to: then the recording that ends is empty
   * @throws MicrophoneFault with a sentence
   */
  async start(mostSeconds: number, ended: (recording: Recording) => void, isKept = true): Promise<void> {
    await this.stop();
    const stream = await openStream();
    const [track] = stream.getAudioTracks();
    const settings = track.getSettings();
    this.isTouched.set(Object.keys(untouched).some((name) => settings[name as keyof typeof untouched] === true));
    const session = new RecordingSession(stream, {
      isKept,
      onPiece: (level, seconds, piece) => {
        this.pieces.next(piece);
        this.level.set(level);
        this.seconds.set(Math.floor(seconds));
        if (seconds >= mostSeconds) void this.end('length').then((recording) => recording !== undefined && ended(recording));
      },
      onUnplugged: () => void this.end('unplugged').then((recording) => recording !== undefined && ended(recording)),
    });
    this.session = session;
    try {
      await session.begin();
    } catch {
      this.session = undefined;
      await session.end();
      throw new MicrophoneFault(unknown);
    }
    this.seconds.set(0);
    this.isRecording.set(true);
  }

  /** Ends the recording and gives it; undefined where none was under way. */
  stop(): Promise<Recording | undefined> {
    return this.end('hand');
  }

  private async end(endedBy: Recording['endedBy']): Promise<Recording | undefined> {
    const { session } = this;
    this.session = undefined;
    this.isRecording.set(false);
    this.level.set(undefined);
    return session === undefined ? undefined : { ...(await session.end()), endedBy };
  }
}

async function openStream(): Promise<MediaStream> {
  // Absent where the address is not safe.
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  if (devices === undefined) throw new MicrophoneFault(elsewhere);
  try {
    return await devices.getUserMedia({ audio: { ...untouched, channelCount: { ideal: 1 } } });
  } catch (error) {
    throw new MicrophoneFault(sentences[(error as DOMException).name] ?? unknown);
  }
}

interface SessionEvents {
  readonly isKept: boolean;
  readonly onPiece: (level: InputLevel, seconds: number, piece: InputPiece) => void;
  readonly onUnplugged: () => void;
}

/** One recording from its beginning to its end. */
class RecordingSession {
  private readonly context = new AudioContext();
  private readonly pieces: Float32Array[] = [];
  private length = 0;
  private hiddenSince: number | undefined;
  private hiddenMs = 0;
  private readonly onVisibility = (): void => {
    if (document.hidden) this.hiddenSince = performance.now();
    else this.countHidden();
  };

  constructor(
    private readonly stream: MediaStream,
    private readonly events: SessionEvents,
  ) {}

  async begin(): Promise<void> {
    const { context, stream, events } = this;
    document.addEventListener('visibilitychange', this.onVisibility);
    stream.getAudioTracks()[0].addEventListener('ended', events.onUnplugged);
    await context.resume();
    await context.audioWorklet.addModule(recorderModule);
    const recorder = new AudioWorkletNode(context, 'zelpit-recorder', { numberOfOutputs: 1 });
    recorder.port.onmessage = ({ data }: MessageEvent<Float32Array>) => this.take(data);
    // Through to the end, silently: what leads nowhere is not asked for samples.
    const silent = context.createGain();
    silent.gain.value = 0;
    context.createMediaStreamSource(stream).connect(recorder).connect(silent).connect(context.destination);
  }

  async end(): Promise<Pick<Recording, 'samples' | 'sampleRate' | 'hiddenSeconds'>> {
    document.removeEventListener('visibilitychange', this.onVisibility);
    this.countHidden();
    for (const track of this.stream.getTracks()) track.stop();
    const { sampleRate } = this.context;
    await this.context.close().catch(() => undefined);
    return { samples: joined(this.pieces), sampleRate, hiddenSeconds: Math.round(this.hiddenMs / 1000) };
  }

  private take(piece: Float32Array): void {
    if (this.events.isKept) this.pieces.push(piece);
    this.length += piece.length;
    let [sum, peak] = [0, 0];
    for (const sample of piece) {
      sum += sample * sample;
      peak = Math.max(peak, Math.abs(sample));
    }
    this.events.onPiece(inputLevel(Math.sqrt(sum / piece.length), peak), this.length / this.context.sampleRate, {
      samples: piece,
      sampleRate: this.context.sampleRate,
    });
  }

  private countHidden(): void {
    if (this.hiddenSince !== undefined) this.hiddenMs += performance.now() - this.hiddenSince;
    this.hiddenSince = undefined;
  }
}
