import type { Instrument, Pattern } from './instrument';
import { coverOf } from './pattern';

/**
 * Whether two fingerings of two instruments are the same to play: the same fingers on and off their own holes, and the same of what shares a finger with
 * another hole. Where all of those are open, or all covered, it makes no difference beside which finger they lie.
 */
export function isSameToPlay(one: Instrument, first: Pattern, other: Instrument, second: Pattern): boolean {
  return actionOf(one, first) === actionOf(other, second);
}

function actionOf({ holes }: Instrument, pattern: Pattern): string {
  const hasOwnHole = (finger: string): boolean => holes.some(({ id }) => id === finger);
  const covers = holes.map(({ id, finger }, hole) => ({ id, finger, isOwn: id === finger || !hasOwnHole(finger), cover: coverOf(pattern[hole]) }));
  const own = covers.filter(({ isOwn }) => isOwn).map(({ id, finger, cover }) => `${id} ${finger} ${cover}`);
  const shared = covers.filter(({ isOwn }) => !isOwn);
  const isAllAlike = shared.every(({ cover }) => cover === shared[0].cover);
  const said = isAllAlike ? [`${shared.length} ${shared[0]?.cover ?? ''}`] : shared.map(({ finger, cover }) => `${finger} beside ${cover}`).sort();
  return [...own, ...said].join(', ');
}
