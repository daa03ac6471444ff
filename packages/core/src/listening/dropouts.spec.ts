import { practiceChanter } from '../fingering';
import { playNotes, renderTimeline } from '../sound';
import { decodeTake, heardRung, judgeAsked, judgeTake, type AskedNote } from '.';
import { dropoutsIn } from './dropouts';

const rate = 22_050;
const tempo = 180;
const beatMs = 60_000 / tempo;
const ids = Array.from({ length: 9 }, (_, index) => (index % 2 === 0 ? 'd' : 'f'));
const asked: readonly AskedNote[] = ids.map((note) => ({ note, graceNotes: [], beats: 1, isTied: false, bar: 1 }));

/** D and F by turns, clean, with what a busy machine loses: nothing at all for so long, from these moments on. */
function played(lost: readonly { readonly at: number; readonly ms: number }[], fault = 0): Float32Array {
  const notes = ids.map((note, index) => ({ note, graceNotes: [], beats: 1, index, isTied: false }));
  const settings = { tempo, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
  const timeline = playNotes(practiceChanter, notes, { ...settings, ...(fault > 0 && { fault: { kind: 'worst' as const, ms: fault } }) });
  const samples = renderTimeline(practiceChanter, timeline, { sampleRate: rate });
  for (const { at, ms } of lost) samples.fill(0, Math.round((at / 1000) * rate), Math.round(((at + ms) / 1000) * rate));
  return samples;
}

describe('sound that a device lost', () => {
  it('is found where nothing was put in its place, and nowhere else', () => {
    expect(dropoutsIn(played([]), rate)).toEqual([]);
    const [first, second, ...others] = dropoutsIn(
      played([
        { at: 500, ms: 10 },
        { at: 1500, ms: 40 },
      ]),
      rate,
    );
    expect(first.start).toBeCloseTo(500, 0);
    expect(first.end).toBeCloseTo(510, 0);
    expect(second.end).toBeCloseTo(1540, 0);
    expect(others).toEqual([]);
  });

  it('is no loss where a note ends and another begins after a silence', () => {
    const notes = ['d', null, 'f'].map((note, index) => ({ note, graceNotes: [], beats: 0.5, index, isTied: false }));
    const settings = { tempo, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 40 };
    expect(dropoutsIn(renderTimeline(practiceChanter, playNotes(practiceChanter, notes, settings), { sampleRate: rate }), rate)).toEqual([]);
    expect(dropoutsIn(new Float32Array(rate), rate)).toEqual([]);
    expect(dropoutsIn(new Float32Array(3), rate)).toEqual([]);
  });

  it.each([10, 30, 80])('of %i ms within a note is no fault of the player', (ms) => {
    const samples = played([1, 3, 4].map((note) => ({ at: note * beatMs + 120, ms })));
    const { stretches } = decodeTake(practiceChanter, samples, rate);
    expect(judgeTake(practiceChanter, ids, stretches).text).toBe('Eight of eight clean.');
    expect(judgeAsked(practiceChanter, asked, stretches).notes.map(({ verdict }) => verdict)).toEqual(ids.map(() => 'clean'));
    expect(heardRung(practiceChanter, asked, stretches, { click: { beatMs }, isOver: true }).rating).toBe('clean');
  });

  it('between two notes is not claimed to be clean, nor a fault', () => {
    const { stretches } = decodeTake(practiceChanter, played([{ at: 3 * beatMs - 15, ms: 40 }]), rate);
    const verdicts = judgeAsked(practiceChanter, asked, stretches).notes.map(({ verdict }) => verdict);
    expect(verdicts).toEqual(ids.map((_, index) => (index === 3 ? 'unsure' : 'clean')));
    expect(judgeTake(practiceChanter, ids, stretches).changes[2].verdict).toBe('unsure');
  });

  it('hides no fault beside it', () => {
    const { stretches } = decodeTake(practiceChanter, played([{ at: 3 * beatMs + 120, ms: 20 }], 26), rate);
    expect(heardRung(practiceChanter, asked, stretches, { click: { beatMs }, isOver: true }).rating).toBe('slip');
  });
});
