/** An element of an XML document; text stands among the children. */
export interface XmlNode {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly (XmlNode | string)[];
}

type Child = XmlNode | string | number | undefined | readonly (XmlNode | undefined)[];

/** An element; children that are undefined are left out. */
export function element(name: string, attributes: Readonly<Record<string, string | number | undefined>>, ...children: readonly Child[]): XmlNode {
  return {
    name,
    attributes: Object.fromEntries(Object.entries(attributes).flatMap(([key, value]) => (value === undefined ? [] : [[key, String(value)]]))),
    children: children.flatMap((child): (XmlNode | string)[] => {
      if (child === undefined) return [];
      if (typeof child === 'number') return [String(child)];
      if (typeof child === 'string' || !Array.isArray(child)) return [child as XmlNode | string];
      return (child as readonly (XmlNode | undefined)[]).filter((each) => each !== undefined);
    }),
  };
}

const escapes: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Characters that XML cannot hold are left out. */
// eslint-disable-next-line no-control-regex -- they are what is looked for
const unwritable = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;
const escaped = (text: string): string => text.replace(unwritable, '').replace(/[&<>"]/g, (character) => escapes[character]);

/** The text of a document: two blanks for each level, an element with text in one line. */
export function xmlText(root: XmlNode, doctype = ''): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n${doctype}${nodeText(root, '')}`;
}

function nodeText({ name, attributes, children }: XmlNode, indent: string): string {
  const head = `${indent}<${name}${Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escaped(value)}"`)
    .join('')}`;
  if (children.length === 0) return `${head}/>\n`;
  if (children.some((child) => typeof child === 'string')) {
    return `${head}>${children.map((child) => (typeof child === 'string' ? escaped(child) : nodeText(child, '').trimEnd())).join('')}</${name}>\n`;
  }
  return `${head}>\n${children.map((child) => nodeText(child as XmlNode, `${indent}  `)).join('')}${indent}</${name}>\n`;
}

export const childrenOf = (node: XmlNode | undefined, name: string): readonly XmlNode[] =>
  (node?.children ?? []).filter((child): child is XmlNode => typeof child !== 'string' && child.name === name);

export const childOf = (node: XmlNode | undefined, name: string): XmlNode | undefined => childrenOf(node, name).at(0);

/** All text inside an element, trimmed. */
export function textIn(node: XmlNode | undefined): string {
  if (node === undefined) return '';
  return node.children
    .map((child) => (typeof child === 'string' ? child : textIn(child)))
    .join('')
    .trim();
}
