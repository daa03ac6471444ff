import { practiceChanter as chanter } from '../fingering';
import { compileMovement, movementById, movementHints, movementSupport, pipeMovements } from '.';

const hints = (id: string, after: string | null) => movementHints(chanter, movementById(id), after);

describe('what is said with a movement', () => {
  it('names its note: two solid grace notes on C', () => {
    expect(hints('doubling', 'c').listen).toMatch(/^Two solid grace notes on C,/);
    expect(hints('doubling', null).listen).toMatch(/^Two solid grace notes on each note,/);
    expect(hints('doubling', 'high-g').listen).toMatch(/^One solid grace note/);
  });

  it.each([
    ['strike', 'c', /right middle finger is held higher than the ring/],
    ['strike', 'd', /index finger is held highest/],
    ['tap', 'e', /little finger above the chanter, or below/],
    ['taorluath', 'low-a', /Right little and left ring leave the last low G together/],
  ])('%s on %s', (id, after, text) => {
    expect(hints(id, after).physical).toMatch(text);
  });

  it('every movement on every note that it allows has both', () => {
    for (const movement of pipeMovements)
      for (const { id } of chanter.notes) {
        const { listen, physical } = movementHints(chanter, movement, id);
        expect(`${listen}${physical}`).not.toContain('{');
        expect(Math.min(listen.length, physical.length)).toBeGreaterThan(10);
      }
  });

  it('a definition’s own words come first', () => {
    const own = { ...movementById('grip'), listen: 'A knock on {note}.', hint: 'Soft arm.' };
    expect(movementHints(chanter, own, 'e')).toEqual({ listen: 'A knock on E.', physical: 'Soft arm.' });
  });
});

describe('support', () => {
  const support = (id: string, before: string, after: string) => movementSupport(chanter, compileMovement(chanter, movementById(id), before, after));

  it('is said where a movement frees nearly all fingers, as at the change', () => {
    expect(support('doubling', 'high-g', 'c')).toMatch(/^No finger is left to hold the instrument\. Rest the foot of the chanter on a table/);
    expect(support('grace-note', 'high-g', 'c')).toMatch(/^One finger alone hardly holds the instrument\./);
  });

  it('is not said where the hand holds it', () => {
    expect(support('grip', 'low-a', 'b')).toBeUndefined();
    expect(support('light-throw', 'e', 'd')).toBeUndefined();
  });
});
