import { changeBetween, type Change } from '../change';
import { instrumentById } from '../fingering';
import { evenNormals, normalQuantile } from './even-normals';
import { RiskTable } from './risk-table';
import { seededNormal } from './seeded-random';
import { exactRisk, levels, normalBelow, simulatedRisk } from './timing-model';

const chanter = instrumentById('practice-chanter');
const changes = (): readonly Change[] =>
  chanter.notes.flatMap((from) => chanter.notes.filter((to) => to !== from).map((to) => changeBetween(chanter, from.id, to.id)));

describe('normalQuantile', () => {
  it('turns round what normalBelow says, in the middle and far out', () => {
    for (const probability of [1e-8, 0.001, 0.02, 0.075, 0.3, 0.5, 0.7, 0.925, 0.98, 0.999])
      expect(normalBelow(normalQuantile(probability))).toBeCloseTo(probability, 6);
    expect(normalQuantile(0.975)).toBeCloseTo(1.959_964, 5);
    expect(normalQuantile(0.025)).toBeCloseTo(-1.959_964, 5);
  });
});

describe('evenNormals', () => {
  it('have mean 0 and deviation 1 in every dimension, hang together in none, and begin anew for each reader', () => {
    const pool = evenNormals(6, 1009);
    const numbers = Array.from({ length: 6 * 1009 }, pool());
    const columns = Array.from({ length: 6 }, (_, dimension) => numbers.filter((_number, index) => index % 6 === dimension));
    const mean = (all: readonly number[]): number => all.reduce((sum, each) => sum + each, 0) / all.length;
    columns.forEach((column, one) => {
      expect(Math.abs(mean(column))).toBeLessThan(0.01);
      expect(Math.abs(mean(column.map((each) => each * each)) - 1)).toBeLessThan(0.02);
      for (const other of columns.slice(one + 1)) expect(Math.abs(mean(column.map((each, index) => each * other[index])))).toBeLessThan(0.04);
    });
    expect(pool()()).toBe(numbers[0]);
  });
});

describe('RiskTable with even draws', () => {
  it('is within 0.02 of many random draws for every change of the chanter, and exact for two fingers', () => {
    const table = new RiskTable(chanter, levels.learner);
    for (const change of changes()) {
      const risk = table.riskOf(change);
      const exact = exactRisk(chanter, change, levels.learner);
      const truth = exact ?? simulatedRisk(chanter, change, levels.learner, 40_000, seededNormal(7));
      for (const kind of ['low', 'run', 'over-open'] as const)
        expect(Math.abs(risk[kind].probability - truth[kind].probability)).toBeLessThanOrEqual(exact === undefined ? 0.02 : 0);
    }
  });

  it('gives one change one figure, whoever asks and however often', () => {
    const [change] = changes();
    expect(new RiskTable(chanter, levels.learner).riskOf(change)).toEqual(new RiskTable(chanter, levels.learner).riskOf(change));
  });
});
