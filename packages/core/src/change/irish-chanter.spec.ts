import { heardFrom } from '../acoustics';
import { chartedFingering, instrumentById, pattern, soundingPitch } from '../fingering';
import { centsBetween, hertz } from '../pitch';
import { changeTimeline, playNotes, renderTimeline } from '../sound';
import { ChangeEar, inBetweenSounds, levels, RiskTable } from '../timing';
import { adviceFor, changeBetween, heardPhrases, outcomesOf, troubleOf } from '.';

const chanter = instrumentById('irish-chanter-d');
const closed = pattern('X XXX XXXX');
const first = chanter.notes.filter(({ id }) => chartedFingering(chanter, id).register === 1).map(({ id }) => id);
const second = chanter.notes.filter(({ id }) => chartedFingering(chanter, id).register === 2).map(({ id }) => id);
const pairsOf = (ids: readonly string[]) => ids.flatMap((from) => ids.filter((to) => to !== from).map((to) => changeBetween(chanter, from, to)));

describe('the Irish chanter with every hole closed on the knee', () => {
  it('is silent, and off the knee it sounds its bottom D', () => {
    expect(heardFrom(chanter, closed, { foot: 'closed' }).kind).toBe('silent');
    expect(heardFrom(chanter, closed, { foot: 'open' })).toMatchObject({ kind: 'charted', note: 'd4' });
    expect(heardFrom(chanter, closed)).toMatchObject({ kind: 'charted', note: 'd4' });
  });

  it('never lets the bottom D cut in between two notes on the knee', () => {
    for (const change of pairsOf(first.filter((id) => id !== 'd4'))) {
      const trouble = troubleOf(chanter, change);
      expect(trouble).not.toEqual({ kind: 'pop', note: 'd4' });
      for (const { pattern: holes, kind, hertz: pitch } of inBetweenSounds(chanter, change).slice(1, -1))
        if (holes.every((coverage) => coverage === 1)) expect([kind, pitch]).toEqual(['silent', 0]);
    }
  });

  it('is said as a stop: a moment of silence', () => {
    const change = pairsOf(first.filter((id) => id !== 'd4')).find((each) => troubleOf(chanter, each).kind === 'stop');
    expect(change).toBeDefined();
    if (change === undefined) return;
    expect(adviceFor(chanter, change, troubleOf(chanter, change)).otherwise).toMatch(/the sound stops for a moment/);
    expect(Object.values(heardPhrases(chanter, change, outcomesOf(chanter, change)))).toContain('silence');
    const risk = new RiskTable(chanter, levels.learner).riskOf(change);
    expect(risk.silent.probability).toBeGreaterThan(0);
    const moments = change.movers.map(({ direction }) => (direction === 'lower' ? -20 : 20));
    const { steps } = changeTimeline(chanter, change, moments, { noteMs: 100, slower: 1 });
    expect(steps.filter(({ pattern: holes, role }) => role === 'rest' && holes.length === 0).length).toBeGreaterThan(0);
  });
});

describe('the Irish chanter', () => {
  it('sounds the ends of every change within 100 cents of the chart, in both registers', () => {
    for (const change of [...pairsOf(first), ...pairsOf(second)]) {
      const ear = new ChangeEar(chanter, change);
      for (const [holes, note] of [
        [change.fromPattern, change.from],
        [change.toPattern, change.to],
      ] as const)
        expect(Math.abs(centsBetween(soundingPitch(chanter, note), hertz(ear.sound(holes).hertz)))).toBeLessThan(101);
    }
    const a = changeBetween(chanter, 'g4', 'a4');
    expect(new ChangeEar(chanter, a).sound(a.toPattern).hertz).toBeCloseTo(440, 0);
  });

  it('is played in its second register at its charted pitch, in a file as on the screen', () => {
    const sampleRate = 12_000;
    for (const note of second) {
      const timeline = playNotes(chanter, [{ note, graceNotes: [], beats: 2, index: 0, isTied: false }], {
        ...{ tempo: 60, beatsInBar: 4, countInBeats: 0, isClickOn: false, firstBeat: 0, graceNoteMs: 60 },
      });
      const samples = renderTimeline(chanter, timeline, { sampleRate, hasBalance: false, hasDrone: false });
      const wanted = soundingPitch(chanter, note);
      const strengthAt = (frequency: number): number => {
        let [re, im] = [0, 0];
        for (let at = 4000; at < 20_000; at += 1) {
          re += samples[at] * Math.cos((2 * Math.PI * frequency * at) / sampleRate);
          im += samples[at] * Math.sin((2 * Math.PI * frequency * at) / sampleRate);
        }
        return Math.hypot(re, im);
      };
      expect(strengthAt(wanted)).toBeGreaterThan(20 * strengthAt(wanted / 2));
    }
  });
});
