import type { Instrument, Note } from '../fingering';

const signs: readonly (readonly [RegExp, string])[] = [
  [/♯|#/g, ' sharp'],
  [/♭/g, ' flat'],
  [/♮/g, ' natural'],
];
const octaveWords = new Set(['low', 'high', 'top', 'bottom', 'back', 'middle']);
/** The same pitch under two names. */
const twins: Readonly<Record<string, string>> = {
  'd sharp': 'e flat',
  'g flat': 'f sharp',
  'a flat': 'g sharp',
  'a sharp': 'b flat',
  'd flat': 'c sharp',
  'e sharp': 'f',
  'b sharp': 'c',
  'f flat': 'e',
  'c flat': 'b',
};

/** A note as a handout names it: its letter with its accidental, and the word or number that tells the octave, if any. */
export interface NamedNote {
  readonly letter: string;
  readonly octave: string | undefined;
}

/** Reads the name of a note; undefined where it is none. */
export function readNote(text: string): NamedNote | undefined {
  const plain = signs
    .reduce((plain, [sign, word]) => plain.replace(sign, word), text.trim().toLowerCase())
    .replace(/[’′]/g, "'")
    .replace(/\bnat\b\.?/, 'natural')
    .replace(/^(.*?)\s*\((low|high|top|bottom)\)$/, '$2 $1')
    .replace(/^the\s+|^note\s+/, '');
  const match = /^(?:(low|high|top|bottom|back|middle)\s+)?([a-g])(\s*flat|b(?=$|\s|\d)|\s*sharp|\s*natural)?(\d|'{1,2})?$/.exec(plain);
  if (match === null) return undefined;
  const [, word, letter, accidental = '', number] = match;
  const sign = accidental.trim() === 'b' ? 'flat' : accidental.trim();
  const name = sign === '' || sign === 'natural' ? letter : `${letter} ${sign}`;
  return { letter: `${twins[name] ?? name}${sign === 'natural' ? ' natural' : ''}`, octave: word ?? (number?.startsWith("'") === true ? 'high' : number) };
}

/** The notes of an instrument that a name can mean. */
export function notesMeant(instrument: Instrument, { letter, octave }: NamedNote): readonly Note[] {
  const isOwnNamed = instrument.family === 'pipes';
  const wanted = isOwnNamed ? letter.replace(/^([cf]) sharp$/, '$1') : letter.replace(' natural', '');
  if (isOwnNamed && letter.endsWith('natural') && /^[cf]/.test(letter)) return [];
  const named = (letters: string): readonly Note[] => instrument.notes.filter((note) => lettersOf(note) === letters);
  const plain = named(wanted);
  // A chart without F is in a key with F sharp: there "F" is that note.
  const sameLetter = plain.length === 0 && wanted.length === 1 && !letter.endsWith('natural') ? named(`${wanted} sharp`) : plain;
  if (octave === undefined) return sameLetter;
  if (octave === 'second') return sameLetter.length < 2 ? sameLetter : [sameLetter[1]];
  if (!octaveWords.has(octave)) return sameLetter.filter((note) => note.id.endsWith(octave));
  return sameLetter.filter((note) => note.schoolName.toLowerCase().startsWith(`${octave} `));
}

/** A note's name without its octave. */
function lettersOf(note: Note): string {
  const words = note.schoolName.toLowerCase().split(' ');
  return (octaveWords.has(words[0]) ? words.slice(1) : words).join(' ');
}
