import { instruments, practiceChanter as chanter } from '../fingering';
import { heardFrom } from '../acoustics';
import { soundingPitch } from '../fingering';
import {
  changeTimeline,
  droneHertz,
  faultPatterns,
  levelCap,
  playNotes,
  renderTimeline,
  waveFile,
  worstFault,
  type ChangePlay,
  type PlayedNote,
  type PlaySettings,
} from '.';
import { changeBetween } from '../change';

const sampleRate = 48_000;
const still: PlaySettings = { tempo: 60, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 50 };
const note = (id: string | null, beats = 1, index = 0, graceNotes: string[] = []): PlayedNote => ({ note: id, beats, index, graceNotes, isTied: false });
const render = (notes: PlayedNote[], settings = still) => renderTimeline(chanter, playNotes(chanter, notes, settings), { sampleRate });

/** Pitch from the samples alone: the lag at which the sound repeats itself best, refined by a parabola over the difference function. */
function estimatedHertz(samples: Float32Array, from: number, length: number): number {
  const difference = (lag: number): number => {
    let sum = 0;
    for (let index = from; index < from + length; index += 1) sum += (samples[index] - samples[index + lag]) ** 2;
    return sum;
  };
  const lags = Array.from({ length: 200 }, (_, index) => index + 70);
  const differences = lags.map(difference);
  const shallow = Math.max(...differences) * 0.05;
  const best = differences.findIndex((value, index) => value < shallow && value <= (differences[index + 1] ?? Infinity));
  const [a, b, c] = [differences[best - 1], differences[best], differences[best + 1]];
  const lag = lags[best] + (a - c) / (2 * (a - 2 * b + c));
  const periods = Math.floor(4000 / lag);
  const far = Math.round(lag * periods);
  const around = [-1, 0, 1].map((offset) => difference(far + offset));
  const shift = (around[0] - around[2]) / (2 * (around[0] - 2 * around[1] + around[2]));
  return (sampleRate * periods) / (far + shift);
}

/** The stretch in which the sound neither goes on as it began nor is yet as it ends, in ms. */
function foreignStretch(samples: Float32Array, first: number, last: number): { start: number; length: number } {
  const read = (position: number): number => {
    const whole = Math.floor(position);
    return samples[whole] + (position - whole) * (samples[whole + 1] - samples[whole]);
  };
  const threshold = 0.02;
  let start = 6000;
  while (Math.abs(samples[start] - read(start - sampleRate / first)) < threshold) start += 1;
  let end = samples.length - 6000;
  while (Math.abs(samples[end] - read(end + sampleRate / last)) < threshold) end -= 1;
  return { start: (start / sampleRate) * 1000, length: ((end - start) / sampleRate) * 1000 };
}

const cents = (heard: number, meant: number): number => 1200 * Math.log2(heard / meant);

describe('renderTimeline', () => {
  it.each(chanter.notes.map((each) => each.id))('sounds %s within 2 cents, as an estimator of its own hears it', (id) => {
    const samples = render([note(id)]);
    expect(Math.abs(cents(estimatedHertz(samples, 4000, 4000), soundingPitch(chanter, id)))).toBeLessThan(2);
  });

  it('sounds an in-between pattern at the pitch of its rule', () => {
    const [pattern] = faultPatterns(chanter, changeBetween(chanter, 'c', 'e'), 'land-early');
    const steps = [{ pattern, start: 0, length: 1000, role: 'fault', note: 0 }] as never;
    const samples = renderTimeline(chanter, { steps, clicks: [], length: 1000 as never }, { sampleRate });
    expect(Math.abs(cents(estimatedHertz(samples, 4000, 4000), heardFrom(chanter, pattern).pitch))).toBeLessThan(2);
  });

  it.each([
    ['c', 'e', 10],
    ['low-a', 'c', 10],
    ['b', 'e', 10],
    ['high-a', 'e', 10],
    ['low-a', 'd', 25],
  ])('puts the fault from %s to %s within 1 ms of its place and length', (from, to, ms) => {
    const samples = render([note(from), note(to, 1, 1)], { ...still, fault: { kind: 'land-early', ms } });
    const heard = foreignStretch(samples, soundingPitch(chanter, from), soundingPitch(chanter, to));
    expect(Math.abs(heard.start - (1000 - ms))).toBeLessThan(1);
    expect(Math.abs(heard.length - ms)).toBeLessThan(1);
  });

  it('goes from one note straight to the next when clean', () => {
    const samples = render([note('c'), note('e', 1, 1)]);
    const heard = foreignStretch(samples, soundingPitch(chanter, 'c'), soundingPitch(chanter, 'e'));
    expect(Math.abs(heard.start - 1000)).toBeLessThan(1);
    expect(heard.length).toBeLessThan(1);
  });

  it('never clicks: no step between samples is larger than the tone itself makes', () => {
    const steepest = (samples: Float32Array): number =>
      samples.reduce((most, value, index) => (index === 0 ? 0 : Math.max(most, Math.abs(value - samples[index - 1]))), 0);
    const plain = Math.max(...['low-g', 'low-a', 'high-a'].map((id) => steepest(render([note(id)]))));
    const busy = render([note('c', 0.5), note('e', 0.5, 1), note(null, 0.5, 2), note('low-a', 1, 3, ['high-g', 'low-a', 'd']), note('high-a', 0.5, 4)], {
      ...still,
      tempo: 140,
      fault: { kind: 'worst', ms: 15 },
    });
    expect(steepest(busy)).toBeLessThan(plain * 1.1);
  });

  it('starts from silence, ends in silence and stays under the cap, clicks and all', () => {
    const samples = render([note('low-g', 2), note('low-g', 2, 1)], { ...still, countInBeats: 4, isClickOn: true });
    const loudest = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
    expect(loudest).toBeLessThanOrEqual(levelCap);
    expect(Math.abs(samples[0])).toBeLessThan(1e-6);
    expect(Math.abs(samples[samples.length - 1])).toBeLessThan(0.02);
    expect(loudest).toBeGreaterThan(0.1);
  });

  it('keeps the pitch at any tempo', () => {
    for (const tempo of [20, 60, 150]) {
      const samples = render([note('e', 2)], { ...still, tempo });
      expect(Math.abs(cents(estimatedHertz(samples, 4000, 4000), soundingPitch(chanter, 'e')))).toBeLessThan(2);
    }
  });

  it('refuses a sampling rate that no device has', () => {
    expect(() => renderTimeline(chanter, playNotes(chanter, [note('e')], still), { sampleRate: 100 })).toThrow(/between 8000 and 192000; 100 came/);
  });
});

describe('playNotes', () => {
  it('counts a bar in, then clicks on every beat, the first of each bar accented', () => {
    const { clicks, length } = playNotes(chanter, [note('e', 8)], { ...still, countInBeats: 4, isClickOn: true });
    expect(clicks.map((click) => click.at)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((second) => second * 1000));
    expect(clicks.filter((click) => click.isAccented).map((click) => click.at / 1000)).toEqual([0, 4, 8]);
    expect(clicks.filter((click) => click.isCountIn)).toHaveLength(4);
    expect(length).toBe(12_000);
  });

  it('counts in before a lead-in so that the bar line falls on an accent', () => {
    const { clicks, steps } = playNotes(chanter, [note('e', 0.5), note('low-a', 2, 1)], {
      ...still,
      beatsInBar: 2,
      firstBeat: 1.5,
      countInBeats: 1.5 + 2,
      isClickOn: true,
    });
    const barLine = steps[1].start;
    expect(clicks.find((click) => click.at === barLine)?.isAccented).toBe(true);
  });

  it('takes grace notes from the note that follows and does not stretch them with the tempo', () => {
    const steps = (tempo: number) => playNotes(chanter, [note('c', 1, 0), note('c', 1, 1, ['high-g', 'c', 'd'])], { ...still, tempo }).steps;
    for (const tempo of [40, 60]) {
      expect(
        steps(tempo)
          .filter((step) => step.role === 'grace')
          .map((step) => step.length),
      ).toEqual([50, 50, 50]);
    }
    expect(steps(60)[1].start).toBe(1000);
  });

  it('puts no fault where the change allows none or a grace note hides it', () => {
    const faults = (notes: PlayedNote[]) =>
      playNotes(chanter, notes, { ...still, fault: { kind: 'worst', ms: 20 } }).steps.filter((step) => step.role === 'fault');
    expect(faults([note('low-a'), note('e', 1, 1)])).toEqual([]);
    expect(faults([note('c'), note('e', 1, 1, ['high-g'])])).toEqual([]);
    expect(faults([note('c'), note('e', 1, 1)])).toHaveLength(1);
  });

  it('fills the time without gaps or overlaps', () => {
    const { steps, length } = playNotes(chanter, [note('c'), note('e', 0.5, 1, ['high-g']), note('high-a', 0.25, 2), note(null, 1, 3), note('d', 1, 4)], {
      ...still,
      fault: { kind: 'worst', ms: 30 },
    });
    steps.slice(1).forEach((step, index) => expect(step.start).toBeCloseTo(steps[index].start + steps[index].length, 6));
    const last = steps[steps.length - 1];
    expect(last.start + last.length).toBeCloseTo(length, 6);
  });

  it('shortens a fault rather than swallowing a quick note', () => {
    const { steps } = playNotes(chanter, [note('c', 0.1), note('e', 1, 1)], { ...still, tempo: 120, fault: { kind: 'land-early', ms: 60 } });
    expect(steps.map((step) => step.length)).toEqual([25, 25, 500]);
  });
});

describe('worstFault', () => {
  it('is landing too soon for a cross, the wrong order for a lift, none for one finger', () => {
    expect(worstFault(chanter, changeBetween(chanter, 'c', 'e'))).toBe('land-early');
    expect(worstFault(chanter, changeBetween(chanter, 'e', 'high-g'))).toBe('wrong-order');
    expect(worstFault(chanter, changeBetween(chanter, 'b', 'c'))).toBe('land-early');
    expect(worstFault(chanter, changeBetween(chanter, 'b', 'd'))).toBe('wrong-order');
    expect(worstFault(chanter, changeBetween(chanter, 'low-a', 'e'))).toBeUndefined();
  });
});

describe('a change under a cover', () => {
  const change = changeBetween(chanter, 'd', 'low-a');
  const roles = (moments: readonly number[], cover: ChangePlay['cover']) =>
    changeTimeline(chanter, change, moments, { noteMs: 100, slower: 1, cover }).steps.map(({ role, length }) => [role, length]);

  it('is masked by the grace note while its finger is off, and by silence while the tongue is on the reed', () => {
    const moments = change.movers.map((_, index) => -10 + index * 10);
    const inside = roles(moments, { opens: ['L1'], from: -45, to: 45 });
    expect(inside.map(([role]) => role)).toEqual(['theme', ...Array.from({ length: inside.length - 2 }, () => 'grace'), 'theme']);
    expect(inside.slice(1, -1).reduce((sum, [, length]) => sum + (length as number), 0)).toBeCloseTo(90, 9);
    expect(roles(moments, { opens: null, from: -45, to: 45 }).some(([role]) => role === 'rest')).toBe(true);
  });

  it('is heard where a finger moves before or after it', () => {
    const late = change.movers.map((_, index) => (index === 0 ? 80 : 0));
    expect(roles(late, { opens: ['L1'], from: -45, to: 45 }).map(([role]) => role)).toContain('fault');
  });
});

describe('balance and drone', () => {
  const rate = 16_000;
  const timeline = changeTimeline(chanter, changeBetween(chanter, 'low-g', 'high-a'), [0, 0, 0, 0, 0, 0, 0, 0], { noteMs: 300, slower: 1 });
  const power = (samples: Float32Array, from: number, to: number): number => {
    const part = samples.slice(Math.round(from * rate), Math.round(to * rate));
    return Math.sqrt(part.reduce((sum, sample) => sum + sample ** 2, 0) / part.length);
  };

  it('low G is louder than high A as on the pipes, or as loud where the balance is off', () => {
    const on = renderTimeline(chanter, timeline, { sampleRate: rate });
    const off = renderTimeline(chanter, timeline, { sampleRate: rate, hasBalance: false });
    expect(power(on, 0.1, 0.25) / power(on, 0.4, 0.55)).toBeGreaterThan(1.2);
    expect(power(off, 0.1, 0.25) / power(off, 0.4, 0.55)).toBeCloseTo(1, 1);
  });

  it('a drone lies an octave and two under low A, and never lifts the sound over its cap', () => {
    const [tenor, bass] = droneHertz(chanter);
    expect(tenor / bass).toBeCloseTo(2, 9);
    const plain = renderTimeline(chanter, timeline, { sampleRate: rate });
    const drone = renderTimeline(chanter, timeline, { sampleRate: rate, hasDrone: true });
    expect(power(drone, 0.1, 0.25)).toBeGreaterThan(power(plain, 0.1, 0.25));
    expect(Math.max(...drone.map(Math.abs))).toBeLessThanOrEqual(levelCap);
    for (const instrument of instruments) expect(droneHertz(instrument).every((pitch) => pitch > 20)).toBe(true);
  });
});

describe('waveFile', () => {
  it('has the head of a WAV file and every sample, cut at full scale', () => {
    const bytes = waveFile(Float32Array.of(0, 0.5, -2), 8000);
    const view = new DataView(bytes.buffer);
    expect(new TextDecoder().decode(bytes.slice(0, 4))).toBe('RIFF');
    expect(view.getUint32(4, true)).toBe(bytes.length - 8);
    expect(view.getUint32(24, true)).toBe(8000);
    expect([44, 46, 48].map((at) => view.getInt16(at, true))).toEqual([0, 16_384, -32_767]);
  });
});
