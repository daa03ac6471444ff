import { heardFrom, tablePitch } from '../acoustics';
import type { Change } from '../change';
import { patternKey, soundingPitch, type Instrument, type NoteId, type Pattern } from '../fingering';
import { centsOfRatio } from '../pitch';

/**
 * What a pattern between two notes is to the ear. `low`: more than 50 cents under both. `same`: within 35 cents of one of them, no fault by itself.
 * `run`: within 40 cents of a charted note strictly between. `between`: between them, near no charted note. `over-open`: all lifts done and no lower
 * done, in a cross, heard as the gap. `above`: higher than both otherwise. `silent`: nothing sounds.
 */
export type SoundClass = 'over-open' | 'low' | 'same' | 'run' | 'between' | 'above' | 'silent';

export const soundClasses: readonly SoundClass[] = ['over-open', 'low', 'same', 'run', 'between', 'above', 'silent'];

/** A pattern on the way from one note to another. */
export interface InBetweenSound {
  readonly pattern: Pattern;
  readonly kind: SoundClass;
  /** In Hz at the instrument's usual tuning; 0 for silence. */
  readonly hertz: number;
  /** The charted note that it is nearest to. */
  readonly note: NoteId;
  readonly isSteady: boolean;
  /** Over plausible geometries, in cents. */
  readonly spread: number;
}

/** More under both notes is low, in cents. */
export const underBoth = 50;
const [nearEnd, nearCharted] = [35, 40];
const centsOf = (one: number, other: number): number => centsOfRatio(one / other);

/** The pattern in which the movers of a mask have moved; a mover's bit is its place in `movers`. */
export function patternAt(instrument: Instrument, change: Change, mask: number): Pattern {
  const moved = new Set(change.movers.filter((_, index) => (mask >> index) & 1).map(({ finger }) => finger));
  return change.fromPattern.map((coverage, hole) => (moved.has(instrument.holes[hole].finger) ? change.toPattern[hole] : coverage));
}

/** Every pattern of a change by its mask: 0 is the note before, the last one the note after. */
export function inBetweenSounds(instrument: Instrument, change: Change): readonly InBetweenSound[] {
  const ear = new ChangeEar(instrument, change);
  return Array.from({ length: 2 ** change.movers.length }, (_, mask) => ear.sound(patternAt(instrument, change, mask)));
}

/** Tells what any pattern is to the ear while one note changes into another. */
export class ChangeEar {
  private readonly ends: readonly number[];
  /** The pattern with all lifts done and no landing, in a cross. */
  private readonly overOpen: string | undefined;

  constructor(
    private readonly instrument: Instrument,
    private readonly change: Change,
  ) {
    this.ends = [change.fromPattern, change.toPattern].map((pattern, index) => endPitch(instrument, index === 0 ? change.from : change.to, pattern));
    const lifts = change.movers.reduce((mask, { direction }, index) => (direction === 'lift' ? mask | (1 << index) : mask), 0);
    this.overOpen = change.kind === 'cross' ? patternKey(patternAt(instrument, change, lifts)) : undefined;
  }

  sound(pattern: Pattern): InBetweenSound {
    const { instrument, change } = this;
    const end = [change.fromPattern, change.toPattern].findIndex((each) => patternKey(each) === patternKey(pattern));
    if (end !== -1) return { pattern, hertz: this.ends[end], note: end === 0 ? change.from : change.to, isSteady: true, spread: 0, kind: 'same' };
    const heard = heardFrom(instrument, pattern, { register: change.register, foot: change.foot });
    if (heard.kind === 'silent') return { pattern, hertz: 0, note: heard.note, isSteady: true, spread: 0, kind: 'silent' };
    const table = tableOr(instrument, pattern, change.register, heard.pitch);
    const hertz = heard.kind === 'charted' ? asCharted(table, heard.pitch) : table;
    return {
      pattern,
      hertz,
      note: heard.note,
      isSteady: heard.isSteady,
      spread: heard.spread,
      kind: patternKey(pattern) === this.overOpen ? 'over-open' : classOf(instrument, change, this.ends, hertz),
    };
  }
}

/** Pitch of a note in its fingers: the model's where there is one without registers, so that in-between sounds are measured with one rule. */
function endPitch(instrument: Instrument, note: NoteId, pattern: Pattern): number {
  const charted = soundingPitch(instrument, note);
  return asCharted(tableOr(instrument, pattern, undefined, charted), charted);
}

/** Beyond this the model has taken another resonance than the one that is played. */
const otherResonance = 100;

/** A charted fingering sounds as it is charted where the model chooses another of its resonances; else as the model has it, by which what lies between is measured too. */
const asCharted = (table: number, charted: number): number => (Math.abs(centsOf(table, charted)) > otherResonance ? charted : table);

function tableOr(instrument: Instrument, pattern: Pattern, register: number | undefined, otherwise: number): number {
  return register === undefined ? (tablePitch(instrument, pattern)?.hertz ?? otherwise) : otherwise;
}

function classOf(instrument: Instrument, { from, to }: Change, ends: readonly number[], hertz: number): SoundClass {
  const [lower, upper] = [Math.min(...ends), Math.max(...ends)];
  if (centsOf(hertz, lower) < -underBoth) return 'low';
  if (ends.some((end) => Math.abs(centsOf(hertz, end)) <= nearEnd)) return 'same';
  const isBetween = (pitch: number): boolean => pitch > lower && pitch < upper;
  const isRun = instrument.notes.some(({ id }) => {
    const charted = soundingPitch(instrument, id);
    return id !== from && id !== to && isBetween(charted) && Math.abs(centsOf(hertz, charted)) <= nearCharted;
  });
  if (isRun) return 'run';
  return isBetween(hertz) || hertz < lower ? 'between' : 'above';
}
