import { chartedPattern, instrumentById, practiceChanter as chanter } from '../fingering';
import { compileMovement, compileOrnament, innerChanges, movementById } from '../movement';
import { levels, RiskTable } from '../timing';
import { movementOnClick, movementTimeline, ornamentTimeline, type MovementFault } from '.';

const taorluath = compileMovement(chanter, movementById('taorluath'), 'e', 'low-a');
const play = (fault?: MovementFault, slower = 1) =>
  movementTimeline(chanter, taorluath, { pace: { graceMs: 50, lowTimes: 1.5, evenTimes: 2 }, noteMs: 400, slower, fault });

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
    expect(movementTimeline(chanter, none, { pace: { graceMs: 50, lowTimes: 1.5, evenTimes: 2 }, noteMs: 400, slower: 1 }).steps).toEqual([]);
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

describe('faults of a strike', () => {
  const strike = compileMovement(chanter, movementById('strike'), 'e', 'c');
  const pace = { graceMs: 50, lowTimes: 1.5, evenTimes: 2 };
  const steps = (fault?: MovementFault) => movementTimeline(chanter, strike, { pace, noteMs: 400, slower: 1, fault }).steps;
  const open = (pattern: readonly number[], finger: string): boolean => pattern[chanter.holes.findIndex((hole) => hole.finger === finger)] === 0;

  it('struck starts before the grace note ends: both fingers are away from where they lie', () => {
    const fault = steps({ kind: 'overlap', element: 2 }).find(({ role }) => role === 'fault');
    expect(fault).toBeDefined();
    expect(open(fault?.pattern ?? [], 'L1')).toBe(true);
    expect(open(fault?.pattern ?? [], 'R2')).toBe(false);
    expect(steps().some(({ role }) => role === 'fault')).toBe(false);
  });

  it('a tap too light hardly covers the hole, one too long becomes a note', () => {
    const tapMs = (fault?: MovementFault): number => steps(fault).at(-2)?.length ?? 0;
    expect([tapMs(), tapMs({ kind: 'light-tap', element: 2 }), tapMs({ kind: 'long-tap', element: 2 })]).toEqual([50, 8, 200]);
  });
});

describe('on the click', () => {
  const pace = { graceMs: 50, lowTimes: 1.5, evenTimes: 2 };
  const onClick = (beat: 'first' | 'theme' | 'first-low', tempo = 60) => movementOnClick(chanter, taorluath, { pace, tempo, beat, times: 3 });

  it('four clicks, then note and movement by turns, without a gap, and nothing after the last beat', () => {
    const { steps, clicks, length } = onClick('first');
    expect(clicks.filter(({ isCountIn }) => isCountIn)).toHaveLength(4);
    expect(clicks).toHaveLength(10);
    expect(steps[0].start).toBe(4000);
    steps.slice(1).forEach((step, index) => expect(step.start).toBeCloseTo(steps[index].start + steps[index].length, 6));
    expect(steps[steps.length - 1].start + steps[steps.length - 1].length).toBeCloseTo(length, 6);
  });

  it('the beat falls where it is set: on the first element, or on the theme note', () => {
    const low = chartedPattern(chanter, 'low-g');
    const lowA = chartedPattern(chanter, 'low-a');
    expect(onClick('first').steps.find(({ pattern }) => pattern.join() === low.join())?.start).toBe(5000);
    expect(onClick('theme').steps.find(({ pattern, role }) => role === 'theme' && pattern.join() === lowA.join())?.start).toBeCloseTo(5000, 6);
  });

  it('where a beat is too short for it nothing is played', () => {
    expect(onClick('first', 250).steps).toEqual([]);
  });
});
