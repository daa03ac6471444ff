import type { Instrument, NoteId } from '../fingering';
import { compileMovement, type CompiledMovement } from './compile';
import { isTapAlone, usualMovementSettings, type MovementDefinition, type MovementSettings } from './definition';
import { lightTapNotes } from './movements.data';
import { editDistance, movementsOf } from './movements';

interface Way {
  readonly lowest: NoteId;
  readonly movement: MovementDefinition;
  readonly before: NoteId | null;
  readonly after: NoteId;
}

/** Settings under which movements are written in another way, how that is said, and where they can make a difference at all. */
export const writtenVariants: readonly { readonly settings: MovementSettings; readonly text: string; readonly matters: (way: Way) => boolean }[] = [
  { settings: usualMovementSettings, text: '', matters: () => true },
  { settings: { ...usualMovementSettings, fromLowest: 'full' }, text: 'in full after the lowest note', matters: (way) => startsLowest(way) },
  { settings: { ...usualMovementSettings, classical: true }, text: 'with a classical ending', matters: (way) => endsLowest(way) },
  {
    settings: { ...usualMovementSettings, classical: true, fromLowest: 'full' },
    text: 'in full after the lowest note, with a classical ending',
    matters: (way) => startsLowest(way) && endsLowest(way),
  },
  {
    settings: { ...usualMovementSettings, thumbDown: 'plain' },
    text: 'no grace note coming down',
    matters: ({ movement: { parts } }) => parts.length === 1 && parts[0].part === 'opener',
  },
  {
    settings: { ...usualMovementSettings, lightTaps: lightTapNotes },
    text: 'with a light tap',
    matters: ({ movement: { parts } }) => parts.some((part) => part.part === 'tap' && part.weight === undefined),
  },
];

const startsLowest = ({ before, lowest }: Way): boolean => before === lowest;
const endsLowest = ({ movement, after, lowest }: Way): boolean => movement.arrivals !== undefined && after === lowest;

type Played = Extract<CompiledMovement, { kind: 'compiled' }>;

/** A movement that is written so. */
export type Candidate = Played & {
  /** In which other way than the usual it is played, empty for the usual. */
  readonly variant: string;
  /** True where it is written as from another note than the one before: a wrong start. */
  readonly isWrongStart: boolean;
};

/** What a run of grace notes is: movements that are written so, the likeliest first, or the nearest and how it differs. */
export type Recognised =
  | { readonly kind: 'known'; readonly candidates: readonly Candidate[] }
  | { readonly kind: 'unknown'; readonly nearest: Played; readonly differs: string }
  | { readonly kind: 'none' };

/** Recognises the grace notes before a theme note; what was compiled once is kept, so that a book of tunes is read quickly. */
export class MovementReader {
  private readonly known = new Map<string, ReadonlyMap<string, readonly Candidate[]>>();
  private readonly answers = new Map<string, Recognised>();

  private readonly movements: readonly MovementDefinition[];

  /** @param own movements of a studio */
  constructor(
    readonly instrument: Instrument,
    own: readonly MovementDefinition[] = [],
  ) {
    this.movements = movementsOf(instrument, own);
  }

  /**
   * @param letters the group as written, first to last
   * @throws ZelpitFault `unknown-note`
   */
  read(before: NoteId | null, letters: readonly NoteId[], after: NoteId): Recognised {
    if (letters.length === 0) return { kind: 'none' };
    const key = `${before ?? ''}|${letters.join(' ')}|${after}`;
    const answer = this.answers.get(key) ?? this.compared(before, letters, after);
    this.answers.set(key, answer);
    return answer;
  }

  private compared(before: NoteId | null, letters: readonly NoteId[], after: NoteId): Recognised {
    const all = this.candidates(before, after);
    const same = all.get(letters.join(' '));
    if (same !== undefined) return { kind: 'known', candidates: same };
    const nearest = [...all.values()].flat().reduce<{ played: Played; distance: number } | undefined>((best, played) => {
      const distance = editDistance(lettersOf(played), letters);
      // Of two that are as near, the one with as many elements: a wrong one is likelier than one too many.
      const isNearer =
        best === undefined || distance < best.distance || (distance === best.distance && isAsLong(played, letters) && !isAsLong(best.played, letters));
      return isNearer ? { played, distance } : best;
    }, undefined);
    if (nearest === undefined || nearest.distance > Math.ceil(letters.length / 2)) return { kind: 'none' };
    return { kind: 'unknown', nearest: nearest.played, differs: differenceText(this.instrument, nearest.played, letters) };
  }

  /** Every way of every movement from one note into another, by its letters. */
  private candidates(before: NoteId | null, after: NoteId): ReadonlyMap<string, readonly Candidate[]> {
    const key = `${before ?? ''}|${after}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const found = new Map<string, Candidate[]>();
    const ranks = new Map<Candidate, number>();
    // Where the note before is not the one that the rule expects, the movement may still be written in full.
    for (const start of before === null ? [null] : [before, null]) {
      for (const { settings, text, matters } of writtenVariants) {
        for (const movement of this.movements) {
          if (!matters({ lowest: this.instrument.notes[0].id, movement, before: start, after })) continue;
          // A tap by itself is none where its note does not sound yet, not one with a wrong start.
          if (start !== before && isTapAlone(movement)) continue;
          const played = compileMovement(this.instrument, movement, start, after, settings);
          if (played.kind === 'unplayable' || played.steps.length === 0) continue;
          const letters = lettersOf(played).join(' ');
          const others = found.get(letters) ?? [];
          if (others.some((each) => each.movement.id === movement.id)) continue;
          const candidate: Candidate = { ...played, variant: text, isWrongStart: start !== before };
          // What has a name for its light tap comes before what can be tapped lightly too.
          // What the rule of openers gives has a name of its own too, and that comes first.
          const isByRule = movement.parts.every(({ part }) => part === 'opener');
          ranks.set(candidate, (2 * Number(settings.lightTaps.length > 0) + Number(isByRule)) * this.movements.length + this.movements.indexOf(movement));
          found.set(letters, [...others, candidate]);
        }
      }
    }
    // The fullest name first: a doubling is a doubling before it is anything that happens to be written so.
    const rank = (candidate: Candidate): number => ranks.get(candidate) ?? 0;
    for (const [letters, candidates] of found)
      found.set(
        letters,
        [...candidates].sort((one, other) => rank(one) - rank(other)),
      );
    this.known.set(key, found);
    return found;
  }
}

const isAsLong = ({ steps }: Played, letters: readonly NoteId[]): boolean => steps.length === letters.length;

const lettersOf = ({ steps }: Played): readonly NoteId[] => steps.map(({ written }) => written);

function differenceText(instrument: Instrument, played: Played, letters: readonly NoteId[]): string {
  const name = (id: NoteId): string => instrument.notes.find((note) => note.id === id)?.schoolName ?? id;
  const wanted = lettersOf(played);
  if (letters.length < wanted.length) {
    const missing = wanted.findIndex((each, index) => each !== letters[index]);
    return `${name(wanted[missing])} is missing, element ${missing + 1} of ${wanted.length}`;
  }
  if (letters.length > wanted.length) {
    const extra = letters.findIndex((each, index) => each !== wanted[index]);
    return `${name(letters[extra])} is extra, element ${extra + 1}`;
  }
  const other = letters.findIndex((each, index) => each !== wanted[index]);
  return `element ${other + 1} is ${name(letters[other])}, not ${name(wanted[other])}`;
}
