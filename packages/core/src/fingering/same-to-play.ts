import type { Instrument, NoteId, Pattern } from './instrument';
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

/**
 * The notes that are fingered otherwise on another model; empty where all are the same to play.
 */
export function notesThatDiffer(instrument: Instrument, other: Instrument): ReadonlySet<NoteId> {
  const first = (of: Instrument, note: NoteId): Pattern | undefined => of.fingerings.find((each) => each.note === note && each.rank === 1)?.pattern;
  const differs = (note: NoteId): boolean => {
    const [here, there] = [first(instrument, note), first(other, note)];
    return here !== undefined && there !== undefined && !isSameToPlay(instrument, here, other, there);
  };
  return new Set(instrument.notes.map(({ id }) => id).filter(differs));
}

/** The note of an instrument that is read as another one's: at the same height on the page; undefined where there is none. */
export function noteReadAs(from: Instrument, note: NoteId, on: Instrument): NoteId | undefined {
  const height = from.notes.find(({ id }) => id === note)?.writtenSemitone;
  return height === undefined ? undefined : on.notes.find(({ writtenSemitone }) => writtenSemitone === height)?.id;
}
