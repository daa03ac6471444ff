import * as z from 'zod';
import type { Instrument, NoteId } from '../fingering';
import type { LayerKind } from '../movement';
import { playingOrder, readAbc, writeAbc, type Score } from '../score';
import { changesOfTune, readTune, type Tune, type TuneChange } from '../tune';
import { rowKinds, rowsOf, type ChunkRows, type RowKind } from './chunk-rows';
import { layerOrder, type NoteLayers } from './note-layers';

/** The longest text of a piece that stands on a sheet. */
export const longestExcerpt = 15_000;

/** A piece of a tune on a sheet: its own music, which does not change with the tune, and how it is learned. */
export const excerptSchema = z.strictObject({
  /** The title of the tune. */
  tune: z.string().trim().min(1, 'A piece of a tune has its title.').max(120, 'A title has at most 120 characters.'),
  /** "Bar 1", "Part B"; empty for the whole tune. */
  place: z.string().trim().max(60, 'A place in a tune has at most 60 characters.'),
  /** Its music in ABC, in its own meter, everything in full. */
  abc: z.string().min(1, 'A piece of a tune has music.').max(longestExcerpt, `The music of a piece can have at most ${longestExcerpt} characters.`),
  /** At which layer single notes stand, by their index; a note that is not there stands in full. */
  layers: z.record(z.string().regex(/^\d{1,4}$/), z.enum(['bare', 'one', 'simpler', 'full', 'heavier'])).optional(),
  /** The steps in which it is practised, in their order; in full where none are given. */
  rows: z
    .array(z.enum(['bare', 'one', 'full', 'count']))
    .max(4, 'A piece has at most four rows.')
    .readonly()
    .optional(),
  /** What is said of it; empty for nothing. */
  script: z.string().max(4000, 'A script can have at most 4 000 characters.').optional(),
});
export type Excerpt = Readonly<z.infer<typeof excerptSchema>>;

const scores = new WeakMap<Excerpt, Score>();
const tunes = new WeakMap<Instrument, WeakMap<Excerpt, Tune>>();

/** The music of a piece as it is written, kept for as long as the piece is. */
function scoreOf(excerpt: Excerpt): Score {
  const known = scores.get(excerpt) ?? readAbc(excerpt.abc).score;
  scores.set(excerpt, known);
  return known;
}

/** A piece on an instrument, everything in full. */
export function tuneOfExcerpt(instrument: Instrument, excerpt: Excerpt): Tune {
  const ofInstrument = tunes.get(instrument) ?? new WeakMap<Excerpt, Tune>();
  const known = ofInstrument.get(excerpt) ?? readTune(instrument, scoreOf(excerpt));
  ofInstrument.set(excerpt, known);
  tunes.set(instrument, ofInstrument);
  return known;
}

/** Length of a piece in the beats of its meter, as it is played. */
export function beatsOfExcerpt(excerpt: Excerpt): number {
  const score = scoreOf(excerpt);
  const [voice] = score.voices;
  if (voice === undefined) return 0;
  return playingOrder(voice.bars, score.partOrder).reduce((sum, index) => sum + voice.bars[index].length, 0) / score.meter.beat;
}

export const layersOfExcerpt = ({ layers = {} }: Pick<Excerpt, 'layers'>): NoteLayers =>
  new Map(Object.entries(layers).map(([index, kind]) => [Number(index), kind as LayerKind]));

/** The rows of a piece as this student plays it. */
export const rowsOfExcerpt = (instrument: Instrument, excerpt: Excerpt): ChunkRows =>
  rowsOf(instrument, tuneOfExcerpt(instrument, excerpt), layersOfExcerpt(excerpt));

/** A piece at one of its rows; in full where it has no such row. */
export function tuneAtRow(instrument: Instrument, excerpt: Excerpt, kind: RowKind = 'full'): Tune {
  const { rows } = rowsOfExcerpt(instrument, excerpt);
  const number = rowKinds.indexOf(kind) + 1;
  return (rows.filter((row) => row.number <= number).at(-1) ?? rows[0]).tune;
}

/** A stretch of music as it is kept on a sheet. */
export function excerptOf(tune: string, place: string, music: Pick<Tune, 'score' | 'voice'>, layers: NoteLayers = new Map()): Excerpt {
  const own = { ...music.score, titles: [tune], voices: [music.voice], header: [] };
  const kept = [...layers].filter(([, kind]) => kind !== 'full' && layerOrder.includes(kind));
  return { tune, place, abc: writeAbc(own), ...(kept.length > 0 && { layers: Object.fromEntries(kept.map(([index, kind]) => [String(index), kind])) }) };
}

/** "Bar 1 of The Paper Lighthouse" */
export const excerptTitle = ({ tune, place }: Pick<Excerpt, 'tune' | 'place'>): string => (place === '' ? tune : `${place} of ${tune}`);

/** The two notes of a piece between which it is hardest for a learner; its first note twice where no finger moves. */
export function hardestPair(instrument: Instrument, tune: Tune): readonly [NoteId, NoteId] {
  const { open, underGraceNotes, tongued } = changesOfTune(instrument, tune);
  const hardest = [...open, ...underGraceNotes, ...tongued].reduce<TuneChange | undefined>(
    (best, each) => (best === undefined || each.difficulty > best.difficulty ? each : best),
    undefined,
  );
  if (hardest !== undefined) return [hardest.change.from, hardest.change.to];
  const first = tune.notes.find(({ written }) => written.kind === 'note')?.written;
  const note = first?.kind === 'note' ? first.note : instrument.notes[0].id;
  return [note, note];
}
