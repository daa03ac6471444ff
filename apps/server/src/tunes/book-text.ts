import { writeAbc, ZelpitFault } from '@zelpit/core';
import { assertPlainXml, readMusicXml, xmlFromParser, xmlParserSettings } from '@zelpit/core/music-files';
import { XMLParser } from 'fast-xml-parser';
import { strFromU8, unzipSync, type UnzipFileInfo } from 'fflate';
import { decodeText } from './decode-text';

/** So much may lie packed in a file, in bytes. */
const longestUnpacked = 40_000_000;
const container = 'META-INF/container.xml';

/**
 * A file of tunes as ABC text: ABC itself, MusicXML, or MusicXML packed (.mxl).
 * @throws ZelpitFault `not-a-score` with a sentence
 */
export function bookText(file: Uint8Array): string {
  if (startsWith(file, 'PK\u0003\u0004')) return abcOfMusicXml(unpacked(file));
  if (startsWith(file, 'MThd'))
    throw new ZelpitFault('not-a-score', 'A MIDI file has to be looked at first: choose it on the page of tunes, where its melody is found.');
  for (const [start, kind] of pictures) if (startsWith(file, start)) throw new ZelpitFault('not-a-score', `This is ${kind}, not a file of tunes.`);
  const text = decodeText(file);
  return /^\ufeff?\s*<(?:\?xml|!DOCTYPE|score-)/.test(text) ? abcOfMusicXml(text) : text;
}

const pictures: readonly (readonly [start: string, kind: string])[] = [
  ['\u0089PNG', 'a picture'],
  ['\u00ff\u00d8\u00ff', 'a picture'],
  ['GIF8', 'a picture'],
  ['%PDF', 'a PDF'],
];

const startsWith = (file: Uint8Array, start: string): boolean => [...start].every((character, index) => file[index] === character.charCodeAt(0));

function abcOfMusicXml(text: string): string {
  assertPlainXml(text);
  let parsed: unknown;
  try {
    parsed = new XMLParser(xmlParserSettings).parse(text, true);
  } catch (error) {
    const place = /:(\d+):(\d+)/.exec(String(error));
    throw new ZelpitFault(
      'not-a-score',
      `This XML file is damaged${place === null ? '' : ` at line ${place[1]}, character ${place[2]}`}, so nothing of it was added.`,
    );
  }
  const root = xmlFromParser(parsed);
  if (root === undefined) throw new ZelpitFault('not-a-score', 'This XML file is empty.');
  const score = readMusicXml(root);
  return writeAbc(score.titles.length > 0 ? score : { ...score, titles: ['Untitled score'] });
}

/** The score in a packed file: the first one that its list of contents names. */
function unpacked(file: Uint8Array): string {
  const list = filesIn(file, ({ name }) => name === container).get(container);
  if (list === undefined) throw new ZelpitFault('not-a-score', 'This packed file has no list of contents (META-INF/container.xml), so it is no .mxl file.');
  const path = /<rootfile[^>]*\sfull-path\s*=\s*["']([^"']+)["']/.exec(strFromU8(list))?.[1];
  if (path === undefined || path.includes('..') || path.startsWith('/'))
    throw new ZelpitFault('not-a-score', 'The list of contents of this .mxl file names no score.');
  const score = filesIn(file, ({ name }) => name === path).get(path);
  if (score === undefined) throw new ZelpitFault('not-a-score', `“${path.slice(0, 80)}” is missing from this .mxl file.`);
  return decodeText(score);
}

function filesIn(file: Uint8Array, isWanted: (info: UnzipFileInfo) => boolean): ReadonlyMap<string, Uint8Array> {
  const filter = (info: UnzipFileInfo): boolean => {
    if (!isWanted(info)) return false;
    if (info.originalSize > longestUnpacked) throw new ZelpitFault('not-a-score', 'The score in this .mxl file is too large.');
    return true;
  };
  try {
    return new Map(Object.entries(unzipSync(file, { filter })));
  } catch (error) {
    if (error instanceof ZelpitFault) throw error;
    throw new ZelpitFault('not-a-score', 'This .mxl file is damaged, so nothing of it was added.');
  }
}
