import { ZelpitFault } from '../fault';
import { altersOfFifths, keyOfFifths } from './key';
import { commonTime, readMeter } from './meter';
import { numberBars, type UnnumberedBar } from './number-bars';
import { letterOf, semitoneOf, type Key, type Meter, type Score, type ScoreEvent, type ScorePitch } from './score';
import type { MidiFile } from './write-midi';

/** A note of a MIDI file, in quarter notes from its start. */
interface MidiNote {
  readonly start: number;
  readonly end: number;
  readonly key: number;
}

/** Notes of one track and channel, one of which is the melody. */
export interface MidiLine {
  readonly index: number;
  readonly name: string;
  readonly notes: number;
  readonly lowest: number;
  readonly highest: number;
  /** From 0, many notes at once, to 1, always one. */
  readonly single: number;
  /** How likely it is the melody; higher is likelier. No unit. */
  readonly likeness: number;
}

/** How the notes are written down. */
export interface MidiChoices {
  readonly line: number;
  /** The shortest note: parts of a quarter, 2 for eighths, 4 for sixteenths; triplets of it are found by themselves. */
  readonly grid: 1 | 2 | 4 | 8;
  /** Notes up to this length that lead into another are grace notes, in ms; 0 for none. */
  readonly graceMs: number;
}

const usualGraceMs = 90;
/** Grace notes before one note. */
const mostGraces = 6;
const [mostNotes, mostLines, longestQuarters] = [100_000, 64, 40_000];

/** An opened MIDI file: what it has, and how it would be written down unless somebody chooses otherwise. */
export interface OpenedMidi {
  readonly title: string;
  readonly lines: readonly MidiLine[];
  readonly choices: MidiChoices;
  readonly score: (choices: MidiChoices) => Score;
}

/**
 * Finds the lines of a MIDI file and the one that is the melody.
 * @throws ZelpitFault `not-a-score` for one without notes, or with more than can be a tune
 */
export function openMidi(file: MidiFile): OpenedMidi {
  const reader = new MidiReader(file);
  const lines = reader.lines();
  const [best] = [...lines].sort((one, other) => other.likeness - one.likeness);
  if (best === undefined) throw new ZelpitFault('not-a-score', 'This MIDI file has no notes.');
  const choices = { line: best.index, grid: reader.gridFor(best.index), graceMs: usualGraceMs };
  return { title: reader.title, lines, choices, score: (wanted) => reader.score(wanted) };
}

class MidiReader {
  title = '';
  private readonly found = new Map<string, { name: string; notes: MidiNote[] }>();
  private readonly meters: { readonly at: number; readonly meter: Meter }[] = [];
  private readonly tempos: { readonly at: number; readonly perMinute: number }[] = [];
  private fifths: number | undefined;
  private isMinor = false;

  constructor(file: MidiFile) {
    const perQuarter = file.header.ticksPerBeat ?? 480;
    let count = 0;
    file.tracks.forEach((events, track) => {
      let at = 0;
      let name = '';
      const open = new Map<string, number[]>();
      for (const event of events) {
        at += event.deltaTime / perQuarter;
        if (at > longestQuarters) throw new ZelpitFault('not-a-score', 'This MIDI file is longer than a tune can be.');
        const { type } = event;
        if (type === 'trackName' && typeof event['text'] === 'string') {
          name = event['text'].trim();
          if (track === 0) this.title = name;
        } else if (type === 'setTempo') this.tempos.push({ at, perMinute: 60_000_000 / Math.max(1, Number(event['microsecondsPerBeat'])) });
        else if (type === 'timeSignature')
          this.meters.push({ at, meter: readMeter(`${String(event['numerator'])}/${String(event['denominator'])}`) ?? commonTime });
        else if (type === 'keySignature' && this.fifths === undefined) {
          this.fifths = Math.min(7, Math.max(-7, Number(event['key']) || 0));
          this.isMinor = Number(event['scale']) === 1;
        } else if (type === 'noteOn' || type === 'noteOff') {
          const id = `${track}.${String(event['channel'])}`;
          const key = `${id}.${String(event['noteNumber'])}`;
          if (type === 'noteOn' && Number(event['velocity']) > 0) {
            count += 1;
            if (count > mostNotes) throw new ZelpitFault('not-a-score', `This MIDI file has more than ${mostNotes} notes.`);
            const begun = open.get(key);
            if (begun === undefined) open.set(key, [at]);
            else begun.push(at);
          } else {
            const start = open.get(key)?.shift();
            if (start === undefined) continue;
            const line = this.found.get(id) ?? { name: '', notes: [] };
            line.name = name;
            if (at > start) line.notes.push({ start, end: at, key: Number(event['noteNumber']) });
            this.found.set(id, line);
          }
        }
      }
    });
    for (const { notes } of this.found.values()) notes.sort((one, other) => one.start - other.start || other.key - one.key);
  }

  lines(): readonly MidiLine[] {
    return [...this.found.entries()].slice(0, mostLines).flatMap(([id, { name, notes }], index): MidiLine[] => {
      // Channel 10 is drums.
      if (notes.length === 0 || id.endsWith('.9')) return [];
      const keys = notes.map(({ key }) => key);
      const single = notes.filter((note, at) => at + 1 >= notes.length || notes[at + 1].start > note.start + 0.02).length / notes.length;
      const mean = keys.reduce((sum, key) => sum + key, 0) / keys.length;
      const isNamed = /mel|lead|flute|whistle|recorder|pipe|vocal|voice|chanter|ocarina|solo|tune/i.test(name);
      const likeness = single * 3 + Math.min(1, notes.length / 40) + mean / 60 + (isNamed ? 2 : 0) + (/bass|chord|drum|accomp|guitar/i.test(name) ? -2 : 0);
      return [{ index, name, notes: notes.length, lowest: Math.min(...limited(keys)), highest: Math.max(...limited(keys)), single, likeness }];
    });
  }

  /** The coarsest grid on which nearly all notes begin, and no two together. */
  gridFor(line: number): MidiChoices['grid'] {
    const { notes } = this.melody(line, usualGraceMs);
    for (const grid of [1, 2, 4, 8] as const) {
      const fits = notes.filter(({ start }) => Math.abs(start - snapped(start, grid)) < 0.06).length;
      const places = new Set(notes.map(({ start }) => snapped(start, grid)));
      if (fits >= notes.length * 0.95 && places.size === notes.length) return grid;
    }
    return 8;
  }

  score({ line, grid, graceMs }: MidiChoices): Score {
    const { notes } = this.melody(line, graceMs);
    const fifths = this.fifths ?? bestFifths(notes.map(({ key }) => key));
    const key = keyOfFifths(fifths, this.isMinor ? 'minor' : '');
    const placed = quantised(notes, grid);
    const { events, bars } = this.written(placed, key);
    const numbered = numberBars(bars);
    const [first] = numbered.bars;
    const perMinute = Math.round(this.tempos.at(0)?.perMinute ?? 120);
    return {
      titles: this.title === '' ? [] : [this.title],
      ...{ rhythm: '', header: [], meter: first.meter, key, tempo: { beat: 1 / 4, perMinute, words: '' } },
      voices: [{ id: '1', name: '', events, bars: numbered.bars, soundsAt: 0 }],
      ...{ partOrder: [], words: [], notices: numbered.notices },
    };
  }

  /** One note at a time, the highest, with the grace notes that lead into it. */
  private melody(line: number, graceMs: number): { readonly notes: readonly MelodyNote[] } {
    const all = [...this.found.values()].at(line)?.notes ?? [];
    const single: MidiNote[] = [];
    for (const note of all) {
      const last = single.at(-1);
      if (last !== undefined && note.start < last.start + 0.02) continue;
      if (last !== undefined && last.end > note.start) single[single.length - 1] = { ...last, end: note.start };
      single.push(note);
    }
    const notes: MelodyNote[] = [];
    let graces: MidiNote[] = [];
    single.forEach((note, index) => {
      const next = single[index + 1];
      const ms = ((note.end - note.start) * 60_000) / this.tempoAt(note.start);
      const nextMs = next === undefined ? 0 : ((next.end - next.start) * 60_000) / this.tempoAt(next.start);
      const leads = next !== undefined && next.start - note.end < 0.05 && (nextMs > ms * 1.2 || nextMs <= graceMs);
      if (graceMs > 0 && ms <= graceMs && leads && graces.length < mostGraces) {
        graces.push(note);
        return;
      }
      notes.push({ ...note, start: graces.at(0)?.start ?? note.start, graces: graces.map((grace) => grace.key) });
      graces = [];
    });
    return { notes };
  }

  private tempoAt(at: number): number {
    return this.tempos.filter((tempo) => tempo.at <= at + 1e-6).at(-1)?.perMinute ?? 120;
  }

  private meterAt(at: number): Meter {
    return this.meters.filter((each) => each.at <= at + 1e-6).at(-1)?.meter ?? commonTime;
  }

  /** Notes and rests cut at the bar lines and tied over them. */
  private written(notes: readonly Placed[], key: Key): { readonly events: readonly ScoreEvent[]; readonly bars: readonly UnnumberedBar[] } {
    const events: ScoreEvent[] = [];
    const bars: UnnumberedBar[] = [];
    const end = Math.max(...limited(notes.map((note) => note.end)), 0);
    let barStart = 0;
    let at = 0;
    while (at < end - 1e-6) {
      const meter = this.meterAt(barStart);
      const barEnd = barStart + meter.bar * 4;
      const first = events.length;
      const within = notes.filter((note) => note.start < barEnd - 1e-6 && note.end > barStart + 1e-6);
      for (const note of within) {
        const [from, to] = [Math.max(note.start, barStart), Math.min(note.end, barEnd)];
        // A tune that begins within a bar has a lead-in, no rest.
        if (from > at + 1e-6 && !(bars.length === 0 && events.length === first)) events.push(eventOf(undefined, at, from, meter));
        events.push(eventOf({ note, key, isFromBefore: note.start < barStart - 1e-6, goesOn: note.end > barEnd + 1e-6 }, from, to, meter));
        at = to;
      }
      if (at < barEnd - 1e-6 && barEnd <= end + 1e-6) events.push(eventOf(undefined, at, barEnd, meter));
      at = barEnd;
      asTriplets(events, first);
      if (events.length > first) bars.push(barOf(first, events, meter, key, bars.length % 4 === 0, barEnd >= end - 1e-6));
      barStart = barEnd;
    }
    return { events, bars };
  }
}

interface MelodyNote extends MidiNote {
  readonly graces: readonly number[];
}

type Placed = MelodyNote;

/** `Math.max` takes no more than so many at once. */
const limited = (numbers: readonly number[]): readonly number[] => numbers.slice(0, 50_000);

/** The nearest place of a grid, or of triplets of it. */
function snapped(at: number, grid: number): number {
  const plain = Math.round(at * grid) / grid;
  const triplet = Math.round(at * grid * 1.5) / (grid * 1.5);
  return Math.abs(triplet - at) < Math.abs(plain - at) - 0.02 ? triplet : plain;
}

/** Beginnings on the grid; a note lasts until the next one unless a rest of a grid step stands between. */
function quantised(notes: readonly MelodyNote[], grid: number): readonly Placed[] {
  const starts = notes.map(({ start }) => snapped(start, grid));
  return notes.flatMap((note, index): Placed[] => {
    const start = starts[index];
    const next = starts.at(index + 1) ?? Number.POSITIVE_INFINITY;
    if (next <= start) return [];
    const wanted = snapped(note.end, grid);
    const end = index + 1 < notes.length && next - wanted < 0.75 / grid ? next : Math.max(wanted, start + 1 / grid);
    return [{ ...note, start, end: Math.min(end, next) }];
  });
}

/** The signature with which the fewest notes need an accidental; of equals the one with the fewest signs. */
function bestFifths(keys: readonly number[]): number {
  let [best, fewest] = [0, Number.POSITIVE_INFINITY];
  for (const fifths of [0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6]) {
    const alters = altersOfFifths(fifths);
    const inScale = new Set([0, 1, 2, 3, 4, 5, 6].map((step) => ((semitoneOf({ step, alter: alters.get(letterOf(step)) ?? 0 }) % 12) + 12) % 12));
    const strange = keys.filter((key) => !inScale.has(key % 12)).length;
    if (strange < fewest) [best, fewest] = [fifths, strange];
  }
  return best;
}

/** How a key of the keyboard is written in a key: by its scale, else sharp in sharp keys and flat in flat ones. */
function spelled(semitone: number, { alters, fifths }: Key): Pick<ScorePitch, 'step' | 'alter'> {
  const octave = Math.floor(semitone / 12) - 5;
  const choices = Array.from({ length: 9 }, (_, index) => octave * 7 + index - 1).flatMap((step) => [-1, 0, 1].map((alter) => ({ step, alter })));
  const fitting = choices.filter((choice) => semitoneOf(choice) === semitone);
  const inScale = fitting.find(({ step, alter }) => (alters.get(letterOf(step)) ?? 0) === alter);
  return inScale ?? fitting.find(({ alter }) => alter === 0) ?? fitting.find(({ alter }) => alter === (fifths < 0 ? -1 : 1)) ?? { step: 0, alter: 0 };
}

interface WrittenPart {
  readonly note: Placed;
  readonly key: Key;
  readonly isFromBefore: boolean;
  readonly goesOn: boolean;
}

function eventOf(part: WrittenPart | undefined, from: number, to: number, meter: Meter): ScoreEvent {
  const duration = (to - from) / 4;
  const beat = meter.beat * 4;
  const pitches =
    part === undefined ? [] : [{ ...spelled(part.note.key, part.key), accidental: undefined, isTiedOn: part.goesOn, isTiedFromPrevious: part.isFromBefore }];
  const graces = part === undefined || part.isFromBefore ? [] : part.note.graces;
  const plainPitch = (semitone: number): ScorePitch => ({
    ...spelled(semitone, (part as WrittenPart).key),
    accidental: undefined,
    isTiedOn: false,
    isTiedFromPrevious: false,
  });
  return {
    ...{ pitches, isHidden: false, graceNotes: graces.map(plainPitch), isGraceSlashed: false, duration, written: duration, tuplets: [], decorations: [] },
    ...{ chordSymbol: '', annotations: [], lyrics: [], slurStarts: 0, slurEnds: 0 },
    joinsPrevious: part !== undefined && duration < 1 / 4 && Math.abs(from / beat - Math.round(from / beat)) > 1e-6,
    source: { start: 0, end: 0 },
  };
}

/** Thirds of a beat that follow each other are triplets: three in the time of two. */
function asTriplets(events: ScoreEvent[], first: number): void {
  let begin = -1;
  let sum = 0;
  for (let index = first; index < events.length; index += 1) {
    const { duration } = events[index];
    if (begin === -1 && isPlain(duration)) continue;
    if (begin === -1) begin = index;
    sum += duration;
    if (!isPlain(sum)) continue;
    for (let at = begin; at <= index; at += 1) {
      const tuplet = { actual: 3, normal: 2, isFirst: at === begin, isLast: at === index };
      events[at] = { ...events[at], written: events[at].duration * 1.5, tuplets: [tuplet] };
    }
    begin = -1;
    sum = 0;
  }
}

/** True for lengths that halvings give. */
const isPlain = (length: number): boolean => Math.abs(length * 256 - Math.round(length * 256)) < 1e-6;

function barOf(first: number, events: readonly ScoreEvent[], meter: Meter, key: Key, startsLine: boolean, isLast: boolean): UnnumberedBar {
  const length = events.slice(first).reduce((sum, { duration }) => sum + duration, 0);
  return {
    ...{ first, end: events.length, length, meter, key, tempo: undefined, part: '', opensRepeat: false, closesRepeat: 0, passes: [], opensEnding: false },
    ...{ line: isLast ? 'end' : 'single', marks: [], overlays: [], startsLine, source: { start: 0, end: 0 } },
  };
}
