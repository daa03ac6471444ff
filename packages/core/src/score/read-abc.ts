import { abcLines, type AbcLine } from './abc-lines';
import { abcTokens } from './abc-tokens';
import { plainKey, readClef, readKey } from './key';
import { freeMeter, readMeter, usualUnit } from './meter';
import { partOrder } from './part-order';
import { plainText } from './plain-text';
import { readTempo } from './tempo';
import type { HeaderField, Key, Meter, Score, ScoreNotice, ScoreVoice, Tempo } from './score';
import { VoiceReader, type Propagation, type SharedReading } from './voice-reader';

/** A place in ABC text that cannot be read. */
export interface AbcFault {
  /** Line of the text and character of the line, both from 1. */
  readonly line: number;
  readonly column: number;
  readonly problem: string;
  readonly expected: string;
}

export interface AbcReading {
  readonly score: Score;
  /** What makes notes uncertain; where there is any, the score is a guess. */
  readonly faults: readonly AbcFault[];
}

/** As many faults of one tune are listed. */
const mostFaults = 30;
const mostNotices = 40;
/** Voices of one tune. */
const mostVoices = 40;

/** Signs of one letter by custom, as 2.1 lists them. */
const usualSymbols: readonly (readonly [string, string])[] = [
  ['~', 'roll'],
  ['T', 'trill'],
  ['H', 'fermata'],
  ['L', 'accent'],
  ['M', 'lowermordent'],
  ['O', 'coda'],
  ['P', 'uppermordent'],
  ['S', 'segno'],
  ['u', 'upbow'],
  ['v', 'downbow'],
];

/** Reads the text of one tune, standard 2.1. What need not be known is passed over and named; what makes notes uncertain is a fault. */
export const readAbc = (text: string): AbcReading => new AbcReader().read(text);

class AbcReader {
  private readonly faults: AbcFault[] = [];
  private readonly passedOver = new Set<string>();
  private readonly header: HeaderField[] = [];
  private readonly words: string[] = [];
  private readonly voices = new Map<string, VoiceReader>();
  /** Properties of voices, by id, as they stand after `V:`. */
  private readonly declared = new Map<string, string>();
  private readonly shared: SharedReading = {
    propagation: 'pitch',
    symbols: new Map(usualSymbols),
    passOver: (text) => {
      if (this.passedOver.size < mostNotices) this.passedOver.add(text);
    },
  };
  private meter: Meter = freeMeter;
  private unit: number | undefined;
  private key: Key = plainKey;
  private clef = '';
  private tempo: Tempo | undefined;
  private tempoText = '';
  private order: readonly string[] = [];
  private voiceOrder: readonly string[] = [];
  private voice: VoiceReader | undefined;
  private lastField = '';
  private line: AbcLine = { kind: 'empty', letter: '', text: '', start: 0, number: 1 };
  private isInHeader = true;
  private continuesLine = false;

  read(text: string): AbcReading {
    for (const line of abcLines(text)) {
      this.line = line;
      if (line.kind === 'directive') this.readDirective(line.text);
      else if (line.kind === 'field') this.readField(line.letter, line.text);
      else if (line.kind === 'music') this.readMusic(line);
    }
    return { score: this.finish(), faults: this.faults };
  }

  private finish(): Score {
    const read: ScoreVoice[] = [];
    const ids = [...new Set([...this.voiceOrder, ...this.declared.keys(), ...this.voices.keys()])];
    const lengths: ScoreNotice[] = [];
    for (const id of ids) {
      const finished = this.voices.get(id)?.finish();
      if (finished === undefined) continue;
      if (read.length === 0) lengths.push(...finished.notices);
      read.push(finished.voice);
    }
    const passed = [...this.passedOver].map((text): ScoreNotice => ({ kind: 'passed-over', text, bar: 0, beat: 1 }));
    return {
      titles: this.fieldsOf('T').filter((title) => title !== ''),
      rhythm: this.fieldsOf('R').at(0) ?? '',
      header: this.header,
      meter: read[0]?.bars[0].meter ?? this.meter,
      key: read[0]?.bars[0].key ?? this.key,
      tempo: this.tempo,
      voices: read,
      partOrder: this.order,
      words: this.words,
      notices: [...lengths, ...passed],
    };
  }

  private fieldsOf(letter: string): readonly string[] {
    return this.header.flatMap((field) => (field.letter === letter ? [field.text] : []));
  }

  private readField(letter: string, text: string): void {
    if (letter === '+') this.goOn(text);
    else if (this.isInHeader) this.readHeader(letter, text);
    else this.readBody(letter, text);
    if (letter !== '+') this.lastField = letter;
  }

  /** `+:` goes on with the field before. */
  private goOn(text: string): void {
    if (this.lastField === 'w') this.voice?.addWords(text, true);
    else if (this.isInHeader) {
      const last = this.header.pop();
      if (last !== undefined) this.header.push({ ...last, text: `${last.text} ${plainText(text)}`.trim() });
    }
  }

  private readHeader(letter: string, text: string): void {
    if (!'VUm'.includes(letter)) this.header.push({ letter, text: plainText(text) });
    switch (letter) {
      case 'M':
      case 'L':
      case 'U':
      case 'V':
        this.readBody(letter, text);
        break;
      case 'Q':
        this.tempoText = text;
        break;
      case 'P':
        this.readOrder(text);
        break;
      case 'W':
        this.words.push(plainText(text));
        break;
      case 'm':
        this.shared.passOver('macros (m:)');
        break;
      case 'K':
        this.isInHeader = false;
        this.readKey(text);
        if (this.tempoText !== '') this.tempo = readTempo(this.tempoText, this.unitInForce(), this.meter.beat);
        break;
    }
  }

  private readOrder(text: string): void {
    const read = partOrder(text);
    if (read.kind === 'order') this.order = read.labels;
    else this.fault(0, read.problem, 'letters of parts, with numbers for how often, for example A2B');
  }

  private readBody(letter: string, text: string): void {
    switch (letter) {
      case 'K':
        this.readKey(text);
        break;
      case 'M':
        this.readMeter(text);
        break;
      case 'L':
        this.readUnit(text);
        break;
      case 'Q':
        this.readTempo(text);
        break;
      case 'P':
        this.voiceInHand().setPart(plainText(text).slice(0, 20));
        break;
      case 'V':
        this.readVoice(text);
        break;
      case 'w':
        this.voice?.addWords(plainWords(text));
        break;
      case 'W':
        this.words.push(plainText(text));
        break;
      case 'U':
        this.readSymbol(text);
        break;
      case 'T':
        if (text.trim() !== '') this.header.push({ letter: 'T', text: plainText(text) });
        break;
      case 's':
        this.voice?.addSigns(text);
        break;
      case 'm':
        this.shared.passOver('macros (m:)');
        break;
      case 'I':
        this.readDirective(text);
        break;
    }
  }

  private unitInForce(): number {
    return this.unit ?? usualUnit(this.meter);
  }

  private readKey(text: string): void {
    const read = readKey(plainKeyText(text), this.voice?.key ?? this.key);
    if (read.kind === 'unknown') {
      this.fault(0, `There is no key “${read.text.slice(0, 30)}”.`, 'a key such as G, Em, D mix or HP');
      return;
    }
    const clef = readClef(read.clef);
    const says = /octave|transpose|[+-]8/.test(read.clef);
    if (this.voice === undefined) {
      this.key = read.key;
      this.clef = read.clef;
      return;
    }
    this.voice.key = read.key;
    if (says) Object.assign(this.voice, clef);
  }

  private readMeter(text: string): void {
    const meter = readMeter(text);
    if (meter === undefined) {
      this.fault(0, `There is no meter “${text.trim().slice(0, 30)}”.`, 'a meter such as 4/4, 6/8, C or none');
      return;
    }
    if (this.voice === undefined) this.meter = meter;
    else this.voice.meter = meter;
  }

  private readUnit(text: string): void {
    const found = /^\s*(\d+)\s*(?:\/\s*(\d+))?/.exec(text);
    const unit = found === null ? Number.NaN : Number(found[1]) / Number(found[2] ?? 1);
    if (!(unit > 0) || unit > 4 || unit < 1 / 512) {
      this.fault(0, `There is no length “${text.trim().slice(0, 30)}”.`, 'a length such as 1/8');
      return;
    }
    if (this.voice === undefined) this.unit = unit;
    else this.voice.unit = unit;
  }

  private readTempo(text: string): void {
    const { voice } = this;
    const tempo = readTempo(text, voice?.unit ?? this.unitInForce(), voice?.meter.beat ?? this.meter.beat);
    if (tempo === undefined) return;
    if (voice === undefined) this.tempo = tempo;
    else voice.setTempo(tempo);
  }

  private readSymbol(text: string): void {
    const found = /^\s*(\S)\s*=\s*(?:[!+]([^!+]+)[!+]|"([^"]*)")/.exec(text);
    if (found === null) return;
    const [, letter, name = ''] = found;
    this.shared.symbols.set(letter, /^(nil|none)$/i.test(name) ? '' : name);
  }

  private readVoice(text: string): void {
    const found = /^\s*(\S+)\s*(.*)$/.exec(text);
    if (found === null) return;
    const [, id, properties] = found;
    if (properties !== '' || !this.declared.has(id)) this.declared.set(id, `${this.declared.get(id) ?? ''} ${properties}`.trim());
    if (this.isInHeader) return;
    this.voice = this.voiceCalled(id);
  }

  private voiceInHand(): VoiceReader {
    this.voice ??= this.voiceCalled(this.declared.keys().next().value ?? '1');
    return this.voice;
  }

  private voiceCalled(id: string): VoiceReader {
    const known = this.voices.get(id);
    if (known !== undefined) return known;
    if (this.voices.size >= mostVoices) {
      this.fault(0, `A tune can have at most ${mostVoices} voices.`, 'fewer voices');
      return this.voices.values().next().value as VoiceReader;
    }
    const properties = this.declared.get(id) ?? '';
    const own = readClef(properties);
    const common = readClef(this.clef);
    const name = /\b(?:name|nm)\s*=\s*(?:"([^"]*)"|(\S+))/i.exec(properties);
    const start = { id, name: plainText(name?.[1] ?? name?.[2] ?? ''), meter: this.meter, unit: this.unitInForce(), key: this.key, tempo: this.tempo };
    const voice = new VoiceReader({ ...start, octaves: own.octaves + common.octaves, soundsAt: own.soundsAt + common.soundsAt }, this.shared);
    this.voices.set(id, voice);
    return voice;
  }

  private readDirective(text: string): void {
    const [, name = '', rest = ''] = /^([\w-]+)\s*(.*)$/.exec(text) ?? [];
    if (name === 'propagate-accidentals' && /^(not|octave|pitch)/.test(rest))
      this.shared.propagation = (/^\w+/.exec(rest) as RegExpExecArray)[0] as Propagation;
    else if (name === 'score' || name === 'staves') this.voiceOrder = rest.match(/[^\s()[\]{}|*]+/g) ?? [];
    else if (name !== '' && !quietDirectives.test(name)) this.shared.passOver(`%%${name}`);
  }

  private readMusic({ text, start }: AbcLine): void {
    if (this.isInHeader) {
      this.fault(0, 'The music starts before a key is given.', 'a line with its key, for example K:D, before the first note');
      this.isInHeader = false;
    }
    this.voice = this.voiceInHand();
    if (!this.continuesLine) this.voice.beginLine(start);
    this.continuesLine = false;
    for (const token of abcTokens(text)) {
      if (token.kind === 'fault') this.fault(token.start, token.problem, token.expected);
      else if (token.kind === 'continues') this.continuesLine = true;
      else if (token.kind === 'field') {
        const before: VoiceReader = this.voice;
        this.readBody(token.letter, token.text);
        if (this.voice !== before) this.voice.beginLine(start + token.end);
      } else this.voice.take(token, start);
    }
    this.lastField = '';
  }

  /** @param at character of the line's text, from 0 */
  private fault(at: number, problem: string, expected: string): void {
    if (this.faults.length >= mostFaults) return;
    const isField = this.line.kind === 'field';
    this.faults.push({ line: this.line.number, column: at + 1 + (isField ? 2 : 0), problem, expected });
  }
}

/** Layout, printing, playing by others: nobody misses it here. */
const quietDirectives =
  /^(abc|begin|end|center|text|sep|vskip|newpage|page|paper|landscape|scale|staff|left|right|top|bottom|bot|margin|title|sub|info|header|footer|music|parts|print|write|font|vocal|words|gchord|annotation|repeat|measure|bar|max|stretch|slur|straight|flat|graceslurs|grace|beam|stem|dynamic|indent|MIDI|composer|set|notespacing|line|one|contbarnb|encoding|deco|user|postscript|ps|tune|X|linebreak|pos)/i;

const plainWords = (text: string): string => (/[&\\]/.test(text) ? plainText(text.replaceAll('\\-', '\u0000')).replaceAll('\u0000', '\\-') : text);
const plainKeyText = (text: string): string => text.replace(/\u266f/g, '#').replace(/\u266d/g, 'b');
