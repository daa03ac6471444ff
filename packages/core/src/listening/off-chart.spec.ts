import { practiceChanter, soundingPitch, type NoteId } from '../fingering';
import { seededRandom } from '../timing';
import { decodeTake, type HeardStretch } from '.';

const rate = 22_050;
const partials = Array.from({ length: 12 }, (_, index) => index + 1);

interface Tone {
  /** In Hz; absent for breath alone. */
  readonly pitch?: number;
  readonly ms: number;
  readonly level?: number;
}

const tone = (note: NoteId, cents: number, ms: number): Tone => ({ pitch: soundingPitch(practiceChanter, note) * 2 ** (cents / 1200), ms });

/** One tone after the other without a gap, as a reed gives them, with a little breath. */
function played(tones: readonly Tone[]): Float32Array {
  const random = seededRandom(3);
  let phase = 0;
  return Float32Array.from(
    tones.flatMap(({ pitch, ms, level = 0.2 }) =>
      Array.from({ length: Math.round((ms / 1000) * rate) }, () => {
        const breath = (2 * random() - 1) * (pitch === undefined ? level : 0.001);
        if (pitch === undefined) return breath;
        phase += (2 * Math.PI * pitch) / rate;
        return breath + (level / 2) * partials.reduce((sum, partial) => sum + Math.sin(partial * phase) / partial, 0);
      }),
    ),
  );
}

const heardIn = (tones: readonly Tone[]): readonly HeardStretch[] =>
  decodeTake(practiceChanter, played([{ ms: 100, level: 0.0005 }, ...tones]), rate).stretches.filter(({ end, start }) => end - start > 15);
const between = (stretches: readonly HeardStretch[], from: NoteId, to: NoteId): readonly HeardStretch[] =>
  stretches.slice(
    stretches.findIndex(({ note }) => note === from) + 1,
    stretches.findLastIndex(({ note }) => note === to),
  );

describe('what lies between the notes of the chart', () => {
  it.each([
    ['high-a', 90],
    ['high-a', -85],
    ['f', -60],
    ['d', -45],
  ] as const)('a grace note near %s, %i cents off, is called by it where it began', (note, cents) => {
    const [grace, ...more] = between(heardIn([tone('low-a', 0, 500), tone(note, cents, 45), tone('b', 0, 500)]), 'low-a', 'b');
    expect([grace?.note, more]).toEqual([note, []]);
    expect(Math.abs(grace.start - 600)).toBeLessThan(4);
  });

  it('is less sure of its name midway between two', () => {
    const [{ note, confidence }] = between(heardIn([tone('low-a', 0, 500), tone('d', -54, 45), tone('b', 0, 500)]), 'low-a', 'b');
    expect(['c', 'd']).toContain(note);
    expect(confidence).toBeLessThan(0.6);
  });

  it('is no name for breath, nor for a note that dies away', () => {
    for (const gap of [
      { ms: 60, level: 0.05 },
      { ...tone('low-a', 0, 60), level: 0.02 },
    ])
      expect(between(heardIn([tone('low-a', 0, 500), gap, tone('b', 0, 500)]), 'low-a', 'b').filter(({ note }) => note !== null && note !== 'low-a')).toEqual(
        [],
      );
  });
});
