import { noteOf, type Instrument, type NoteId } from '../fingering';
import { gracesAt, decoratedNotes, withGraces } from '../excerpt';
import type { LayerKind, OrnamentKind } from '../movement';
import { inRhythm, keyOfFifths, semitoneOf, type Key, type RhythmOfBars, type Score, type ScoreEvent, type ScorePitch } from '../score';
import { keyWay, pitchOfNote, readTune, type Tune, type TuneNote } from '../tune';
import { count, listed } from '../words';

/** Bars that are played an octave lower or higher, as counted aloud. */
export interface Fold {
  readonly from: number;
  readonly to: number;
  readonly octaves: -1 | 1;
}

/** How a tune is played by somebody; the tune itself stays as it is written. Notes are named by their index. */
export interface ArrangementOf {
  /** How far it is moved, positive upwards. */
  readonly semitones: number;
  readonly folds: readonly Fold[];
  /** At which layer decorated notes stand; in full where nothing is said. */
  readonly layers: Readonly<Record<string, LayerKind>>;
  /** Ornaments that are added. */
  readonly ornaments: Readonly<Record<string, OrnamentKind>>;
  /** Grace notes that are added. */
  readonly graces: Readonly<Record<string, readonly NoteId[]>>;
  /** Notes that are played as another one. */
  readonly instead: Readonly<Record<string, NoteId>>;
  /** Bars in another rhythm than is written. */
  readonly rhythms: readonly RhythmOfBars[];
  /** Which voice of a round is theirs, from 1; 0 for none in particular. */
  readonly voice: number;
}

export const asWritten: ArrangementOf = { semitones: 0, folds: [], layers: {}, ornaments: {}, graces: {}, instead: {}, rhythms: [], voice: 0 };

const barsIn = (stretches: readonly { readonly from: number; readonly to: number }[]): number =>
  stretches.reduce((sum, { from, to }) => sum + to - from + 1, 0);

/** "up a fourth, 2 bars folded, 3 ornaments added": what of a tune is played otherwise than it is written; "as written" where nothing is. */
export function arrangementText({ semitones, folds, layers, ornaments, graces, instead, rhythms, voice }: ArrangementOf): string {
  const [bars, inOther] = [barsIn(folds), barsIn(rhythms)];
  const [added, replaced] = [new Set([...Object.keys(ornaments), ...Object.keys(graces)]).size, Object.keys(instead).length];
  const simpler = Object.values(layers).filter((kind) => kind !== 'full').length;
  const parts = [
    ...(semitones === 0 ? [] : [keyWay(semitones)]),
    ...(bars === 0 ? [] : [`${count(bars, 'bar')} folded by an octave`]),
    ...(inOther === 0 ? [] : [`${count(inOther, 'bar')} in another rhythm`]),
    ...(added === 0 ? [] : [`${count(added, 'ornament')} added`]),
    ...(simpler === 0 ? [] : [`${count(simpler, 'embellishment')} at another layer`]),
    ...(replaced === 0 ? [] : [`${count(replaced, 'note')} played as another`]),
    ...(voice === 0 ? [] : [`voice ${voice} of the round`]),
  ];
  return listed(parts) || 'as written';
}

/** Signs in ABC for ornaments; cuts and taps are grace notes. */
const signs: Readonly<Partial<Record<OrnamentKind, string>>> = {
  'short-roll': 'roll',
  'long-roll': 'roll',
  'short-cran': 'roll',
  'long-cran': 'roll',
  'three-cut-cran': 'roll',
  slide: 'slide',
};

/**
 * A tune as somebody plays it: moved, folded, with other notes instead, at its layers, with its added ornaments. What is written over it is kept.
 * Notes that the instrument does not have then stay outside.
 */
export function arrangedTune(instrument: Instrument, tune: Tune, arrangement: ArrangementOf): Tune {
  const moved = readTune(instrument, movedScore(instrument, tune, arrangement));
  const decorated = decoratedNotes(instrument, moved);
  const layers = new Map(Object.entries(arrangement.layers).map(([index, kind]) => [Number(index), kind]));
  const graces = new Map<number, readonly NoteId[]>();
  for (const [index, letters] of Object.entries(arrangement.graces)) if (isFree(moved, Number(index))) graces.set(Number(index), letters);
  for (const [index, kind] of Object.entries(arrangement.ornaments)) {
    const added = graceOfOrnament(instrument, moved, Number(index), kind);
    if (added !== undefined) graces.set(Number(index), [added]);
  }
  if (layers.size > 0) for (const [index, letters] of gracesAt(decorated, 'full', layers)) graces.set(index, letters);
  if (graces.size === 0) return moved;
  return readTune(instrument, withGraces(instrument, moved, graces));
}

/** True for a note that a teacher has set nothing on: what is added never overwrites it. */
export const isFree = ({ notes }: Tune, index: number): boolean => {
  const note = notes.at(index);
  return note !== undefined && note.written.kind === 'note' && note.graceNotes.length === 0 && note.sign === undefined && !note.isTiedFromPrevious;
};

function movedScore(instrument: Instrument, tune: Tune, { semitones, folds, instead, ornaments, rhythms }: ArrangementOf): Score {
  const { score, voice, notes } = tune;
  const shifts = shiftsOf(tune, semitones, folds);
  const keys = new Map<Key, Key>();
  const keyFor = (key: Key): Key => {
    const known = keys.get(key) ?? movedKey(key, semitones);
    keys.set(key, known);
    return known;
  };
  const bars = voice.bars.map((bar) => ({ ...bar, key: keyFor(bar.key) }));
  const events = [...inRhythm(voice.events, voice.bars, rhythms)];
  for (const bar of bars) {
    for (let index = bar.first; index < bar.end; index += 1) {
      const shift = shifts[index];
      const other = instead[String(index)];
      const sign = ornaments[String(index)] === undefined ? undefined : signs[ornaments[String(index)]];
      if (shift === 0 && semitones === 0 && other === undefined && sign === undefined) continue;
      events[index] = movedEvent(instrument, notes[index], events[index], { shift, key: bar.key, other, sign });
    }
  }
  return { ...score, key: keyFor(score.key), voices: [{ ...voice, bars, events }], partOrder: score.partOrder };
}

interface Move {
  readonly shift: number;
  readonly key: Key;
  readonly other: NoteId | undefined;
  readonly sign: string | undefined;
}

function movedEvent(instrument: Instrument, note: TuneNote, event: ScoreEvent, { shift, key, other, sign }: Move): ScoreEvent {
  const moved = (pitch: ScorePitch): ScorePitch =>
    shift === 0 ? pitch : { ...spelled(instrument, semitoneOf(pitch) + shift, key), isTiedOn: pitch.isTiedOn, isTiedFromPrevious: pitch.isTiedFromPrevious };
  const isPlayed = other !== undefined && note.written.kind !== 'rest';
  const replaced = isPlayed
    ? [
        {
          ...pitchOfNote(instrument, other, key),
          isTiedOn: event.pitches.some(({ isTiedOn }) => isTiedOn),
          isTiedFromPrevious: note.isTiedFromPrevious,
        },
      ]
    : undefined;
  return {
    ...event,
    pitches: replaced ?? event.pitches.map(moved),
    graceNotes: event.graceNotes.map(moved),
    decorations: sign === undefined || event.decorations.includes(sign) ? event.decorations : [...event.decorations, sign],
  };
}

/** By how many semitones each note is moved. */
export function shiftsOf({ notes }: Pick<Tune, 'notes'>, semitones: number, folds: readonly Fold[]): readonly number[] {
  return notes.map(({ bar }) => {
    const fold = folds.find(({ from, to }) => bar >= from && bar <= to);
    return semitones + (fold === undefined ? 0 : 12 * fold.octaves);
  });
}

/** A key so many semitones away; the pipes' own stays what it is. */
function movedKey(key: Key, semitones: number): Key {
  if (semitones === 0 || key.isPipes) return key;
  let fifths = key.fifths + 7 * semitones;
  while (fifths > 6) fifths -= 12;
  while (fifths < -5) fifths += 12;
  const [, mode = ''] = / (.*)$/.exec(key.name.replace(/^([A-G]) (sharp|flat)/, '$1')) ?? [];
  return keyOfFifths(fifths, mode);
}

const semitonesOfSteps = [0, 2, 4, 5, 7, 9, 11];
const lettersOfSteps = 'CDEFGAB';

/** A height on the page under a key: by the key's own letters first, then as the instrument's chart spells it, then with a sharp or flat. */
function spelled(instrument: Instrument, semitone: number, key: Key): ScorePitch {
  const plain = { accidental: undefined, isTiedOn: false, isTiedFromPrevious: false };
  const octave = Math.floor((semitone - 60) / 12);
  for (const each of [octave - 1, octave, octave + 1]) {
    for (let step = 0; step < 7; step += 1) {
      const alter = key.alters.get(lettersOfSteps.charAt(step)) ?? 0;
      if (60 + each * 12 + semitonesOfSteps[step] + alter === semitone) return { ...plain, step: each * 7 + step, alter };
    }
  }
  const note = instrument.notes.find(({ writtenSemitone }) => writtenSemitone === semitone);
  if (note !== undefined) return pitchOfNote(instrument, note.id, { ...key, name: '' });
  const sharp = semitonesOfSteps.findLastIndex((each) => each <= semitone - 60 - octave * 12);
  return { ...plain, step: octave * 7 + sharp, alter: semitone - 60 - octave * 12 - semitonesOfSteps[sharp] };
}

/** The letter of a cut, above its note, or of a tap, below it. */
function graceOfOrnament(instrument: Instrument, tune: Tune, index: number, kind: OrnamentKind): NoteId | undefined {
  const written = tune.notes.at(index)?.written;
  if (written?.kind !== 'note' || !isFree(tune, index) || (kind !== 'cut' && kind !== 'tap')) return undefined;
  const place = instrument.notes.indexOf(noteOf(instrument, written.note));
  const key = tune.bars.find(({ first, end }) => index >= first && index < end)?.key;
  const isOfKey = (note: Instrument['notes'][number]): boolean => {
    const { step, alter } = pitchOfNote(instrument, note.id, key ?? tune.score.key);
    return (key?.alters.get(lettersOfSteps.charAt(((step % 7) + 7) % 7)) ?? 0) === alter;
  };
  const candidates = kind === 'cut' ? instrument.notes.slice(place + 1) : instrument.notes.slice(0, place).reverse();
  return (candidates.find(isOfKey) ?? candidates.at(0))?.id;
}
