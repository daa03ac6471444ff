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
export { readMusicXml } from './read-musicxml';
export { writeMusicXml } from './write-musicxml';
export { assertPlainXml, xmlFromParser, xmlParserSettings } from './xml-from-parser';
export { xmlText, type XmlNode } from './xml-node';
export { heardVoice, type HeardBar, type HeardNote, type HeardVoice } from './heard-notes';
export { openMidi, type MidiChoices, type MidiLine, type OpenedMidi } from './read-midi';
export { midiOf, type MidiEvent, type MidiFile } from './write-midi';
export { lossesOf, type TuneFormat } from './losses';
