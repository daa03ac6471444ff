import type { Arrangement } from '@zelpit/contract';
import { arrangedTune, arrangementText } from '@zelpit/core/arrange';
import { PathCosts } from '@zelpit/core/timing';
import { pathOfTune } from '@zelpit/core/tune';
import type { OpenedTune } from './tunes.service';

type Played = Pick<OpenedTune, 'instrument' | 'tune' | 'path' | 'articulation' | 'pins'>;

/**
 * A tune as a student plays it, its decorated notes in full: who shows layers side by side begins there.
 * Its changes are still those of the tune as written.
 */
export function asPlayed<Opened extends Played>(opened: Opened, arrangement: Arrangement): Opened {
  const inFull = { ...arrangement, layers: {} };
  if (arrangementText(inFull) === 'as written') return opened;
  const tune = arrangedTune(opened.instrument, opened.tune, inFull);
  return { ...opened, tune, path: pathOfTune(new PathCosts(opened.instrument), tune, opened.articulation, opened.pins) };
}

/** True where the notes themselves are others than are written, so that what a teacher wrote of them does not hold. */
export const hasOtherNotes = ({ semitones, folds, instead }: Arrangement): boolean => semitones !== 0 || folds.length > 0 || Object.keys(instead).length > 0;
