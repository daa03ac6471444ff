import type { Key } from './score';

/** Fifths above C of a major key on each letter. */
const fifthsOfLetter: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: -1, G: 1, A: 3, B: 5 };
const orderOfSharps = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];

/** Modes by the first three letters: how many fifths under the major key of the same name, and how they are said. */
const modes: readonly (readonly [sign: RegExp, fifths: number, name: string])[] = [
  [/^(maj|ion)/i, 0, ''],
  [/^(m$|min|aeo)/i, -3, 'minor'],
  [/^mix/i, -1, 'Mixolydian'],
  [/^dor/i, -2, 'Dorian'],
  [/^phr/i, -4, 'Phrygian'],
  [/^lyd/i, 1, 'Lydian'],
  [/^loc/i, -5, 'Locrian'],
];

const signs: Readonly<Record<string, number>> = { '^': 1, '^^': 2, _: -1, __: -2, '=': 0 };

export type KeyReading = { readonly kind: 'key'; readonly key: Key; readonly clef: string } | { readonly kind: 'unknown'; readonly text: string };

/** The key without sharps and flats, that of a tune whose key says nothing. */
export const plainKey: Key = { name: 'C', fifths: 0, alters: new Map(), isPipes: false };

/** What a signature of so many sharps (flats where negative) raises or lowers. */
export function altersOfFifths(fifths: number): ReadonlyMap<string, number> {
  const letters = fifths >= 0 ? orderOfSharps.slice(0, fifths) : [...orderOfSharps].reverse().slice(0, -fifths);
  return new Map(letters.map((letter) => [letter, Math.sign(fifths)]));
}

/** True where two keys raise and lower the same letters. */
export const hasSameAlters = (one: ReadonlyMap<string, number>, other: ReadonlyMap<string, number>): boolean =>
  one.size === other.size && [...one].every(([letter, alter]) => other.get(letter) === alter);

/** Names of major keys from seven flats to seven sharps and on to ten, the last for minor keys and other modes. */
const tonics = [
  'C flat',
  'G flat',
  'D flat',
  'A flat',
  'E flat',
  'B flat',
  'F',
  'C',
  'G',
  'D',
  'A',
  'E',
  'B',
  'F sharp',
  'C sharp',
  'G sharp',
  'D sharp',
  'A sharp',
];

/**
 * The key with so many sharps, flats where negative, from -7 to 7.
 * @param mode as `modes` knows it: "minor", "dorian"; anything else is major
 */
export function keyOfFifths(fifths: number, mode = ''): Key {
  const [, lower, modeName] = modes.find(([each]) => each.test(mode)) ?? modes[0];
  const tonic = tonics.at(fifths - lower + 7);
  const isKnown = tonic !== undefined && fifths - lower + 7 >= 0;
  const name = isKnown ? `${tonic}${modeName === '' ? '' : ` ${modeName}`}` : tonics[fifths + 7];
  return { name, fifths, alters: altersOfFifths(fifths), isPipes: false };
}

/**
 * Reads what stands after `K:`. `clef` is all that is no key: clef, octave, transposition.
 * "D mix ^g" is D Mixolydian with a G sharp.
 */
export function readKey(text: string, before: Key = plainKey): KeyReading {
  const trimmed = text.trim();
  if (/^H[Pp]\b/.test(trimmed)) return { kind: 'key', clef: trimmed.slice(2), key: pipesKey(trimmed.slice(0, 2)) };
  if (trimmed === '' || /^none\b/i.test(trimmed)) return { kind: 'key', clef: trimmed.replace(/^none/i, ''), key: { ...plainKey, name: '' } };
  const found = /^([A-G])([#b]?)\s*(m(?![a-z])|maj\w*|ion\w*|min\w*|aeo\w*|mix\w*|dor\w*|phr\w*|lyd\w*|loc\w*|exp\b)?/i.exec(trimmed);
  if (found === null || !/^[A-G]/.test(trimmed) || /^[a-z#\d]/i.test(trimmed.slice(found[0].trimEnd().length))) {
    // Only a clef or a transposition: the key stays.
    return clefWords.test(trimmed) ? { kind: 'key', key: before, clef: trimmed } : { kind: 'unknown', text: trimmed };
  }
  const [all, letter, sign, mode = ''] = found;
  const [, lower, modeName] = modes.find(([each]) => each.test(mode)) ?? modes[0];
  let rest = trimmed.slice(all.length);
  const isExplicit = /^exp/i.test(mode) || /^\s*exp\b/i.test(rest);
  rest = rest.replace(/^\s*exp\b/i, '');
  const shift: Readonly<Record<string, number>> = { '#': 7, b: -7 };
  const fifths = isExplicit ? 0 : fifthsOfLetter[letter] + (shift[sign] ?? 0) + lower;
  const alters = new Map(isExplicit ? [] : altersOfFifths(fifths));
  const clef = rest.replace(/(?:^|\s)((?:\^\^?|__?|=)[a-gA-G])(?=\s|$)/g, (_, one: string) => {
    alters.set(one.slice(-1).toUpperCase(), signs[one.slice(0, -1)]);
    return ' ';
  });
  if (Math.abs(fifths) > 7) return { kind: 'unknown', text: trimmed };
  const accidental: Readonly<Record<string, string>> = { '#': ' sharp', b: ' flat' };
  const name = `${letter}${accidental[sign] ?? ''}${modeName === '' ? '' : ` ${modeName}`}`;
  return { kind: 'key', clef, key: { name, fifths, alters, isPipes: false } };
}

/** `Hp` shows its two sharps, `HP` none; both sound them. */
function pipesKey(name: string): Key {
  return {
    name,
    fifths: name === 'Hp' ? 2 : 0,
    alters: new Map([
      ['F', 1],
      ['C', 1],
    ]),
    isPipes: true,
  };
}

const clefWords = /^(clef|treble|bass|alto|tenor|perc|none|octave|transpose|middle|staffscale|stafflines|[+-]8|shift|style)/i;

/** What a clef says of the pitches under it: octaves that it moves what is written, semitones from written to sounding. */
export function readClef(text: string): { readonly octaves: number; readonly soundsAt: number } {
  const octave = /\boctave\s*=\s*(-?\d+)/i.exec(text);
  const transpose = /\btranspose\s*=\s*(-?\d+)/i.exec(text);
  const eighth = /(?:treble|bass|alto|tenor|clef\s*=\s*"?[\w]+\d?)"?([+-])8/i.exec(text) ?? /(?:^|\s)([+-])8\b/.exec(text);
  const byClef: Readonly<Record<string, number>> = { '+': 12, '-': -12 };
  return { octaves: Number(octave?.[1] ?? 0), soundsAt: Number(transpose?.[1] ?? 0) + (byClef[eighth?.[1] ?? ''] ?? 0) };
}
