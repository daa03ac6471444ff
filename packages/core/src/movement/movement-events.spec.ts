import { chartedPattern, patternKey, practiceChanter as chanter } from '../fingering';
import { compileMovement, movementById, movementEvents, pipeMovements, sharesOf } from '.';

const events = (id: string, before: string | null, after: string) => movementEvents(chanter, compileMovement(chanter, movementById(id), before, after));

describe('finger events of a movement', () => {
  it('a grace note into another note: the top finger lifts, the others change, the top finger closes', () => {
    const all = events('grace-note', 'e', 'c');
    expect(all.map(({ role, finger, group }) => [role, finger, group])).toEqual([
      ['opener-lifts', 'L1', 0],
      ['under-opener', 'L3', 1],
      ['under-opener', 'R2', 1],
      ['under-opener', 'R3', 1],
      ['under-opener', 'R4', 1],
      ['opener-closes', 'L1', 2],
    ]);
    expect(all.map(({ ms }) => ms)).toEqual([0, 30, 30, 30, 30, 60]);
  });

  it('the classic change: little finger and ring finger leave the last low G of a taorluath together', () => {
    const last = events('taorluath', 'e', 'low-a').filter(({ group, role }) => role === 'step' && group === 3);
    expect(last.map(({ finger, isDown }) => [finger, isDown])).toEqual([
      ['L3', false],
      ['R4', false],
    ]);
  });

  it('lead from the note before to the note after, in order of time, one group after the other (property)', () => {
    for (const movement of pipeMovements)
      for (const { id: before } of chanter.notes)
        for (const { id: after } of chanter.notes) {
          const compiled = compileMovement(chanter, movement, before, after);
          const all = movementEvents(chanter, compiled);
          if (compiled.kind === 'unplayable') {
            expect(all).toEqual([]);
            continue;
          }
          let pattern = chartedPattern(chanter, before);
          for (const { finger, isDown } of all) pattern = pattern.map((coverage, hole) => (chanter.holes[hole].finger === finger ? Number(isDown) : coverage));
          expect(patternKey(pattern)).toBe(patternKey(chartedPattern(chanter, after)));
          all.slice(1).forEach((event, index) => {
            expect(event.group - all[index].group).toBeGreaterThanOrEqual(0);
            expect(event.group - all[index].group).toBeLessThanOrEqual(1);
            if (event.group > all[index].group) expect(event.ms).toBeGreaterThan(all[index].ms);
            else expect(event.ms).toBe(all[index].ms);
          });
        }
  });

  it('shares of time add up to the whole (property)', () => {
    for (const movement of pipeMovements) {
      const shares = sharesOf(compileMovement(chanter, movement, 'e', movement.arrivals?.[0] ?? 'c'));
      if (shares.length > 0) expect(shares.reduce((sum, each) => sum + each, 0)).toBeCloseTo(1, 9);
    }
  });
});
