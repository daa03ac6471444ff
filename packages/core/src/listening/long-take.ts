import type { Instrument, NoteId } from '../fingering';
import { shortestNote } from './align-take';
import type { AskedNote } from './asked';
import type { HeardStretch } from './heard-stretch';
import { isNoteFaulty, judgeAsked, noteText, whereOf, worstNotesFirst } from './judge-asked';
import { changeText, isFaulty, judgeTake, worstFirst, type HeardChange } from './judge-take';

/** What was asked for: one change, to and fro; or notes with their grace notes, as often as they are played. */
export type LongTakeAsked =
  { readonly kind: 'changes'; readonly from: NoteId; readonly to: NoteId } | { readonly kind: 'piece'; readonly notes: readonly AskedNote[] };

/** A long take, judged. */
export interface JudgedLongTake {
  /** Places that were judged, how many of them were not as asked, and of how many nothing is claimed. */
  readonly places: number;
  readonly faulty: number;
  readonly unsure: number;
  /** The worst first, each with when it is, in ms from the beginning. */
  readonly worst: readonly { readonly at: number; readonly text: string }[];
}

/** Changes are matched with so many long notes at once: what that takes grows with its square. */
const mostAtOnce = 800;
/** Silence of so many ms is a stop: somebody talks, or turns a page. Our own choice. */
const stopMs = 1500;

/** @param most places that are named */
export function judgeLongTake(instrument: Instrument, asked: LongTakeAsked, stretches: readonly HeardStretch[], most: number): JudgedLongTake {
  if (asked.kind === 'piece') {
    const { notes } = judgeAsked(instrument, asked.notes, stretches);
    return {
      ...{
        places: notes.length,
        faulty: notes.filter((note) => isNoteFaulty(note)).length,
        unsure: notes.filter(({ verdict }) => verdict === 'unsure').length,
      },
      worst: worstNotesFirst(notes)
        .slice(0, most)
        .map((note) => ({ at: note.at, text: `${whereOf(note)}: ${noteText(instrument, note)}` })),
    };
  }
  const changes = changesIn(instrument, asked, stretches);
  return {
    ...{ places: changes.length, faulty: changes.filter((change) => isFaulty(change)).length },
    unsure: changes.filter(({ verdict }) => verdict === 'unsure').length,
    worst: worstFirst(changes)
      .slice(0, most)
      .map((change) => ({ at: change.at, text: changeText(instrument, change) })),
  };
}

/** All changes to and fro, numbered through; what lies on both sides of a stop is no change. */
function changesIn(
  instrument: Instrument,
  { from, to }: Extract<LongTakeAsked, { kind: 'changes' }>,
  stretches: readonly HeardStretch[],
): readonly HeardChange[] {
  const changes = partsBetweenStops(stretches).flatMap((part) => {
    const long = part.flatMap(({ note, start, end }, index) => ((note === from || note === to) && end - start >= shortestNote ? [index] : []));
    const found: HeardChange[] = [];
    for (let first = 0; first < long.length - 1; first += mostAtOnce) {
      const last = Math.min(first + mostAtOnce, long.length - 1);
      // The last note here is the first one of what comes next, so that no change is lost between two.
      const piece = part.slice(long[first], long[last] + 1);
      const [one, two] = piece[0].note === from ? [from, to] : [to, from];
      const notes = Array.from({ length: 2 * (last - first + 1) }, (_, index) => (index % 2 === 0 ? one : two));
      found.push(...judgeTake(instrument, notes, piece).changes);
    }
    return found;
  });
  return changes.map((change, index) => ({ ...change, number: index + 1 }));
}

function partsBetweenStops(stretches: readonly HeardStretch[]): readonly (readonly HeardStretch[])[] {
  const parts: HeardStretch[][] = [[]];
  for (const stretch of stretches) {
    if (stretch.note === null && stretch.end - stretch.start >= stopMs) parts.push([]);
    else parts[parts.length - 1].push(stretch);
  }
  return parts;
}
