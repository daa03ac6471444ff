import { readAbc } from '@zelpit/core';
import { writeMusicXml } from '@zelpit/core/music-files';
import { strToU8, zipSync } from 'fflate';
import { bookText } from './book-text';

const xml = writeMusicXml(readAbc('X:1\nT:The Tin Gate\nM:6/8\nL:1/8\nK:G\n|:{g}GAB c2d|e6:|\n').score);
const container = (path: string): string => `<container><rootfiles><rootfile full-path="${path}"/><rootfile full-path="other.xml"/></rootfiles></container>`;
const packed = (path = 'score.xml', name = path, content = xml): Uint8Array =>
  zipSync({ 'META-INF/container.xml': strToU8(container(path)), [name]: strToU8(content), 'other.xml': strToU8('<a/>') });

describe('bookText', () => {
  it.each([
    ['MusicXML', strToU8(xml)],
    ['MusicXML with a byte order mark', strToU8(`\ufeff${xml}`)],
    ['MusicXML in UTF-16', Uint8Array.from([0xff, 0xfe, ...Buffer.from(xml.replace('UTF-8', 'UTF-16'), 'utf16le')])],
    ['packed MusicXML', packed()],
    ['packed MusicXML in a folder', packed('music/score.xml')],
  ])('%s becomes ABC with the same music', (_, file) => {
    const { score, faults } = readAbc(bookText(file));
    expect(faults).toEqual([]);
    expect(score.titles).toEqual(['The Tin Gate']);
    expect(score.voices[0].events.map(({ pitches, graceNotes }) => `${graceNotes.length}${pitches[0].step}`)).toEqual(['14', '05', '06', '07', '08', '09']);
  });

  it('leaves ABC as it is, in old code pages too', () => {
    expect(bookText(Uint8Array.from(Buffer.from('X:1\nT:Caf\xe9\nK:C\nA|\n', 'latin1')))).toContain('Café');
  });

  it.each<[string, Uint8Array, string]>([
    ['MIDI', strToU8('MThd'), 'A MIDI file has to be looked at first'],
    ['a picture', Uint8Array.from([0x89, 0x50, 0x4e, 0x47]), 'This is a picture, not a file of tunes.'],
    ['a PDF', strToU8('%PDF-1.7'), 'This is a PDF'],
    ['XML that is cut off', strToU8(xml.slice(0, 900)), 'This XML file is damaged'],
    ['XML with entities', strToU8('<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]><a>&b;</a>'), 'declares entities'],
    ['deep nesting', strToU8(`<?xml version="1.0"?>${'<a>'.repeat(200_000)}`), 'levels deep'],
    ['another kind of XML', strToU8('<?xml version="1.0"?><svg/>'), 'not a MusicXML score'],
    ['a zip without a list of contents', zipSync({ 'a.xml': strToU8(xml) }), 'no list of contents'],
    ['a path out of the zip', packed('../score.xml'), 'names no score'],
    ['a score that is not there', packed('score.xml', 'elsewhere.xml'), '“score.xml” is missing'],
    ['a zip that is cut off', packed().slice(0, 200), 'damaged'],
  ])('refuses %s with a sentence', (_, file, sentence) => {
    expect(() => bookText(file)).toThrow(sentence);
  });

  it('refuses a size that lies without unpacking it', () => {
    const bomb = packed('score.xml', 'score.xml', 'x'.repeat(41_000_000));
    expect(() => bookText(bomb)).toThrow('too large');
  });
});
