import { ZelpitFault } from '../fault';
import type { XmlNode } from './xml-node';

/** Settings of fast-xml-parser 5 under which `xmlFromParser` understands its answer. */
export const xmlParserSettings = {
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: true,
  ignoreDeclaration: true,
  ignorePiTags: true,
} as const;

const deepest = 60;

/**
 * Looks over the text of an XML document before a parser gets it.
 * @throws ZelpitFault `not-a-score` for one that declares entities or is nested deeper than any score
 */
export function assertPlainXml(text: string): void {
  if (/<!ENTITY/i.test(text)) throw new ZelpitFault('not-a-score', 'This XML file declares entities of its own. No score needs them, so it was not read.');
  let depth = 0;
  for (const [, closes, isEmpty] of text.matchAll(/<(\/?)[A-Za-z][^<>]*?(\/?)>/g)) {
    if (isEmpty === '/') continue;
    depth += closes === '/' ? -1 : 1;
    if (depth > deepest) throw new ZelpitFault('not-a-score', `This XML file is nested more than ${deepest} levels deep. No score is.`);
  }
}

/** The root element of what the parser answers; undefined where it has none. */
export function xmlFromParser(parsed: unknown): XmlNode | undefined {
  return childrenFrom(parsed).find((child): child is XmlNode => typeof child !== 'string');
}

function childrenFrom(parsed: unknown): readonly (XmlNode | string)[] {
  if (!Array.isArray(parsed)) return [];
  return parsed.flatMap((entry: unknown): (XmlNode | string)[] => {
    if (typeof entry !== 'object' || entry === null) return [];
    const { ':@': attributes, ...rest } = entry as Record<string, unknown>;
    const [found] = Object.entries(rest);
    if (found === undefined) return [];
    const [name, content] = found;
    if (name === '#text') return [String(content)];
    if (name.startsWith('?') || name.startsWith('!')) return [];
    return [{ name, attributes: attributesFrom(attributes), children: childrenFrom(content) }];
  });
}

function attributesFrom(attributes: unknown): Readonly<Record<string, string>> {
  if (typeof attributes !== 'object' || attributes === null) return {};
  return Object.fromEntries(Object.entries(attributes).map(([name, value]) => [name, String(value)]));
}
