import { glideBetween } from '../acoustics';
import { changeBetween } from '../change';
import { chartedFingering, instrumentById, instruments, practiceChanter as chanter, soundingPitch } from '../fingering';
import { graceNotesOver, hiddenRisk, levels, RiskTable, seededNormal, simulatedRisk, soundsUnder, type Hiding } from '.';

const draws = 8000;
const grace: Hiding = { kind: 'grace-note', opens: ['L1'], lengthMs: 90 };

describe('a change under a grace note', () => {
  it('is hidden by a G grace note from D to low A, and by none from or to high G and high A', () => {
    const names = (from: string, to: string) => graceNotesOver(chanter, changeBetween(chanter, from, to)).map(({ name }) => name);
    expect(names('d', 'low-a')).toContain('G grace note');
    expect(names('d', 'low-a')).toContain('thumb grace note');
    expect(names('d', 'low-a')).not.toContain('D grace note');
    expect(names('high-g', 'low-a')).toEqual(['thumb grace note']);
    expect(names('e', 'high-a')).toEqual([]);
  });

  it('is masked by sounds near high G, which move a little with the hand below', () => {
    const change = changeBetween(chanter, 'd', 'low-a');
    const notes = soundsUnder(chanter, change, ['L1']).map(({ hertz }) => hertz);
    const highG = soundingPitch(chanter, 'high-g');
    expect(Math.max(...notes) / Math.min(...notes)).toBeGreaterThan(1.001);
    for (const hertz of notes) expect(Math.abs(1200 * Math.log2(hertz / Math.max(...notes)))).toBeLessThan(400);
    expect(Math.max(...notes)).toBeGreaterThan(highG * 2 ** (-300 / 1200));
  });

  it('is less at risk the longer the grace note, and as much without one worth the name', () => {
    const change = changeBetween(chanter, 'd', 'low-a');
    const low = (lengthMs: number): number => hiddenRisk(chanter, change, { ...grace, lengthMs }, levels.learner, draws, seededNormal(1)).risk.low.probability;
    const bare = simulatedRisk(chanter, change, levels.learner, draws, seededNormal(1)).low.probability;
    expect(low(120)).toBeLessThan(0.2 * bare);
    expect(low(60)).toBeLessThan(bare);
    expect(low(120)).toBeLessThan(low(60));
  });

  it('splits the sounds between into heard and hidden: together they are as long as without it', () => {
    const change = changeBetween(chanter, 'c', 'e');
    const { risk, hiddenMs, covered } = hiddenRisk(chanter, change, { kind: 'tongue', lengthMs: 20 }, levels.learner, draws, seededNormal(4));
    const bare = simulatedRisk(chanter, change, levels.learner, draws, seededNormal(4));
    const length = (all: typeof risk): number => Object.values(all).reduce((sum, { meanMs }) => sum + meanMs, 0);
    expect(Math.abs(length(risk) + hiddenMs - length(bare))).toBeLessThan(0.6);
    expect(covered).toBeGreaterThan(0);
    expect(covered).toBeLessThan(1);
  });

  it('covers everything where no finger strays', () => {
    const still = { sigma: 0, rho: 0.5, lead: 0 };
    expect(hiddenRisk(chanter, changeBetween(chanter, 'd', 'e'), grace, still, 100, seededNormal(1))).toMatchObject({ covered: 1, hiddenMs: 0 });
  });
});

describe('RiskTable', () => {
  it('keeps what it has computed, and follows the simulation', () => {
    const table = new RiskTable(chanter, levels.learner, 8000);
    const change = changeBetween(chanter, 'c', 'e');
    expect(table.riskOf(change)).toBe(table.riskOf(changeBetween(chanter, 'c', 'e')));
    expect(Math.abs(table.riskOf(change).low.probability - 0.32)).toBeLessThan(0.03);
    expect(table.difficultyOf(change).total).toBeGreaterThan(table.difficultyOf(changeBetween(chanter, 'c', 'd')).total);
  });
});

describe('glideBetween', () => {
  it('a finger that leaves the whistle evenly gives most of the step in the first half of the way', () => {
    const whistle = instrumentById('whistle-d');
    const [from, to] = [chartedFingering(whistle, 'e5'), chartedFingering(whistle, 'fs5')];
    const { points, isBroken } = glideBetween(whistle, 'e5', from.pattern, to.pattern)!;
    expect(isBroken).toBe(false);
    expect(points[0].cents).toBeCloseTo(0, 6);
    const last = points[points.length - 1].cents;
    expect(Math.abs(last - 200)).toBeLessThan(15);
    expect(points[12].cents / last).toBeGreaterThan(0.6);
    points.slice(1).forEach((point, index) => expect(point.cents).toBeGreaterThanOrEqual(points[index].cents - 0.5));
  });

  it('is there for every built-in instrument that has a geometry', () => {
    for (const instrument of instruments) {
      const [first, second] = instrument.notes;
      const glide = glideBetween(instrument, first.id, chartedFingering(instrument, first.id).pattern, chartedFingering(instrument, second.id).pattern);
      expect(glide?.points.length ?? 25).toBeGreaterThan(10);
    }
  });
});
