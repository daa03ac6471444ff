import { instrumentById, practiceChanter as chanter } from '../fingering';
import { movementFromWritten, readWrittenForm, usualMovementSettings } from '../movement';
import { proofreadMovement } from '.';

const text = (line: string): string | undefined => {
  const proof = proofreadMovement(chanter, line);
  return proof === undefined ? undefined : `${proof.kind}: ${proof.text}`;
};

describe('lines about movements', () => {
  it.each([
    ['C doubling: G grace note to C, D grace note to C', 'right: Right: {gcd}c.'],
    ['doubling on C: G grace note to C, D grace note to C', 'right: Right: {gcd}c.'],
    ['C doubling from high G: thumb grace note to C, D grace note to C', 'right: Right: {acd}c.'],
    ['taorluath to low A: low G, D grace note to low G, E grace note to low A', 'right: Right: {GdGe}A.'],
    ['{GdGe}A', 'right: Right: taorluath to low A.'],
    ['{GBGe}A from D', 'right: Right: taorluath to low A.'],
    ['{gcd}c from E', 'right: Right: doubling to C.'],
  ])('%s is %s', (line, expected) => {
    expect(text(line)).toBe(expected);
  });

  it.each([
    ['{GdGe}A from D', /^wrong: The taorluath from D is \{GBGe\}A\. After D the grace note inside is B\.$/],
    ['{gcd}c from high G', /^wrong: The doubling from high G is \{acd\}c\. The index finger is up/],
    ['C doubling: G grace note to C, E grace note to C', /^wrong: Element 3 is the D grace note, not E: \{gcd\}c\.$/],
    ['C doubling: G grace note to C, D grace note to B', /^wrong: It ends on C, not B/],
    ['C doubling: G grace note to C', /^wrong: Element 3 is the D grace note, not nothing/],
    ['taorluath to E: low G', /^wrong: The taorluath can only end on low A, B, C, not on E\.$/],
    ['{GdGd}A from E', /^wrong: Not a known movement\. The nearest is the taorluath, \{GdGe\}A: element 4 is D, not E\.$/],
    ['{BcBcBcBc}A', /^wrong: No known movement is written like this\.$/],
    ['C doubling: something odd', /^wrong: One part cannot be read/],
    ['{gcd}c from Zed', /not one note/],
  ])('%s is found wrong, and why', (line, expected) => {
    expect(text(line)).toMatch(expected);
  });

  it.each(['E: thumb 1 2 3 4 5', 'lift the ring finger', '', 'B: like A with 2 off', 'nonsense'])('leaves “%s” to the proofreader of charts', (line) => {
    expect(text(line)).toBeUndefined();
  });

  it('knows the studio’s own movements and how it plays', () => {
    const own = [
      movementFromWritten(
        chanter,
        readWrittenForm(chanter, '{gdce}c'),
        'e',
        { id: 'stair-step', name: 'stair step', arrives: 'everywhere' },
        usualMovementSettings,
      ),
    ];
    const studio = { own, settings: { ...usualMovementSettings, fromLowest: 'full' as const } };
    expect(proofreadMovement(chanter, '{gdce}c from E', studio)?.text).toBe('Right: stair step to C.');
    expect(proofreadMovement(chanter, '{gdce}c from E')?.kind).toBe('wrong');
    expect(proofreadMovement(chanter, '{GdG}A from low G', studio)?.kind).toBe('right');
    expect(proofreadMovement(chanter, '{GdG}A from low G')?.kind).toBe('wrong');
  });

  it('has nothing to say for an instrument without movements', () => {
    expect(proofreadMovement(instrumentById('whistle-d'), '{GdGe}A')).toBeUndefined();
  });
});
