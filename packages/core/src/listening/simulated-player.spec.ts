import fc from 'fast-check';
import { instruments, practiceChanter, type NoteId } from '../fingering';
import { renderTimeline } from '../sound';
import { levels } from '../timing';
import {
  blowingOf,
  decodeTake,
  inRoom,
  isNoteFaulty,
  judgeAsked,
  pitchTrace,
  simulatedTimeline,
  stretchesOfTimeline,
  unsteadily,
  type AskedNote,
  type JudgedPiece,
  type SimulatedPlayer,
} from '.';

const asked = (note: NoteId | null, graceNotes: readonly NoteId[] = []): AskedNote => ({ note, graceNotes, beats: 1, isTied: false, bar: 1 });
const even: SimulatedPlayer = { seed: 1, timing: { sigma: 0, rho: 0, lead: 0 }, tempo: 90, drift: 0, unevenness: 0, forgotten: 0 };
const toAndFro = Array.from({ length: 24 }, (_, index) => asked(index % 2 === 0 ? 'b' : 'e'));

const judged = (notes: readonly AskedNote[], player: SimulatedPlayer): JudgedPiece =>
  judgeAsked(practiceChanter, notes, stretchesOfTimeline(practiceChanter, simulatedTimeline(practiceChanter, notes, player)));

describe('a simulated player', () => {
  it('is clean where fingers keep together, on every instrument, with grace notes, rests and repeated notes', () => {
    for (const instrument of instruments) {
      const [low, next, other] = instrument.notes.map(({ id }) => id);
      const notes = [asked(low), asked(next), asked(next), asked(null), asked(other), asked(low)];
      const piece = judgeAsked(instrument, notes, stretchesOfTimeline(instrument, simulatedTimeline(instrument, notes, even)));
      expect([instrument.id, piece.notes.filter((note) => isNoteFaulty(note)).length, piece.notes.length > 0]).toEqual([instrument.id, 0, true]);
    }
    const march = [asked('low-a', ['high-g']), asked('e', ['high-g', 'e', 'f']), asked('c'), asked('d', ['low-g', 'd', 'low-g'])];
    expect(judged(march, even).notes.map(({ verdict }) => verdict)).toEqual(['clean', 'clean', 'clean', 'clean']);
  });

  it('plays the same for the same seed, and never two patterns at once', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.constantFrom('beginner' as const, 'learner' as const, 'fluent' as const), (seed, level) => {
        const player = { seed, timing: levels[level], tempo: 80, drift: 0.1, unevenness: 30, forgotten: 0.2 };
        const { steps } = simulatedTimeline(practiceChanter, toAndFro, player);
        expect(simulatedTimeline(practiceChanter, toAndFro, player).steps).toEqual(steps);
        steps.slice(1).forEach((step, index) => expect(step.start).toBeGreaterThanOrEqual(steps[index].start + steps[index].length - 1e-6));
      }),
      { numRuns: 30 },
    );
  });

  it('crosses more, the worse its fingers keep together; with low A before E, as the fingers of B to E do', () => {
    const crossed = (level: keyof typeof levels): number =>
      [1, 2, 3, 4].reduce((sum, seed) => sum + judged(toAndFro, { ...even, seed, timing: levels[level] }).notes.filter((note) => isNoteFaulty(note)).length, 0);
    expect(crossed('beginner')).toBeGreaterThan(crossed('learner'));
    expect(crossed('learner')).toBeGreaterThan(crossed('fluent'));
    const names = judged(toAndFro, { ...even, timing: levels.beginner }).notes.flatMap(({ between }) => between.map(({ note }) => note));
    expect(names).toContain('low-a');
  });

  it('forgets grace notes where it is to, and is faster at its end', () => {
    const notes = toAndFro.map((note) => ({ ...note, graceNotes: ['high-g' as NoteId] }));
    expect(judged(notes, { ...even, forgotten: 1 }).notes.filter(({ verdict }) => verdict === 'elements').length).toBeGreaterThan(20);
    const { steps } = simulatedTimeline(practiceChanter, toAndFro, { ...even, drift: 0.5 });
    expect(steps[0].length).toBeGreaterThan(1.3 * steps[steps.length - 1].length);
  });

  it('is heard by the decoder through a room, out of tune', () => {
    const timeline = simulatedTimeline(practiceChanter, toAndFro.slice(0, 9), { ...even, timing: levels.beginner });
    const dry = renderTimeline(practiceChanter, timeline, { sampleRate: 22_050, referenceHertz: practiceChanter.reference.hertz * 1.008 });
    const samples = inRoom(dry, 22_050, { echo: 0.3, noiseDecibels: 40 }, 7);
    const { stretches, tuning } = decodeTake(practiceChanter, samples, 22_050);
    expect(tuning).toBeGreaterThan(5);
    const piece = judgeAsked(practiceChanter, toAndFro.slice(0, 9), stretches);
    expect(piece.notes).toHaveLength(9);
    expect(piece.notes.some((note) => isNoteFaulty(note))).toBe(true);
  });

  it('has the faults that were chosen, and no others', () => {
    const verdicts = (faults: SimulatedPlayer['faults']): readonly string[] => judged(toAndFro, { ...even, faults }).notes.map(({ verdict }) => verdict);
    expect(new Set(verdicts({}))).toEqual(new Set(['clean']));
    expect(verdicts({ crossing: { share: 1, ms: 26 } }).slice(1)).toEqual(toAndFro.slice(1).map(() => 'noise'));
    const some = verdicts({ crossing: { share: 0.3, ms: 26 } }).filter((verdict) => verdict === 'noise').length;
    expect(some).toBeGreaterThan(2);
    expect(some).toBeLessThan(16);
    const scale = practiceChanter.notes.map(({ id }) => asked(id));
    expect(judged(scale, { ...even, seed: 3, faults: { leftOut: 0.3 } }).notes.filter(({ verdict }) => verdict !== 'clean')).toMatchObject([
      { note: 'low-a', verdict: 'missing' },
    ]);
    const [steady, stopping] = [{}, { stops: 0.2 }].map((faults) => simulatedTimeline(practiceChanter, toAndFro, { ...even, faults }).length);
    expect(stopping).toBeGreaterThan(steady + 1900);
    // The same seed plays the same where nothing is chosen.
    expect(simulatedTimeline(practiceChanter, toAndFro, { ...even, timing: levels.learner, faults: {} }).steps).toEqual(
      simulatedTimeline(practiceChanter, toAndFro, { ...even, timing: levels.learner }).steps,
    );
  });

  it('is blown as steadily as was chosen, and is clean all the same', () => {
    const notes = toAndFro.slice(0, 9);
    const dry = renderTimeline(practiceChanter, simulatedTimeline(practiceChanter, notes, { ...even, tempo: 40 }), { sampleRate: 22_050 });
    const within = (unsteadyCents: number): number => {
      const samples = unsteadily(dry, 22_050, { unsteadyCents, unevenness: 0.1 }, 5);
      expect(samples).toHaveLength(dry.length);
      const { stretches, tuning } = decodeTake(practiceChanter, samples, 22_050);
      expect(judgeAsked(practiceChanter, notes, stretches).notes.map(({ verdict }) => verdict)).toEqual(notes.map(() => 'clean'));
      const blowing = blowingOf(practiceChanter, pitchTrace(practiceChanter, stretches, samples, 22_050, tuning));
      return blowing.reduce((sum, each) => sum + each.within, 0) / blowing.length;
    };
    const [steady, unsteady] = [within(0), within(9)];
    expect(steady).toBeLessThan(4);
    expect(unsteady).toBeGreaterThan(8);
    expect(unsteady).toBeLessThan(36);
  });
});
