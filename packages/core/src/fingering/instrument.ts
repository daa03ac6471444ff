import * as z from 'zod';

/** Name of a finger, `L1` (left index) to `R4` (right little), `T` and `RT` for the thumbs. */
const fingerId = z.string().min(1).max(8);
const noteId = z.string().min(1).max(24);
/** How much of a hole is covered: 1 covered, 0 open, between for half holes. */
const coverage = z.number().min(0).max(1);

const fingerSchema = z.strictObject({
  id: fingerId,
  /** As said at the instrument: "L ring". */
  label: z.string().min(1),
  /** As written in a sentence: "left ring". */
  spoken: z.string().min(1),
  hand: z.enum(['left', 'right']),
  thumb: z.boolean(),
});

const holeSchema = z.strictObject({
  id: z.string().min(1),
  finger: fingerId,
  /** How much the usual half cover covers; absent where this hole is never half covered. */
  half: coverage.optional(),
});

const noteSchema = z.strictObject({
  id: noteId,
  /** What a teacher calls it: "low A". */
  schoolName: z.string().min(1),
  /** What stands on the page, without octave: "A". */
  writtenName: z.string().min(1).max(3),
  /** Letter in ABC under the instrument's own key: `A`, `c`. */
  abc: z.string().min(1).max(4),
  /** Height on the page in semitones with A4 = 69, for music written in ordinary keys. */
  writtenSemitone: z.number().int(),
  /** Sounding pitch as a ratio to the reference note. */
  ratio: z.number().positive(),
  /** Loudness against the reference note in dB, as players report it. */
  loudnessDecibels: z.number(),
});

const fingeringSchema = z.strictObject({
  note: noteId,
  /** One coverage per hole, in the order of `holes`. */
  pattern: z.array(coverage).readonly(),
  school: z.string().min(1),
  /** 1 = teach first. */
  rank: z.number().int().min(1),
  register: z.number().int().min(1),
  /** Where the lower end can be closed on the knee: how it stands for this fingering. */
  foot: z.enum(['closed', 'open']).optional(),
  source: z.enum(['chart', 'model', 'teacher']),
  remark: z.string().optional(),
});

/** A fingering that depends on the single instrument, outside the scale. */
const extraSchema = z.strictObject({ name: z.string().min(1), pattern: z.array(coverage).readonly(), remark: z.string() });

const graceNoteSchema = z.strictObject({
  /** Named by its finger, not by what sounds: "G grace note". */
  name: z.string().min(1),
  /** The note whose letter it is written with. */
  written: noteId,
  opens: z.array(fingerId).min(1),
  /** Theme notes that it can be played on. */
  on: z.array(noteId).min(1),
});

const tapSchema = z.strictObject({
  on: noteId,
  /** The note whose letter it is written with. */
  written: noteId,
  closes: z.array(fingerId).min(1),
});

export const instrumentSchema = z.strictObject({
  id: z.string().regex(/^[a-z0-9-]+$/),
  name: z.string().min(1),
  family: z.enum(['pipes', 'irish-pipes', 'whistle', 'recorder', 'ocarina']),
  /** Where two models share a name: which one, as a word after it. */
  model: z.string().optional(),
  /** How it is blown. */
  breath: z.string().optional(),
  /** Before the first note. */
  checks: z.array(z.string().min(1)).optional(),
  /** Whether it can be played with the other hand on top, and what there is to know. */
  mirror: z.strictObject({ kind: z.enum(['allowed', 'warned', 'refused']), said: z.string().min(1) }).optional(),
  extras: z.array(extraSchema).optional(),
  reference: z.strictObject({ note: noteId, hertz: z.number().positive(), lowestHertz: z.number().positive(), highestHertz: z.number().positive() }),
  /** Keys of ABC under which letters are the instrument's own notes. */
  ownKeys: z.array(z.string()),
  /** In the order of the instrument, from the face down. */
  fingers: z.array(fingerSchema).min(1),
  holes: z.array(holeSchema).min(1),
  /** From the lowest to the highest. */
  notes: z.array(noteSchema).min(1),
  fingerings: z.array(fingeringSchema).min(1),
  graceNotes: z.array(graceNoteSchema),
  /** Taps that sound no charted note. */
  taps: z.array(tapSchema),
});

export type Instrument = Readonly<z.infer<typeof instrumentSchema>>;
export type Finger = Instrument['fingers'][number];
export type Hole = Instrument['holes'][number];
export type Note = Instrument['notes'][number];
export type Fingering = Instrument['fingerings'][number];
export type InstrumentData = z.input<typeof instrumentSchema>;
export type GraceNoteRule = Instrument['graceNotes'][number];
export type FingerId = string;
export type NoteId = string;
/** Coverage of every hole, in the order of the instrument's holes. */
export type Pattern = readonly number[];
