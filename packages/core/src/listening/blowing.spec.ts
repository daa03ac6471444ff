import { noteOf, practiceChanter, soundingPitch, type NoteId } from '../fingering';
import { seededRandom } from '../timing';
import { blowingOf, blowingText, decodeTake, octaveText, steadyMoments, inputLevel, inputProblem, meterMarks, pitchTrace } from '.';

const rate = 22_050;

/** A note held for so many seconds, whose pitch swings by so many cents to each side twice a second. */
function held(note: NoteId, seconds: number, { cents = 0, swing = 0 } = {}): Float32Array {
  const pitch = soundingPitch(practiceChanter, note) * 2 ** (cents / 1200);
  let phase = 0;
  return Float32Array.from({ length: Math.round(seconds * rate) }, (_, index) => {
    phase += (2 * Math.PI * pitch * 2 ** ((swing * Math.sin((4 * Math.PI * index) / rate)) / 1200)) / rate;
    let sum = 0;
    for (let partial = 1; partial <= 6; partial += 1) sum += Math.sin(partial * phase) / partial;
    return 0.2 * sum;
  });
}

const joined = (...parts: readonly Float32Array[]): Float32Array => Float32Array.from(parts.flatMap((part) => [...part]));

function blown(samples: Float32Array) {
  const { stretches, tuning } = decodeTake(practiceChanter, samples, rate);
  const trace = pitchTrace(practiceChanter, stretches, samples, rate, tuning);
  return { tuning, trace, blowing: blowingOf(practiceChanter, trace) };
}

describe('blowing', () => {
  it.each([0, 5, 12, 25])('of a note that swings by %i cents is found to two cents', (swing) => {
    const [{ note, within }, ...others] = blown(held('b', 4, { swing })).blowing;
    expect(note).toBe('b');
    expect(Math.abs(within - Math.max(1, swing))).toBeLessThanOrEqual(2);
    expect(others).toEqual([]);
  });

  it('of a long take is looked at less often, so that ten minutes take no longer than two', () => {
    const stretches = Array.from({ length: 600 }, (_, index) => ({
      note: index % 2 === 0 ? 'c' : 'e',
      start: 1000 * index,
      end: 1000 * (index + 1),
      confidence: 1,
    }));
    const sampleRate = 4000;
    const trace = pitchTrace(practiceChanter, stretches, new Float32Array(600 * sampleRate), sampleRate, 0);
    expect(trace.length).toBeGreaterThan(1200);
    expect(trace.length).toBeLessThan(2600);
    expect(new Set(trace.map(({ at }) => Math.floor(at / 1000))).size).toBe(600);
  });

  it('tells by how much an octave is out', () => {
    const { blowing } = blown(joined(held('low-a', 3), held('high-a', 3, { cents: 18 })));
    const [low, high] = blowing;
    expect([low.note, high.note]).toEqual(['low-a', 'high-a']);
    expect(Math.abs(high.cents - low.cents - 18)).toBeLessThanOrEqual(2);
  });

  it('says of each octave whether it is true, wide or narrow, by the pitches that were blown', () => {
    const of = (note: NoteId, cents: number) => ({ note, cents, within: 3, moments: 20 });
    expect(octaveText(practiceChanter, [of('low-a', 0), of('high-a', 0)])).toBe('Octaves: Low A to high A: true.');
    expect(octaveText(practiceChanter, [of('low-a', 4), of('b', 0), of('high-a', -14)])).toBe('Octaves: Low A to high A: 18 cents narrow.');
    expect(octaveText(practiceChanter, [of('low-g', 0), of('high-g', 30)])).toMatch(/^Octaves: Low G to high G: \d+ cents wide\.$/);
    expect(octaveText(practiceChanter, [of('b', 0)])).toBe('');
  });

  it('leaves out the moments in which one note gives way to another', () => {
    const trace = (['b', 'b', 'b', 'e', 'b', 'b'] as NoteId[]).map((note, index) => ({ at: index * 50, note, cents: 0 }));
    expect(steadyMoments(trace).map(({ at }) => at)).toEqual([50]);
  });

  it('follows a note from moment to moment', () => {
    const { trace } = blown(held('e', 3, { swing: 20 }));
    expect(trace.length).toBeGreaterThan(40);
    expect(trace.every(({ at }, index) => index === 0 || at > trace[index - 1].at)).toBe(true);
    expect(Math.max(...trace.map(({ cents }) => cents)) - Math.min(...trace.map(({ cents }) => cents))).toBeGreaterThan(28);
  });

  it('is said note by note, and not at all where nothing was held', () => {
    expect(blowingText(practiceChanter, [{ note: 'b', cents: 0, within: 5, moments: 9 }])).toBe(
      `Blowing: ${noteOf(practiceChanter, 'b').schoolName} within 5 cents.`,
    );
    expect(blown(held('b', 0.1)).blowing).toEqual([]);
    expect(blowingText(practiceChanter, [])).toBe('');
  });
});

describe('what comes in', () => {
  const noise = (level: number, seconds = 2): Float32Array => {
    const random = seededRandom(3);
    return Float32Array.from({ length: seconds * rate }, () => level * (2 * random() - 1));
  };

  it.each<[string, Float32Array, ReturnType<typeof inputProblem>]>([
    ['a held note', held('c', 2), undefined],
    ['a short note in a long silence', joined(new Float32Array(3 * rate), held('c', 0.4)), undefined],
    ['nothing', new Float32Array(rate), 'only the room'],
    ['no samples', new Float32Array(0), 'too short'],
    ['a moment', held('c', 0.2), 'too short'],
    ['a quiet room', noise(0.002), 'only the room'],
    ['a note that is cut off', held('c', 2).map((sample) => Math.max(-1, Math.min(1, sample * 6))), 'too loud'],
  ])('%s: %#', (_, samples, problem) => {
    expect(inputProblem(samples, rate)).toBe(problem);
  });

  it('is shown between its two marks where it is loud enough', () => {
    expect(inputLevel(0, 0)).toEqual({ share: 0, word: 'too soft' });
    expect(inputLevel(0.005, 0.01).word).toBe('too soft');
    const well = inputLevel(0.1, 0.3);
    expect(well.word).toBe('loud enough');
    expect(well.share).toBeGreaterThan(meterMarks.soft);
    expect(well.share).toBeLessThan(meterMarks.loud);
    expect(inputLevel(0.7, 0.99)).toMatchObject({ word: 'too loud' });
    expect(inputLevel(0.7, 0.99).share).toBeGreaterThanOrEqual(meterMarks.loud);
    expect(inputLevel(1, 1).share).toBeLessThanOrEqual(1);
  });
});
