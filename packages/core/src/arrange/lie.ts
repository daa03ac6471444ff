import { changeName, changeOfFingerings } from '../change';
import { chartedFingering, coverOf, noteOf, type Fingering, type Instrument } from '../fingering';
import { type RiskTable, tongueSilenceMs, type Hiding } from '../timing';
import { isTongued, type Articulation, type Tune } from '../tune';

/** How a tune lies on an instrument when each of its notes is moved by so many semitones. */
export interface Lie {
  /** Heights of its lowest and highest note on the page. */
  readonly lowest: number;
  readonly highest: number;
  /** Notes under and over what the instrument has; those between that it lacks count to the nearer end. */
  readonly tooLow: number;
  readonly tooHigh: number;
  readonly halfHoled: number;
  /** Notes with an open hole above a covered one; 0 where the family is fingered so throughout. */
  readonly forked: number;
  /** Notes above the first register: more breath, and louder. */
  readonly overblown: number;
  /** Notes that ask for care of the ears. */
  readonly shrill: number;
  /** Of all its changes together; no unit. */
  readonly difficulty: number;
  /** Its hardest change by name; empty where no finger moves. */
  readonly hardest: string;
  /** Changes between different notes. */
  readonly changes: number;
}

const tongue: Hiding = { kind: 'tongue', lengthMs: tongueSilenceMs };

/** Weighs a tune on an instrument for many ways of moving it; what is known of a fingering or a change is kept. */
export class LieWeigher {
  private readonly byHeight: ReadonlyMap<number, Fingering>;
  private readonly shrill: ReadonlySet<number>;
  private readonly heights: readonly (number | undefined)[];
  private readonly hiding: readonly (Hiding | undefined)[];
  private readonly known = new Map<string, { readonly difficulty: number; readonly name: string }>();

  constructor(
    readonly instrument: Instrument,
    private readonly tune: Tune,
    articulation: Articulation,
    private readonly risks: RiskTable,
  ) {
    this.byHeight = new Map(instrument.notes.map(({ id, writtenSemitone }) => [writtenSemitone, chartedFingering(instrument, id)]));
    this.shrill = new Set(instrument.notes.flatMap(({ writtenSemitone, caution }) => (caution === undefined ? [] : [writtenSemitone])));
    this.heights = tune.notes.map(({ written }) => {
      if (written.kind === 'note') return noteOf(instrument, written.note).writtenSemitone;
      return written.kind === 'outside' ? written.semitone : undefined;
    });
    this.hiding = tune.notes.map((note) => (isTongued(note, articulation) ? tongue : undefined));
  }

  /** Heights of the notes as they are written; undefined for rests. */
  get written(): readonly (number | undefined)[] {
    return this.heights;
  }

  has(height: number): boolean {
    return this.byHeight.has(height);
  }

  isShrill(height: number): boolean {
    return this.shrill.has(height);
  }

  /** @param shifts semitones by which each note is moved */
  at(shifts: readonly number[]): Lie {
    const { notes } = this.instrument;
    const [bottom, top] = [notes[0].writtenSemitone, notes[notes.length - 1].writtenSemitone];
    const found = { lowest: Infinity, highest: -Infinity, tooLow: 0, tooHigh: 0, halfHoled: 0, forked: 0, overblown: 0, shrill: 0, difficulty: 0, changes: 0 };
    let hardest = { difficulty: 0, name: '' };
    let before: number | undefined;
    this.tune.notes.forEach(({ isTiedFromPrevious }, index) => {
      const height = this.heights[index];
      const there = height === undefined ? undefined : height + shifts[index];
      if (there !== undefined && !isTiedFromPrevious) {
        found.lowest = Math.min(found.lowest, there);
        found.highest = Math.max(found.highest, there);
        const fingering = this.byHeight.get(there);
        if (fingering === undefined) found[there - bottom < top - there ? 'tooLow' : 'tooHigh'] += 1;
        else this.count(fingering, there, found);
        const change = before === undefined || before === there ? undefined : this.changeAt(before, there, this.hiding[index]);
        if (change !== undefined) {
          found.changes += 1;
          found.difficulty += change.difficulty;
          if (change.difficulty > hardest.difficulty) hardest = change;
        }
      }
      before = there;
    });
    return { ...found, hardest: hardest.name };
  }

  private count(fingering: Fingering, height: number, found: { halfHoled: number; forked: number; overblown: number; shrill: number }): void {
    if (fingering.register > 1) found.overblown += 1;
    if (this.shrill.has(height)) found.shrill += 1;
    const front = fingering.pattern.filter((_, hole) => this.instrument.fingers.find(({ id }) => id === this.instrument.holes[hole].finger)?.thumb !== true);
    if (front.some((coverage) => coverOf(coverage) === 'half')) found.halfHoled += 1;
    else if ((this.instrument.family === 'whistle' || this.instrument.family === 'recorder') && isForked(front)) found.forked += 1;
  }

  private changeAt(from: number, to: number, hiding: Hiding | undefined): { readonly difficulty: number; readonly name: string } | undefined {
    const key = `${from} ${to} ${hiding?.kind ?? ''}`;
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const [before, after] = [this.byHeight.get(from), this.byHeight.get(to)];
    if (before === undefined || after === undefined) return undefined;
    const change = changeOfFingerings(this.instrument, before, after);
    const made = { difficulty: this.risks.difficultyOf(change, hiding).total, name: changeName(this.instrument, change) };
    this.known.set(key, made);
    return made;
  }
}

/** The first hole open by itself steadies a high note and is no fork. */
function isForked(front: readonly number[]): boolean {
  const open = front.findIndex((coverage) => coverage === 0);
  const isVent = open === 0 && front.slice(1).every((coverage) => coverage > 0);
  return open !== -1 && !isVent && front.slice(open).some((coverage) => coverage > 0);
}

/** How much there is to mind, in plain words. */
export type HowHard = 'little' | 'some' | 'much' | 'does not fit';

/** A half-holed note weighs as much as this much difficulty; a forked, an overblown and a shrill one as much as that. Our own choice. */
const [halfHoleWeight, forkWeight, overblownWeight, shrillWeight] = [4, 0.5, 1, 3];
/** Per change: from these on it is some, and much. Our own choice. */
const [some, much] = [2.5, 5.6];

export const outsideOf = ({ tooLow, tooHigh }: Pick<Lie, 'tooLow' | 'tooHigh'>): number => tooLow + tooHigh;
export const costOfLie = ({ difficulty, halfHoled, forked, overblown, shrill }: Lie): number =>
  difficulty + halfHoleWeight * halfHoled + forkWeight * forked + overblownWeight * overblown + shrillWeight * shrill;

export function howHard(lie: Lie): HowHard {
  if (outsideOf(lie) > 0) return 'does not fit';
  const each = costOfLie(lie) / Math.max(1, lie.changes);
  if (each < some) return 'little';
  return each < much ? 'some' : 'much';
}
