/** What the thread that makes sound has and TypeScript does not know. */
declare abstract class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: new () => AudioWorkletProcessor): void;

/** Samples that are handed over at once: a twentieth of a second, often enough for a meter. */
const pieceSamples = 2048;

/** Hands over what comes in, piece by piece, as it came. */
class Recorder extends AudioWorkletProcessor {
  private piece = new Float32Array(pieceSamples);
  private filled = 0;

  process([channels]: readonly (readonly Float32Array[])[]): boolean {
    const first = channels.at(0);
    if (first === undefined) return true;
    for (let index = 0; index < first.length; index += 1) {
      // All channels as one: of a pair one side may be dead.
      let sum = 0;
      for (const channel of channels) sum += channel[index];
      this.piece[this.filled] = sum / channels.length;
      this.filled += 1;
      if (this.filled === pieceSamples) {
        this.port.postMessage(this.piece, [this.piece.buffer]);
        this.piece = new Float32Array(pieceSamples);
        this.filled = 0;
      }
    }
    return true;
  }
}

registerProcessor('zelpit-recorder', Recorder);
export {};
