import { changeBetween } from '@zelpit/core/change';
import { instruments } from '@zelpit/core/fingering';
import { canBeSensed } from '@zelpit/core/playing';
import { pairFrom } from './pair-chooser.component';

describe('pairFrom', () => {
  it('takes the notes of the address where the instrument has both, and they differ', () => {
    const [chanter] = instruments;
    expect(pairFrom(chanter, 'c', 'e')).toEqual({ from: 'c', to: 'e' });
    expect(pairFrom(chanter, 'c', 'c')).not.toEqual({ from: 'c', to: 'c' });
    expect(pairFrom(chanter, 'c', 'nonsense').to).not.toBe('nonsense');
  });

  it('begins with B to E on the chanter: two fingers change places and low A cuts in', () => {
    expect(pairFrom(instruments[0], undefined, undefined)).toEqual({ from: 'b', to: 'e' });
  });

  it('else begins with two fingers or more that keys can tell, on every instrument', () => {
    for (const instrument of instruments) {
      const { from, to } = pairFrom(instrument, undefined, undefined);
      const { movers, fromPattern, toPattern } = changeBetween(instrument, from, to);
      expect([instrument.id, movers.length > 1, canBeSensed(fromPattern, toPattern)]).toEqual([instrument.id, true, true]);
    }
  });
});
