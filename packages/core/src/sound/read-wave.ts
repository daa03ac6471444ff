import { ZelpitFault } from '../fault';

/** Sound in a WAV file of one channel, 16 bits, PCM. */
export interface WaveSound {
  /** -1 to 1 */
  readonly samples: Float32Array;
  readonly sampleRate: number;
}

const [chunkHead, riffHead, formBytes] = [8, 12, 16];
const [plain, fullScale] = [1, 32_768];

/**
 * What `waveFile` writes, and any other file of that kind. What its head promises and the file does not hold is left out.
 * @throws ZelpitFault `not-a-wave`
 */
export function readWave(bytes: Uint8Array): WaveSound {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const text = (at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < riffHead || text(0) !== 'RIFF' || text(8) !== 'WAVE') throw noWave();
  let sampleRate = 0;
  for (let at = riffHead; at + chunkHead <= bytes.length;) {
    const [name, length] = [text(at), view.getUint32(at + 4, true)];
    const from = at + chunkHead;
    if (name === 'fmt ' && length >= formBytes && from + formBytes <= bytes.length) {
      const isOurs = view.getUint16(from, true) === plain && view.getUint16(from + 2, true) === 1 && view.getUint16(from + 14, true) === 16;
      if (!isOurs) throw noWave();
      sampleRate = view.getUint32(from + 4, true);
    }
    if (name === 'data') {
      if (sampleRate < slowest || sampleRate > fastest) throw noWave();
      const count = Math.floor(Math.min(length, bytes.length - from) / 2);
      return { sampleRate, samples: new Float32Array(count).map((_, index) => view.getInt16(from + 2 * index, true) / fullScale) };
    }
    // Chunks begin at even places.
    at = from + length + (length % 2);
  }
  throw noWave();
}

/** Sound is recorded at such rates, in samples a second. */
const [slowest, fastest] = [4000, 192_000];

const noWave = (): ZelpitFault => new ZelpitFault('not-a-wave', 'This is no WAV file of one channel and 16 bits.');
