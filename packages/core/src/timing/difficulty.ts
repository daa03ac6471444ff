import { loudnessAt } from '../acoustics';
import type { Change } from '../change';
import { soundingPitch, type Instrument } from '../fingering';
import { difficultyWeights as weights } from './difficulty.data';
import { inBetweenSounds, type InBetweenSound } from './in-between-sounds';
import type { ChangeRisk } from './timing-model';

/** One part of how hard a change is, with the words for it. */
export interface DifficultyTerm {
  readonly label: string;
  readonly value: number;
}

export interface Difficulty {
  readonly total: number;
  /** What it is made of, the largest first; nothing that is 0. */
  readonly terms: readonly DifficultyTerm[];
}

/**
 * How hard a change is, from its fingers and from what is heard when they do not keep together. No unit; the chanter's changes lie between 0 and about 10.
 * @param sounds of the change, where they are known already
 */
export function difficultyOf(
  instrument: Instrument,
  change: Change,
  risk: ChangeRisk,
  sounds: readonly InBetweenSound[] = inBetweenSounds(instrument, change),
): Difficulty {
  const { movers } = change;
  const lifts = movers.filter(({ direction }) => direction === 'lift').length;
  const opposed = Math.min(lifts, movers.length - lifts);
  const count = (place: string): number => movers.filter(({ finger }) => finger.endsWith(place)).length;
  const terms = [
    { label: movers.length === 1 ? 'one finger moves' : `${movers.length} fingers move`, value: weights.mover * movers.length },
    { label: 'some lift while others land', value: opposed > 0 ? weights.opposition + weights.opposed * (opposed - 1) : 0 },
    { label: 'both hands move', value: change.hands === 'both' ? weights.bothHands : 0 },
    { label: 'a ring finger moves', value: weights.ringFinger * count('3') },
    { label: 'a little finger moves', value: weights.littleFinger * count('4') },
    { label: 'ring and little finger of one hand go opposite ways', value: isCoupled(change) ? weights.coupled : 0 },
    { label: 'a low note cuts in', value: weights.low * risk.low.probability * (1 + weights.lowLoudness * louderBy(instrument, change, sounds)) },
    { label: 'notes in between slip in', value: weights.run * risk.run.probability },
    { label: 'a gap is heard', value: weights.overOpen * risk['over-open'].probability },
    { label: 'another sound in between', value: weights.between * (risk.between.probability + risk.above.probability) },
  ].filter(({ value }) => value > 0.005);
  return { total: terms.reduce((sum, { value }) => sum + value, 0), terms: [...terms].sort((one, other) => other.value - one.value) };
}

function isCoupled({ movers }: Change): boolean {
  const ofHand = (place: string): readonly { hand: string; direction: string }[] => movers.filter(({ finger }) => finger.endsWith(place));
  return ofHand('3').some((ring) => ofHand('4').some((little) => little.hand === ring.hand && little.direction !== ring.direction));
}

/** By how many dB the loudest low sound is over the louder of the two notes; 0 where no loudness is reported. */
function louderBy(instrument: Instrument, change: Change, sounds: readonly InBetweenSound[]): number {
  const level = (hertz: number): number => loudnessAt(instrument, hertz) ?? 0;
  const ends = Math.max(level(soundingPitch(instrument, change.from)), level(soundingPitch(instrument, change.to)));
  const lows = sounds.filter(({ kind }, mask, all) => kind === 'low' && mask > 0 && mask < all.length - 1);
  return lows.length === 0 ? 0 : Math.max(0, Math.max(...lows.map(({ hertz }) => level(hertz))) - ends);
}
