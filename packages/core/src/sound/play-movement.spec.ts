import { instrumentById, practiceChanter as chanter } from '../fingering';
import { compileMovement, compileOrnament, innerChanges, movementById } from '../movement';
import { levels, RiskTable } from '../timing';
import { movementTimeline, ornamentTimeline, type MovementFault } from '.';

const taorluath = compileMovement(chanter, movementById('taorluath'), 'e', 'low-a');
const play = (fault?: MovementFault, slower = 1) => movementTimeline(chanter, taorluath, { pace: { graceMs: 50, lowTimes: 1.5 }, noteMs: 400, slower, fault });

describe('movementTimeline', () => {
  it('has the note before, every step and the theme note, one after another', () => {
    const { steps, length } = play();
    expect(steps).toHaveLength(6);
    steps.slice(1).forEach((step, index) => expect(step.start).toBeCloseTo(steps[index].start + steps[index].length, 9));
    expect(length).toBe(400 + 250 + 400);
    expect(play(undefined, 20).length).toBe(20 * length);
  });

  it('leaves an element out, doubles it, or holds it too long', () => {
    expect(play({ kind: 'missing', element: 1 }).steps).toHaveLength(5);
    expect(play({ kind: 'extra', element: 1 }).steps).toHaveLength(8);
    expect(play({ kind: 'uneven', element: 1 }).steps[2].length).toBe(150);
  });

  it('lets low A be heard before the E grace note', () => {
    const inner = innerChanges(new RiskTable(chanter, levels.learner, 500), taorluath).find(({ to }) => to === 3)!;
    const { steps } = play({ kind: 'noise', inner });
    const noise = steps.find(({ role }) => role === 'fault')!;
    expect(noise.pattern).toEqual(chanter.fingerings.find(({ note }) => note === 'low-a')!.pattern);
    expect(noise.length).toBe(25);
  });

  it('is silent where the movement cannot be played', () => {
    const none = compileMovement(chanter, movementById('tap'), 'e', 'low-g');
    expect(movementTimeline(chanter, none, { pace: { graceMs: 50, lowTimes: 1.5 }, noteMs: 400, slower: 1 }).steps).toEqual([]);
  });
});

describe('ornamentTimeline', () => {
  it('sounds a roll over its eighths, and nothing where it cannot be played', () => {
    const whistle = instrumentById('whistle-d');
    const { steps, length } = ornamentTimeline(whistle, 'e5', compileOrnament(whistle, 'long-roll', 'e5'), 250, 2);
    expect(length).toBe(1500);
    expect(steps.map(({ role }) => role)).toEqual(['theme', 'grace', 'theme', 'grace', 'theme']);
    expect(steps.every(({ register }) => register === 1)).toBe(true);
    expect(ornamentTimeline(whistle, 'd5', compileOrnament(whistle, 'long-roll', 'd5'), 250).steps).toEqual([]);
  });
});
