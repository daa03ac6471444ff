import { noteOf } from './lookup';
import type { Instrument, NoteId } from './instrument';

/** How notes are called where letters are not those of English: H and B, or do re mi with a fixed do. */
export type NoteNaming = 'english' | 'german' | 'solfege';

const solfege: Readonly<Record<string, string>> = { C: 'do', D: 're', E: 'mi', F: 'fa', G: 'sol', A: 'la', B: 'si' };
const signs: Readonly<Record<string, string>> = { '#': '♯', '♯': '♯', b: '♭', '♭': '♭' };

/**
 * A note as it is written under the music.
 * @throws ZelpitFault `unknown-note`
 * @example noteNameIn(practiceChanter, 'b', 'german') // 'H'
 */
export function noteNameIn(instrument: Instrument, note: NoteId, naming: NoteNaming = 'english'): string {
  const { writtenName } = noteOf(instrument, note);
  if (naming === 'english') return writtenName;
  const letter = writtenName.charAt(0).toUpperCase();
  const sign = signs[writtenName.slice(1)] ?? writtenName.slice(1);
  if (naming === 'solfege') return (solfege[letter] ?? letter) + sign;
  if (letter === 'B') return sign === '♭' ? 'B' : `H${sign}`;
  return letter + sign;
}

/**
 * The covered holes of a note by their numbers from the top, the thumb's left out: "123 4".
 * @throws ZelpitFault `unknown-note`
 */
export function holeNumbers(instrument: Instrument, note: NoteId): string {
  const fingering = instrument.fingerings.find((each) => each.note === note && each.rank === 1);
  if (fingering === undefined) return noteOf(instrument, note).writtenName;
  const thumbs = new Set(instrument.fingers.filter(({ thumb }) => thumb).map(({ id }) => id));
  const front = fingering.pattern.filter((_, hole) => !thumbs.has(instrument.holes[hole].finger));
  const covered = front.flatMap((coverage, index) => (coverage > 0 ? [`${index + 1}${coverage < 1 ? '½' : ''}`] : []));
  return covered.length === 0 ? '0' : covered.join('');
}
