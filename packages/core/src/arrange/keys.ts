import { soundingPitch, type Instrument } from '../fingering';
import { formOf, type Form } from '../form';
import { keyNameOf, keyWay, type Tune } from '../tune';
import { count, listed } from '../words';
import { shiftsOf, type Fold } from './arrangement';
import { costOfLie, howHard, type LieWeigher, outsideOf, type HowHard, type Lie } from './lie';

/** One way for a tune to lie on an instrument. */
export interface KeyRow {
  /** "G", "E minor"; empty where the letters have a key of their own. */
  readonly name: string;
  /** "as written", "up a fourth", "down an octave". */
  readonly way: string;
  readonly semitones: number;
  readonly folds: readonly Fold[];
  readonly lie: Lie;
  readonly hard: HowHard;
  /** What does not fit: "2 notes too low"; empty where all does. */
  readonly outside: string;
}

/** Two octaves either way. */
const farthest = 24;
/** A key with more notes outside than this share is not worth a row. */
const mostOutside = 0.34;

/** For which ears the rows are ordered. */
export type KeyOrder = 'easiest' | 'lowest';

/**
 * Every key at every octave in which a tune nearly lies on an instrument, the best first; with folds where they help. As it is written it is always among them.
 * @param order `lowest`: among those that fit, the lower and softer first, for singers
 */
export function keyRows(weigher: LieWeigher, tune: Tune, form: Form = formOf(weigher.instrument, tune), order: KeyOrder = 'easiest'): readonly KeyRow[] {
  const isOwnKey = weigher.instrument.ownKeys.includes(tune.key);
  const notes = weigher.written.filter((height) => height !== undefined).length;
  if (notes === 0) return [];
  const rows: KeyRow[] = [];
  for (let semitones = -farthest; semitones <= farthest; semitones += 1) {
    if (isOwnKey && semitones !== 0) continue;
    const lie = weigher.at(shiftsOf(tune, semitones, []));
    const folds = outsideOf(lie) > 0 || lie.shrill > 0 ? foldsFor(weigher, tune, form, semitones) : [];
    const isNear = outsideOf(lie) <= notes * mostOutside;
    if (isNear || semitones === 0) rows.push(rowOf(tune, semitones, [], lie));
    if (folds.length > 0) rows.push(rowOf(tune, semitones, folds, weigher.at(shiftsOf(tune, semitones, folds))));
  }
  return rows.sort(order === 'lowest' ? byHeight : byCost);
}

/** A folded bar weighs as much as this much difficulty: the melody is another one there. Our own choice. */
const foldWeight = 5;
/** And a tune moved by a semitone as much as that: of two keys the nearer one. Our own choice. */
const distanceWeight = 0.3;
const costOfRow = ({ lie, folds, semitones }: KeyRow): number =>
  costOfLie(lie) + distanceWeight * Math.abs(semitones) + foldWeight * folds.reduce((sum, { from, to }) => sum + to - from + 1, 0);

const byCost = (one: KeyRow, other: KeyRow): number =>
  outsideOf(one.lie) - outsideOf(other.lie) || costOfRow(one) - costOfRow(other) || Math.abs(one.semitones) - Math.abs(other.semitones);
const byHeight = (one: KeyRow, other: KeyRow): number =>
  outsideOf(one.lie) - outsideOf(other.lie) || one.lie.highest - other.lie.highest || costOfRow(one) - costOfRow(other);

function rowOf(tune: Tune, semitones: number, folds: readonly Fold[], lie: Lie): KeyRow {
  const parts = [...(lie.tooLow > 0 ? [`${count(lie.tooLow, 'note')} too low`] : []), ...(lie.tooHigh > 0 ? [`${count(lie.tooHigh, 'note')} too high`] : [])];
  return { name: keyNameOf(tune.key, semitones), way: keyWay(semitones), semitones, folds, lie, hard: howHard(lie), outside: listed(parts) };
}

/**
 * Phrases that are folded by an octave so that fewer notes are shrill or outside; none where it gains nothing. A folded phrase never leaves the range.
 */
export function foldsFor(weigher: LieWeigher, tune: Tune, form: Form, semitones: number): readonly Fold[] {
  const folds: Fold[] = [];
  for (const { first, end } of phrasesOf(form)) {
    const [from, to] = [form.measures[first].number, form.measures[end - 1].number];
    const heights = tune.notes.flatMap(({ bar }, index) => {
      const height = weigher.written[index];
      return height === undefined || bar < from || bar > to ? [] : [height + semitones];
    });
    const bad = heights.filter((height) => !weigher.has(height) || weigher.isShrill(height)).length;
    if (bad === 0) continue;
    const octaves = ([-1, 1] as const).find((each) => heights.every((height) => weigher.has(height + 12 * each) && !weigher.isShrill(height + 12 * each)));
    if (octaves !== undefined) folds.push({ from, to, octaves });
  }
  const all = joined(folds);
  // To fold every bar alike is to move the tune.
  const [only] = all;
  const last = form.measures.reduce((most, { number }) => Math.max(most, number), 0);
  return all.length === 1 && only.from <= 1 && only.to >= last ? [] : all;
}

/** Every phrase once, as it is written. */
const phrasesOf = ({ sections }: Form): Form['sections'] => sections;

function joined(folds: readonly Fold[]): readonly Fold[] {
  const all: Fold[] = [];
  for (const fold of [...folds].sort((one, other) => one.from - other.from)) {
    const last = all.at(-1);
    if (last !== undefined && last.octaves === fold.octaves && fold.from <= last.to + 1) all[all.length - 1] = { ...last, to: Math.max(last.to, fold.to) };
    else all.push(fold);
  }
  return all;
}

/** A proposal in words: what it gains and what it costs beside the tune as it is written. */
export interface KeyProposal {
  readonly row: KeyRow;
  readonly text: string;
  readonly gain: string;
  readonly cost: string;
}

/** What is proposed: the best row, where it is better than the tune as it is written; undefined where that lies best. */
export function proposedKey(rows: readonly KeyRow[]): KeyProposal | undefined {
  const written = rows.find(({ semitones, folds }) => semitones === 0 && folds.length === 0);
  const [best] = rows;
  if (best === undefined || written === undefined || best === written) return undefined;
  const isBetter = outsideOf(best.lie) < outsideOf(written.lie) || costOfRow(best) < 0.9 * costOfRow(written);
  return isBetter ? proposalOf(best, written) : undefined;
}

/** Any row beside the tune as it is written. */
export function proposalOf(row: KeyRow, written: KeyRow): KeyProposal {
  const fewer = (what: string, before: number, after: number): readonly string[] => (after < before ? [`${before - after} ${what} fewer`] : []);
  const more = (what: string, before: number, after: number): readonly string[] => (after > before ? [`${after - before} ${what} more`] : []);
  const facts = (compare: typeof fewer): readonly string[] => [
    ...compare('notes that do not fit', outsideOf(written.lie), outsideOf(row.lie)),
    ...compare('shrill notes', written.lie.shrill, row.lie.shrill),
    ...compare('half-holed notes', written.lie.halfHoled, row.lie.halfHoled),
    ...compare('forked notes', written.lie.forked, row.lie.forked),
  ];
  const ease = costOfLie(row.lie) < 0.8 * costOfLie(written.lie) ? ['easier changes'] : [];
  const effort = costOfLie(row.lie) > 1.25 * costOfLie(written.lie) ? ['harder changes'] : [];
  const lost = row.lie.highest < written.lie.highest + row.semitones ? ['the tune loses its high point'] : [];
  const low = row.lie.lowest > written.lie.lowest + row.semitones ? ['it loses its lowest notes'] : [];
  const key = row.semitones === 0 ? '' : `Play it in ${row.name}, ${row.way}`;
  const folded = row.folds.map(
    ({ from, to, octaves }) => `fold ${from === to ? `bar ${from}` : `bars ${from} to ${to}`} an octave ${octaves < 0 ? 'down' : 'up'}`,
  );
  const text = [key, listed(folded)].filter((part) => part !== '').join(', and ');
  return {
    row,
    text: text === '' ? 'As it is written.' : `${text.charAt(0).toUpperCase()}${text.slice(1)}.`,
    gain: listed([...facts(fewer), ...ease]),
    cost: listed([...facts(more), ...lost, ...low, ...effort]),
  };
}

/** Semitones from what an instrument's music is written as to what sounds. */
export function soundsAbove(instrument: Instrument): number {
  const [lowest] = instrument.notes;
  return Math.round(69 + 12 * Math.log2(soundingPitch(instrument, lowest.id) / 440)) - lowest.writtenSemitone;
}

/** One sounding key for several players at once, each in the octave that lies best. */
export interface CommonKey {
  /** By the first player's written music. */
  readonly name: string;
  readonly players: readonly KeyRow[];
  readonly hard: HowHard;
}

/**
 * Keys that several players can all play at once: they sound alike, octaves apart at most. The easiest for all together first; none where no key fits all.
 * @param tunes the tune as it is read for each instrument
 */
export function commonKeys(players: readonly { readonly weigher: LieWeigher; readonly tune: Tune }[]): readonly CommonKey[] {
  const all = players.map(({ weigher, tune }) => ({
    offset: soundsAbove(weigher.instrument),
    rows: keyRows(weigher, tune).filter(({ hard, folds }) => hard !== 'does not fit' && folds.length === 0),
  }));
  const [first] = all;
  if (first === undefined) return [];
  const keys: CommonKey[] = [];
  for (let pitch = 0; pitch < 12; pitch += 1) {
    const chosen = all.map(({ rows, offset }) => rows.find(({ semitones }) => (((semitones + offset - pitch) % 12) + 12) % 12 === 0));
    if (chosen.some((row) => row === undefined)) continue;
    const rows = chosen as readonly KeyRow[];
    const order: readonly HowHard[] = ['little', 'some', 'much', 'does not fit'];
    const hard = rows.map((row) => row.hard).reduce((worst, each) => (order.indexOf(each) > order.indexOf(worst) ? each : worst));
    keys.push({ name: rows[0].name, players: rows, hard });
  }
  const cost = ({ players: rows }: CommonKey): number => rows.reduce((sum, { lie }) => sum + costOfLie(lie), 0);
  return keys.sort((one, other) => cost(one) - cost(other));
}

/** Which of somebody's instruments gives a sounding key with the easiest fingers, the best first. */
export function instrumentsFor(
  players: readonly { readonly weigher: LieWeigher; readonly tune: Tune }[],
  soundingSemitones: number,
): readonly { readonly instrument: Instrument; readonly row: KeyRow }[] {
  return players
    .flatMap(({ weigher, tune }) => {
      const offset = soundsAbove(weigher.instrument);
      const row = keyRows(weigher, tune).find(
        ({ semitones, folds }) => folds.length === 0 && (((semitones + offset - soundingSemitones) % 12) + 12) % 12 === 0,
      );
      return row === undefined ? [] : [{ instrument: weigher.instrument, row }];
    })
    .sort((one, other) => byCost(one.row, other.row));
}
