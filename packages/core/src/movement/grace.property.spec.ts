import * as fc from 'fast-check';
import { chartedPattern, fingerCoverage, practiceChanter as chanter } from '../fingering';
import { graceNoteRule, graceSteps, hidingGraceNote } from '.';

const ids = chanter.notes.map((note) => note.id);
const nearerTheFace = (finger: string): readonly string[] => {
  const order = chanter.fingers.map(({ id }) => id);
  return order.slice(0, order.indexOf(finger));
};

describe('the table of single grace notes', () => {
  const rows = chanter.graceNotes.flatMap((rule) => rule.on.map((theme) => [rule.name, theme, rule] as const));

  it.each(rows)('%s on %s: its leading finger and all nearer the face are down on the theme note', (_, theme, rule) => {
    // Of two fingers the leading one must be down: the C grace note on B finds the ring finger up already.
    const [leading] = rule.opens;
    for (const finger of [...nearerTheFace(leading), leading])
      expect([finger, fingerCoverage(chanter, chartedPattern(chanter, theme), finger)]).toEqual([finger, 1]);
  });

  it.each(rows)('%s on %s opens its own fingers and moves no other', (_, theme, rule) => {
    const [step] = graceSteps(chanter, [rule.written], theme);
    expect(step.fingers).toEqual(rule.opens);
    for (const { id } of chanter.fingers) {
      const was = fingerCoverage(chanter, chartedPattern(chanter, theme), id);
      expect(fingerCoverage(chanter, step.pattern, id)).toBe(rule.opens.includes(id) ? 0 : was);
    }
  });

  it('has no rule for a letter at or below the theme note', () => {
    for (const theme of ids) {
      for (const written of ids.slice(0, ids.indexOf(theme) + 1)) expect(graceNoteRule(chanter, written, theme)).toBeUndefined();
    }
  });
});

describe('any group of letters', () => {
  const group = fc.array(fc.constantFrom(...ids), { maxLength: 6 });

  it('gives one step a letter, in their order, each a whole pattern of the instrument', () => {
    fc.assert(
      fc.property(group, fc.constantFrom(...ids), (letters, theme) => {
        const steps = graceSteps(chanter, letters, theme);
        expect(steps.map((step) => step.written)).toEqual(letters);
        for (const { pattern } of steps) expect(pattern).toHaveLength(chanter.holes.length);
      }),
    );
  });

  it('hides a change only behind a finger that is down before and lifts, and is no mover of its own', () => {
    fc.assert(
      fc.property(group, fc.constantFrom(...ids), fc.constantFrom(...ids), (letters, before, theme) => {
        const hiding = hidingGraceNote(chanter, before, graceSteps(chanter, letters, theme));
        if (hiding === undefined) return;
        expect(hiding.kind).toBe('lifting');
        for (const finger of hiding.fingers) expect(fingerCoverage(chanter, chartedPattern(chanter, before), finger)).toBe(1);
      }),
    );
  });
});
