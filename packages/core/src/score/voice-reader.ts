import type { AbcToken, LetterToken } from './abc-tokens';
import { count } from '../words';
import { lyricSteps } from './lyrics';
import { readBarSign } from './bar-sign';
import { marksIn } from './marks';
import { isCompound } from './meter';
import { numberBars, type UnnumberedBar } from './number-bars';
import { letterOf } from './score';
import type { BarLine, BarMark, Draft, Key, Meter, ScoreEvent, ScoreNotice, ScorePitch, ScoreVoice, Syllable, Tempo, Tuplet } from './score';

/** Words under a line of notes, while they are read. */
interface Verse {
  readonly index: number;
  at: number;
  /** Syllables that stand under a note. */
  given: number;
  /** Those for which there is none. */
  readonly extra: string[];
}
const noVerse: Verse = { index: -1, at: 0, given: 0, extra: [] };

interface EventDraft extends Omit<Draft<ScoreEvent>, 'lyrics' | 'pitches'> {
  pitches: Draft<ScorePitch>[];
  lyrics: Syllable[];
}
interface OpenTuplet {
  readonly actual: number;
  readonly normal: number;
  readonly notes: number;
  left: number;
}
type OpenBar = Pick<Draft<UnnumberedBar>, 'first' | 'tempo' | 'part' | 'opensRepeat' | 'passes' | 'opensEnding' | 'startsLine'> & {
  marks: BarMark[];
  overlays: EventDraft[][];
  start: number;
};

/** How far an accidental reaches within its bar: `%%propagate-accidentals`. */
export type Propagation = 'pitch' | 'octave' | 'not';

/** What all voices of a tune share while they are read. */
export interface SharedReading {
  propagation: Propagation;
  /** Signs of one letter, by `U:` and by custom. */
  readonly symbols: Map<string, string>;
  readonly passOver: (text: string) => void;
}

/** What is in force where a voice begins. */
export interface VoiceStart {
  readonly id: string;
  readonly name: string;
  readonly meter: Meter;
  readonly unit: number;
  readonly key: Key;
  readonly tempo: Tempo | undefined;
  readonly octaves: number;
  readonly soundsAt: number;
}

const semitones: Readonly<Record<NonNullable<ScorePitch['accidental']>, number>> = { sharp: 1, flat: -1, natural: 0, 'double-sharp': 2, 'double-flat': -2 };
const emptySyllable: Syllable = { text: '', joins: false, holds: false };

/** Reads the notes and bars of one voice, piece by piece as they stand in the text. */
export class VoiceReader {
  meter: Meter;
  unit: number;
  key: Key;
  octaves: number;
  soundsAt: number;
  name: string;
  private readonly events: EventDraft[] = [];
  private readonly bars: UnnumberedBar[] = [];
  private into: EventDraft[] = this.events;
  private open: OpenBar;
  private readonly barAccidentals = new Map<string | number, number>();
  private ties: ReadonlyMap<number, Draft<ScorePitch>> = new Map();
  private tuplets: OpenTuplet[] = [];
  private broken = 1;
  private openTimes = 1;
  private pending = noPending();
  private line: { event: EventDraft; bar: number }[] = [];
  private verse: Verse = { ...noVerse };
  /** What does not add up of the words, with the bar that it is of as an index. */
  private readonly wordNotices: { readonly bar: number; readonly text: string }[] = [];
  private lastMusic = 0;
  /** Where the token before ended: a gap ends a beam. */
  private lastEnd = 0;
  private hasGap = true;

  constructor(
    private readonly start: VoiceStart,
    private readonly shared: SharedReading,
  ) {
    ({ meter: this.meter, unit: this.unit, key: this.key, octaves: this.octaves, soundsAt: this.soundsAt, name: this.name } = start);
    this.open = this.emptyBar(0, []);
    this.open.tempo = start.tempo;
  }

  /** A line of the text begins in this voice. */
  beginLine(start: number): void {
    this.closeVerse();
    this.line = [];
    this.verse = { ...noVerse };
    if (this.events.length === this.open.first) {
      this.open.startsLine = true;
      this.open.start = start;
    }
  }

  setTempo(tempo: Tempo): void {
    this.open.tempo = tempo;
  }

  setPart(label: string): void {
    if (this.events.length > this.open.first) this.closeBar('', 0, this.lastMusic);
    this.open.part = label;
  }

  /** @param offset where the token's line begins in the text */
  take(token: AbcToken, offset: number): void {
    const at = offset + token.start;
    if (at > this.lastEnd || token.kind === 'bar') this.hasGap = true;
    this.lastEnd = offset + token.end;
    switch (token.kind) {
      case 'note':
        this.add([token.letter], token.letter.length * this.unit, false, at, offset + token.end);
        break;
      case 'chord':
        this.add(token.letters, token.length * this.unit, false, at, offset + token.end);
        break;
      case 'rest':
        if (token.isInBars) this.restBars(token.length, token.isHidden, at, offset + token.end);
        else this.add([], token.length * this.unit, token.isHidden, at, offset + token.end);
        break;
      case 'grace':
        this.begin(at).graceNotes.push(...this.gracePitches(token.letters));
        this.pending.isGraceSlashed = token.isSlashed;
        break;
      case 'bar':
        this.closeBar(token.sign, token.times, offset + token.end);
        break;
      case 'ending':
        if (this.events.length > this.open.first) this.closeBar('', 0, at);
        this.open.passes = token.passes;
        this.open.opensEnding = true;
        break;
      case 'tuplet':
        this.begin(at);
        this.openTuplet(token.actual, token.normal, token.notes);
        break;
      case 'broken':
        this.breakRhythm(token.dots, token.isLongFirst);
        break;
      case 'decoration':
        this.decorate(token.name, at);
        break;
      case 'symbol':
        this.decorateBySymbol(token.letter, at);
        break;
      case 'text':
        this.addText(token.text, at);
        break;
      case 'tie':
        this.tie(this.last()?.pitches ?? [], offset + token.end);
        break;
      case 'slur-start':
        this.begin(at).slurStarts += 1;
        break;
      case 'slur-end': {
        const last = this.last();
        if (last !== undefined) last.slurEnds += 1;
        break;
      }
      case 'overlay':
        this.openOverlay();
        break;
      // Fields, faults and lines that go on are the business of who reads the lines.
      case 'field':
      case 'fault':
      case 'continues':
        break;
      case 'passed-over':
        if (token.text !== '') this.shared.passOver(`“${token.text}”`);
        break;
    }
  }

  /** Signs over the line of notes before (`s:`), one for each note: a decoration, words in quotes, `*` for none, a bar line for the next bar. */
  addSigns(text: string): void {
    let at = 0;
    for (const [piece, decoration, words] of text.matchAll(/!([^!]+)!|"([^"]*)"|\*|\||[^\s*|!"]+/g)) {
      if (piece === '|') {
        at = this.nextBar(at);
        continue;
      }
      const event = this.line.at(at)?.event;
      if (at >= this.line.length || event === undefined) {
        this.shared.passOver('signs that stand over no note (s:)');
        return;
      }
      if (decoration !== undefined) event.decorations = [...event.decorations, decoration];
      else if (words !== undefined && /^[\^_<>@]/.test(words)) event.annotations = [...event.annotations, words.slice(1)];
      else if (words !== undefined) event.chordSymbol = words;
      else {
        const name = this.shared.symbols.get(piece);
        if (name !== undefined && name !== '') event.decorations = [...event.decorations, name];
      }
      at += 1;
    }
  }

  /** The place of the first note of the bar after the one before `at`, in the line. */
  private nextBar(at: number): number {
    const bar = this.line[Math.max(0, at - 1)]?.bar;
    let next = at;
    if (at > 0) while (next < this.line.length && this.line[next].bar === bar) next += 1;
    return next;
  }

  /** Words under the line of notes before, one call a verse; `goesOn` where a line of words goes on with the verse before. */
  addWords(text: string, goesOn = false): void {
    if (!goesOn || this.verse.index < 0) {
      this.closeVerse();
      this.verse = { index: this.verse.index + 1, at: 0, given: 0, extra: [] };
    }
    const { index } = this.verse;
    let { at } = this.verse;
    for (const step of lyricSteps(text)) {
      if (step.kind === 'next-bar') {
        at = this.nextBar(at);
        continue;
      }
      const place = this.line.at(at);
      if (at >= this.line.length || place === undefined) {
        if (step.kind === 'syllable') this.verse.extra.push(step.syllable.text);
        continue;
      }
      while (place.event.lyrics.length <= index) place.event.lyrics.push(emptySyllable);
      if (step.kind === 'syllable') {
        place.event.lyrics[index] = step.syllable;
        this.verse.given += 1;
      }
      at += 1;
    }
    this.verse.at = at;
  }

  /** A verse under a line of notes has ended: too many syllables or too few are named where they run out. */
  private closeVerse(): void {
    const { index, at, given, extra } = this.verse;
    if (index < 0 || this.line.length === 0) return;
    const notes = count(this.line.length, 'note');
    const last = this.line[this.line.length - 1];
    if (extra.length > 0) {
      const [first] = extra.filter((text) => text !== '');
      const from = first === undefined ? '' : `, none is left for “${first}”`;
      this.wordNotices.push({ bar: last.bar, text: `words: ${count(given + extra.length, 'syllable')} under ${notes}${from}` });
    } else if (given > 0 && at < this.line.length) {
      const left = this.line.length - at;
      this.wordNotices.push({ bar: this.line[at].bar, text: `words: they run out here, ${count(left, 'note has', 'notes have')} none` });
    }
  }

  /** The voice as it was read; `undefined` where it has no notes. */
  finish(): { readonly voice: ScoreVoice; readonly notices: readonly ScoreNotice[] } | undefined {
    if (this.events.length > this.open.first) this.closeBar('', 0, this.lastMusic);
    else this.marksBelongBefore();
    this.closeVerse();
    const last = this.bars.at(-1);
    if (last === undefined) return undefined;
    const { bars, notices } = numberBars(this.bars);
    const words = this.wordNotices.map(({ bar, text }): ScoreNotice => ({ kind: 'words', text, bar: bars[Math.min(bar, bars.length - 1)].number, beat: 1 }));
    return { voice: { id: this.start.id, name: this.name, events: this.events, bars, soundsAt: this.soundsAt }, notices: [...notices, ...words] };
  }

  private last(): EventDraft | undefined {
    return this.into.at(-1);
  }

  private begin(at: number): Pending {
    this.pending.start = Math.min(this.pending.start, at);
    return this.pending;
  }

  private add(letters: readonly LetterToken[], written: number, isHidden: boolean, at: number, end: number): void {
    const length = written * this.broken;
    this.broken = 1;
    const ties = this.ties;
    this.ties = new Map();
    const pitches = letters.map((letter) => this.pitchOf(letter, ties));
    const tuplets = this.tupletsHere();
    const { start, graceNotes, isGraceSlashed, decorations, chordSymbol, annotations, slurStarts } = this.pending;
    const event: EventDraft = {
      pitches,
      isHidden,
      graceNotes,
      isGraceSlashed,
      duration: tuplets.reduce((sum, { actual, normal }) => (sum * normal) / actual, length),
      written: length,
      tuplets,
      decorations,
      chordSymbol,
      annotations,
      lyrics: [],
      slurStarts,
      slurEnds: 0,
      joinsPrevious: !this.hasGap,
      source: { start: Math.min(start, at), end },
    };
    this.pending = noPending();
    this.hasGap = false;
    this.into.push(event);
    this.lastMusic = end;
    if (this.into === this.events && pitches.length > 0) this.line.push({ event, bar: this.bars.length });
    this.tie(
      pitches.filter((_, index) => letters[index].isTied),
      end,
    );
  }

  private pitchOf({ accidental, step: written }: LetterToken, ties: ReadonlyMap<number, Draft<ScorePitch>>): Draft<ScorePitch> {
    const step = written + 7 * this.octaves;
    const tied = ties.get(step);
    const place = this.shared.propagation === 'octave' ? step : letterOf(step);
    let alter: number;
    if (accidental !== undefined) {
      alter = semitones[accidental];
      if (this.shared.propagation !== 'not') this.barAccidentals.set(place, alter);
    } else alter = tied?.alter ?? this.barAccidentals.get(place) ?? this.key.alters.get(letterOf(step)) ?? 0;
    const isTiedFromPrevious = tied !== undefined && tied.alter === alter;
    if (isTiedFromPrevious) tied.isTiedOn = true;
    return { step, alter, accidental, isTiedOn: false, isTiedFromPrevious };
  }

  /** Accidentals of a group of grace notes stay in it. */
  private gracePitches(letters: readonly LetterToken[]): ScorePitch[] {
    const own = new Map<string, number>();
    return letters.map(({ accidental, step: written }) => {
      const step = written + 7 * this.octaves;
      const letter = letterOf(step);
      if (accidental !== undefined) own.set(letter, semitones[accidental]);
      const place = this.shared.propagation === 'octave' ? step : letter;
      const alter = own.get(letter) ?? this.barAccidentals.get(place) ?? this.key.alters.get(letter) ?? 0;
      return { step, alter, accidental, isTiedOn: false, isTiedFromPrevious: false };
    });
  }

  private tie(pitches: readonly Draft<ScorePitch>[], end: number): void {
    if (pitches.length === 0) return;
    this.ties = new Map([...this.ties, ...pitches.map((pitch) => [pitch.step, pitch] as const)]);
    const last = this.last();
    if (last !== undefined) last.source = { start: last.source.start, end };
  }

  private openTuplet(actual: number, normal: number, notes: number): void {
    const odd = isCompound(this.meter) ? 3 : 2;
    const usual: Readonly<Record<number, number>> = { 2: 3, 3: 2, 4: 3, 6: 2, 8: 3 };
    const count = notes === 0 ? actual : notes;
    this.tuplets.push({ actual, normal: normal === 0 ? (usual[actual] ?? odd) : normal, notes: count, left: count });
  }

  private tupletsHere(): readonly Tuplet[] {
    if (this.tuplets.length === 0) return noTuplets;
    const here = this.tuplets.map(({ actual, normal, notes, left }) => ({ actual, normal, isFirst: left === notes, isLast: left === 1 }));
    for (const each of this.tuplets) each.left -= 1;
    this.tuplets = this.tuplets.filter(({ left }) => left > 0);
    return here;
  }

  private breakRhythm(dots: number, isLongFirst: boolean): void {
    const last = this.last();
    if (last === undefined) return;
    const [short, long] = [2 ** -dots, 2 - 2 ** -dots];
    const factor = isLongFirst ? long : short;
    last.duration *= factor;
    last.written *= factor;
    this.broken = isLongFirst ? short : long;
  }

  private decorate(name: string, at: number): void {
    if (!this.mark(name)) this.begin(at).decorations.push(name);
  }

  private decorateBySymbol(letter: string, at: number): void {
    const name = this.shared.symbols.get(letter);
    if (name === undefined) this.shared.passOver(`“${letter}”, which no U: explains`);
    else if (name !== '') this.decorate(name, at);
  }

  private addText(text: string, at: number): void {
    const isAnnotation = /^[\^_<>@]/.test(text);
    const words = isAnnotation ? text.slice(1) : text;
    if (this.mark(words)) return;
    if (isAnnotation) this.begin(at).annotations.push(words);
    else this.begin(at).chordSymbol = text;
  }

  private mark(text: string): boolean {
    const marks = marksIn(text);
    const isAtStart = this.events.length === this.open.first;
    this.open.marks.push(...marks.map((mark) => ({ mark, isAtStart })));
    return marks.length > 0;
  }

  private openOverlay(): void {
    this.into = [];
    this.open.overlays.push(this.into);
    this.ties = new Map();
    this.tuplets = [];
    this.broken = 1;
  }

  private restBars(count: number, isHidden: boolean, at: number, end: number): void {
    for (let bar = 1; bar <= count; bar += 1) {
      this.add([], this.meter.bar === 0 ? 1 : this.meter.bar, isHidden, at, end);
      if (bar < count) this.closeBar('|', 0, end);
    }
  }

  private closeBar(sign: string, times: number, end: number): void {
    const { closes, opens, line, openTimes } = readBarSign(sign, times, this.openTimes);
    this.openTimes = openTimes;
    const { first } = this.open;
    const hasNotes = this.events.length > first;
    if (hasNotes) this.pushBar(closes, line, end);
    else if (closes > 0 || line === 'double' || line === 'end') this.closeLate(closes, line, end);
    const endsEnding = closes > 0 || opens || line === 'double' || line === 'end' || line === 'begin';
    const next = this.emptyBar(hasNotes ? end : this.open.start, endsEnding ? [] : this.open.passes);
    if (hasNotes) next.opensRepeat = opens;
    else {
      const { tempo, part, marks, opensEnding, startsLine } = this.open;
      Object.assign(next, { tempo, part, marks, startsLine, opensEnding: opensEnding && !endsEnding, opensRepeat: opens || this.open.opensRepeat });
    }
    this.open = next;
    this.into = this.events;
    this.barAccidentals.clear();
    this.tuplets = [];
    this.hasGap = true;
  }

  private pushBar(closes: number, line: BarLine, end: number): void {
    const { first, start, marks, overlays, ...rest } = this.open;
    const length = this.events.slice(first).reduce((sum, { duration }) => sum + duration, 0);
    const { meter, key } = this;
    this.bars.push({ ...rest, first, end: this.events.length, length, meter, key, closesRepeat: closes, line, marks, overlays, source: { start, end } });
  }

  /** A repeat sign or a double bar that stands alone, after the bar line: it belongs to the bar before. */
  private closeLate(closes: number, line: BarLine, end: number): void {
    const last = this.bars.at(-1);
    // An ending without music closes what stands before it.
    if (last === undefined || (this.open.opensEnding && closes === 0)) return;
    this.bars[this.bars.length - 1] = {
      ...last,
      closesRepeat: Math.max(last.closesRepeat, closes),
      line: line === 'single' ? last.line : line,
      source: { start: last.source.start, end },
    };
    this.open.start = end;
  }

  private marksBelongBefore(): void {
    const last = this.bars.at(-1);
    if (last === undefined || this.open.marks.length === 0) return;
    this.bars[this.bars.length - 1] = { ...last, marks: [...last.marks, ...this.open.marks.map(({ mark }) => ({ mark, isAtStart: false }))] };
  }

  private emptyBar(start: number, passes: readonly number[]): OpenBar {
    return {
      ...{ first: this.events.length, tempo: undefined, part: '', opensRepeat: false, passes, opensEnding: false, startsLine: false },
      ...{ marks: [], overlays: [], start },
    };
  }
}

interface Pending {
  start: number;
  graceNotes: ScorePitch[];
  isGraceSlashed: boolean;
  decorations: string[];
  chordSymbol: string;
  annotations: string[];
  slurStarts: number;
}

const noPending = (): Pending => ({
  ...{ start: Number.POSITIVE_INFINITY, graceNotes: [], isGraceSlashed: false, decorations: [], chordSymbol: '', annotations: [], slurStarts: 0 },
});

const noTuplets: readonly Tuplet[] = [];
