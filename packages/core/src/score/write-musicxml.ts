import { fractionOf, commonDivisor } from './fraction';
import { noteValues, type NoteValue } from './note-value';
import { altersOfFifths, hasSameAlters } from './key';
import {
  letterOf,
  type BarMark,
  type Key,
  type Mark,
  type Meter,
  type Score,
  type ScoreBar,
  type ScoreEvent,
  type ScorePitch,
  type ScoreVoice,
  type Tempo,
} from './score';
import { slurNumbers, type SlurEnds } from './slurs';
import { element, xmlText, type XmlNode } from './xml-node';

const doctype = '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\n';

/** A tune as MusicXML 4, every voice a part of its own. */
export function writeMusicXml(score: Score): string {
  const [title = '', ...subtitles] = score.titles;
  const creators = score.header.filter(({ letter, text }) => letter === 'C' && text !== '');
  const partName = (voice: ScoreVoice, index: number): string => (voice.name === '' ? `Voice ${index + 1}` : voice.name);
  const root = element(
    'score-partwise',
    { version: '4.0' },
    element('work', {}, element('work-title', {}, title)),
    subtitles.length === 0 ? undefined : element('movement-title', {}, subtitles[0]),
    element(
      'identification',
      {},
      creators.map(({ text }) => element('creator', { type: 'composer' }, text)),
      element('encoding', {}, element('software', {}, 'Zelpit')),
    ),
    element(
      'part-list',
      {},
      score.voices.map((voice, index) => element('score-part', { id: `P${index + 1}` }, element('part-name', {}, partName(voice, index)))),
    ),
    score.voices.map((voice, index) => element('part', { id: `P${index + 1}` }, new PartWriter(voice, score, index === 0).measures())),
  );
  return xmlText(root, doctype);
}

const typeNames: Readonly<Record<number, string>> = {
  ...{ 2: 'breve', 1: 'whole', [1 / 2]: 'half', [1 / 4]: 'quarter', [1 / 8]: 'eighth', [1 / 16]: '16th' },
  ...{ [1 / 32]: '32nd', [1 / 64]: '64th', [1 / 128]: '128th', [1 / 256]: '256th' },
};
const graceType = '32nd';

/** Names of signs in MusicXML, by where they stand. */
const ornaments: Readonly<Record<string, string>> = {
  ...{ trill: 'trill-mark', 'trill(': 'trill-mark', mordent: 'mordent', lowermordent: 'mordent', uppermordent: 'inverted-mordent' },
  ...{ pralltriller: 'inverted-mordent', turn: 'turn', invertedturn: 'inverted-turn' },
};
const articulations: Readonly<Record<string, string>> = {
  ...{
    staccato: 'staccato',
    accent: 'accent',
    emphasis: 'accent',
    '>': 'accent',
    tenuto: 'tenuto',
    marcato: 'strong-accent',
    wedge: 'staccatissimo',
    breath: 'breath-mark',
  },
};
const technical: Readonly<Record<string, string>> = { upbow: 'up-bow', downbow: 'down-bow', open: 'open-string' };
/** A sign that has no name there is written as an ornament of another kind, under its own name. */
const other = 'other-ornament';

const markWords: Readonly<Record<Mark, string>> = {
  ...{ segno: 'segno', coda: 'coda', fine: 'Fine', 'da-capo': 'D.C.', 'dal-segno': 'D.S.', 'to-coda': 'To Coda' },
};

const accidentalNames: Readonly<Record<string, string>> = {
  ...{ sharp: 'sharp', flat: 'flat', natural: 'natural', 'double-sharp': 'double-sharp', 'double-flat': 'flat-flat' },
};

/** Heads of one event as they are written: a length that no head has is tied together. */
interface Head {
  readonly event: ScoreEvent;
  readonly index: number;
  readonly value: NoteValue;
  readonly isFirst: boolean;
  readonly isLast: boolean;
}

class PartWriter {
  private readonly divisions: number;
  private readonly slurs: ReadonlyMap<number, SlurEnds>;

  constructor(
    private readonly voice: ScoreVoice,
    private readonly score: Score,
    private readonly isFirstPart: boolean,
  ) {
    const overlays = voice.bars.flatMap((bar) => bar.overlays.flat());
    // The others' lengths are needed where this voice has ended.
    this.divisions = divisionsOf([...voice.events, ...overlays, ...score.voices.flatMap(({ events }) => events)]);
    this.slurs = slurNumbers(voice.events);
  }

  /** One for each bar of the longest voice, numbered alike in all parts; where this voice has ended stand rests. */
  measures(): readonly XmlNode[] {
    const all = this.score.voices.reduce((longest, { bars }) => (bars.length > longest.length ? bars : longest), this.score.voices[0].bars);
    const numbers = new Set<number>();
    return all.map(({ number: counted }, index) => {
      const isAgain = numbers.has(counted);
      numbers.add(counted);
      const head = { number: isAgain ? `X${index}` : String(counted), implicit: counted === 0 || isAgain ? 'yes' : undefined };
      const bar = this.voice.bars.at(index);
      if (bar === undefined) return element('measure', head, this.silence(all[index].length));
      return element(
        'measure',
        head,
        bar.startsLine && index > 0 ? element('print', { 'new-system': 'yes' }) : undefined,
        this.attributes(bar, this.voice.bars[index - 1]),
        leftBarLine(bar),
        this.directions(bar, index, true),
        this.events(this.voice.events, bar.first, bar.end, 1),
        bar.overlays.flatMap((overlay, place) => [this.backup(bar.length), ...this.events(overlay, 0, overlay.length, place + 2)]),
        this.directions(bar, index, false),
        rightBarLine(bar, this.voice.bars[index + 1]),
      );
    });
  }

  private silence(length: number): XmlNode {
    return element('note', {}, element('rest', { measure: 'yes' }), element('duration', {}, this.ticks(length)), element('voice', {}, 1));
  }

  private attributes(bar: ScoreBar, before: ScoreBar | undefined): XmlNode | undefined {
    const key = before === undefined || before.key !== bar.key ? keyNode(bar.key) : undefined;
    const time = before === undefined || before.meter.text !== bar.meter.text ? timeNode(bar.meter) : undefined;
    if (before !== undefined && key === undefined && time === undefined) return undefined;
    const isFirst = before === undefined;
    const { soundsAt } = this.voice;
    const isOctave = soundsAt % 12 === 0 && Math.abs(soundsAt) <= 24;
    return element(
      'attributes',
      {},
      isFirst ? element('divisions', {}, this.divisions) : undefined,
      key,
      time,
      isFirst ? element('clef', {}, element('sign', {}, 'G'), element('line', {}, 2)) : undefined,
      isFirst && soundsAt !== 0 ? transposeNode(soundsAt, isOctave) : undefined,
    );
  }

  private directions(bar: ScoreBar, index: number, isAtStart: boolean): readonly XmlNode[] {
    const tempo = index === 0 ? (bar.tempo ?? this.score.tempo) : bar.tempo;
    const marks = bar.marks.filter((each) => each.isAtStart === isAtStart).map(markNode);
    if (!isAtStart) return marks;
    return [
      ...(bar.part === '' ? [] : [direction(element('rehearsal', {}, bar.part))]),
      ...(tempo === undefined || !this.isFirstPart ? [] : [tempoNode(tempo)]),
      ...marks,
    ];
  }

  private backup(length: number): XmlNode {
    return element('backup', {}, element('duration', {}, this.ticks(length)));
  }

  private ticks(length: number): number {
    return Math.round(length * 4 * this.divisions);
  }

  private events(events: readonly ScoreEvent[], first: number, end: number, voice: number): readonly XmlNode[] {
    const heads: Head[] = [];
    for (let index = first; index < end; index += 1) {
      const event = events[index];
      const values = noteValues(event.written);
      values.forEach((value, place) => heads.push({ event, index, value, isFirst: place === 0, isLast: place === values.length - 1 }));
    }
    const beams = beamsOf(heads);
    return heads.flatMap((head, place) => this.head(head, heads, place, { voice, beams: beams[place], ofMain: voice === 1 }));
  }

  private head(
    head: Head,
    heads: readonly Head[],
    place: number,
    how: { readonly voice: number; readonly beams: readonly string[]; readonly ofMain: boolean },
  ): readonly XmlNode[] {
    const { event, isFirst, isLast } = head;
    const nodes: XmlNode[] = [];
    if (isFirst) {
      if (event.chordSymbol !== '') nodes.push(harmonyNode(event.chordSymbol));
      for (const words of event.annotations) nodes.push(direction(element('words', {}, words)));
      for (const grace of event.graceNotes) nodes.push(this.graceNote(grace, event.isGraceSlashed, how.voice));
    }
    const pitches = event.pitches.length === 0 ? [undefined] : event.pitches;
    pitches.forEach((pitch, chord) => {
      const starts = pitch !== undefined && (!isLast || pitch.isTiedOn);
      const stops = pitch !== undefined && (!isFirst || pitch.isTiedFromPrevious);
      nodes.push(
        element(
          'note',
          { 'print-object': event.isHidden ? 'no' : undefined },
          chord === 0 ? undefined : element('chord', {}),
          pitch === undefined ? element('rest', {}) : pitchNode(pitch),
          element('duration', {}, this.ticks(this.lengthOf(head))),
          stops ? element('tie', { type: 'stop' }) : undefined,
          starts ? element('tie', { type: 'start' }) : undefined,
          element('voice', {}, how.voice),
          element('type', {}, typeNames[head.value.head]),
          Array.from({ length: head.value.dots }, () => element('dot', {})),
          pitch?.accidental !== undefined && isFirst ? element('accidental', {}, accidentalNames[pitch.accidental]) : undefined,
          modificationNode(head),
          chord === 0 ? how.beams.map((beam, level) => element('beam', { number: level + 1 }, beam)) : undefined,
          this.notations(head, heads, place, { starts, stops, isChordNote: chord > 0, ofMain: how.ofMain }),
          chord === 0 && isFirst ? lyricNodes(this.voice.events, head) : undefined,
        ),
      );
    });
    return nodes;
  }

  /** What the head sounds: its value in the event's tuplets. */
  private lengthOf({ event, value }: Head): number {
    return event.tuplets.reduce((length, { actual, normal }) => (length * normal) / actual, value.length);
  }

  private graceNote(pitch: ScorePitch, isSlashed: boolean, voice: number): XmlNode {
    return element(
      'note',
      {},
      element('grace', { slash: isSlashed ? 'yes' : undefined }),
      pitchNode(pitch),
      element('voice', {}, voice),
      element('type', {}, graceType),
      pitch.accidental === undefined ? undefined : element('accidental', {}, accidentalNames[pitch.accidental]),
    );
  }

  private notations(
    { event, index, isFirst, isLast, value }: Head,
    heads: readonly Head[],
    place: number,
    { starts, stops, isChordNote, ofMain }: { readonly starts: boolean; readonly stops: boolean; readonly isChordNote: boolean; readonly ofMain: boolean },
  ): XmlNode | undefined {
    const slurs = ofMain ? this.slurs.get(index) : undefined;
    const nodes: XmlNode[] = [...(stops ? [element('tied', { type: 'stop' })] : []), ...(starts ? [element('tied', { type: 'start' })] : [])];
    if (!isChordNote) {
      if (isLast) nodes.push(...(slurs?.stops ?? []).map((number) => element('slur', { type: 'stop', number })));
      if (isFirst) nodes.push(...(slurs?.starts ?? []).map((number) => element('slur', { type: 'start', number })));
      event.tuplets.forEach((tuplet, depth) => {
        if (tuplet.isFirst && isFirst) nodes.push(tupletNode('start', depth, tuplet.actual, tuplet.normal));
        if (tuplet.isLast && isLast) nodes.push(element('tuplet', { type: 'stop', number: depth + 1 }));
      });
      nodes.push(...ownTuplet(heads, place, event, value));
      if (isFirst) nodes.push(...signNodes(event.decorations));
    }
    return nodes.length === 0 ? undefined : element('notations', {}, nodes);
  }
}

/** Parts of a quarter note in which all lengths are whole numbers. */
function divisionsOf(events: readonly ScoreEvent[]): number {
  let divisions = 1;
  for (const { duration, written, tuplets } of events) {
    const pieces = [duration, ...noteValues(written).map(({ length }) => tuplets.reduce((sum, { actual, normal }) => (sum * normal) / actual, length))];
    for (const piece of pieces) {
      const { bottom } = fractionOf(piece * 4);
      divisions = (divisions / commonDivisor(divisions, bottom)) * bottom;
      if (divisions > 1e6) return 1e6;
    }
  }
  return divisions;
}

const pitchNode = ({ step, alter }: ScorePitch): XmlNode =>
  element(
    'pitch',
    {},
    element('step', {}, letterOf(step)),
    alter === 0 ? undefined : element('alter', {}, alter),
    element('octave', {}, Math.floor(step / 7) + 4),
  );

function keyNode({ name, fifths, alters }: Key): XmlNode {
  const usual = altersOfFifths(fifths);
  if (!hasSameAlters(usual, alters))
    return element(
      'key',
      {},
      [...alters].flatMap(([letter, alter]) => [element('key-step', {}, letter), element('key-alter', {}, alter)]),
    );
  const mode = / (minor|Dorian|Phrygian|Lydian|Mixolydian|Locrian)$/.exec(name)?.[1].toLowerCase() ?? 'major';
  return element('key', {}, element('fifths', {}, fifths), element('mode', {}, mode));
}

function timeNode({ text, bar }: Meter): XmlNode {
  if (bar === 0) return element('time', {}, element('senza-misura', {}));
  const [beats, type] = text.split('/');
  return element('time', {}, element('beats', {}, beats), element('beat-type', {}, type));
}

const transposeNode = (semitones: number, isOctave: boolean): XmlNode =>
  element(
    'transpose',
    {},
    element('diatonic', {}, 0),
    element('chromatic', {}, isOctave ? 0 : semitones),
    isOctave ? element('octave-change', {}, semitones / 12) : undefined,
  );

const direction = (type: XmlNode, sound?: XmlNode): XmlNode => element('direction', { placement: 'above' }, element('direction-type', {}, type), sound);

function tempoNode({ beat, perMinute, words }: Tempo): XmlNode {
  const [value] = noteValues(beat);
  const metronome = element(
    'metronome',
    {},
    element('beat-unit', {}, typeNames[value?.head ?? 1 / 4]),
    Array.from({ length: value?.dots ?? 0 }, () => element('beat-unit-dot', {})),
    element('per-minute', {}, perMinute),
  );
  const types = [...(words === '' ? [] : [element('direction-type', {}, element('words', {}, words))]), element('direction-type', {}, metronome)];
  return element('direction', { placement: 'above' }, types, element('sound', { tempo: Math.round(perMinute * beat * 4 * 1000) / 1000 }));
}

const markSounds: Readonly<Record<Mark, Readonly<Record<string, string>>>> = {
  ...{
    segno: { segno: '1' },
    coda: { coda: '1' },
    fine: { fine: 'yes' },
    'da-capo': { dacapo: 'yes' },
    'dal-segno': { dalsegno: '1' },
    'to-coda': { tocoda: '1' },
  },
};

function markNode({ mark }: BarMark): XmlNode {
  const type = mark === 'segno' || mark === 'coda' ? element(mark, {}) : element('words', {}, markWords[mark]);
  return direction(type, element('sound', markSounds[mark]));
}

function leftBarLine(bar: ScoreBar): XmlNode | undefined {
  if (!bar.opensRepeat && !bar.opensEnding) return undefined;
  return element(
    'barline',
    { location: 'left' },
    bar.opensRepeat ? element('bar-style', {}, 'heavy-light') : undefined,
    bar.opensEnding ? element('ending', { number: bar.passes.join(', '), type: 'start' }) : undefined,
    bar.opensRepeat ? element('repeat', { direction: 'forward' }) : undefined,
  );
}

function rightBarLine(bar: ScoreBar, next: ScoreBar | undefined): XmlNode | undefined {
  const styles: Readonly<Record<string, string>> = { double: 'light-light', end: 'light-heavy', begin: 'heavy-light', dotted: 'dotted', none: 'none' };
  const style = bar.closesRepeat > 0 ? 'light-heavy' : styles[bar.line];
  const endsEnding = bar.passes.length > 0 && (next === undefined || next.passes.length === 0 || next.opensEnding);
  if (style === undefined && !endsEnding) return undefined;
  return element(
    'barline',
    { location: 'right' },
    style === undefined ? undefined : element('bar-style', {}, style),
    endsEnding ? element('ending', { number: bar.passes.join(', '), type: bar.closesRepeat > 0 || bar.line === 'end' ? 'stop' : 'discontinue' }) : undefined,
    bar.closesRepeat > 0 ? element('repeat', { direction: 'backward', times: bar.closesRepeat > 2 ? bar.closesRepeat : undefined }) : undefined,
  );
}

/** Tuplets of the text and what the value itself needs, multiplied. */
function modificationNode({ event, value }: Head): XmlNode | undefined {
  const actual = event.tuplets.reduce((product, each) => product * each.actual, value.actual);
  const normal = event.tuplets.reduce((product, each) => product * each.normal, value.normal);
  if (actual === 1 && normal === 1) return undefined;
  return element('time-modification', {}, element('actual-notes', {}, actual), element('normal-notes', {}, normal));
}

const tupletNode = (type: string, depth: number, actual: number, normal: number): XmlNode =>
  element(
    'tuplet',
    { type, number: depth + 1, bracket: 'yes' },
    element('tuplet-actual', {}, element('tuplet-number', {}, actual)),
    element('tuplet-normal', {}, element('tuplet-number', {}, normal)),
  );

/** A bracket over heads whose lengths need a tuplet that the text does not write. */
function ownTuplet(heads: readonly Head[], place: number, event: ScoreEvent, value: NoteValue): readonly XmlNode[] {
  if (value.actual === 1) return [];
  const isSame = (head: Head | undefined): boolean =>
    head !== undefined && head.value.actual === value.actual && head.event.tuplets.length === event.tuplets.length;
  const depth = event.tuplets.length;
  return [
    ...(isSame(heads[place - 1]) ? [] : [tupletNode('start', depth, value.actual, value.normal)]),
    ...(isSame(heads[place + 1]) ? [] : [element('tuplet', { type: 'stop', number: depth + 1 })]),
  ];
}

function signNodes(decorations: readonly string[]): readonly XmlNode[] {
  const [kinds, nodes] = [new Map<string, XmlNode[]>(), [] as XmlNode[]];
  for (const name of decorations) {
    if (name === 'fermata') nodes.push(element('fermata', {}));
    else if (articulations[name] !== undefined) kinds.set('articulations', [...(kinds.get('articulations') ?? []), element(articulations[name], {})]);
    else if (technical[name] !== undefined) kinds.set('technical', [...(kinds.get('technical') ?? []), element(technical[name], {})]);
    else if (ornaments[name] !== undefined) kinds.set('ornaments', [...(kinds.get('ornaments') ?? []), element(ornaments[name], {})]);
    else kinds.set('ornaments', [...(kinds.get('ornaments') ?? []), element(other, {}, name)]);
  }
  return [...['ornaments', 'technical', 'articulations'].flatMap((kind) => (kinds.has(kind) ? [element(kind, {}, kinds.get(kind))] : [])), ...nodes];
}

const kindsOfChord: readonly (readonly [RegExp, string])[] = [
  [/^maj7|^M7/, 'major-seventh'],
  [/^m7|^min7|^-7/, 'minor-seventh'],
  [/^m(?!aj)|^min|^-/, 'minor'],
  [/^7/, 'dominant'],
  [/^dim|^o/, 'diminished'],
  [/^aug|^\+/, 'augmented'],
  [/^sus4?/, 'suspended-fourth'],
  [/^6/, 'major-sixth'],
  [/^$/, 'major'],
];

/** "Am7" as a chord symbol; what is none as words. */
function harmonyNode(text: string): XmlNode {
  const found = /^([A-G])([#b]?)([^/]*)(?:\/([A-G])([#b]?))?$/.exec(text);
  if (found === null) return direction(element('words', {}, text));
  const [, root, sign, rest, bass, bassSign = ''] = found;
  const alters: Readonly<Record<string, number>> = { '#': 1, b: -1 };
  const kind = kindsOfChord.find(([pattern]) => pattern.test(rest))?.[1] ?? 'other';
  const alterNode = (name: string, which: string): XmlNode | undefined => (which === '' ? undefined : element(name, {}, alters[which]));
  return element(
    'harmony',
    {},
    element('root', {}, element('root-step', {}, root), alterNode('root-alter', sign)),
    element('kind', { text: rest === '' ? undefined : rest }, kind),
    bass === undefined ? undefined : element('bass', {}, element('bass-step', {}, bass), alterNode('bass-alter', bassSign)),
  );
}

function lyricNodes(events: readonly ScoreEvent[], { event, index }: Head): readonly XmlNode[] {
  return event.lyrics.flatMap(({ text, joins, holds }, verse) => {
    if (text === '' && !holds) return [];
    if (holds) return [element('lyric', { number: verse + 1 }, element('extend', {}))];
    const before = lastSyllable(events, index, verse);
    return [element('lyric', { number: verse + 1 }, element('syllabic', {}, syllabic(before, joins)), element('text', {}, text))];
  });
}

function syllabic(isJoinedBefore: boolean, joins: boolean): string {
  if (isJoinedBefore) return joins ? 'middle' : 'end';
  return joins ? 'begin' : 'single';
}

function lastSyllable(events: readonly ScoreEvent[], index: number, verse: number): boolean {
  for (let at = index - 1; at >= Math.max(0, index - 32); at -= 1) {
    const syllable = events[at].lyrics.at(verse);
    if (syllable !== undefined && syllable.text !== '') return syllable.joins;
  }
  return false;
}

const flagsOf = (head: number): number => Math.max(0, Math.round(-Math.log2(head)) - 2);

/** Beams of every head, one for each of its flags: what is written close together stands under one beam. */
function beamsOf(heads: readonly Head[]): readonly (readonly string[])[] {
  const joined = heads.map((head, place) => {
    const before = heads[place - 1];
    if (before === undefined || head.event.pitches.length === 0 || before.event.pitches.length === 0) return false;
    return flagsOf(head.value.head) > 0 && flagsOf(before.value.head) > 0 && (head.isFirst ? head.event.joinsPrevious : false);
  });
  return heads.map((head, place) => {
    const flags = head.event.pitches.length === 0 ? 0 : flagsOf(head.value.head);
    const reach = (at: number, isJoined: boolean): number => (isJoined && heads[at] !== undefined ? Math.min(flags, flagsOf(heads[at].value.head)) : 0);
    const [before, after] = [reach(place - 1, joined[place]), reach(place + 1, joined[place + 1] === true)];
    if (before === 0 && after === 0) return [];
    return Array.from({ length: flags }, (_, level) => beamAt(level < before, level < after, before > 0));
  });
}

function beamAt(goesBack: boolean, goesOn: boolean, hasBefore: boolean): string {
  if (goesBack) return goesOn ? 'continue' : 'end';
  if (goesOn) return 'begin';
  return hasBefore ? 'backward hook' : 'forward hook';
}
