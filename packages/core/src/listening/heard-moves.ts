import { changeBetween, spokenFingers } from '../change';
import { soundingPitch, type Instrument, type NoteId } from '../fingering';
import { centsOfRatio } from '../pitch';
import { fingersResult, type FingersResult, type FittedTiming, type Verdict } from '../playing';
import { underBoth } from '../timing';
import { capital } from '../words';
import type { JudgedNote } from './judge-asked';
import { gapsIn, noisesIn, surely, type HeardChange } from './judge-take';
import type { HeardMove } from './timing-of-sound';

/** The changes of a take of one change, as they were heard. */
export const movesOfChanges = (instrument: Instrument, changes: readonly HeardChange[]): readonly HeardMove[] =>
  changes.map(({ from, to, between }) => ({ change: changeBetween(instrument, from, to), between }));

/** The bare changes of a take of music, as they were heard: no grace note hides them, and both notes were played. */
export function movesOfPiece(instrument: Instrument, notes: readonly JudgedNote[]): readonly HeardMove[] {
  const isPlayed = ({ ms, other }: JudgedNote): boolean => ms !== null && other === undefined;
  return notes.flatMap((note, index): HeardMove[] => {
    const before = notes.at(index - 1);
    if (index === 0 || before === undefined || before.pass !== note.pass || before.note === note.note) return [];
    if (!isPlayed(before) || !isPlayed(note) || note.graces.length > 0) return [];
    return [{ change: changeBetween(instrument, before.note, note.note), between: note.between }];
  });
}

function verdictOf(instrument: Instrument, { change, between }: HeardMove): Verdict {
  const noises = noisesIn(between).filter(surely);
  if (noises.length === 0) return gapsIn(between).length > 0 ? 'over-open' : 'clean';
  const pitch = (note: NoteId): number => soundingPitch(instrument, note);
  const lower = Math.min(pitch(change.from), pitch(change.to));
  return noises.some(({ note }) => note !== null && centsOfRatio(lower / pitch(note)) > underBoth) ? 'low' : 'run';
}

/** What a take shows of the player's fingers, to be kept with them: under the pair of notes that it has most of. */
export function heardResult(instrument: Instrument, moves: readonly HeardMove[], fitted: FittedTiming): FingersResult {
  const counts = new Map<string, { readonly from: NoteId; readonly to: NoteId; count: number }>();
  for (const { change } of moves) {
    const [from, to] = [change.from, change.to].sort();
    const found = counts.get(`${from} ${to}`) ?? { from: change.from, to: change.to, count: 0 };
    counts.set(`${from} ${to}`, { ...found, count: found.count + 1 });
  }
  const [{ from, to }] = [...counts.values()].sort((one, other) => other.count - one.count);
  const played = moves.map((move) => ({ verdict: verdictOf(instrument, move), heard: move.between }));
  return fingersResult({ from, to }, played, fitted);
}

/** A finger is early or late where that is so many times its error. */
const surelyOff = 2;

/** A timing from sound in words: "From 24 changes, by their sound: the fingers vary by about 13 ms. Left ring comes 12 ms late, give or take 4." */
export function heardTimingText(instrument: Instrument, { fingers, sigma, repetitions }: FittedTiming): string {
  const off = fingers
    .filter(({ bias }) => Math.abs(bias.value) > surelyOff * bias.error)
    .sort((one, other) => Math.abs(other.bias.value) - Math.abs(one.bias.value))
    .map(
      ({ finger, bias }) =>
        `${spokenFingers(instrument, [finger])} comes ${Math.abs(bias.value).toFixed(0)} ms ${bias.value < 0 ? 'early' : 'late'}, give or take ${Math.ceil(bias.error)}`,
    );
  const told = off.length === 0 ? 'No finger is surely early or late.' : `${capital(off.join('; '))}.`;
  const about = `Only these fingers are heard: ${spokenFingers(
    instrument,
    fingers.map(({ finger }) => finger),
  )}.`;
  return `From ${repetitions} changes, by their sound: the fingers vary by about ${sigma.value.toFixed(0)} ms. ${told} ${about}`;
}
