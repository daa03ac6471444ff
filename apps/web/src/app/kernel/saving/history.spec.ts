import { edited, redone, startHistory, undone } from './history';

describe('the history of a document', () => {
  const typed = edited(edited(startHistory('a'), 'b', 'the title', false), 'c', 'the note', false);

  it('goes back and on again step by step, and says what each step changes', () => {
    const back = undone(typed);
    expect([back.present, back.future[0].label]).toEqual(['b', 'the note']);
    expect(undone(back).present).toBe('a');
    expect(redone(redone(undone(back)))).toEqual(typed);
  });

  it('stays where it is at either end', () => {
    expect(undone(startHistory('a'))).toEqual(startHistory('a'));
    expect(redone(typed)).toEqual(typed);
  });

  it('joins typing in one field to one step, and forgets what was ahead', () => {
    const joined = edited(edited(typed, 'cd', 'the note', true), 'cde', 'the note', true);
    expect(undone(joined).present).toBe('b');
    expect(edited(undone(typed), 'x', 'the title', false).future).toEqual([]);
  });

  it('keeps 200 steps and no more', () => {
    let history = startHistory(0);
    for (let step = 1; step <= 300; step += 1) history = edited(history, step, 'a number', false);
    expect(history.past).toHaveLength(200);
    expect(history.past[0].draft).toBe(100);
  });
});
