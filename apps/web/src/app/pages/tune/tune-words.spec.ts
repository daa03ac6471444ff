import { instrumentById } from '@zelpit/core/fingering';
import { changesOfTune, readTune, type TuneChange } from '@zelpit/core/tune';
import { changeFacts } from './change-facts';
import { changeGroups } from './change-groups';

const chanter = instrumentById('practice-chanter');
const changes = (music: string) => changesOfTune(chanter, readTune(chanter, `X:1\nT:t\nM:4/4\nL:1/4\nK:HP\n${music}\n`)).open;
const find = (list: readonly TuneChange[], id: string): TuneChange => list.find((each) => each.id === id) as TuneChange;

describe('changeFacts', () => {
  it('names the change, its kind, where it happens, who leads and what is heard', () => {
    const facts = changeFacts(chanter, find(changes('c e c e|A A A A|c e A A|'), 'c>e'));
    expect(facts.name).toBe('C to E');
    expect(facts.kind).toBe('cross across both hands');
    expect(facts.count).toBe('3 times: bars 1 3');
    expect(facts.places.map((each) => each.text)).toEqual(['bar 1, beat 2', 'bar 1, beat 4', 'bar 3, beat 2']);
    expect(facts.movers).toBe('Lifting: L ring first, R little. Landing: R ring first, R middle.');
    expect(facts.heard).toContainEqual({ how: 'lands early', text: 'low G' });
  });

  it('says nothing of a leader where one finger moves alone', () => {
    expect(changeFacts(chanter, find(changes('c d c d|'), 'c>d'))).toMatchObject({ movers: 'Lifting: R index.', heard: [] });
  });
});

describe('changeGroups', () => {
  const all = changes('A c A d|B e B f|c e c f|d e d g|c a d a|B a A a|e f e g|G A B c|');
  const groups = changeGroups(chanter, all);

  it('go by what is heard, worst first, and keep the rank over all', () => {
    expect(groups.map((group) => group.title).slice(0, 2)).toEqual(['Low G cuts in', 'Low A cuts in']);
    expect(groups[groups.length - 1].title).toBe('Nothing cuts in');
    expect(groups.flatMap((group) => group.changes.map((each) => each.rank))).toEqual(all.map((_, index) => index + 1));
  });
});
