import { heardFrom } from '../acoustics';
import { chartedPattern, instrumentById, pattern } from '../fingering';
import { adviceFor, changeBetween, outcomesOf, troubleOf } from '.';

const whistle = instrumentById('whistle-d');
const recorder = instrumentById('recorder-soprano-baroque');

describe('the second register of a flue', () => {
  it('gives the same fingers another note', () => {
    const fingers = chartedPattern(whistle, 'g5');
    expect(heardFrom(whistle, fingers, { register: 1 })).toMatchObject({ kind: 'charted', note: 'g5' });
    expect(heardFrom(whistle, fingers, { register: 2 })).toMatchObject({ kind: 'charted', note: 'g6' });
  });

  it('sounds in it between its notes: a late finger from high B to high G gives no low note', () => {
    const { heard } = outcomesOf(whistle, changeBetween(whistle, 'b6', 'fs6')).wrongOrder[0];
    expect(heard.pitch).toBeGreaterThan(1000);
    const low = outcomesOf(whistle, changeBetween(whistle, 'b5', 'fs5')).wrongOrder[0];
    expect(low.heard.pitch).toBeLessThan(1000);
  });

  it('is reached by breath alone where the fingers are the same', () => {
    const change = changeBetween(whistle, 'e5', 'e6');
    expect(change.kind).toBe('none');
    expect(adviceFor(whistle, change, troubleOf(whistle, change)).todo).toBe('The same fingers; only the breath changes.');
  });

  it('of a pattern that no chart has is the model’s second resonance', () => {
    const heard = heardFrom(whistle, pattern('XXX OXO'), { register: 2 });
    expect(heard.kind).toBe('coloured');
    expect(heard.pitch / heardFrom(whistle, pattern('XXX OXO'), { register: 1 }).pitch).toBeGreaterThan(1.8);
  });

  it('of the recorder keeps the pinched notes apart from the low ones', () => {
    expect(heardFrom(recorder, chartedPattern(recorder, 'e6'), { register: 2 }).note).toBe('e6');
    expect(changeBetween(recorder, 'e6', 'g6').register).toBe(2);
  });
});
