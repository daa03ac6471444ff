/** Accents of ABC text (`\'e`) and of entities (`&eacute;`) as combining characters. */
const accents: Readonly<Record<string, string>> = {
  ...{
    "'": '\u0301',
    '`': '\u0300',
    '^': '\u0302',
    '"': '\u0308',
    '~': '\u0303',
    '=': '\u0304',
    c: '\u0327',
    v: '\u030c',
    u: '\u0306',
    H: '\u030b',
    '.': '\u0307',
  },
  ...{ acute: '\u0301', grave: '\u0300', circ: '\u0302', uml: '\u0308', tilde: '\u0303', cedil: '\u0327', ring: '\u030a', caron: '\u030c' },
};
const letters: Readonly<Record<string, string>> = {
  '/O': 'Ø',
  '/o': 'ø',
  '/D': 'Đ',
  '/d': 'đ',
  AA: 'Å',
  aa: 'å',
  AE: 'Æ',
  ae: 'æ',
  OE: 'Œ',
  oe: 'œ',
  ss: 'ß',
  TH: 'Þ',
  th: 'þ',
  DH: 'Ð',
  dh: 'ð',
  '%': '%',
  '\\': '\\',
  '&': '&',
};
const entities: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: ' ',
  szlig: 'ß',
  aelig: 'æ',
  AElig: 'Æ',
  oslash: 'ø',
  Oslash: 'Ø',
  copy: '©',
  thorn: 'þ',
  eth: 'ð',
};

/**
 * Text of a field as people read it.
 * @example plainText("Caf\\'e") // 'Café'
 */
export function plainText(text: string): string {
  if (!/[\\&]/.test(text)) return text.trim();
  return text
    .replace(/\\u([\da-fA-F]{4})/g, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)))
    .replace(/\\(\/[OoDd]|AA|aa|AE|ae|OE|oe|ss|TH|th|DH|dh|[%\\&])/g, (_, name: string) => letters[name])
    .replace(/\\(['`^"~=cvuH.])([A-Za-z])/g, (_, accent: string, letter: string) => (letter + accents[accent]).normalize('NFC'))
    .replace(/&([A-Za-z])(acute|grave|circ|uml|tilde|cedil|ring|caron);/g, (_, letter: string, accent: string) => (letter + accents[accent]).normalize('NFC'))
    .replace(/&([A-Za-z]+);/g, (all, name: string) => entities[name] ?? all)
    .replace(/&#(\d{2,6});/g, (all, code: string) => (Number(code) <= 0x10ffff ? String.fromCodePoint(Number(code)) : all))
    .trim();
}
