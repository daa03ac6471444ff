/** Reading and writing files of other programs: apart from the rest, so that a page that needs none of it does not load it. */
export { readMusicXml } from './score/read-musicxml';
export { writeMusicXml } from './score/write-musicxml';
export { assertPlainXml, xmlFromParser, xmlParserSettings } from './score/xml-from-parser';
export { xmlText, type XmlNode } from './score/xml-node';
export { openMidi, type MidiChoices, type MidiLine, type OpenedMidi } from './score/read-midi';
export { midiOf, type MidiEvent, type MidiFile } from './score/write-midi';
export { lossesOf, type TuneFormat } from './score/losses';
