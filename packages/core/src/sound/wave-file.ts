const headBytes = 44;
const loudest = 32_767;

/**
 * Samples as a WAV file: one channel, 16 bits, PCM.
 * @param samples -1 to 1; what lies beyond is cut
 */
export function waveFile(samples: Float32Array, sampleRate: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(headBytes + samples.length * 2);
  const view = new DataView(bytes.buffer);
  const text = (at: number, letters: string): void => [...letters].forEach((letter, index) => view.setUint8(at + index, letter.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, sampleRate, true);
  view.setUint32(28, sampleRate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, samples.length * 2, true);
  samples.forEach((sample, index) => view.setInt16(headBytes + index * 2, Math.round(Math.max(-1, Math.min(1, sample)) * loudest), true));
  return bytes;
}
