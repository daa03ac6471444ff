import { ZelpitFault } from '../fault';
import { readWave, waveFile } from '.';

const tone = Float32Array.from({ length: 400 }, (_, index) => 0.5 * Math.sin(index / 5));
const file = waveFile(tone, 22_050);
/** The same file with a byte put elsewhere. */
const withByte = (at: number, byte: number): Uint8Array => Uint8Array.from(file, (each, index) => (index === at ? byte : each));

describe('a WAV file', () => {
  it('is read as it was written, to a step of its 16 bits', () => {
    const { samples, sampleRate } = readWave(file);
    expect(sampleRate).toBe(22_050);
    expect(samples).toHaveLength(400);
    samples.forEach((sample, index) => expect(Math.abs(sample - tone[index])).toBeLessThan(1 / 16_000));
  });

  it('is read past what else stands in it, and as far as it goes', () => {
    const note = Uint8Array.from([...'LIST'].map((letter) => letter.charCodeAt(0)).concat([3, 0, 0, 0, 1, 2, 3, 0]));
    const noted = Uint8Array.from([...file.subarray(0, 36), ...note, ...file.subarray(36)]);
    expect(readWave(noted).samples).toEqual(readWave(file).samples);
    expect(readWave(file.subarray(0, 44 + 201)).samples).toEqual(readWave(file).samples.subarray(0, 100));
  });

  it.each([
    ['nothing', new Uint8Array()],
    ['a picture', Uint8Array.from({ length: 80 }, (_, index) => index)],
    ['a head alone', file.subarray(0, 30)],
    ['two channels', withByte(22, 2)],
    ['8 bits', withByte(34, 8)],
    ['packed sound', withByte(20, 85)],
    ['no samples a second', Uint8Array.from(file, (each, index) => (index >= 24 && index < 28 ? 0 : each))],
    ['no samples', file.subarray(0, 36)],
  ])('is not %s', (_, bytes) => {
    expect(() => readWave(bytes)).toThrow(ZelpitFault);
  });
});
