import { keysTogether, keyTable, reservedKeys, type KeyEntry, type KeyPage } from './key-table';

const entriesOf = (page: KeyPage): readonly (KeyEntry & { readonly name: string })[] =>
  Object.entries<KeyEntry>(keyTable[page]).map(([name, entry]) => ({ ...entry, name: `${page}.${name}` }));
const pages = Object.keys(keyTable) as KeyPage[];

describe('the table of keys', () => {
  it('gives no reserved key another meaning', () => {
    const wrong = pages
      .flatMap(entriesOf)
      .filter(({ ctrl }) => ctrl === undefined)
      .flatMap(({ name, keys, means }) => keys.filter((key) => key in reservedKeys && reservedKeys[key] !== means).map((key) => `${name}: ${key}`));
    expect(wrong).toEqual([]);
  });

  it('claims no meaning without its key', () => {
    const claims = pages.flatMap(entriesOf).filter(({ keys, means }) => means !== undefined && !keys.some((key) => reservedKeys[key] === means));
    expect(claims.map(({ name }) => name)).toEqual([]);
  });

  it.each(Object.entries(keysTogether))('has no key twice on the page %s', (_, together) => {
    const signs = together
      .flatMap(entriesOf)
      .flatMap(({ keys, ctrl, shift }) => keys.map((key) => `${ctrl === true ? 'Ctrl ' : ''}${shift === true ? 'Shift ' : ''}${key}`));
    expect(signs.filter((sign, place) => signs.indexOf(sign) !== place)).toEqual([]);
  });

  it('knows where each of its parts is used', () => {
    const used = new Set(Object.values(keysTogether).flat());
    expect(pages.filter((page) => !used.has(page))).toEqual([]);
  });
});
