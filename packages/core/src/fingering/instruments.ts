import { ZelpitFault } from '../fault';
import type { Instrument } from './instrument';
import { irishChanter } from './irish-chanter.data';
import { ocarinas } from './ocarinas.data';
import { pipeChanter, practiceChanter } from './practice-chanter.data';
import { recorders } from './recorders.data';
import { whistles } from './whistles.data';

/** Every built-in instrument. */
export const instruments: readonly Instrument[] = [practiceChanter, pipeChanter, irishChanter, ...whistles, ...recorders, ...ocarinas];

/** @throws ZelpitFault `invalid-instrument` where there is none of that name */
export function instrumentById(id: string): Instrument {
  const found = instruments.find((instrument) => instrument.id === id);
  if (found === undefined) throw new ZelpitFault('invalid-instrument', `There is no instrument "${id}".`, { id });
  return found;
}
