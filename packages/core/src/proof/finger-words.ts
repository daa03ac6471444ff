import type { FingerId, Instrument, Pattern } from '../fingering';

/** What words about fingers came to. */
export type ReadFingers<T> =
  | { readonly kind: 'read'; readonly value: T }
  /** A word that teachers use for different fingers: which one is meant must be asked. */
  | { readonly kind: 'ambiguous'; readonly word: string; readonly choices: readonly FingerId[] }
  | { readonly kind: 'unread'; readonly word: string };

const ignored = new Set([
  'and',
  'the',
  'with',
  'fingers',
  'finger',
  'holes',
  'hole',
  'cover',
  'covered',
  'closed',
  'down',
  'on',
  'plus',
  'of',
  'your',
  'both',
  'is',
  'are',
  'just',
  'only',
]);
const places: Readonly<Record<string, number>> = { index: 1, pointer: 1, middle: 2, ring: 3, little: 4, pinky: 4, pinkie: 4 };
const counts: Readonly<Record<string, number>> = { first: 1, second: 2, third: 3, fourth: 4 };

/** Splits words, runs of hole numbers ("T123", "4-6", "6h") and signs. */
export function wordsOf(text: string): readonly string[] {
  const plain = text
    .toLowerCase()
    // Hole numbers joined by dashes, not a range.
    .replace(/\b\d(?:[-–]\d){2,}\b/g, (chain) => chain.replace(/[-–]/g, ' '))
    .replace(/half (?:of )?(?:the )?hole ([1-7])/g, '$1h')
    .replace(/^(.*?)\s+(?:of|on|in) the (left|right) hand$/, (_, list: string, hand: string) =>
      list.replace(/\b(index|pointer|middle|ring|little|pinky)\b/g, `${hand} $1`),
    )
    .replace(/\b(index|pointer|middle|ring|little|pinky)(?: finger)? (?:of|on|in) the (left|right) hand\b/g, '$2 $1')
    .replace(/half[- ](covered |closed )?(hole |the )?(thumb|0)/g, 'ø')
    .replace(/pinch(ed)?( the)?( thumb)?/g, 'ø')
    .replace(/half[- ](covered |closed )?(hole )?([1-7])/g, '$3h')
    .replace(/([1-7])( |-)?half/g, '$1h')
    .replace(/(\d)\s*(?:-|–|to)\s*(\d)/g, (_, from: string, to: string) => run(Number(from), Number(to)));
  return plain
    .replace(/[.,;:+&()/]/g, ' ')
    .split(/\s+/)
    .filter((word) => word !== '')
    .flatMap((word) => (/^[t0-7øh|]+$/.test(word) && /[0-7ø|]/.test(word) ? (word.match(/[t0-7ø]h?/g) ?? []) : [word]));
}

function run(from: number, to: number): string {
  if (to < from) return `${from} ${to}`;
  return Array.from({ length: to - from + 1 }, (_, index) => String(from + index)).join(' ');
}

/** Covered holes named one by one. */
export function readHoles(instrument: Instrument, text: string): ReadFingers<Pattern> {
  const signed = signedPattern(instrument, text);
  if (signed !== undefined) return { kind: 'read', value: signed };
  const besides = readBesides(instrument, text);
  if (besides !== undefined) return besides;
  const covered = instrument.holes.map(() => 0);
  const words = wordsOf(counted(instrument, handsNamed(instrument, text)));
  if (words.length === 0) return { kind: 'unread', word: text.trim() };
  for (let at = 0; at < words.length; at += 1) {
    const phrase = words.slice(at, at + 2).join(' ');
    const isAll = words[at] === 'all' || words[at] === 'everything';
    if ((isAll && opened.has(words[at + 1] ?? '')) || words[at] === 'none' || words[at] === 'nothing' || words[at] === 'open') {
      if (isAll) at += 1;
      continue;
    }
    if (isAll) {
      covered.fill(1);
      continue;
    }
    if (phrase === 'left hand' || phrase === 'right hand') {
      at += 1;
      const hand = phrase.split(' ')[0];
      if (opened.has(words[at + 1] ?? '')) {
        // It is said once more that these are open: so they must be.
        if (instrument.holes.some((hole, index) => covered[index] > 0 && isFrontOf(instrument, hole.finger, hand))) return { kind: 'unread', word: phrase };
        at += 1;
        continue;
      }
      instrument.holes.forEach((hole, index) => {
        if (isFrontOf(instrument, hole.finger, hand)) covered[index] = 1;
      });
      continue;
    }
    if (ignored.has(words[at])) continue;
    if (words[at] === 'no' || words[at] === 'not') {
      const open = readFinger(
        instrument,
        words,
        at + 1,
        instrument.fingers.map(({ id }) => id),
      );
      if (open.kind !== 'read') return open;
      if (instrument.holes.some((hole, index) => hole.finger === open.value.finger && covered[index] > 0)) return { kind: 'unread', word: words[at] };
      at += open.value.words;
      continue;
    }
    const half = /^([0-7])h$|^(ø)$/.exec(words[at]);
    if (half !== null) {
      const index = holeNumbered(instrument, half[2] === undefined ? Number(half[1]) : 0);
      const cover = index === undefined ? undefined : instrument.holes[index].half;
      if (index === undefined || cover === undefined) return { kind: 'unread', word: words[at] };
      covered[index] = cover;
      continue;
    }
    const finger = readFinger(
      instrument,
      words,
      at,
      instrument.fingers.map(({ id }) => id),
    );
    if (finger.kind !== 'read') return finger;
    at += finger.value.words - 1;
    instrument.holes.forEach((hole, index) => {
      if (hole.finger === finger.value.finger) covered[index] = 1;
    });
  }
  return { kind: 'read', value: covered };
}

const opened = new Set(['off', 'up', 'open']);
const numbers: Readonly<Record<string, number>> = { one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7 };

const isFrontOf = (instrument: Instrument, finger: FingerId, hand: string): boolean =>
  instrument.fingers.some((each) => each.id === finger && each.hand === hand && !each.thumb);

/** "Top hand" and "bottom hand" as the hands that they are; "the two middle fingers" of a hand with four as those two. */
export function handsNamed(instrument: Instrument, text: string): string {
  const upper = instrument.fingers.find(({ thumb }) => !thumb)?.hand ?? 'left';
  const lower = upper === 'left' ? 'right' : 'left';
  return text
    .toLowerCase()
    .replace(/\b(?:top|upper) hand\b/g, `${upper} hand`)
    .replace(/\b(?:bottom|lower) hand\b/g, `${lower} hand`)
    .replace(/\b(?:the )?(?:two middle|middle two) fingers (?:of|on|in) the (left|right) hand\b/g, (text, hand: string) => {
      const own = instrument.fingers.filter((finger) => finger.hand === hand && !finger.thumb);
      return own.length === 4 ? `${own[1].id} ${own[2].id}`.toLowerCase() : text;
    });
}

/** "Three fingers" and "the first two" as that many holes from the top in front; "all six" as all. */
function counted(instrument: Instrument, text: string): string {
  const front = instrument.holes.filter(({ finger }) => !instrument.fingers.some((each) => each.id === finger && each.thumb)).length;
  const asHoles = (text: string, number: string): string => {
    const count = numbers[number] ?? Number(number);
    if (instrument.family === 'ocarina' || !(count >= 1 && count <= front)) return text;
    return Array.from({ length: count }, (_, index) => String(index + 1)).join(' ');
  };
  return text
    .replace(/\ball (two|three|four|five|six|seven|\d)\b/g, (text, number: string) => asHoles(text, number))
    .replace(/\b(?:the )?(?:first |top |upper )?(one|two|three|four|five|six|seven|\d) fingers\b/g, (text, number: string) => asHoles(text, number));
}

/** "Little finger up, rest down", "just the thumb off", "both small holes open, all else shut": the rest is covered, or the rest is open. */
function readBesides(instrument: Instrument, text: string): ReadFingers<Pattern> | undefined {
  const plain = handsNamed(instrument, text).trim();
  const both =
    /^(.+?)\s+(up|off|open|down|on|closed|covered|shut)\s*[,;]\s*(?:and\s+)?(?:the\s+)?(?:rest|others|all else|everything else)\s+(up|off|open|down|on|closed|covered|shut)$/.exec(
      plain,
    );
  const alone = /^(?:just|only)\s+(.+?)\s+(?:up|off|open)$/.exec(plain);
  const allBut = /^(?:all|everything|every (?:finger|hole))(?:\s+(down|on|closed|covered|open|off|up))?\s+(?:but|except)(?: for)?\s+(.+)$/.exec(plain);
  const list = both?.[1] ?? alone?.[1] ?? allBut?.[2] ?? openOnes(instrument, plain);
  const state = both?.[2] ?? (opened.has(allBut?.[1] ?? '') ? 'down' : 'open');
  if (list === undefined) return undefined;
  const isOpen = opened.has(state);
  if (both !== null && opened.has(both[3]) === isOpen) return { kind: 'unread', word: text.trim() };
  const named = instrument.family === 'ocarina' ? readOcarinaHoles(instrument, list) : readHoles(instrument, list);
  if (named.kind !== 'read') return named;
  return { kind: 'read', value: named.value.map((coverage) => (coverage > 0 === isOpen ? 0 : 1)) };
}

/** On an ocarina holes are named by what is open: "open both sub-holes, right little and ring", "both sub-holes and the right hand open". */
function openOnes({ family }: Instrument, text: string): string | undefined {
  if (family !== 'ocarina' || /^(?:all|everything|every hole|nothing|none)\b/.test(text)) return undefined;
  return /^open\b:?\s*(.+)$/.exec(text)?.[1] ?? /^(.+?)\s+(?:are |is )?(?:open|up|off)$/.exec(text)?.[1];
}

/** Holes of an ocarina by fingers, hands and sub-holes; a finger's own hole is the large one. */
function readOcarinaHoles(instrument: Instrument, list: string): ReadFingers<Pattern> {
  // The larger of them comes first.
  const subs = instrument.holes.flatMap(({ id, finger }, hole) => (id === finger ? [] : [hole]));
  const named = new Set<number>();
  const rest = list
    .replace(/\b(?:both |the )*(?:small holes|sub-?holes)\b/g, () => {
      for (const hole of subs) named.add(hole);
      return ' ';
    })
    .replace(/\b(?:the )?(larger|smaller) (?:small hole|sub-?hole|one)\b/g, (_, which: string) => {
      named.add(which === 'larger' ? subs[0] : subs[subs.length - 1]);
      return ' ';
    });
  const words = rest.replace(/\band\b|[,;&+]/g, ' ').trim();
  if (words === '') return { kind: 'read', value: instrument.holes.map((_, hole) => (named.has(hole) ? 1 : 0)) };
  const fingers = readHoles(instrument, words);
  if (fingers.kind !== 'read') return fingers;
  return { kind: 'read', value: fingers.value.map((coverage, hole) => (named.has(hole) || (coverage > 0 && !subs.includes(hole)) ? 1 : 0)) };
}

/** One finger at a place among words, of those that can be meant; `words` counts how many of them name it. */
export function readFinger(
  instrument: Instrument,
  words: readonly string[],
  at: number,
  possible: readonly FingerId[],
): ReadFingers<{ readonly finger: FingerId; readonly words: number }> {
  const word = words[at];
  const one = (finger: FingerId, count: number): ReadFingers<{ finger: FingerId; words: number }> => ({ kind: 'read', value: { finger, words: count } });
  const number = /^[0-7]$/.test(word) ? holeNumbered(instrument, Number(word)) : undefined;
  if (number !== undefined) return one(instrument.holes[number].finger, 1);
  const label = /^([lr])([1-4])$/.exec(word);
  if (label !== null && instrument.fingers.some(({ id }) => id === word.toUpperCase())) return one(word.toUpperCase(), 1);
  const hand = word === 'left' || word === 'right' || word === 'l' || word === 'r' ? word.charAt(0).toUpperCase() : undefined;
  const name = hand === undefined ? word : (words[at + 1] ?? '');
  const count = hand === undefined ? 1 : 2;
  if ((name === 'thumb' || name === 't' || name === 'back') && hand !== 'R' && instrument.fingers.some(({ id }) => id === 'T')) return one('T', count);
  if (name === 'top' || name === 'bottom') {
    const front = possible.filter((id) => id !== 'T' && id !== 'RT');
    const found = name === 'top' ? front[0] : front[front.length - 1];
    return found === undefined ? { kind: 'unread', word: name } : one(found, count);
  }
  const place = places[name];
  if (place !== undefined) {
    const choices = possible.filter((id) => id.endsWith(String(place)) && (hand === undefined || id.startsWith(hand)));
    if (choices.length === 1) return one(choices[0], count);
    return choices.length === 0
      ? { kind: 'unread', word: [hand === undefined ? '' : word, name].join(' ').trim() }
      : { kind: 'ambiguous', word: name, choices };
  }
  if (counts[name] !== undefined) {
    // Counted from the index by some and from the ring by others.
    const ends = [counts[name], 4 - counts[name]].filter((each) => each >= 1);
    const choices = possible.filter((id) => ends.some((end) => id.endsWith(String(end))) && (hand === undefined || id.startsWith(hand)));
    return choices.length === 0 ? { kind: 'unread', word: name } : { kind: 'ambiguous', word: `${name} finger`, choices };
  }
  return { kind: 'unread', word };
}

/** Index of a hole by its number: 0 the thumb, 1 the first in front. */
function holeNumbered(instrument: Instrument, number: number): number | undefined {
  if (instrument.family === 'ocarina') return undefined;
  const thumb = instrument.holes.findIndex((hole) => hole.finger === 'T');
  if (number === 0) return thumb === -1 ? undefined : thumb;
  const index = number - 1 + (thumb === -1 ? 0 : 1);
  return index < instrument.holes.length ? index : undefined;
}

/** A row of signs, one for each hole: "X XXO XXXO", "xxx ooo", "●●● ○○○". */
function signedPattern(instrument: Instrument, text: string): Pattern | undefined {
  const bare = text.replace(/[\s|]/g, '');
  // Ones and noughts for all holes, which no list of hole numbers is.
  const isBinary = /^[01]+$/.test(bare) && bare.length === instrument.holes.length;
  const row = (isBinary ? bare.replace(/1/g, 'X').replace(/0/g, 'O') : bare).replace(/[●•x]/g, 'X').replace(/[○o]/g, 'O');
  if (!/^[XOhH]+$/.test(row) || row.length !== instrument.holes.length) return undefined;
  const pattern = [...row].map((sign, hole) => {
    if (sign === 'X') return 1;
    return sign === 'O' ? 0 : (instrument.holes[hole].half ?? -1);
  });
  return pattern.includes(-1) ? undefined : pattern;
}
