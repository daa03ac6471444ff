import type { Change } from '../change';
import { soundingPitch, type FingerId, type Instrument } from '../fingering';
import { centsOfRatio } from '../pitch';
import { fewestRepetitions, fitMoments, type Estimate, type FittedTiming, type TimedChange } from '../playing';
import { inBetweenSounds, levels, normalFrom, seededRandom, type InBetweenSound } from '../timing';
import { shortestFault, surely, type BetweenNotes } from './judge-take';
import { logDensityOf, type PlayerTiming } from './moment-density';

/** A change as it was heard. */
export interface HeardMove {
  readonly change: Change;
  readonly between: readonly BetweenNotes[];
}

/** What is believed before anything is heard: a finger comes at its time, and lifts with landings, give or take so many ms. Our own choices. */
const [priorBias, priorLead] = [12, 10];
/** A finger is spoken of where its bias is known to so many ms. Our own choice. */
const toldWithin = 5;
/** How many changes what is believed of the spread weighs. Our own choice. */
const priorWeight = 3;
/** What takes longer from the first finger to the last is a slip, in ms. Our own choice. */
const longestMove = 120;
/** No finger keeps better time, in ms. Our own choice. */
const leastSpread = 2;
/** How exactly a length is heard, and what is shorter than this is not heard, in ms. */
const [lengthError, unheardMs] = [3, shortestFault + 1];
/** What sounds like the note before or after it may last; its mean where it is tried, in ms. */
const inaudibleMs = 22;
/** A pattern between two notes may be heard as a note so far from it, in cents; two that are nearer than that to each other are heard as one. Our own choices. */
const [nameWithin, oneSoundWithin] = [150, 60];
/** More fingers in one change can move in too many orders; of more changes the last ones count. */
const [mostMovers, mostMoves] = [5, 120];
/** Ways of moving that are tried for each change that was heard, rounds that are left out, and rounds that count. */
const [tries, firstRounds, rounds] = [160, 25, 60];

/**
 * How a player's fingers keep together, from nothing but the sound of changes: the pattern between two notes tells which fingers were first, its length by how much. What
 * was not heard tells something too: it was short, or it sounds like one of the notes. All orders of the fingers that agree with what was heard are weighed; the timing and the
 * moments are drawn by turns (data augmentation, Tanner and Wong 1987). Only fingers against each other: no sound tells when a hand was meant to move. Fingers of which the sounds
 * tell too little are left out.
 * @param seed the same one gives the same answer
 * @returns undefined where too few changes of two fingers and more were heard, or their sounds tell nothing of any finger
 */
export function timingOfSound(instrument: Instrument, heard: readonly HeardMove[], seed = 1): FittedTiming | undefined {
  const random = seededRandom(seed);
  const normal = normalFrom(random);
  const moves = heard.filter(isTold).slice(-mostMoves);
  const kept = moves
    .map(({ change, between }) => ({ change, ways: waysOf(instrument, change, between, { random, normal }) }))
    .filter(({ ways }) => ways.length > 0);
  if (kept.length < fewestRepetitions) return undefined;
  let timing: PlayerTiming = { bias: () => 0, sigma: () => levels.learner.sigma, lead: 0 };
  const fits: FittedTiming[] = [];
  for (let round = 0; round < firstRounds + rounds; round += 1) {
    const timed = kept.map(({ change, ways }): TimedChange => ({ change, moments: drawnWay(change, ways, timing, random) }));
    const believed = withPriors(fitMoments(timed));
    if (round >= firstRounds) fits.push(believed);
    timing = drawnTiming(believed, normal);
  }
  return together(fits);
}

/** Of a hand that stopped to think, its timing is not told. */
const isTold = ({ change: { movers }, between }: HeardMove): boolean =>
  movers.length > 1 && movers.length <= mostMovers && between.reduce((sum, { ms }) => sum + ms, 0) <= longestMove;

/** One way in which fingers may have moved. */
interface Way {
  /** In ms, the first finger at 0. */
  readonly moments: readonly number[];
  /** How much likelier than its fellows it was to be tried, as a logarithm. */
  readonly tried: number;
}

interface Chance {
  readonly random: () => number;
  readonly normal: () => number;
}

/** What sounds for a while between two notes, while so many fingers have moved. */
interface Group {
  readonly steps: number;
  readonly hertz: number;
  /** True where it cannot be told from the note beside it. */
  readonly isInaudible: boolean;
}

/** Ways of moving that sound as what was heard; none where the device lost it, or no order of the fingers explains it. */
function waysOf(instrument: Instrument, change: Change, between: readonly BetweenNotes[], chance: Chance): readonly Way[] {
  if (between.some((each) => each.isLost || (each.note !== null && !surely(each)))) return [];
  const sounds = inBetweenSounds(instrument, change);
  const explained = ordersOf(change.movers.length).flatMap((order) => {
    const groups = groupsOf(sounds, order);
    return explanationsOf(instrument, groups, between).map((lengths) => ({ order, groups, lengths }));
  });
  const each = Math.max(2, Math.ceil(tries / Math.max(1, explained.length)));
  return explained.flatMap(({ order, groups, lengths }) => Array.from({ length: each }, () => wayOf(order, groups, lengths, chance)));
}

const ordersOf = (count: number): readonly (readonly number[])[] =>
  count === 0 ? [[]] : ordersOf(count - 1).flatMap((rest) => Array.from({ length: count }, (_, at) => [...rest.slice(0, at), count - 1, ...rest.slice(at)]));

/** What one order of the fingers sounds, one thing after the other; what cannot be told from the note before it or from the next one belongs to that. */
function groupsOf(sounds: readonly InBetweenSound[], order: readonly number[]): readonly Group[] {
  const [first, last] = [sounds[0], sounds[sounds.length - 1]];
  let mask = 0;
  const steps = order.slice(0, -1).map((mover) => sounds[(mask |= 1 << mover)]);
  const lead = countWhile(steps, (sound) => isOne(sound.hertz, first.hertz));
  const tail = countWhile([...steps].reverse().slice(0, steps.length - lead), (sound) => isOne(sound.hertz, last.hertz));
  const groups: Group[] = lead > 0 ? [{ steps: lead, hertz: first.hertz, isInaudible: true }] : [];
  for (const { hertz } of steps.slice(lead, steps.length - tail)) {
    const before = groups.at(-1);
    if (before !== undefined && !before.isInaudible && isOne(before.hertz, hertz)) groups[groups.length - 1] = { ...before, steps: before.steps + 1 };
    else groups.push({ steps: 1, hertz, isInaudible: false });
  }
  return tail > 0 ? [...groups, { steps: tail, hertz: last.hertz, isInaudible: true }] : groups;
}

const countWhile = <T>(all: readonly T[], is: (each: T) => boolean): number => {
  const end = all.findIndex((each) => !is(each));
  return end < 0 ? all.length : end;
};

/** Silence is 0 Hz. */
const isOne = (one: number, other: number, within = oneSoundWithin): boolean =>
  one === 0 || other === 0 ? one === other : Math.abs(centsOfRatio(one / other)) <= within;

/** Which of the sounds of one order were heard, and for how long: all ways to lay what was heard along them. Undefined is not heard. */
function explanationsOf(instrument: Instrument, groups: readonly Group[], between: readonly BetweenNotes[]): readonly (readonly (number | undefined)[])[] {
  const [group, ...others] = groups;
  if (group === undefined) return between.length === 0 ? [[]] : [];
  const unheard = explanationsOf(instrument, others, between).map((lengths) => [undefined, ...lengths]);
  const [next, ...rest] = between;
  if (next === undefined || group.isInaudible || !isOne(group.hertz, next.note === null ? 0 : soundingPitch(instrument, next.note), nameWithin)) return unheard;
  return [...unheard, ...explanationsOf(instrument, others, rest).map((lengths) => [next.ms, ...lengths])];
}

function wayOf(order: readonly number[], groups: readonly Group[], lengths: readonly (number | undefined)[], { random, normal }: Chance): Way {
  const moments = new Array<number>(order.length).fill(0);
  let [at, tried, place] = [0, 0, 1];
  groups.forEach(({ steps, isInaudible }, index) => {
    const heard = lengths[index];
    let length = random() * unheardMs;
    if (isInaudible) {
      length = -Math.log(1 - random()) * inaudibleMs;
      tried += -length / inaudibleMs - Math.log(inaudibleMs);
    } else if (heard === undefined) tried -= Math.log(unheardMs);
    else length = Math.max(1, heard + normal() * lengthError);
    // A length that several fingers share is cut at even chance: so many cuts in it have this density.
    const cuts = [...Array.from({ length: steps - 1 }, () => random() * length).sort((one, other) => one - other), length];
    for (let cut = 1; cut < steps; cut += 1) tried += Math.log(cut / length);
    for (const cut of cuts) moments[order[place++]] = at + cut;
    at += length;
  });
  return { moments, tried };
}

/** One of the ways, by how well it goes with a timing. */
function drawnWay(change: Change, ways: readonly Way[], timing: PlayerTiming, random: () => number): readonly number[] {
  const density = logDensityOf(change.movers, timing, levels.learner.rho);
  const weights = ways.map(({ moments, tried }) => density(moments) - tried);
  const most = Math.max(...weights);
  const shares = weights.map((weight) => Math.exp(weight - most));
  let left = random() * shares.reduce((sum, share) => sum + share, 0);
  return (ways.find((_, index) => (left -= shares[index]) <= 0) ?? ways[ways.length - 1]).moments;
}

/** What was fitted, together with what is believed of players. */
function withPriors(fitted: FittedTiming): FittedTiming {
  const { repetitions } = fitted;
  const spread = (own: number): number =>
    Math.hypot(own * Math.sqrt(repetitions), levels.learner.sigma * Math.sqrt(priorWeight)) / Math.sqrt(repetitions + priorWeight);
  return {
    ...fitted,
    lead: drawnToZero(fitted.lead, priorLead),
    fingers: fitted.fingers.map((each) => ({
      ...each,
      bias: drawnToZero(each.bias, priorBias),
      sigma: { value: spread(each.sigma.value), error: each.sigma.error },
    })),
  };
}

/** An estimate weighed against 0, give or take the prior; what nothing was measured of is as uncertain as the prior. */
function drawnToZero({ value, error }: Estimate, prior: number): Estimate {
  const share = error === 0 ? 0 : prior ** 2 / (prior ** 2 + error ** 2);
  return { value: share * value, error: share === 0 ? 0 : Math.sqrt(share) * error };
}

/** A timing such as this one, as far as it is uncertain. */
function drawnTiming({ fingers, lead, sigma }: FittedTiming, normal: () => number): PlayerTiming {
  const drawn = new Map(
    fingers.map(
      (each) =>
        [
          each.finger,
          { bias: each.bias.value + each.bias.error * normal(), sigma: Math.max(leastSpread, each.sigma.value + each.sigma.error * normal()) },
        ] as const,
    ),
  );
  return {
    bias: (finger) => drawn.get(finger)?.bias ?? 0,
    sigma: (finger) => drawn.get(finger)?.sigma ?? sigma.value,
    lead: lead.value + lead.error * normal(),
  };
}

/** All rounds as one answer: what they say on average, and how far they are apart beside how uncertain each is. */
function together(fits: readonly FittedTiming[]): FittedTiming | undefined {
  const [first] = fits;
  const estimateOf = (read: (fitted: FittedTiming) => Estimate): Estimate => {
    const all = fits.map(read);
    const value = meanOf(all.map((each) => each.value));
    return { value, error: Math.sqrt(meanOf(all.map((each) => each.error ** 2 + (each.value - value) ** 2))) };
  };
  const ofFinger = (fitted: FittedTiming, finger: FingerId) => fitted.fingers.find((each) => each.finger === finger) ?? first.fingers[0];
  const fingers = first.fingers
    .map(({ finger, count }) => ({
      ...{ finger, count },
      bias: estimateOf((fitted) => ofFinger(fitted, finger).bias),
      sigma: estimateOf((fitted) => ofFinger(fitted, finger).sigma),
    }))
    .filter(({ bias }) => bias.error <= toldWithin);
  if (fingers.length === 0) return undefined;
  return { fingers, lead: estimateOf(({ lead }) => lead), sigma: estimateOf(({ sigma }) => sigma), repetitions: first.repetitions };
}

const meanOf = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
