export {
  letterOf,
  semitoneOf,
  type Accidental,
  type BarLine,
  type BarMark,
  type Draft,
  type HeaderField,
  type Key,
  type Meter,
  type Score,
  type ScoreBar,
  type ScoreEvent,
  type ScoreNotice,
  type ScorePitch,
  type ScoreVoice,
  type Syllable,
  type Tempo,
  type Tuplet,
} from './score';
export { readAbc, type AbcFault, type AbcReading } from './read-abc';
export { readMeter } from './meter';
export { beatsText } from './number-bars';
export { plainText } from './plain-text';
export { playingOrder } from './playing-order';
export { abcLetter } from './abc-letter';
export { excerptAbc, writeAbc } from './write-abc';
export { heardVoice, type HeardBar, type HeardNote, type HeardVoice } from './heard-notes';
export { keyOfFifths } from './key';
export { inRhythm, phraseRhythms, type PhraseRhythm, type RhythmOfBars } from './phrase-rhythm';
