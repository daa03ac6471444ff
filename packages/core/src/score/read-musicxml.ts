import { ZelpitFault } from '../fault';
import { keyOfFifths, plainKey } from './key';
import { marksIn } from './marks';
import { commonTime, freeMeter, readMeter } from './meter';
import { numberBars, type UnnumberedBar } from './number-bars';
import { letterOfStep, semitoneOf } from './score';
import type {
  Accidental,
  BarLine,
  BarMark,
  Draft,
  HeaderField,
  Key,
  Mark,
  Meter,
  Score,
  ScoreEvent,
  ScoreNotice,
  ScorePitch,
  ScoreVoice,
  Syllable,
  Tempo,
  Tuplet,
} from './score';
import { childOf, childrenOf, textIn, type XmlNode } from './xml-node';

type PitchDraft = Draft<ScorePitch> & { wantsTie: boolean };
interface EventDraft extends Omit<Draft<ScoreEvent>, 'pitches' | 'lyrics' | 'tuplets' | 'decorations' | 'annotations'> {
  pitches: PitchDraft[];
  lyrics: Syllable[];
  tuplets: Tuplet[];
  decorations: string[];
  annotations: string[];
  /** In whole notes from the start of its bar. */
  start: number;
  modification: { readonly actual: number; readonly normal: number } | undefined;
  /** True where a bracket of the outermost tuplet begins or ends. */
  bracket: { readonly begins: boolean; readonly ends: boolean };
}

/** A score of more than that is none that a person practises. */
const [mostMeasures, mostNotes, mostParts] = [20_000, 200_000, 40];

/**
 * Reads a MusicXML score, every part a voice; further voices of a part are voices of their own.
 * @throws ZelpitFault `not-a-score` with a sentence for what is no such score, or has no notes
 */
export function readMusicXml(root: XmlNode): Score {
  if (root.name === 'score-timewise') throw notAScore('This MusicXML file is ordered by bars (score-timewise). Save it again as score-partwise.');
  if (root.name !== 'score-partwise') throw notAScore('This XML file is not a MusicXML score.');
  const parts = childrenOf(root, 'part').slice(0, mostParts);
  const names = new Map(childrenOf(childOf(root, 'part-list'), 'score-part').map((part) => [part.attributes['id'] ?? '', textIn(childOf(part, 'part-name'))]));
  const read = parts.map((part) => new PartReader(part.attributes['id'] ?? '', names.get(part.attributes['id'] ?? '') ?? '').read(part, parts.length > 1));
  const voices = read.flatMap((part) => part.voices);
  if (!voices.some(({ events }) => events.some(({ pitches }) => pitches.length > 0))) throw notAScore('This MusicXML file has no notes.');
  const [first] = voices;
  return {
    titles: titlesOf(root),
    rhythm: '',
    header: headerOf(root),
    meter: first.bars[0].meter,
    key: first.bars[0].key,
    tempo: read.map(({ tempo }) => tempo).find((tempo) => tempo !== undefined),
    voices,
    partOrder: [],
    words: [],
    notices: read[0]?.notices ?? [],
  };
}

const notAScore = (text: string): ZelpitFault => new ZelpitFault('not-a-score', text);

function titlesOf(root: XmlNode): readonly string[] {
  const titles = [textIn(childOf(childOf(root, 'work'), 'work-title')), textIn(childOf(root, 'movement-title'))];
  return [...new Set(titles.filter((title) => title !== ''))];
}

function headerOf(root: XmlNode): readonly HeaderField[] {
  const identification = childOf(root, 'identification');
  const creators = childrenOf(identification, 'creator').map((creator): HeaderField => ({
    letter: creator.attributes['type'] === 'lyricist' ? 'A' : 'C',
    text: textIn(creator),
  }));
  const rights = childrenOf(identification, 'rights').map((each): HeaderField => ({ letter: 'N', text: textIn(each) }));
  return [...creators, ...rights].filter(({ text }) => text !== '');
}

const accidentals: Readonly<Record<string, Accidental>> = {
  ...{ sharp: 'sharp', flat: 'flat', natural: 'natural', 'double-sharp': 'double-sharp', 'sharp-sharp': 'double-sharp', 'flat-flat': 'double-flat' },
};
const decorationOf: Readonly<Record<string, string>> = {
  ...{ 'trill-mark': 'trill', mordent: 'lowermordent', 'inverted-mordent': 'uppermordent', turn: 'turn', 'inverted-turn': 'invertedturn' },
  ...{ staccato: 'staccato', accent: 'accent', tenuto: 'tenuto', 'strong-accent': 'marcato', staccatissimo: 'wedge', 'breath-mark': 'breath' },
  ...{ 'up-bow': 'upbow', 'down-bow': 'downbow', fermata: 'fermata' },
};
const soundMarks: Readonly<Record<string, Mark>> = {
  ...{ dacapo: 'da-capo', dalsegno: 'dal-segno', fine: 'fine', tocoda: 'to-coda', segno: 'segno', coda: 'coda' },
};
const beatUnits: Readonly<Record<string, number>> = {
  ...{ breve: 2, whole: 1, half: 1 / 2, quarter: 1 / 4, eighth: 1 / 8, '16th': 1 / 16, '32nd': 1 / 32 },
};
const barLines: Readonly<Record<string, BarLine>> = {
  'light-light': 'double',
  'light-heavy': 'end',
  'heavy-light': 'begin',
  dotted: 'dotted',
  dashed: 'dotted',
  none: 'none',
};

interface BarDraft {
  readonly meter: Meter;
  readonly key: Key;
  tempo: Tempo | undefined;
  part: string;
  opensRepeat: boolean;
  closesRepeat: number;
  passes: readonly number[];
  opensEnding: boolean;
  line: BarLine;
  marks: BarMark[];
  startsLine: boolean;
  /** Events by their voice. */
  readonly events: Map<string, EventDraft[]>;
  length: number;
  /** True where nothing but a whole bar's rest stands in it. */
  isSilence: boolean;
}

interface Pending {
  graceNotes: ScorePitch[];
  isGraceSlashed: boolean;
  chordSymbol: string;
  annotations: string[];
}

class PartReader {
  private divisions = 1;
  private meter: Meter = commonTime;
  private key: Key = plainKey;
  private soundsAt = 0;
  private clefOctaves = 0;
  private tempo: Tempo | undefined;
  private ending: readonly number[] = [];
  private readonly bars: BarDraft[] = [];
  private readonly pending = new Map<string, Pending>();
  private words: { chordSymbol: string; annotations: string[] } = { chordSymbol: '', annotations: [] };
  private notes = 0;

  constructor(
    private readonly id: string,
    private readonly name: string,
  ) {}

  /** @param isShared true where other parts may go on longer: then bars of rest at the end are none of this one's */
  read(
    part: XmlNode,
    isShared: boolean,
  ): { readonly voices: readonly ScoreVoice[]; readonly notices: readonly ScoreNotice[]; readonly tempo: Tempo | undefined } {
    const measures = childrenOf(part, 'measure');
    if (measures.length > mostMeasures) throw notAScore(`This score has ${measures.length} bars; at most ${mostMeasures} can be read.`);
    for (const measure of measures) this.readMeasure(measure);
    if (isShared) this.bars.length = this.bars.findLastIndex(({ isSilence }) => !isSilence) + 1;
    const keys = [...new Set(this.bars.flatMap(({ events }) => [...events.keys()]))];
    const filled = keys.map((key, index) =>
      this.voice(key, index === 0 ? this.id : `${this.id}-${key}`, index === 0 ? this.name : `${this.name} ${index + 1}`.trim()),
    );
    return { voices: filled.map(({ voice }) => voice), notices: filled[0]?.notices ?? [], tempo: this.tempo };
  }

  private readMeasure(measure: XmlNode): void {
    let at = 0;
    let bar: BarDraft | undefined;
    const open = (): BarDraft => (bar ??= this.newBar());
    let startsLine = this.bars.length === 0;
    let longest = 0;
    let last: EventDraft | undefined;
    for (const child of measure.children) {
      if (typeof child === 'string') continue;
      if (child.name === 'attributes') this.readAttributes(child);
      else if (child.name === 'print') startsLine ||= child.attributes['new-system'] === 'yes';
      else if (child.name === 'backup') at = Math.max(0, at - this.length(child));
      else if (child.name === 'forward') at += this.length(child);
      else if (child.name === 'direction' || child.name === 'sound') this.readDirection(child, open(), at === 0);
      else if (child.name === 'harmony') this.words.chordSymbol = chordSymbolOf(child);
      else if (child.name === 'barline') this.readBarLine(child, open());
      else if (child.name === 'note') {
        const read = this.readNote(child, open(), at, last);
        if (read !== undefined) {
          if (read !== last) at += read.duration;
          last = read;
        }
      }
      longest = Math.max(longest, at);
    }
    const done = open();
    done.isSilence = childrenOf(measure, 'note').every((note) => childOf(note, 'rest')?.attributes['measure'] === 'yes');
    done.startsLine = startsLine;
    done.length = longest;
    this.bars.push(done);
  }

  private newBar(): BarDraft {
    const { meter, key } = this;
    return {
      ...{ meter, key, tempo: undefined, part: '', opensRepeat: false, closesRepeat: 0, passes: this.ending, opensEnding: false, line: 'single' },
      ...{ marks: [], startsLine: false, events: new Map<string, EventDraft[]>(), length: 0, isSilence: false },
    };
  }

  private length(node: XmlNode): number {
    const duration = Number(textIn(childOf(node, 'duration')));
    return Number.isFinite(duration) && duration > 0 ? duration / this.divisions / 4 : 0;
  }

  private readAttributes(node: XmlNode): void {
    const divisions = Number(textIn(childOf(node, 'divisions')));
    if (divisions > 0) this.divisions = divisions;
    const key = childOf(node, 'key');
    if (key !== undefined) this.key = keyOf(key);
    const time = childOf(node, 'time');
    if (time !== undefined) this.meter = meterOf(time);
    const transpose = childOf(node, 'transpose');
    if (transpose !== undefined)
      this.soundsAt = (Number(textIn(childOf(transpose, 'chromatic'))) || 0) + 12 * (Number(textIn(childOf(transpose, 'octave-change'))) || 0);
    const clef = childOf(node, 'clef');
    if (clef !== undefined) this.clefOctaves = Number(textIn(childOf(clef, 'clef-octave-change'))) || 0;
  }

  private readDirection(node: XmlNode, bar: BarDraft, isAtStart: boolean): void {
    const marks: Mark[] = [];
    const sound = node.name === 'sound' ? node : childOf(node, 'sound');
    const words: string[] = [];
    for (const type of childrenOf(node, 'direction-type').flatMap(({ children }) => children)) {
      if (typeof type === 'string') continue;
      if (type.name === 'rehearsal') bar.part = textIn(type).slice(0, 20);
      else if (type.name === 'segno' || type.name === 'coda') marks.push(type.name);
      else if (type.name === 'words') words.push(textIn(type));
      else if (type.name === 'metronome') this.setTempo(bar, metronomeOf(type, words.join(' ')));
    }
    for (const text of words) {
      const meant = marksIn(text);
      marks.push(...meant);
      if (meant.length === 0 && !this.isTempoWord(node) && text !== '') this.words.annotations.push(text);
    }
    for (const [name, mark] of Object.entries(soundMarks)) if (sound?.attributes[name] !== undefined) marks.push(mark);
    bar.marks.push(...[...new Set(marks)].map((mark) => ({ mark, isAtStart })));
    const perMinute = Number(sound?.attributes['tempo']);
    if (perMinute > 0 && bar.tempo === undefined) this.setTempo(bar, { beat: 1 / 4, perMinute, words: words.join(' ') });
  }

  private isTempoWord(node: XmlNode): boolean {
    const types = childrenOf(node, 'direction-type').flatMap(({ children }) => children);
    return types.some((type) => typeof type !== 'string' && type.name === 'metronome') || Number(childOf(node, 'sound')?.attributes['tempo']) > 0;
  }

  private setTempo(bar: BarDraft, tempo: Tempo | undefined): void {
    if (tempo === undefined) return;
    if (this.tempo === undefined) this.tempo = tempo;
    else bar.tempo = tempo;
  }

  private readBarLine(node: XmlNode, bar: BarDraft): void {
    const repeat = childOf(node, 'repeat');
    const ending = childOf(node, 'ending');
    const isLeft = node.attributes['location'] === 'left';
    if (repeat?.attributes['direction'] === 'forward') bar.opensRepeat = true;
    if (repeat?.attributes['direction'] === 'backward') bar.closesRepeat = Math.min(16, Math.max(2, Number(repeat.attributes['times'] ?? 2) || 2));
    if (ending?.attributes['type'] === 'start') {
      bar.passes = passesOf(ending.attributes['number'] ?? '');
      bar.opensEnding = true;
      this.ending = bar.passes;
    } else if (ending !== undefined) this.ending = [];
    if (!isLeft) bar.line = barLines[textIn(childOf(node, 'bar-style'))] ?? bar.line;
    if (bar.closesRepeat > 0) bar.line = 'single';
  }

  /** The event that a note begins or joins; undefined for grace notes and cues. */
  private readNote(node: XmlNode, bar: BarDraft, at: number, last: EventDraft | undefined): EventDraft | undefined {
    this.notes += 1;
    if (this.notes > mostNotes) throw notAScore(`This score has more than ${mostNotes} notes.`);
    if (childOf(node, 'cue') !== undefined) return undefined;
    const voice = `${textIn(childOf(node, 'staff')) || '1'}.${textIn(childOf(node, 'voice')) || '1'}`;
    const pitch = this.pitchOf(node);
    const pending = this.pendingOf(voice);
    if (childOf(node, 'grace') !== undefined) {
      if (pitch !== undefined) pending.graceNotes.push(pitch);
      pending.isGraceSlashed ||= childOf(node, 'grace')?.attributes['slash'] === 'yes';
      return undefined;
    }
    if (childOf(node, 'chord') !== undefined && last !== undefined) {
      if (pitch !== undefined) last.pitches.push(pitch);
      return last;
    }
    const event = this.eventOf(node, pitch, pending, at);
    this.pending.delete(voice);
    const events = bar.events.get(voice);
    if (events === undefined) bar.events.set(voice, [event]);
    else events.push(event);
    return event;
  }

  private pendingOf(voice: string): Pending {
    const known = this.pending.get(voice) ?? { graceNotes: [], isGraceSlashed: false, ...this.words };
    this.pending.set(voice, known);
    if (known.chordSymbol === '') known.chordSymbol = this.words.chordSymbol;
    if (known.annotations.length === 0) known.annotations = this.words.annotations;
    this.words = { chordSymbol: '', annotations: [] };
    return known;
  }

  private pitchOf(node: XmlNode): PitchDraft | undefined {
    const pitch = childOf(node, 'pitch') ?? childOf(node, 'unpitched');
    if (pitch === undefined) return undefined;
    const letter = textIn(childOf(pitch, 'step') ?? childOf(pitch, 'display-step'));
    const octave = Number(textIn(childOf(pitch, 'octave') ?? childOf(pitch, 'display-octave')));
    const alter = Math.round(Number(textIn(childOf(pitch, 'alter'))) || 0);
    const step = letterOfStep.indexOf(letter);
    if (step === -1 || !Number.isInteger(octave) || Math.abs(alter) > 2 || Math.abs(octave) > 12) {
      throw notAScore(`Bar ${this.bars.length + 1} of this score has a note without a height.`);
    }
    const accidental = accidentals[textIn(childOf(node, 'accidental'))];
    const wantsTie = childrenOf(node, 'tie').some(({ attributes }) => attributes['type'] === 'start');
    return { step: step + (octave - 4 - this.clefOctaves) * 7, alter, accidental, isTiedOn: false, isTiedFromPrevious: false, wantsTie };
  }

  private eventOf(node: XmlNode, pitch: PitchDraft | undefined, { graceNotes, isGraceSlashed, chordSymbol, annotations }: Pending, start: number): EventDraft {
    const rest = childOf(node, 'rest');
    const duration = this.length(node);
    const modification = modificationOf(node);
    const isWholeBar = rest?.attributes['measure'] === 'yes' && duration === 0;
    const sounds = isWholeBar ? this.meter.bar : duration;
    const notations = childrenOf(node, 'notations');
    const slurs = notations.flatMap((each) => childrenOf(each, 'slur'));
    return {
      ...{ pitches: pitch === undefined ? [] : [pitch], isHidden: node.attributes['print-object'] === 'no', graceNotes, isGraceSlashed },
      duration: sounds,
      written: modification === undefined ? sounds : (sounds * modification.actual) / modification.normal,
      ...{ tuplets: [], modification, start, chordSymbol, annotations, bracket: bracketOf(notations) },
      decorations: decorationsOf(notations),
      lyrics: lyricsOf(node),
      slurStarts: slurs.filter(({ attributes }) => attributes['type'] === 'start').length,
      slurEnds: slurs.filter(({ attributes }) => attributes['type'] === 'stop').length,
      joinsPrevious: childrenOf(node, 'beam').some((beam) => (beam.attributes['number'] ?? '1') === '1' && ['continue', 'end'].includes(textIn(beam))),
      source: { start: 0, end: 0 },
    };
  }

  /** One voice through all bars; where it is silent stand rests that are not shown. */
  private voice(key: string, id: string, name: string): { readonly voice: ScoreVoice; readonly notices: readonly ScoreNotice[] } {
    const events: EventDraft[] = [];
    const bars = this.bars.map(({ events: all, isSilence: _, ...bar }): UnnumberedBar => {
      const first = events.length;
      let at = 0;
      for (const event of [...(all.get(key) ?? [])].sort((one, other) => one.start - other.start)) {
        if (event.start > at + tolerance) events.push(silence(event.start - at));
        // Two notes of one voice at one time: the later one is kept where it fits.
        if (event.start < at - tolerance) continue;
        events.push(event);
        at = event.start + event.duration;
      }
      if (at < bar.length - tolerance) events.push(silence(bar.length - at));
      if (events.length === first) events.push(silence(bar.length > 0 ? bar.length : Math.max(bar.meter.bar, 1 / 4)));
      const length = events.slice(first).reduce((sum, { duration }) => sum + duration, 0);
      return { ...bar, first, end: events.length, length, overlays: [], source: { start: 0, end: 0 } };
    });
    tie(events);
    groupTuplets(events);
    const numbered = numberBars(bars);
    return {
      voice: { id, name, events: events.map(plainEvent), bars: numbered.bars, soundsAt: this.soundsAt + 12 * this.clefOctaves },
      notices: numbered.notices,
    };
  }
}

const tolerance = 1e-6;

const silence = (duration: number): EventDraft => ({
  ...{ pitches: [], isHidden: true, graceNotes: [], isGraceSlashed: false, duration, written: duration, tuplets: [], decorations: [], chordSymbol: '' },
  ...{ annotations: [], lyrics: [], slurStarts: 0, slurEnds: 0, joinsPrevious: false, source: { start: 0, end: 0 }, start: 0, modification: undefined },
  bracket: { begins: false, ends: false },
});

const plainEvent = ({ start: _, modification: __, bracket: ____, pitches, ...event }: EventDraft): ScoreEvent => ({
  ...event,
  pitches: pitches.map(({ wantsTie: ___, ...pitch }) => pitch),
});

/** A tie holds where the next event has the same pitch. */
function tie(events: readonly EventDraft[]): void {
  events.forEach((event, index) => {
    for (const pitch of event.pitches) {
      if (!pitch.wantsTie) continue;
      const next = events[index + 1]?.pitches.find((each) => semitoneOf(each) === semitoneOf(pitch));
      if (next === undefined) continue;
      pitch.isTiedOn = true;
      next.isTiedFromPrevious = true;
    }
  });
}

/** Notes under one bracket are a tuplet; where no brackets stand, notes with the same modification are, each group closed when it has its full time. */
function groupTuplets(events: readonly EventDraft[]): void {
  const isBracketed = events.some(({ bracket }) => bracket.begins);
  let group: EventDraft[] = [];
  const close = (): void => {
    group.forEach((event, index) => {
      const { actual, normal } = event.modification as { actual: number; normal: number };
      event.tuplets = [{ actual, normal, isFirst: index === 0, isLast: index === group.length - 1 }];
    });
    group = [];
  };
  for (const event of events) {
    const { modification, bracket } = event;
    const [first] = group;
    const isSame = first?.modification?.actual === modification?.actual && first?.modification?.normal === modification?.normal;
    if (group.length > 0 && (!isSame || bracket.begins)) close();
    if (modification === undefined) continue;
    group.push(event);
    if (isBracketed ? bracket.ends : isFull(group, modification.actual)) close();
  }
  close();
}

function isFull(group: readonly EventDraft[], actual: number): boolean {
  const unit = Math.min(...group.map(({ written }) => written));
  const full = group.reduce((sum, { written }) => sum + written, 0) / unit;
  return full >= actual - tolerance && Math.abs(full % actual) < 1e-3;
}

function bracketOf(notations: readonly XmlNode[]): EventDraft['bracket'] {
  const tuplets = notations.flatMap((each) => childrenOf(each, 'tuplet')).filter(({ attributes }) => (attributes['number'] ?? '1') === '1');
  const is = (type: string): boolean => tuplets.some(({ attributes }) => attributes['type'] === type);
  return { begins: is('start'), ends: is('stop') };
}

function modificationOf(node: XmlNode): { readonly actual: number; readonly normal: number } | undefined {
  const modification = childOf(node, 'time-modification');
  const [actual, normal] = ['actual-notes', 'normal-notes'].map((name) => Number(textIn(childOf(modification, name))));
  if (!Number.isInteger(actual) || !Number.isInteger(normal) || actual < 1 || normal < 1 || actual > 64 || normal > 64 || actual === normal) return undefined;
  return { actual, normal };
}

function decorationsOf(notations: readonly XmlNode[]): string[] {
  const signs = notations.flatMap((each) => [
    ...['ornaments', 'articulations', 'technical'].flatMap((kind) => childrenOf(each, kind).flatMap(({ children }) => children)),
    ...childrenOf(each, 'fermata'),
  ]);
  return signs.flatMap((sign) => {
    if (typeof sign === 'string') return [];
    const name = sign.name.startsWith('other-') ? textIn(sign).replace(/[!|"\s]/g, '') : decorationOf[sign.name];
    return name === undefined || name === '' ? [] : [name];
  });
}

function lyricsOf(node: XmlNode): Syllable[] {
  const lyrics: Syllable[] = [];
  for (const lyric of childrenOf(node, 'lyric')) {
    const verse = Math.min(20, Math.max(1, Number(lyric.attributes['number'] ?? 1) || 1)) - 1;
    while (lyrics.length < verse) lyrics.push({ text: '', joins: false, holds: false });
    const text = childrenOf(lyric, 'text').map(textIn).join(' ');
    lyrics[verse] = {
      text,
      joins: ['begin', 'middle'].includes(textIn(childOf(lyric, 'syllabic'))),
      holds: text === '' && childOf(lyric, 'extend') !== undefined,
    };
  }
  return lyrics;
}

const passesOf = (text: string): readonly number[] => (text.match(/\d+/g) ?? []).map(Number).filter((pass) => pass >= 1 && pass <= 16);

function metronomeOf(node: XmlNode, words: string): Tempo | undefined {
  const unit = beatUnits[textIn(childOf(node, 'beat-unit'))];
  const perMinute = Number(/\d+(?:\.\d+)?/.exec(textIn(childOf(node, 'per-minute')))?.[0]);
  if (unit === undefined || !(perMinute > 0)) return undefined;
  return { beat: unit * (2 - 2 ** -childrenOf(node, 'beat-unit-dot').length), perMinute, words };
}

function keyOf(node: XmlNode): Key {
  const own = childrenOf(node, 'key-step').map(textIn);
  if (own.length > 0) {
    const alters = childrenOf(node, 'key-alter').map((each) => Math.round(Number(textIn(each))));
    const usable = own.flatMap((letter, index): [string, number][] =>
      letterOfStep.includes(letter) && Math.abs(alters[index]) <= 2 ? [[letter, alters[index]]] : [],
    );
    return { name: 'C', fifths: 0, alters: new Map(usable), isPipes: false };
  }
  const fifths = Math.min(7, Math.max(-7, Math.round(Number(textIn(childOf(node, 'fifths'))) || 0)));
  return keyOfFifths(fifths, textIn(childOf(node, 'mode')));
}

function meterOf(node: XmlNode): Meter {
  const beats = childrenOf(node, 'beats').map(textIn);
  const types = childrenOf(node, 'beat-type').map(textIn);
  if (beats.length === 0) return freeMeter;
  const isOne = new Set(types).size === 1;
  return (isOne ? readMeter(`${beats.join('+')}/${types[0]}`) : undefined) ?? readMeter(`${beats[0]}/${types[0]}`) ?? commonTime;
}

function chordSymbolOf(node: XmlNode): string {
  const root = childOf(node, 'root');
  const sign = (name: string, from: XmlNode | undefined): string => ({ '1': '#', '-1': 'b' })[textIn(childOf(from, name))] ?? '';
  const kind = childOf(node, 'kind');
  const text = kind?.attributes['text'] ?? { minor: 'm', dominant: '7', 'minor-seventh': 'm7', 'major-seventh': 'maj7', diminished: 'dim' }[textIn(kind)] ?? '';
  const bass = childOf(node, 'bass');
  const under = bass === undefined ? '' : `/${textIn(childOf(bass, 'bass-step'))}${sign('bass-alter', bass)}`;
  return root === undefined ? '' : `${textIn(childOf(root, 'root-step'))}${sign('root-alter', root)}${text}${under}`;
}
