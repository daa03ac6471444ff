import type { Change } from '../change';
import { fingerCoverage, withFingers, type FingerId, type GraceNoteRule, type Instrument } from '../fingering';
import { ChangeEar, inBetweenSounds, soundClasses, type InBetweenSound, type SoundClass } from './in-between-sounds';
import { eachStep, audibleMs, HandNoise, type ChangeRisk, type TimingParameters } from './timing-model';

/** What covers a change up: a grace note whose finger is off while the others move, or the tongue. */
export type Hiding =
  { readonly kind: 'grace-note'; readonly opens: readonly FingerId[]; readonly lengthMs: number } | { readonly kind: 'tongue'; readonly lengthMs: number };

/** The risk of a change that something covers up, and how often it covers all of it. */
export interface HiddenRisk {
  /** Of what is heard before the cover begins and after it ends. */
  readonly risk: ChangeRisk;
  /** Probability that every finger moves under the cover. */
  readonly covered: number;
  /** Mean length of the sounds between that the cover takes away, in ms. */
  readonly hiddenMs: number;
}

/**
 * Single grace notes that can cover a change up: allowed on both notes, and their fingers lie on the wood before and after, so that they are no movers.
 * The lowest of them first, as the table has them.
 */
export function graceNotesOver(instrument: Instrument, change: Change): readonly GraceNoteRule[] {
  const lies = (finger: FingerId): boolean => [change.fromPattern, change.toPattern].every((pattern) => fingerCoverage(instrument, pattern, finger) === 1);
  return instrument.graceNotes.filter(({ on, opens }) => on.includes(change.from) && on.includes(change.to) && opens.every(lies));
}

/** Every pattern of a change while a grace note's fingers are off, by the mask of the movers: what masks the change. */
export function soundsUnder(instrument: Instrument, change: Change, opens: readonly FingerId[]): readonly InBetweenSound[] {
  const ear = new ChangeEar(instrument, change);
  return inBetweenSounds(instrument, change).map(({ pattern }) => ear.sound(withFingers(instrument, pattern, opens, 0)));
}

/**
 * The risk of a change under a grace note or the tongue by simulation: the cover is meant to begin half its length before the fingers move and to end half
 * its length after. A grace note's finger strays as its hand does; the tongue strays by itself.
 * @param draws how many; 20 000 give a probability within about 0.007
 * @throws ZelpitFault `out-of-range` as `simulatedRisk` does
 */
export function hiddenRisk(
  instrument: Instrument,
  change: Change,
  hiding: Hiding,
  parameters: TimingParameters,
  draws: number,
  normal: () => number,
  sounds: readonly InBetweenSound[] = inBetweenSounds(instrument, change),
): HiddenRisk {
  const classAt = sounds.map(({ kind }) => soundClasses.indexOf(kind));
  const [counts, totals] = [new Float64Array(soundClasses.length), new Float64Array(soundClasses.length)];
  const inDraw = new Float64Array(soundClasses.length);
  const noise = new HandNoise(change.movers, parameters);
  const coverNoise = coverDeviations(instrument, hiding, parameters);
  const half = hiding.lengthMs / 2;
  let [covered, hiddenMs] = [0, 0];
  for (let draw = 0; draw < draws; draw += 1) {
    const moments = noise.draw(normal);
    const shared = coverNoise.hand === undefined ? 0 : noise.sharedOf(coverNoise.hand);
    const from = -half + coverNoise.common * shared + coverNoise.own * normal();
    const to = half + coverNoise.common * shared + coverNoise.own * normal();
    inDraw.fill(0);
    eachStep(moments, (mask, begin, end) => {
      const hidden = Math.max(0, Math.min(end, to) - Math.max(begin, from));
      hiddenMs += hidden;
      inDraw[classAt[mask]] += end - begin - hidden;
    });
    if (moments.every((moment) => moment >= from && moment <= to)) covered += 1;
    for (let kind = 0; kind < inDraw.length; kind += 1) {
      totals[kind] += inDraw[kind];
      if (inDraw[kind] > audibleMs) counts[kind] += 1;
    }
  }
  const entries = soundClasses.map((kind, index) => [kind, { probability: counts[index] / draws, meanMs: totals[index] / draws }] as const);
  return { risk: Object.fromEntries(entries) as Record<SoundClass, ChangeRisk[SoundClass]>, covered: covered / draws, hiddenMs: hiddenMs / draws };
}

interface CoverDeviations {
  readonly hand: 'left' | 'right' | undefined;
  /** What the cover shares with its hand, and what is its own, as factors of numbers of deviation 1. */
  readonly common: number;
  readonly own: number;
}

function coverDeviations(instrument: Instrument, hiding: Hiding, { sigma, sigmaOf = {}, rho }: TimingParameters): CoverDeviations {
  if (hiding.kind === 'tongue') return { hand: undefined, common: 0, own: sigma };
  const finger = instrument.fingers.find(({ id }) => id === hiding.opens[0]);
  const deviation = sigmaOf[hiding.opens[0]] ?? sigma;
  return { hand: finger?.hand, common: deviation * Math.sqrt(rho), own: deviation * Math.sqrt(1 - rho) };
}
