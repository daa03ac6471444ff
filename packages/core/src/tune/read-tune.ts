import type { Instrument, NoteId } from '../fingering';
import { letterOf, playingOrder, readAbc, semitoneOf, type Score, type ScoreEvent, type ScorePitch, type ScoreVoice, type Tempo } from '../score';
import { placePhrase, type Bar, type ChordNote, type ReadingChoice, type Notice, type OrnamentSign, type Tune, type TuneNote } from './tune';
import { defaultTempo } from './usual-tempo';
import { writtenNote } from './written-pitch';

/**
 * A tune for one instrument. Notes that the instrument does not have stay in their place as `outside` and are named in the notices; of a chord one note is played.
 * @param written the text of one tune, or the score that was read from one
 */
export function readTune(instrument: Instrument, written: string | Score, { voice: voiceId, chordNote = 'highest' }: ReadingChoice = {}): Tune {
  const score = typeof written === 'string' ? readAbc(written).score : written;
  const voice = score.voices.find(({ id }) => id === voiceId) ?? score.voices.at(0) ?? silence;
  const { meter, key } = score;
  const tempo = beatsAMinute(score.tempo, meter.beat) ?? defaultTempo(score.rhythm, meter.text);
  const bars = pacedBars(voice, tempo * meter.beat);
  if (bars.length > 0) bars[bars.length - 1] = { ...bars[bars.length - 1], endsPart: true };
  const { notes, notices } = new NoteReader(instrument, chordNote).read(voice.events, bars);
  return {
    title: score.titles.at(0) ?? '',
    rhythm: score.rhythm,
    key: key.name,
    meter,
    tempo,
    notes,
    bars,
    playedBars: playingOrder(bars, score.partOrder),
    notices,
    findings: findingsOf(score, voice, chordNote),
    score,
    voice,
  };
}

/** @param start whole notes a minute at the start */
function pacedBars({ bars }: ScoreVoice, start: number): Bar[] {
  let pace = 1;
  return bars.map((bar, index) => {
    if (bar.tempo !== undefined && index > 0) pace = Math.min(20, Math.max(1 / 20, (bar.tempo.perMinute * bar.tempo.beat) / start));
    return { ...bar, endsPart: bar.closesRepeat > 0 || partEnds.has(bar.line), pace };
  });
}

const silence: ScoreVoice = { id: '', name: '', events: [], bars: [], soundsAt: 0 };
const partEnds: ReadonlySet<string> = new Set(['double', 'end', 'begin']);

/** "F natural at bar 3, beat 2" and so on, for people. */
export function noticePhrase(notice: Notice): string {
  return `${notice.text} (${placePhrase(notice.bar, notice.beat)})`;
}

/** A tempo in beats of the meter a minute, within what can be played. */
function beatsAMinute(tempo: Tempo | undefined, beat: number): number | undefined {
  if (tempo === undefined) return undefined;
  return Math.min(400, Math.max(10, Math.round((tempo.perMinute * tempo.beat) / beat)));
}

function findingsOf(score: Score, voice: ScoreVoice, chordNote: ChordNote): Tune['findings'] {
  const missing = [...new Set(score.partOrder.filter((label) => !voice.bars.some(({ part }) => part === label)))];
  const chord = voice.bars.find(({ first, end }) => voice.events.slice(first, end).some(({ pitches }) => pitches.length > 1));
  const overlay = voice.bars.find(({ overlays }) => overlays.length > 0);
  const which = score.voices.indexOf(voice);
  return [
    ...score.notices,
    ...(score.voices.length > 1 ? [{ kind: 'read', text: `${score.voices.length} voices: the ${ordinal(which)} is read`, bar: 0, beat: 1 } as const] : []),
    ...missing.map((label) => ({ kind: 'order', text: `no part is called ${label}`, bar: 0, beat: 1 }) as const),
    ...contradictedKey(voice),
    ...(chord === undefined ? [] : [{ kind: 'read', text: `chords: the ${chordNote} note is played`, bar: chord.number, beat: 1 } as const]),
    ...(overlay === undefined ? [] : [{ kind: 'read', text: 'notes at the same time (&) are not played', bar: overlay.number, beat: 1 } as const]),
  ];
}

/** Notes of a letter that the signature alters or leaves alone, and that stand otherwise nearly always: the key may be another one. */
function contradictedKey({ bars, events }: ScoreVoice): Tune['findings'] {
  const letters = new Map<string, { as: number; other: number; alter: number }>();
  for (const { first, end, key } of bars) {
    if (key.isPipes) continue;
    for (const { pitches } of events.slice(first, end)) {
      for (const { step, alter } of pitches) {
        const letter = letterOf(step);
        const count = letters.get(letter) ?? { as: 0, other: 0, alter };
        if (alter === (key.alters.get(letter) ?? 0)) count.as += 1;
        else Object.assign(count, { other: count.other + 1, alter });
        letters.set(letter, count);
      }
    }
  }
  const names: Readonly<Record<number, string>> = { [-1]: 'flat', 0: 'natural', 1: 'sharp' };
  return [...letters].flatMap(([letter, { as, other, alter }]) => {
    if (other < fewestContradictions || other < contradictionTimes * as) return [];
    return [
      {
        kind: 'key',
        text: `${letter} is ${names[alter] ?? 'altered'} ${other} times of ${as + other}, against the key: is it another key?`,
        bar: 0,
        beat: 1,
      } as const,
    ];
  });
}

/** So often a letter must stand against the key, and so many times as often as with it. Our own choice. */
const [fewestContradictions, contradictionTimes] = [4, 3];

const ordinals = ['first', 'second', 'third', 'fourth', 'fifth'];
const ordinal = (index: number): string => ordinals.at(index) ?? `number ${index + 1}`;

class NoteReader {
  private readonly notes: TuneNote[] = [];
  private readonly notices: Notice[] = [];
  private slurs = 0;

  constructor(
    private readonly instrument: Instrument,
    private readonly chordNote: ChordNote,
  ) {}

  read(events: readonly ScoreEvent[], bars: readonly Bar[]): { readonly notes: readonly TuneNote[]; readonly notices: readonly Notice[] } {
    for (const bar of bars) {
      const isOwnKey = this.instrument.ownKeys.includes(bar.key.name);
      let position = bar.offset;
      for (let index = bar.first; index < bar.end; index += 1) {
        this.readEvent(events[index], index, isOwnKey, bar.number, 1 + position / bar.meter.beat);
        position += events[index].duration;
      }
    }
    return { notes: this.notes, notices: this.notices };
  }

  private readEvent(event: ScoreEvent, index: number, isOwnKey: boolean, bar: number, beat: number): void {
    const say = (text: string): void => void this.notices.push({ text, bar, beat });
    const graceNotes: NoteId[] = [];
    const strayGraceNotes: { at: number; text: string }[] = [];
    for (const grace of event.graceNotes) {
      const read = writtenNote(this.instrument, grace, isOwnKey);
      if (read.kind === 'note') graceNotes.push(read.note);
      else if (read.kind === 'outside') {
        strayGraceNotes.push({ at: graceNotes.length + strayGraceNotes.length, text: read.text });
        say(`grace note ${read.text} cannot be played`);
      }
    }
    const pitch = playedOf(event.pitches, this.chordNote);
    const written = pitch === undefined ? ({ kind: 'rest' } as const) : writtenNote(this.instrument, pitch, isOwnKey);
    if (written.kind === 'outside') say(`${written.text} cannot be played`);
    this.notes.push({
      index,
      written,
      graceNotes,
      strayGraceNotes,
      duration: event.duration,
      bar,
      beat,
      isTiedFromPrevious: pitch?.isTiedFromPrevious === true,
      sign: signOf(event.decorations),
      isSlurred: this.slurs > 0,
      source: event.source,
    });
    this.slurs = Math.max(0, this.slurs + event.slurStarts - event.slurEnds);
  }
}

/** The note of a chord that is played. */
function playedOf(pitches: readonly ScorePitch[], chordNote: ChordNote): ScorePitch | undefined {
  if (pitches.length < 2 || chordNote === 'first') return pitches.at(0);
  const sign = chordNote === 'highest' ? 1 : -1;
  return pitches.reduce((best, pitch) => (sign * (semitoneOf(pitch) - semitoneOf(best)) > 0 ? pitch : best));
}

/** Signs over notes by their names in ABC. */
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

const signOf = (decorations: readonly string[]): OrnamentSign | undefined => decorations.flatMap((name) => signs[name] ?? []).at(0);
