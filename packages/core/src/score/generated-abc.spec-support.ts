import fc from 'fast-check';

const letter = fc.constantFrom(...'CDEFGABcdefgab');
const octave = fc.constantFrom('', '', '', '', '', ',', "'");
const accidental = fc.constantFrom('', '', '', '', '', '', '^', '_', '=');
const length = fc.constantFrom('', '', '', '2', '3', '/2', '/', '3/2', '4');

/** A letter with its octave mark where that stays within the range of a keyboard. */
const pitch = fc.tuple(accidental, letter, octave).map(([sign, name, mark]) => {
  const isHigh = name >= 'a';
  const fits = mark === '' || (mark === "'" && isHigh) || (mark === ',' && !isHigh);
  return `${sign}${name}${fits ? mark : ''}`;
});
const note = fc.tuple(pitch, length).map(([name, size]) => name + size);
const rest = fc.tuple(fc.constantFrom('z', 'z', 'x'), length).map(([sign, size]) => sign + size);
const chord = fc.tuple(fc.uniqueArray(letter, { minLength: 2, maxLength: 3 }), length).map(([letters, size]) => `[${letters.join('')}]${size}`);
const brokenPair = fc
  .tuple(pitch, fc.constantFrom('>', '<', '>>', '<<'), pitch, fc.constantFrom('', '2'))
  .map(([one, sign, other, size]) => `${one}${size}${sign}${other}${size}`);
const group = (count: number, head: string): fc.Arbitrary<string> =>
  fc.array(pitch, { minLength: count, maxLength: count }).map((pitches) => `(${head}${pitches.join('')}`);
const tuplet = fc.oneof(
  group(3, '3'),
  group(3, '3'),
  group(2, '2'),
  group(4, '4'),
  group(5, '5:2'),
  group(6, '6'),
  group(7, '7:2'),
  group(4, '3:2:4'),
  group(5, '5:4'),
  group(2, '3:2:2'),
);
const tied = fc.tuple(pitch, length, length).map(([name, one, other]) => `${name}${one}-${name.replace(/^[\^_=]/, '')}${other}`);
const slurred = fc.tuple(note, note, note).map((notes) => `(${notes.join('')})`);
const graced = fc.tuple(fc.array(letter, { minLength: 1, maxLength: 4 }), note).map(([letters, after]) => `{${letters.join('')}}${after}`);
const decorated = fc.tuple(fc.constantFrom('.', 'u', 'v', '!accent!', '!upbow!', '!tenuto!'), note).map(([sign, after]) => sign + after);
const worded = fc.tuple(fc.constantFrom('"^slowly"', '"_x"', '"<y"'), note).map(([words, after]) => words + after);
/** Never alone: readers differ on stretches without music, which nobody writes. */
const spaced = note.map((after) => `y ${after}`);

const element = fc.oneof(
  { arbitrary: note, weight: 8 },
  { arbitrary: rest, weight: 1 },
  ...[chord, brokenPair, tuplet, tied, slurred, graced, decorated, worded].map((arbitrary) => ({ arbitrary, weight: 1 })),
  { arbitrary: spaced, weight: 1 },
);
const change = fc.constantFrom(
  '',
  '',
  '',
  '',
  '',
  '',
  '[K:D]',
  '[K:Bb]',
  '[K:Edor]',
  '[M:3/4]',
  '[M:6/8]',
  '[L:1/16]',
  '[L:1/4]',
  '[r:a remark]',
  '[Q:1/4=90]',
);
const overBar = fc.tuple(pitch, length, length).map(([name, one, other]) => `${name}${one}-|${name.replace(/^[\^_=]/, '')}${other}`);
const bar = fc.tuple(change, fc.array(element, { minLength: 2, maxLength: 5 })).map(([field, elements]) => `${field}${elements.join(' ')}`);
const measure = fc.oneof({ arbitrary: bar, weight: 10 }, { arbitrary: overBar, weight: 1 }, { arbitrary: fc.constantFrom('Z', 'Z2', 'Z3'), weight: 1 });
const bars = fc.array(measure, { minLength: 1, maxLength: 3 }).map((all) => all.join('|'));

const section = fc.oneof(
  bars.map((music) => `${music}||`),
  bars.map((music) => `|:${music}:|`),
  bars.map((music) => `|: ${music} :|`),
  fc.tuple(bars, bars).map(([one, two]) => `|:${one}::${two}:|`),
  fc.tuple(bars, bar, bar).map(([music, one, two]) => `|:${music}|1 ${one}:|2 ${two}||`),
  fc.tuple(bars, bar, bar).map(([music, one, two]) => `|:${music}|[1 ${one}:|[2 ${two}|]`),
  fc.tuple(bars, bar, bar, bar).map(([music, one, two, three]) => `|:${music}|[1 ${one}:|[2 ${two}:|[3 ${three}|]`),
);

const key = fc.constantFrom('C', 'G', 'D', 'A', 'F', 'Bb', 'Em', 'Ador', 'D mix', 'Bm', 'F#m', 'C lydian', 'G exp _b', 'Am ^g');
const meter = fc.constantFrom('4/4', '3/4', '2/4', '6/8', '9/8', 'C', 'C|', '2/2', '5/4');
const unit = fc.constantFrom('L:1/8\n', 'L:1/8\n', 'L:1/16\n', 'L:1/4\n', '');

/** Texts of tunes with every feature that two readers can be compared by, well-formed. */
export const generatedAbc: fc.Arbitrary<string> = fc
  .tuple(
    meter,
    unit,
    key,
    fc.array(section, { minLength: 1, maxLength: 4 }),
    fc.constantFrom('one', 'one', 'voices', 'turns', 'parts'),
    fc.constantFrom('AB', 'AAB', 'A2B', '(AB)2', 'BA'),
  )
  .map(([m, l, k, sections, kind, order]) => {
    const head = `X:1\nT:Made\nM:${m}\n${l}`;
    if (kind === 'parts' && sections.length >= 2) return `${head}P:${order}\nK:${k}\nP:A\n${sections[0]}\nP:B\n${sections[1]}\n`;
    if (kind === 'voices') return `${head}K:${k}\nV:1\n${sections.join('\n')}\nV:2\nC,4 E,4|G,8|\n`;
    if (kind === 'turns') return `${head}K:${k}\n${sections.map((section) => `[V:a]${section}\n[V:b]C,4 E,4|\n`).join('')}`;
    return `${head}K:${k}\n${sections.join('\n')}\n`;
  });
