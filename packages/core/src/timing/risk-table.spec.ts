import { changeOfFingerings, outcomesOf, troubleOf } from '../change';
import { instrumentById, practiceChanter } from '../fingering';
import { RiskTable } from './risk-table';
import { levels } from './timing-model';

describe('RiskTable', () => {
  it('knows a change as it is computed, and computes it once', () => {
    const table = new RiskTable(practiceChanter, levels.learner);
    for (const before of practiceChanter.fingerings) {
      for (const after of practiceChanter.fingerings) {
        const heard = table.heardOf(before, after);
        const change = changeOfFingerings(practiceChanter, before, after);
        expect(heard).toEqual({ change, outcomes: outcomesOf(practiceChanter, change), trouble: troubleOf(practiceChanter, change) });
        expect(table.heardOf(before, after)).toBe(heard);
      }
    }
  });

  it('tells two fingerings of one note apart', () => {
    const recorder = instrumentById('recorder-soprano-baroque');
    const many = recorder.fingerings.filter(({ note }, _, all) => all.filter((each) => each.note === note).length > 1);
    expect(many.length).toBeGreaterThan(1);
    const [usual, other] = many.filter(({ note }) => note === many[0].note);
    const [home] = recorder.fingerings.filter(({ note }) => note !== usual.note);
    const table = new RiskTable(recorder, levels.learner);
    expect(table.heardOf(home, other).change.toPattern).toEqual(other.pattern);
    expect(table.heardOf(home, usual).change.toPattern).toEqual(usual.pattern);
    expect(table.riskOf(table.heardOf(home, other).change)).not.toBe(table.riskOf(table.heardOf(home, usual).change));
  });
});
