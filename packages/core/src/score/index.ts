export {
  letterOf,
  semitoneOf,
  type Accidental,
  type BarLine,
  type BarMark,
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
export { readAbc, mostFaults, type AbcFault, type AbcReading } from './read-abc';
export { altersOfFifths, readKey as readKeyField } from './key';
export { isCompound, readMeter } from './meter';
export { beatsText } from './number-bars';
export { plainText } from './plain-text';
export { mostPlayedBars, playingOrder } from './playing-order';
export { excerptAbc, keyField, meterField, writeAbc, type BarsWish } from './write-abc';
export { heardVoice, type HeardBar, type HeardNote, type HeardVoice } from './heard-notes';
