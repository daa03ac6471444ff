import {
  changeBetween,
  chartedFingering,
  chartedTarget,
  disturbedGeometry,
  faultPatterns,
  fitGeometry,
  geometryOf,
  graceSteps,
  heardFrom,
  instrumentById,
  normalOf,
  patternKey,
  seededRandom,
  soundSourceOf,
  troubleOf,
  tuningFingerings,
  worstFault,
  type Instrument,
  type NoteId,
  type Pattern,
} from '@zelpit/core';

/** What truly sounds in a simulated take. */
export interface TrueStretch {
  readonly kind: 'theme' | 'grace' | 'noise';
  /** Of a grace note and a noise, the note that is nearest to what sounds on this instrument, which is not the one that is listened with. */
  readonly note: NoteId;
  /** The other note that it lies next to, where it lies midway between two: it has two names then. */
  readonly also?: NoteId;
  /** In ms. */
  readonly start: number;
  readonly end: number;
}

/** Something that sounds, at one pitch and level. */
export interface Tone {
  /** In ms. */
  readonly start: number;
  readonly end: number;
  readonly hertz: number;
  /** Loudness, as a factor. */
  readonly level: number;
}

/** What somebody plays in one take. */
export interface Playing {
  /** The instrument that it is listened with. */
  readonly instrument: Instrument;
  readonly truth: readonly TrueStretch[];
  readonly tones: readonly Tone[];
  /** Goes on where the playing stopped to draw. */
  readonly random: () => number;
}

const playedOn = ['practice-chanter', 'pipe-chanter', 'whistle-d', 'recorder-soprano-baroque', 'ocarina-12-c-split'] as const;
const [notesInTake, graceShare, faultShare] = [18, 0.4, 0.35];
/** In ms. */
const graceLengths = [25, 60] as const;
const faultLengths = [4, 6, 8, 12, 16, 24] as const;
/** How far a charted note of the instrument that sounds lies from the model that is listened with, in cents; and on an ocarina, which has no bore to be another, a pattern between. */
const [tunedSpread, wildSpread] = [6, 17];
/** How far apart the bores of two instruments of one kind are made. */
const apart = { positionMillimetres: 3, diameterMillimetres: 0.8, lumpedShare: 0.3 } as const;
const detuned = 20;

/**
 * A walk over the instrument's notes with grace notes (on pipes) and crossing noises, on another instrument of its kind than the one that is listened with: another bore,
 * tuned to the chart, so that its patterns between notes sound otherwise.
 */
export function playingOf(seed: number): Playing {
  const random = seededRandom(seed);
  const instrument = instrumentById(playedOn[seed % playedOn.length]);
  const sounding = otherOf(instrument, seed);
  const events = eventsOf(instrument, sounding, random);
  const tones = tonesOf(sounding, events, random);
  const truth = events.map(({ kind, note, also, start, end }) => ({ kind, note, also, start, end }));
  return { instrument, truth, tones, random };
}

/** Those that were made already: a fit takes a second, and each take is played twice. */
const others = new Map<number, Instrument>();

/** Another instrument of the same kind: its holes, its bore and its reed or window are off, and it is tuned to the chart as a maker would. An ocarina stays as it is. */
function otherOf(instrument: Instrument, seed: number): Instrument {
  const known = others.get(seed);
  const [source, geometry] = [soundSourceOf(instrument), geometryOf(instrument)];
  if (known !== undefined || source === undefined || geometry === undefined) return known ?? instrument;
  const measured = tuningFingerings(instrument).map((fingering) => chartedTarget(instrument, fingering));
  let fitted = disturbedGeometry(geometry, normalOf(seededRandom(seed)), apart);
  for (const step of fitGeometry(fitted, measured)) fitted = step.geometry;
  const other = { ...instrument, sound: { ...source, geometry: fitted } };
  others.set(seed, other);
  return other;
}

interface Event extends TrueStretch {
  readonly pattern: Pattern;
  readonly register?: number;
}

function eventsOf(instrument: Instrument, sounding: Instrument, random: () => number): readonly Event[] {
  const notes = instrument.notes.map(({ id }) => id).slice(0, 12);
  const beat = 60_000 / (70 + 60 * random());
  const events: Event[] = [];
  let at = 300;
  let note = notes[Math.floor(random() * notes.length)];
  for (let index = 0; index < notesInTake; index += 1) {
    const before = events.at(-1);
    const next = notes[(notes.indexOf(note) + 1 + Math.floor(random() * Math.min(5, notes.length - 1))) % notes.length];
    const hasGrace = index > 0 && instrument.family === 'pipes' && random() < graceShare;
    const { pattern, register } = chartedFingering(instrument, next);
    const start = at;
    if (hasGrace) at += grace(instrument, sounding, events, next, at, random);
    else if (before !== undefined && random() < faultShare) noise(instrument, sounding, events, before, next, random);
    events.push({ kind: 'theme', note: next, pattern, register, start: at, end: start + beat });
    at = start + beat;
    note = next;
  }
  return events;
}

/** A grace note on the beat, taken from its theme note. @returns how long it is */
function grace(instrument: Instrument, sounding: Instrument, events: Event[], theme: NoteId, at: number, random: () => number): number {
  const written = instrument.graceNotes.map((rule) => rule.written)[Math.floor(random() * instrument.graceNotes.length)];
  if (written === theme || events.at(-1)?.note === written) return 0;
  const [step] = graceSteps(instrument, [written], theme);
  const length = graceLengths[0] + random() * (graceLengths[1] - graceLengths[0]);
  const named = namesOf(sounding, step.pattern);
  // What sounds like its neighbour separates nothing, and nobody would choose it.
  if (named.note === theme || named.note === events.at(-1)?.note) return 0;
  events.push({ kind: 'grace', ...named, pattern: step.pattern, start: at, end: at + length });
  return length;
}

/** A crossing noise just before the next note, taken from the note before; only such as sound foreign. */
function noise(instrument: Instrument, sounding: Instrument, events: Event[], before: Event, next: NoteId, random: () => number): void {
  const change = changeBetween(instrument, before.note, next);
  const kind = worstFault(instrument, change);
  if (kind === undefined || troubleOf(instrument, change).kind !== 'pop') return;
  const [pattern] = faultPatterns(instrument, change, kind);
  const { note, also } = namesOf(sounding, pattern);
  if (note === before.note || note === next) return;
  const length = faultLengths[Math.floor(random() * faultLengths.length)];
  events[events.length - 1] = { ...before, end: before.end - length };
  events.push({ kind: 'noise', note, also, pattern, register: change.register, start: before.end - length, end: before.end });
}

/** So far from midway between two notes a pitch still has both names, in cents. */
const midway = 20;

function namesOf(instrument: Instrument, pattern: Pattern): Pick<TrueStretch, 'note' | 'also'> {
  const pitch = heardFrom(instrument, pattern).pitch;
  const away = ({ id }: Instrument['notes'][number]): number =>
    Math.abs(
      1200 * Math.log2(heardFrom(instrument, chartedFingering(instrument, id).pattern, { register: chartedFingering(instrument, id).register }).pitch / pitch),
    );
  const [first, second] = [...instrument.notes].sort((one, other) => away(one) - away(other));
  return { note: first.id, ...(away(second) - away(first) < 2 * midway && { also: second.id }) };
}

/** A whole instrument is out of tune, and each of its patterns by itself; some are louder. */
function tonesOf(instrument: Instrument, events: readonly Event[], random: () => number): readonly Tone[] {
  const gauss = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const tuning = (2 * random() - 1) * detuned;
  const offsets = new Map<string, { readonly cents: number; readonly level: number }>();
  const charted = new Set(instrument.notes.map(({ id }) => patternKey(chartedFingering(instrument, id).pattern)));
  // What lies between on another bore is off already.
  const spreadOf = (key: string): number => (charted.has(key) || instrument.sound !== undefined ? tunedSpread : wildSpread);
  return events.map(({ pattern, register, start, end }) => {
    const key = patternKey(pattern);
    const offset = offsets.get(key) ?? { cents: gauss() * spreadOf(key), level: 10 ** (gauss() / 10) };
    offsets.set(key, offset);
    return { start, end, hertz: heardFrom(instrument, pattern, { register }).pitch * 2 ** ((tuning + offset.cents) / 1200), level: offset.level };
  });
}
