import * as fc from 'fast-check';
import { practiceChanter } from '../fingering';
import { decodeTake, slowedDown } from '.';

const rate = 22_050;
const tone = (hertz: number, seconds: number): Float32Array =>
  Float32Array.from({ length: Math.round(seconds * rate) }, (_, index) => {
    const angle = (2 * Math.PI * hertz * index) / rate;
    return 0.2 * (Math.sin(angle) + Math.sin(2 * angle) / 2 + Math.sin(3 * angle) / 3);
  });

/** Crossings of zero on the way up, a second. */
function crossings(samples: Float32Array): number {
  let count = 0;
  for (let index = 1; index < samples.length; index += 1) if (samples[index - 1] < 0 && samples[index] >= 0) count += 1;
  return (count * rate) / samples.length;
}

describe('a sound slowed down', () => {
  it.each([2, 5, 20])('%i times lasts so much longer and keeps its pitch and level', (times) => {
    const slow = slowedDown(tone(440, 0.4), rate, times);
    expect(slow.length).toBe(Math.round(0.4 * rate) * times);
    expect(Math.abs(crossings(slow) - 440)).toBeLessThan(6);
    const level = (samples: Float32Array): number => Math.sqrt(samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length);
    expect(level(slow) / level(tone(440, 0.4))).toBeGreaterThan(0.8);
    expect(level(slow) / level(tone(440, 0.4))).toBeLessThan(1.1);
  });

  it('lets a noise of 20 ms be heard for 400', () => {
    const pitch = (id: string): number => practiceChanter.reference.hertz * (practiceChanter.notes.find((note) => note.id === id)?.ratio ?? 1);
    const played = Float32Array.from([...tone(pitch('c'), 0.15), ...tone(pitch('low-g'), 0.02), ...tone(pitch('e'), 0.15)]);
    const { stretches } = decodeTake(practiceChanter, slowedDown(played, rate, 20), rate);
    const between = stretches.filter(({ note }) => note === 'low-g').reduce((sum, { start, end }) => sum + end - start, 0);
    expect(between).toBeGreaterThan(200);
    expect(between).toBeLessThan(800);
  });

  it('is as it was where it is not slowed, or too short for it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 900 }), (length) => {
        const samples = tone(300, 1).slice(0, length);
        expect([...slowedDown(samples, rate, 20)]).toEqual([...samples]);
      }),
    );
    expect(slowedDown(tone(300, 1), rate, 1).length).toBe(rate);
  });
});
