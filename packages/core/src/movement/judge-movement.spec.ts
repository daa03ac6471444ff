import { chartedPattern, practiceChanter as chanter, withFingers, type Pattern } from '../fingering';
import type { FingerEvent } from '../playing';
import { compileMovement, judgeMovement, movementById, timedSteps, type CompiledMovement } from '.';

const taorluath = compileMovement(chanter, movementById('taorluath'), 'e', 'low-a');

/** Finger events of patterns that stand for so long each, all fingers of a change at once. */
function eventsThrough(patterns: readonly (readonly [Pattern, number])[]): readonly FingerEvent[] {
  const events: FingerEvent[] = [];
  let ms = 0;
  patterns.slice(1).forEach(([pattern], index) => {
    const [before, length] = patterns[index];
    ms += length;
    pattern.forEach((coverage, hole) => {
      if (coverage !== before[hole]) events.push({ finger: chanter.holes[hole].finger, isDown: coverage > 0, ms });
    });
  });
  return events;
}

const E = chartedPattern(chanter, 'e');
const A = chartedPattern(chanter, 'low-a');
const stepsOf = (movement: CompiledMovement) => timedSteps(movement).map(({ pattern, lengthMs }) => [pattern, lengthMs] as const);
const played = (change: (steps: (readonly [Pattern, number])[]) => (readonly [Pattern, number])[] = (steps) => steps, speed = 1) =>
  judgeMovement(
    chanter,
    taorluath,
    eventsThrough([[E, 400], ...change([...stepsOf(taorluath)]).map(([pattern, ms]) => [pattern, ms / speed] as const), [A, 400]]),
  );

describe('judgeMovement', () => {
  it('finds a taorluath clean at any speed', () => {
    expect(played()).toMatchObject({ isClean: true, strays: [], totalMs: 300 });
    expect(played(undefined, 0.4)).toMatchObject({ isClean: true, totalMs: 750 });
  });

  it('names the element that is missing', () => {
    const judged = played((steps) => steps.filter((_, index) => index !== 1))!;
    expect(judged.isClean).toBe(false);
    expect(judged.elements.filter(({ verdict }) => verdict === 'missing').map(({ index }) => index)).toEqual([1]);
  });

  it('names what is too long', () => {
    const judged = played((steps) => steps.map(([pattern, ms], index) => [pattern, index === 2 ? 5 * ms : ms]))!;
    expect(judged.elements[2].verdict).toBe('too-long');
  });

  it('hears low A before the E grace note, in ms', () => {
    const judged = played((steps) => [...steps.slice(0, 3), [A, 25], ...steps.slice(3)])!;
    expect(judged.strays).toEqual([{ note: 'low-a', ms: 25, before: 3, isExtra: true }]);
    const brief = played((steps) => [...steps.slice(0, 3), [chartedPattern(chanter, 'b'), 8], ...steps.slice(3)])!;
    expect(brief.strays).toEqual([]);
  });

  it('counts an element that was played twice', () => {
    const judged = played((steps) => [steps[0], steps[1], steps[0], steps[1], ...steps.slice(2)])!;
    expect(judged.strays.some(({ isExtra }) => isExtra)).toBe(true);
    expect(judged.isClean).toBe(false);
  });

  it('says nothing before the theme note is reached, and nothing of what cannot be played', () => {
    expect(judgeMovement(chanter, taorluath, [])).toBeUndefined();
    expect(judgeMovement(chanter, taorluath, [{ finger: 'L1', isDown: false, ms: 0 }])).toBeUndefined();
    const bare = judgeMovement(chanter, taorluath, [{ finger: 'L3', isDown: true, ms: 0 }])!;
    expect(bare.elements.every(({ verdict }) => verdict === 'missing')).toBe(true);
    expect(judgeMovement(chanter, compileMovement(chanter, movementById('tap'), 'e', 'low-g'), [{ finger: 'L3', isDown: true, ms: 0 }])).toBeUndefined();
  });

  it('hears a strike that started before the grace note had ended, in ms', () => {
    const strike = compileMovement(chanter, movementById('strike'), 'e', 'c');
    const [opener, , tap] = stepsOf(strike);
    const both = withFingers(chanter, tap[0], ['L1'], 0);
    const C = chartedPattern(chanter, 'c');
    const judged = judgeMovement(chanter, strike, eventsThrough([[E, 400], opener, [both, 30], [tap[0], 30], [C, 400]]))!;
    expect(judged.strays).toEqual([{ note: expect.any(String), ms: 30, before: 2, isExtra: false, overlaps: 2 }]);
    expect(judged.elements[1].verdict).toBe('missing');
  });
});
