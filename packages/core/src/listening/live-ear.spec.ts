import { instrumentById, practiceChanter, soundingPitch, type Instrument, type NoteId } from '../fingering';
import { playNotes, renderTimeline } from '../sound';
import { LiveEar } from '.';

const rate = 22_050;
const piece = 1024;

function held(instrument: Instrument, note: NoteId, seconds: number, cents = 0): Float32Array {
  const pitch = soundingPitch(instrument, note) * 2 ** (cents / 1200);
  return Float32Array.from({ length: Math.round(seconds * rate) }, (_, index) => {
    let sum = 0;
    for (let partial = 1; partial <= 6; partial += 1) sum += Math.sin((partial * 2 * Math.PI * pitch * index) / rate) / partial;
    return 0.2 * sum;
  });
}

function listened(instrument: Instrument, samples: Float32Array): LiveEar {
  const ear = new LiveEar(instrument, rate);
  for (let from = 0; from < samples.length; from += piece) ear.hear(samples.subarray(from, from + piece));
  return ear;
}

describe('what sounds now', () => {
  it.each<[NoteId, number]>([
    ['low-a', 0],
    ['b', -32],
    ['e', 18],
    ['high-a', 40],
  ])('%s, %i cents off, is named with its cents', (note, cents) => {
    const heard = listened(practiceChanter, held(practiceChanter, note, 1, cents)).pitch();
    expect(heard?.note).toBe(note);
    expect(Math.abs((heard?.cents ?? 99) - cents)).toBeLessThanOrEqual(2);
    expect(Math.abs((heard?.at ?? 0) - 950)).toBeLessThan(60);
  });

  it('is named on a whistle too', () => {
    const whistle = instrumentById('whistle-d');
    expect(listened(whistle, held(whistle, 'a5', 0.5, -8)).pitch()).toMatchObject({ note: 'a5' });
  });

  it('is nothing in silence, in a hiss, and before anything came in', () => {
    expect(new LiveEar(practiceChanter, rate).pitch()).toBeUndefined();
    expect(listened(practiceChanter, new Float32Array(rate)).pitch()).toBeUndefined();
    let seed = 7;
    const hiss = Float32Array.from({ length: rate }, () => {
      seed = (seed * 48_271) % 2_147_483_647;
      return 0.1 * (2 * (seed / 2_147_483_647) - 1);
    });
    expect(listened(practiceChanter, hiss).pitch()).toBeUndefined();
  });

  it('is the new note once it has sounded for a tenth of a second', () => {
    const both = Float32Array.from([...held(practiceChanter, 'b', 0.6), ...held(practiceChanter, 'e', 0.12)]);
    expect(listened(practiceChanter, both).pitch()?.note).toBe('e');
  });
});

describe('the last change', () => {
  const played = (notes: readonly NoteId[], ms: number): Float32Array => {
    const settings = { tempo: 100, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
    const all = notes.map((note, index) => ({ note, graceNotes: [], beats: 1, index, isTied: false }));
    const timeline = playNotes(practiceChanter, all, { ...settings, ...(ms > 0 && { fault: { kind: 'land-early' as const, ms } }) });
    return renderTimeline(practiceChanter, timeline, { sampleRate: rate });
  };

  it('is named within 300 ms of its second note, clean or with what cut in', () => {
    // Four notes at 100 a minute: the last begins at 1.8 s.
    for (const ms of [0, 24]) {
      const samples = played(['c', 'e', 'c', 'e'], ms).subarray(0, Math.round(2.1 * rate));
      const change = listened(practiceChanter, samples).lastChange(['c', 'e']);
      expect(change).toMatchObject({ from: 'c', to: 'e', verdict: ms === 0 ? 'clean' : 'noise' });
      expect(Math.abs((change?.at ?? 0) - 1800)).toBeLessThan(20);
      if (ms > 0) expect(change?.between).toMatchObject([{ note: 'low-g' }]);
    }
  });

  it('is none before there was one', () => {
    expect(new LiveEar(practiceChanter, rate).lastChange(['c', 'e'])).toBeUndefined();
    expect(listened(practiceChanter, held(practiceChanter, 'c', 1)).lastChange(['c', 'e'])).toBeUndefined();
  });
});
