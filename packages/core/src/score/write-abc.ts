import { abcLetter } from './abc-letter';
import { fractionOf } from './fraction';
import { altersOfFifths, hasSameAlters, readKey } from './key';
import {
  letterOf,
  type Accidental,
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

/** What of the music is written. */
interface BarsWish {
  /** True where the bars stand alone: what the last one shares with the next is closed. */
  readonly isExcerpt?: boolean;
  /** Events whose grace notes are left out, by index. */
  readonly withoutGraceNotes?: ReadonlySet<number>;
  /** False leaves chord symbols and words out. */
  readonly withWords?: boolean;
  /** True writes the words under the notes, too. */
  readonly hasLyrics?: boolean;
}

/** The length that everything is written in. */
const unit = 1 / 8;

const signs: Readonly<Record<Accidental, string>> = { sharp: '^', flat: '_', natural: '=', 'double-sharp': '^^', 'double-flat': '__' };
const signOfAlter: Readonly<Record<number, string>> = { [-2]: '__', [-1]: '_', 0: '=', 1: '^', 2: '^^' };
const markNames: Readonly<Record<Mark, string>> = {
  ...{ segno: '!segno!', coda: '!coda!', fine: '!fine!', 'da-capo': '!D.C.!', 'dal-segno': '!D.S.!', 'to-coda': '"To Coda"' },
};

/** A whole tune as ABC 2.1. What other readers hear of it is what was read. */
export function writeAbc(score: Score): string {
  const [first, ...others] = score.titles;
  const lines = ['X:1', `T:${first ?? ''}`, ...others.map((title) => `T:${title}`)];
  for (const { letter, text } of score.header) if (!'XTMLQPKVUmW'.includes(letter)) lines.push(`${letter}:${escaped(text)}`);
  lines.push(`M:${meterField(score.meter)}`, 'L:1/8');
  if (score.tempo !== undefined) lines.push(`Q:${tempoField(score.tempo)}`);
  if (score.partOrder.length > 0) lines.push(`P:${score.partOrder.join('')}`);
  const isOne = score.voices.length === 1;
  const named = score.voices.filter((voice) => !isOne || voice.soundsAt !== 0 || voice.name !== '');
  for (const voice of named) lines.push(voiceField(voice));
  lines.push(`K:${keyField(score.key)}`);
  for (const voice of score.voices) {
    if (named.length > 0) lines.push(`V:${voice.id}`);
    lines.push(...voiceLines(voice, score));
  }
  for (const words of score.words) lines.push(`W:${escaped(words)}`);
  return `${lines.join('\n')}\n`;
}

/** Text of a field in which nothing is taken for a comment. */
const escaped = (text: string): string => text.replaceAll('\n', ' ').replaceAll('\\', '\\\\').replaceAll('%', '\\%');

function voiceField({ id, name, soundsAt }: ScoreVoice): string {
  return `V:${id}${name === '' ? '' : ` name="${name.replaceAll('"', "'")}"`}${soundsAt === 0 ? '' : ` transpose=${soundsAt}`}`;
}

function voiceLines(voice: ScoreVoice, score: Score): readonly string[] {
  const groups: number[][] = [];
  voice.bars.forEach((bar, index) => {
    if (groups.length === 0 || bar.startsLine || bar.part !== '' || groups[groups.length - 1].length >= 8) groups.push([]);
    groups[groups.length - 1].push(index);
  });
  let before: Pick<ScoreBar, 'key' | 'meter'> = score;
  return groups.flatMap((bars) => {
    const music = barsText(voice, bars, before);
    const { part } = voice.bars[bars[0]];
    before = voice.bars[bars[bars.length - 1]];
    return [...(part === '' ? [] : [`P:${part}`]), music, ...lyricLines(voice, bars)];
  });
}

/**
 * Some bars of a voice as a text of their own, with the head that they need, for drawing.
 * @param showsMeter true where the meter is drawn
 */
export function excerptAbc(voice: ScoreVoice, bars: readonly number[], showsMeter: boolean, wish: BarsWish = {}): string {
  const first = voice.bars[bars[0]];
  const head = ['X:1', ...(showsMeter ? [`M:${meterField(first.meter)}`] : []), 'L:1/8', `K:${keyField(first.key)}`];
  const opening = showsMeter ? first : { key: first.key, meter: voice.bars[Math.max(0, bars[0] - 1)].meter };
  const lyrics = wish.hasLyrics === true ? lyricLines(voice, bars) : [];
  return `${[...head, barsText(voice, bars, opening, { ...wish, isExcerpt: true }), ...lyrics].join('\n')}\n`;
}

/** Bars that follow each other, their lines included. */
function barsText(voice: ScoreVoice, bars: readonly number[], before: Pick<ScoreBar, 'key' | 'meter'>, wish: BarsWish = {}): string {
  let text = '';
  let { key, meter } = before;
  bars.forEach((index, place) => {
    const bar = voice.bars[index];
    const previous = place === 0 ? undefined : voice.bars[bars[place - 1]];
    if (bar.opensRepeat && (previous === undefined || previous.closesRepeat !== 2)) text += previous === undefined ? '|:' : ' |:';
    if (bar.opensEnding || (place === 0 && bar.passes.length > 0)) text += `[${bar.passes.join(',')} `;
    if (bar.key.name !== key.name || !hasSameAlters(bar.key.alters, key.alters)) text += `[K:${keyField(bar.key)}]`;
    if (bar.meter.text !== meter.text) text += `[M:${meterField(bar.meter)}]`;
    if (bar.tempo !== undefined && index > 0) text += `[Q:${tempoField(bar.tempo)}]`;
    ({ key, meter } = bar);
    const writer = new EventWriter(bar.key, wish);
    text += marksText(bar.marks, true);
    text += writer.write(voice.events, bar.first, bar.end, bar.first);
    for (const overlay of bar.overlays) text += ` & ${new EventWriter(bar.key, wish).write(overlay, 0, overlay.length, 0)}`;
    text += `${marksText(bar.marks, false)}${closingLine(bar, wish.isExcerpt === true && place === bars.length - 1 ? undefined : voice.bars.at(index + 1), index === voice.bars.length - 1)}`;
  });
  return text;
}

const marksText = (marks: readonly BarMark[], isAtStart: boolean): string =>
  marks
    .filter((each) => each.isAtStart === isAtStart)
    .map(({ mark }) => ` ${markNames[mark]}`)
    .join('');

function closingLine(bar: ScoreBar, next: ScoreBar | undefined, isLast: boolean): string {
  const opens = next?.opensRepeat === true;
  if (bar.closesRepeat > 0) {
    if (bar.closesRepeat === 2 && opens) return '::';
    return `${':'.repeat(bar.closesRepeat - 1)}|`;
  }
  const endsEnding = bar.passes.length > 0 && (next === undefined || next.passes.length === 0);
  if (bar.line === 'end') return '|]';
  if (bar.line === 'double' || endsEnding) return '||';
  if (bar.line === 'begin') return '[|';
  if (bar.line === 'dotted') return '.|';
  // A bar that only a part or an ending cut needs a line to be one.
  if (bar.line === 'none') return isLast ? '' : '[|]';
  return '|';
}

class EventWriter {
  private readonly altered = new Map<string, number>();

  constructor(
    private readonly key: Key,
    private readonly wish: BarsWish,
  ) {}

  write(events: readonly ScoreEvent[], first: number, end: number, barFirst: number): string {
    let text = '';
    let isTied: readonly ScorePitch[] = [];
    for (let index = first; index < end; index += 1) {
      const event = events[index];
      if (index > barFirst && !event.joinsPrevious) text += ' ';
      text += this.event(events, index, end, isTied);
      isTied = event.pitches;
    }
    return text;
  }

  private event(events: readonly ScoreEvent[], index: number, end: number, before: readonly ScorePitch[]): string {
    const event = events[index];
    const { withoutGraceNotes, withWords = true } = this.wish;
    let text = '';
    event.tuplets.forEach((tuplet, depth) => {
      if (tuplet.isFirst) text += tupletText(tuplet.actual, tuplet.normal, lengthOfTuplet(events, index, end, depth));
    });
    text += '('.repeat(event.slurStarts);
    if (withWords && event.chordSymbol !== '') text += `"${event.chordSymbol.replaceAll('"', "'")}"`;
    if (withWords) for (const words of event.annotations) text += `"^${words.replaceAll('"', "'")}"`;
    for (const name of event.decorations) text += decorationText(name);
    if (event.graceNotes.length > 0 && withoutGraceNotes?.has(index) !== true) text += this.graceNotes(event);
    return `${text}${this.heads(event, before)}${')'.repeat(event.slurEnds)}`;
  }

  private graceNotes({ graceNotes, isGraceSlashed }: ScoreEvent): string {
    const own = new Map<string, number>();
    const letters = graceNotes.map((pitch) => {
      const letter = letterOf(pitch.step);
      const inForce = own.get(letter) ?? this.altered.get(letter) ?? this.key.alters.get(letter) ?? 0;
      if (pitch.accidental === undefined && pitch.alter === inForce) return abcLetter(pitch.step);
      own.set(letter, pitch.alter);
      return `${signText(pitch)}${abcLetter(pitch.step)}`;
    });
    return `{${isGraceSlashed ? '/' : ''}${letters.join('')}}`;
  }

  private heads(event: ScoreEvent, before: readonly ScorePitch[]): string {
    const length = lengthText(event.written / unit);
    if (event.pitches.length === 0) return `${event.isHidden ? 'x' : 'z'}${length}`;
    const isTied = event.pitches.filter(({ isTiedOn }) => isTiedOn).length;
    const isWhole = isTied === event.pitches.length;
    const letters = event.pitches.map((pitch) => {
      const carried = pitch.isTiedFromPrevious ? before.find(({ step }) => step === pitch.step) : undefined;
      return `${this.sign(pitch, carried)}${abcLetter(pitch.step)}${pitch.isTiedOn && !isWhole ? '-' : ''}`;
    });
    const heads = letters.length === 1 ? letters[0] : `[${letters.join('')}]`;
    return `${heads}${length}${isWhole ? '-' : ''}`;
  }

  /** The accidental that must stand before a note for it to be read as it is meant. */
  private sign(pitch: ScorePitch, carried: ScorePitch | undefined): string {
    const letter = letterOf(pitch.step);
    if (pitch.accidental === undefined) {
      // A tie over the bar line carries its accidental; the first note of a bar does not know it.
      if (pitch.isTiedFromPrevious && (carried === undefined || carried.alter === pitch.alter)) return '';
      if (pitch.alter === (this.altered.get(letter) ?? this.key.alters.get(letter) ?? 0)) return '';
    }
    this.altered.set(letter, pitch.alter);
    return signText(pitch);
  }
}

const signText = ({ accidental, alter }: ScorePitch): string => (accidental === undefined ? signOfAlter[alter] : signs[accidental]);

const shortSigns: Readonly<Record<string, string>> = { staccato: '.', roll: '~', irishroll: '~' };
const decorationText = (name: string): string => shortSigns[name] ?? `!${name}!`;

function lengthText(length: number): string {
  const { top, bottom } = fractionOf(length);
  if (bottom === 1) return top === 1 ? '' : String(top);
  return `${top === 1 ? '' : top}/${bottom === 2 && top === 1 ? '' : bottom}`;
}

const usualNormal: Readonly<Record<number, number>> = { 2: 3, 3: 2, 4: 3, 6: 2, 8: 3 };

function tupletText(actual: number, normal: number, notes: number): string {
  if (notes === actual && usualNormal[actual] === normal) return `(${actual}`;
  return `(${actual}:${normal}:${notes}`;
}

function lengthOfTuplet(events: readonly ScoreEvent[], first: number, end: number, depth: number): number {
  for (let index = first; index < end; index += 1) if (events[index].tuplets.at(depth)?.isLast === true) return index - first + 1;
  return end - first;
}

function lyricLines(voice: ScoreVoice, bars: readonly number[]): readonly string[] {
  const events = bars.flatMap((index) => voice.events.slice(voice.bars[index].first, voice.bars[index].end)).filter(({ pitches }) => pitches.length > 0);
  const verses = events.reduce((most, { lyrics }) => Math.max(most, lyrics.length), 0);
  return Array.from({ length: verses }, (_, verse) => {
    const words = events.map(({ lyrics }) => {
      const syllable = lyrics.at(verse);
      if (syllable === undefined || (syllable.text === '' && !syllable.holds)) return '*';
      if (syllable.holds) return '_';
      return `${syllable.text.replaceAll(/\s+/g, '~').replaceAll('-', '\\-')}${syllable.joins ? '-' : ''}`;
    });
    return `w:${words.join(' ')}`;
  });
}

/** A meter as it stands after `M:`. */
function meterField({ text, bar }: Meter): string {
  if (bar === 0) return 'none';
  const sum = /^(\d+(?:\+\d+)+)\/(\d+)$/.exec(text);
  return sum === null ? text : `(${sum[1]})/${sum[2]}`;
}

function tempoField({ beat, perMinute, words }: Tempo): string {
  const { top, bottom } = fractionOf(beat);
  return `${words === '' ? '' : `"${words.replaceAll('"', "'")}" `}${top}/${bottom}=${perMinute}`;
}

/** A key as it stands after `K:`. */
function keyField({ name, fifths, alters, isPipes }: Key): string {
  if (isPipes) return name;
  const short = name === '' ? 'C' : shortKey(name);
  const plain = readKey(short);
  const isPlain = plain.kind === 'key' && plain.key.fifths === fifths;
  const usual = isPlain ? altersOfFifths(fifths) : new Map<string, number>();
  const own = [...alters].filter(([letter, alter]) => usual.get(letter) !== alter);
  const gone = [...usual.keys()].filter((letter) => !alters.has(letter));
  const signatures = [...own.map(([letter, alter]) => `${signOfAlter[alter]}${letter.toLowerCase()}`), ...gone.map((letter) => `=${letter.toLowerCase()}`)];
  if (name === '' && signatures.length === 0) return 'none';
  return `${short}${isPlain ? '' : ' exp'}${signatures.map((each) => ` ${each}`).join('')}`;
}

const shortModes: Readonly<Record<string, string>> = { minor: 'm', Mixolydian: 'mix', Dorian: 'dor', Phrygian: 'phr', Lydian: 'lyd', Locrian: 'loc' };

function shortKey(name: string): string {
  const [, letter, sign = '', mode = ''] = /^([A-G])( sharp| flat)?(?: (.*))?$/.exec(name) ?? ['', 'C'];
  const accidental: Readonly<Record<string, string>> = { ' sharp': '#', ' flat': 'b' };
  return `${letter}${accidental[sign] ?? ''}${shortModes[mode] ?? ''}`;
}
