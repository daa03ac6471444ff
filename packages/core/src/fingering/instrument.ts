import * as z from 'zod';
import { soundGeometrySchema } from './bore-geometry';

/** More holes than any instrument of these families has; all their patterns are still computed in a second. */
export const mostHoles = 12;

/** Name of a finger, `L1` (left index) to `R4` (right little), `T` and `RT` for the thumbs. */
const fingerId = z.string().min(1).max(8);
/** Of a note that an instrument of these families can have. */
const referenceHertz = z.number().min(10).max(20_000);
export const noteIdSchema = z.string().min(1).max(24);
/** How much of a hole is covered: 1 covered, 0 open, between for half holes. */
const coverage = z.number().min(0).max(1);
/** Coverage of each hole, in the order of the instrument's holes. */
export const holesSchema = z.array(coverage).min(1).max(mostHoles);
const patternSchema = holesSchema.readonly();
/** Words that hold no mark such as <b>. */
export const withoutMarks = /^(?![\s\S]*<[a-zA-Z/!])/;
/** Plain words that are shown as they are. */
const words = z.string().min(1).max(300).regex(withoutMarks, 'is plain text, without marks such as <b>');
/** A fraction as tuners say it: "7/4". */
const ratioText = z.string().regex(/^[1-9]\d{0,3}\/[1-9]\d{0,3}$/, 'is written as a fraction such as 7/4');

const fingerSchema = z.strictObject({
  id: fingerId,
  /** As said at the instrument: "L ring". */
  label: words.max(40),
  /** As written in a sentence: "left ring". */
  spoken: words.max(40),
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
  id: noteIdSchema,
  /** What a teacher calls it: "low A". */
  schoolName: words.max(40),
  /** What stands on the page, without octave: "A". */
  writtenName: z.string().min(1).max(3),
  /** Letter in ABC under the instrument's own key: `A`, `c`. */
  abc: z.string().min(1).max(4),
  /** Height on the page in semitones with A4 = 69, for music written in ordinary keys. */
  writtenSemitone: z.number().int(),
  /** Sounding pitch as a ratio to the reference note. */
  ratio: z.number().min(0.01).max(100),
  /** The fractions by which tuners tune it, the chart's own first; absent where all agree. */
  justRatios: z.array(ratioText).min(1).max(8).optional(),
  /** Loudness against the reference note in dB, as players report it. */
  loudnessDecibels: z.number().min(-60).max(60),
  /** What to mind when it is played, for ears or hands. */
  caution: words.optional(),
});

const fingeringSchema = z.strictObject({
  note: noteIdSchema,
  /** One coverage per hole, in the order of `holes`. */
  pattern: patternSchema,
  school: z.string().min(1).max(40),
  /** 1 = teach first. */
  rank: z.number().int().min(1),
  register: z.number().int().min(1),
  /** Where the lower end can be closed on the knee: how it stands for this fingering. */
  foot: z.enum(['closed', 'open']).optional(),
  source: z.enum(['chart', 'model', 'teacher']),
  remark: words.optional(),
  /** Who confirmed it, and when: a day as 2026-03-09. */
  confirmed: z.strictObject({ by: z.string().max(120), on: z.iso.date() }).optional(),
  /** Taught knowingly as a stand-in: what comes later, and until which day. */
  forNow: z.strictObject({ eventually: patternSchema, until: z.iso.date() }).optional(),
});

/** What the acoustic model computes an instrument from. */
export const soundSourceSchema = z.strictObject({
  geometry: soundGeometrySchema,
  /** Pitch of the reference note at which the geometry was fitted. */
  atHertz: z.number().min(10).max(20_000),
});

/** A fingering that depends on the single instrument, outside the scale. */
const extraSchema = z.strictObject({ name: z.string().min(1).max(60), pattern: patternSchema, remark: words });

const graceNoteSchema = z.strictObject({
  /** Named by its finger, not by what sounds: "G grace note". */
  name: z.string().min(1),
  /** The note whose letter it is written with. */
  written: noteIdSchema,
  opens: z.array(fingerId).min(1),
  /** Theme notes that it can be played on. */
  on: z.array(noteIdSchema).min(1),
});

const tapSchema = z.strictObject({
  on: noteIdSchema,
  /** The note whose letter it is written with. */
  written: noteIdSchema,
  closes: z.array(fingerId).min(1),
});

export const instrumentSchema = z.strictObject({
  id: z
    .string()
    .regex(/^[a-z0-9-]+$/)
    .max(60),
  name: words.max(120),
  family: z.enum(['pipes', 'irish-pipes', 'whistle', 'recorder', 'ocarina']),
  /** Where two models share a name: which one, as a word after it. */
  model: words.max(60).optional(),
  /** How it is blown. */
  breath: z.string().max(600).optional(),
  /** Before the first note. */
  checks: z.array(words).max(20).optional(),
  /** Whether it can be played with the other hand on top, and what there is to know. */
  mirror: z.strictObject({ kind: z.enum(['allowed', 'warned', 'refused']), said: words }).optional(),
  /** True where what players report of its family's loudness does not show on it: no figure is said. */
  hidesLoudness: z.boolean().optional(),
  extras: z.array(extraSchema).max(40).optional(),
  reference: z.strictObject({ note: noteIdSchema, hertz: referenceHertz, lowestHertz: referenceHertz, highestHertz: referenceHertz }),
  /** Keys of ABC under which letters are the instrument's own notes. */
  ownKeys: z.array(z.string().max(10)).max(20),
  /** Its own sound source; a built-in instrument has one in the core. */
  sound: soundSourceSchema.optional(),
  /** The built-in instrument that it was made from. */
  madeFrom: z.string().max(60).optional(),
  /** In the order of the instrument, from the face down. */
  fingers: z.array(fingerSchema).min(1).max(12),
  holes: z.array(holeSchema).min(1).max(mostHoles),
  /** From the lowest to the highest. */
  notes: z.array(noteSchema).min(1).max(80),
  fingerings: z.array(fingeringSchema).min(1).max(400),
  graceNotes: z.array(graceNoteSchema).max(60),
  /** Taps that sound no charted note. */
  taps: z.array(tapSchema).max(60),
});

export type Instrument = Readonly<z.infer<typeof instrumentSchema>>;
export type SoundSource = Readonly<z.infer<typeof soundSourceSchema>>;
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
