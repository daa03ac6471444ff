import { instrumentById, practiceChanter as chanter } from '../fingering';
import { adviceFor, changeBetween, hintsFor, troubleOf, type Hints } from '.';

function hints(id: string, from: string, to: string): Hints {
  const instrument = instrumentById(id);
  const change = changeBetween(instrument, from, to);
  return hintsFor(instrument, change, troubleOf(instrument, change));
}

describe('what is said with a change', () => {
  it.each([
    ['practice-chanter', 'd', 'low-a', /forearm/],
    ['practice-chanter', 'e', 'f', /left index leaves room/],
    ['practice-chanter', 'f', 'e', /left index leaves room/],
    ['practice-chanter', 'c', 'e', /mirror in front of you, later from the side/],
    ['practice-chanter', 'f', 'high-a', /arm on the bag/],
    ['practice-chanter', 'low-g', 'low-a', /splint.*guardian.*clinician/],
    ['practice-chanter', 'low-a', 'd', /wrist/],
    ['recorder-soprano-baroque', 'c6', 'd6', /little air: it overblows easily/],
    ['recorder-alto-german', 'f5', 'g5', /little air: it overblows easily/],
    ['recorder-soprano-baroque', 'b5', 'a5', /Lips lightly round the beak.*tongue/],
    ['whistle-d', 'b5', 'a5', /Lips lightly.*tongue/],
  ])('on the %s from %s to %s', (id, from, to, text) => {
    expect(hints(id, from, to).physical).toMatch(text);
  });

  it('the ear is told what must not be there', () => {
    expect(hints('practice-chanter', 'c', 'e').listen).toBe('Listen for low G between C and E: it must not be there.');
    expect(hints('practice-chanter', 'low-a', 'high-a').listen).toMatch(/octave/);
  });

  it('every change of every instrument has something to listen for, and never the same words as the advice', () => {
    for (const { id: from } of chanter.notes)
      for (const { id: to } of chanter.notes) {
        if (from === to) continue;
        const change = changeBetween(chanter, from, to);
        const trouble = troubleOf(chanter, change);
        const { listen } = hintsFor(chanter, change, trouble);
        expect(listen).toMatch(/^Listen .*\.$/);
        expect(Object.values(adviceFor(chanter, change, trouble))).not.toContain(listen);
      }
  });
});
