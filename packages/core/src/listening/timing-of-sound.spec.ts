import { changeBetween, type Change } from '../change';
import { practiceChanter, type FingerId } from '../fingering';
import { renderTimeline } from '../sound';
import { HandNoise, inBetweenSounds, normalFrom, seededRandom, steppedSounds, type TimingParameters } from '../timing';
import { decodeTake } from './decode-take';
import { judgeTake, type BetweenNotes } from './judge-take';
import { heardResult, heardTimingText, movesOfPiece } from './heard-moves';
import { judgeAsked } from './judge-asked';
import { simulatedTimeline } from './simulated-player';
import { timingOfSound, type HeardMove } from './timing-of-sound';

/** Changes as a perfect ear hears them: what sounds like the notes beside it, or is shorter than 10 ms, is not heard. */
function heardOf(change: Change, moments: readonly number[]): readonly BetweenNotes[] {
  const sounds = inBetweenSounds(practiceChanter, change);
  const heard: BetweenNotes[] = [];
  for (const { sound, from, to } of steppedSounds(sounds, moments)) {
    const note = sound.hertz === 0 ? null : sound.note;
    const last = heard.at(-1);
    if (last !== undefined && last.note === note) heard[heard.length - 1] = { ...last, ms: last.ms + (to - from) };
    else heard.push({ note, ms: to - from, confidence: 1 });
  }
  return heard.filter(({ note, ms }) => ms >= 10 && note !== change.from && note !== change.to).map((each) => ({ ...each, ms: Math.round(each.ms) }));
}

function played(pairs: readonly (readonly [string, string])[], times: number, timing: TimingParameters, seed: number): HeardMove[] {
  const normal = normalFrom(seededRandom(seed));
  return pairs.flatMap(([one, other]) =>
    [changeBetween(practiceChanter, one, other), changeBetween(practiceChanter, other, one)].flatMap((change) => {
      const hands = new HandNoise(change.movers, timing);
      return Array.from({ length: times }, () => ({ change, between: heardOf(change, [...hands.draw(normal)]) }));
    }),
  );
}

const crosses = [
  ['c', 'e'],
  ['d', 'b'],
] as const;
const moving = ['L3', 'R1', 'R2', 'R3', 'R4'];

/** Biases count against the mean of the fingers that were heard. */
function trueBias(biasOf: Readonly<Record<FingerId, number>>, finger: FingerId): number {
  return (biasOf[finger] ?? 0) - moving.reduce((sum, each) => sum + (biasOf[each] ?? 0), 0) / moving.length;
}

describe('a timing from sound alone', () => {
  it('finds the finger that is late, and says how sure it is: of what it tells, nineteen in twenty lie within two and a half errors', () => {
    let [told, within] = [0, 0];
    const players = [{ L3: 14 }, { R1: -12 }, { R2: 10, L3: -8 }, {}, { R4: 12 }] as const;
    players.forEach((biasOf, index) => {
      const fitted = timingOfSound(practiceChanter, played(crosses, 12, { sigma: 10 + index, rho: 0.5, lead: 3 * index - 6, biasOf }, 31 + index));
      for (const { finger, bias } of fitted?.fingers ?? []) {
        told += 1;
        within += Number(Math.abs(bias.value - trueBias(biasOf, finger)) <= 2.5 * bias.error);
        expect(bias.error).toBeLessThanOrEqual(5);
      }
      // What is claimed to be early or late is so.
      for (const { finger, bias } of fitted?.fingers ?? [])
        if (Math.abs(bias.value) > 2.5 * bias.error) expect(Math.sign(bias.value)).toBe(Math.sign(trueBias(biasOf, finger)));
    });
    expect(told).toBeGreaterThan(15);
    expect(within / told).toBeGreaterThanOrEqual(0.95);
  });

  it('tells a fluent player from a beginner by what is heard', () => {
    const spread = (sigma: number): number => timingOfSound(practiceChanter, played(crosses, 12, { sigma, rho: 0.5, lead: 0 }, 5))?.sigma.value ?? 0;
    const [fluent, beginner] = [spread(6), spread(24)];
    expect(fluent).toBeLessThan(12);
    expect(beginner).toBeGreaterThan(17);
  });

  it('claims nothing from fewer than eight changes, from changes of one finger, from what the device lost, or from what no order of the fingers sounds', () => {
    const some = played(crosses, 12, { sigma: 12, rho: 0.5, lead: 0 }, 3);
    expect(timingOfSound(practiceChanter, some.slice(0, 7))).toBeUndefined();
    expect(timingOfSound(practiceChanter, played([['c', 'd']], 20, { sigma: 12, rho: 0.5, lead: 0 }, 3))).toBeUndefined();
    const lost = { note: null, ms: 30, confidence: 0, isLost: true as const };
    expect(
      timingOfSound(
        practiceChanter,
        some.map((each) => ({ ...each, between: [lost] })),
      ),
    ).toBeUndefined();
    const elsewhere = { note: 'high-a', ms: 30, confidence: 1 };
    expect(
      timingOfSound(
        practiceChanter,
        some.map((each) => ({ ...each, between: [elsewhere] })),
      ),
    ).toBeUndefined();
  });

  it('is the same for the same seed', () => {
    const some = played([crosses[0]], 10, { sigma: 12, rho: 0.5, lead: 0 }, 3);
    expect(timingOfSound(practiceChanter, some, 4)).toEqual(timingOfSound(practiceChanter, some, 4));
  });

  it('is near what a player does whose take is listened to', () => {
    const notes = Array.from({ length: 49 }, (_, index) => (index % 2 === 0 ? 'c' : 'e'));
    const asked = notes.map((note) => ({ note, graceNotes: [], beats: 1, isTied: false }));
    const player = { seed: 11, timing: { sigma: 9, rho: 0.5, lead: 0, biasOf: { L3: 18 } }, tempo: 90, drift: 0, unevenness: 8, forgotten: 0 };
    const rate = 22_050;
    const samples = renderTimeline(practiceChanter, simulatedTimeline(practiceChanter, asked, player), { sampleRate: rate });
    const { changes } = judgeTake(practiceChanter, notes, decodeTake(practiceChanter, samples, rate).stretches);
    const fitted = timingOfSound(
      practiceChanter,
      changes.map(({ from, to, between }) => ({ change: changeBetween(practiceChanter, from, to), between })),
    );
    const late = fitted?.fingers.find(({ finger }) => finger === 'L3');
    expect(late?.bias.value).toBeGreaterThan(8);
    for (const { finger, bias } of fitted?.fingers ?? []) if (finger !== 'L3') expect(bias.value).toBeLessThan(3);
  });
});

describe('what a take shows of the fingers', () => {
  const asked = (note: string, graceNotes: readonly string[] = []) => ({ note, graceNotes, beats: 1, isTied: false, bar: 1 });
  const stretch = (note: string | null, start: number, end: number) => ({ note, start, end, confidence: 1 });

  it('comes from the bare changes of a piece: no grace note hides them, and both notes were played', () => {
    const notes = [asked('c'), asked('e'), asked('e'), asked('c', ['high-g']), asked('d'), asked('b')];
    const heard = [
      ...[stretch('c', 0, 400), stretch('low-g', 400, 424), stretch('e', 424, 1200), stretch('high-g', 1200, 1240)],
      ...[stretch('c', 1240, 1600), stretch('f', 1600, 2000), stretch('b', 2000, 2400)],
    ];
    const moves = movesOfPiece(practiceChanter, judgeAsked(practiceChanter, notes, heard).notes);
    expect(moves.map(({ change, between }) => [change.from, change.to, between.length])).toEqual([['c', 'e', 1]]);
  });

  it('is kept under the pair that it has most of, with how many were low, and is said with what was heard of', () => {
    const moves = played(crosses, 12, { sigma: 12, rho: 0.5, lead: 0, biasOf: { L3: 22 } }, 9).concat(
      played([crosses[0]], 4, { sigma: 12, rho: 0.5, lead: 0, biasOf: { L3: 22 } }, 10),
    );
    const fitted = timingOfSound(practiceChanter, moves)!;
    const result = heardResult(practiceChanter, moves, fitted);
    expect([result.from, result.to].sort()).toEqual(['c', 'e']);
    expect(result.verdicts.low).toBeGreaterThan(5);
    expect(Object.values(result.verdicts).reduce((sum, count) => sum + count, 0)).toBe(moves.length);
    expect(result.timing?.biasOf['L3']).toBeGreaterThan(5);
    expect(heardTimingText(practiceChanter, fitted)).toMatch(
      /^From \d+ changes, by their sound: the fingers vary by about \d+ ms\. Left ring( finger)? comes \d+ ms late, give or take \d.*\. Only these fingers are heard: .*\.$/,
    );
  });
});
