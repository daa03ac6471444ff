import type { Instrument, NoteId } from '../fingering';
import { numberBars, type UnnumberedBar, type UnplacedNote } from './bars';
import type { ParsedAbc, ParsedElement } from './parsed-abc';
import { defaultTempo, meterFrom } from './meter';
import { placePhrase, type Notice, type Tune, type OrnamentSign } from './tune';
import { keyAccidentals, writtenNote, type Accidentals } from './written-pitch';

interface Reading {
  readonly instrument: Instrument;
  readonly notes: UnplacedNote[];
  readonly bars: UnnumberedBar[];
  readonly strays: { readonly note: number; readonly text: string }[];
  accidentals: Accidentals;
  isOwnKey: boolean;
  multiplier: number;
  /** Slurs that are open. */
  slurs: number;
  open: UnnumberedBar;
  ending: readonly number[];
}

/**
 * The tune in a parser's answer, for one instrument. Only the first voice is read. Notes that the instrument does not
 * have stay in their place as `outside` and are named in the notices.
 */
export function readTune(instrument: Instrument, parsed: ParsedAbc): Tune {
  const staves = parsed.lines.flatMap((line) => line.staff?.slice(0, 1) ?? []);
  const key = staves[0]?.key;
  const reading: Reading = {
    instrument,
    notes: [],
    bars: [],
    strays: [],
    accidentals: { key: accidentalsOf(key), bar: new Map() },
    isOwnKey: instrument.ownKeys.includes(key?.root ?? ''),
    multiplier: 1,
    slurs: 0,
    open: emptyBar(0, [], false, firstCharacter(staves)),
    ending: [],
  };
  for (const staff of staves) {
    if (staff.key !== undefined) changeKey(reading, staff.key);
    for (const element of staff.voices?.[0] ?? []) readElement(reading, element);
  }
  closeBar(reading, undefined);
  const meter = meterFrom(staves[0]?.meter);
  const { notes, bars } = numberBars(reading.notes, reading.bars, meter);
  const strays: Notice[] = reading.strays.map(({ note, text }) => ({ text, bar: notes[note].bar, beat: notes[note].beat }));
  const voices = parsed.lines.some((line) => (line.staff?.length ?? 0) > 1 || line.staff?.some((staff) => (staff.voices?.length ?? 0) > 1));
  return {
    title: parsed.metaText.title ?? '',
    rhythm: parsed.metaText.rhythm ?? '',
    key: keyName(key),
    meter,
    tempo: tempoOf(parsed, meter.beat, meter.text),
    notes,
    bars,
    notices: voices ? [...strays, { text: 'more than one voice, and only the first is read', bar: 1, beat: 1 }] : strays,
  };
}

/** "F natural at bar 3, beat 2" and so on, for people. */
export function noticePhrase(notice: Notice): string {
  return `${notice.text} (${placePhrase(notice.bar, notice.beat)})`;
}

function keyName(key: { readonly root?: string; readonly acc?: string; readonly mode?: string } | undefined): string {
  const accidental: Readonly<Record<string, string>> = { '#': ' sharp', sharp: ' sharp', b: ' flat', flat: ' flat' };
  return `${key?.root ?? ''}${accidental[key?.acc ?? ''] ?? ''}${key?.mode === undefined || key.mode === '' ? '' : ` ${key.mode}`}`;
}

function tempoOf(parsed: ParsedAbc, beat: number, meterText: string): number {
  const { bpm, duration } = parsed.metaText.tempo ?? {};
  if (bpm === undefined || !(bpm > 0)) return defaultTempo(parsed.metaText.rhythm ?? '', meterText);
  const unit = duration === undefined || duration.length === 0 ? beat : duration.reduce((sum, each) => sum + each, 0);
  return Math.min(400, Math.max(10, Math.round((bpm * unit) / beat)));
}

function readElement(reading: Reading, element: ParsedElement): void {
  if (element.el_type === 'note') readNote(reading, element);
  else if (element.el_type === 'bar') closeBar(reading, element);
  else if (element.el_type === 'key') changeKey(reading, element);
}

/** Sharps of the pipes' key, which stand on no page: another instrument plays them. */
const pipesSharps = [
  { note: 'F', acc: 'sharp' },
  { note: 'C', acc: 'sharp' },
];

function accidentalsOf(key: Pick<ParsedElement, 'root' | 'accidentals'> | undefined): Accidentals['key'] {
  return keyAccidentals(key?.root === 'HP' || key?.root === 'Hp' ? pipesSharps : key?.accidentals);
}

function changeKey(reading: Reading, key: Pick<ParsedElement, 'root' | 'accidentals'>): void {
  const { root } = key;
  reading.accidentals = { key: accidentalsOf(key), bar: reading.accidentals.bar };
  if (root !== undefined) reading.isOwnKey = reading.instrument.ownKeys.includes(root);
}

function readNote(reading: Reading, element: ParsedElement): void {
  const { instrument, accidentals, isOwnKey } = reading;
  if (element.startTriplet !== undefined) reading.multiplier = element.tripletMultiplier ?? 1;
  const index = reading.notes.length;
  const graceNotes: NoteId[] = [];
  const strayGraceNotes: { at: number; text: string }[] = [];
  for (const grace of element.gracenotes ?? []) {
    const read = writtenNote(instrument, grace, accidentals, isOwnKey);
    if (read.kind === 'note') graceNotes.push(read.note);
    else if (read.kind === 'outside') {
      strayGraceNotes.push({ at: graceNotes.length + strayGraceNotes.length, text: read.text });
      reading.strays.push({ note: index, text: `grace note ${read.text} cannot be played` });
    }
  }
  const [pitch, ...chord] = element.pitches ?? [];
  const written = pitch === undefined ? ({ kind: 'rest' } as const) : writtenNote(instrument, pitch, accidentals, isOwnKey);
  if (written.kind === 'outside') reading.strays.push({ note: index, text: `${written.text} cannot be played` });
  if (chord.length > 0) reading.strays.push({ note: index, text: 'a chord, and only its first note is read' });
  reading.notes.push({
    index,
    written,
    graceNotes,
    strayGraceNotes,
    duration: (element.duration ?? 0) * reading.multiplier,
    isTiedFromPrevious: pitch?.endTie !== undefined,
    sign: signOf(element),
    isSlurred: reading.slurs > 0,
    source: { start: element.startChar ?? 0, end: element.endChar ?? 0 },
  });
  reading.slurs = Math.max(0, reading.slurs + slurCount(element, 'startSlur') - slurCount(element, 'endSlur'));
  if (element.endTriplet !== undefined) reading.multiplier = 1;
}

/** Signs over notes by the parser's names for them. */
const signs: Readonly<Record<string, OrnamentSign>> = {
  irishroll: 'roll',
  roll: 'roll',
  trill: 'trill',
  'trill(': 'trill',
  mordent: 'lower-mordent',
  lowermordent: 'lower-mordent',
  uppermordent: 'upper-mordent',
  pralltriller: 'upper-mordent',
  slide: 'slide',
};

function signOf({ decoration = [] }: ParsedElement): OrnamentSign | undefined {
  return decoration.flatMap((name) => signs[name] ?? []).at(0);
}

/** Slurs that begin or end at a note; a parser may name them on the note or on its pitch. */
function slurCount(element: ParsedElement, which: 'startSlur' | 'endSlur'): number {
  return (element[which]?.length ?? 0) + (element.pitches ?? []).reduce((sum, pitch) => sum + (pitch[which]?.length ?? 0), 0);
}

function firstCharacter(staves: readonly { readonly voices?: readonly (readonly ParsedElement[])[] }[]): number {
  return staves[0]?.voices?.[0]?.[0]?.startChar ?? 0;
}

function emptyBar(first: number, passes: readonly number[], opensRepeat: boolean, start: number): UnnumberedBar {
  return { first, end: first, opensRepeat, closesRepeat: false, passes, endsPart: false, source: { start, end: start } };
}

const closing = new Set(['bar_right_repeat', 'bar_dbl_repeat']);
const opening = new Set(['bar_left_repeat', 'bar_dbl_repeat']);
const partEnds = new Set(['bar_right_repeat', 'bar_dbl_repeat', 'bar_thin_thin', 'bar_thin_thick', 'bar_thick_thin']);

function closeBar(reading: Reading, line: ParsedElement | undefined): void {
  const type = line?.type ?? '';
  const end = reading.notes.length;
  const hasNotes = end > reading.open.first;
  if (hasNotes) {
    const source = { start: reading.open.source.start, end: line?.endChar ?? reading.notes[end - 1].source.end };
    reading.bars.push({ ...reading.open, source, end, closesRepeat: closing.has(type), endsPart: line === undefined || partEnds.has(type) });
  }
  if (line?.endEnding !== undefined) reading.ending = [];
  if (line?.startEnding !== undefined) reading.ending = passesIn(line.startEnding);
  const opensRepeat = opening.has(type) || (!hasNotes && reading.open.opensRepeat);
  const start = hasNotes ? (line?.endChar ?? reading.open.source.end) : reading.open.source.start;
  reading.open = emptyBar(end, reading.ending, opensRepeat, start);
  reading.accidentals.bar.clear();
}

/** "1" -> [1], "1,3" -> [1, 3], "1-3" -> [1, 2, 3]. */
function passesIn(ending: string): readonly number[] {
  return ending.split(',').flatMap((piece) => {
    const [from, to] = piece.split('-').map((each) => Number.parseInt(each, 10));
    if (!Number.isInteger(from)) return [];
    const last = Number.isInteger(to) ? to : from;
    return Array.from({ length: Math.max(0, Math.min(8, last - from + 1)) }, (_, offset) => from + offset);
  });
}
