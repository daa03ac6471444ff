import type { Syllable } from './score';

/** What a line of words gives to the notes over it, in their order. */
export type LyricStep = { readonly kind: 'syllable'; readonly syllable: Syllable } | { readonly kind: 'skip' } | { readonly kind: 'next-bar' };

const piece = /\\-|[^\s\-_*|]|-|_|\*|\||\s/g;

/**
 * Reads what stands after `w:`.
 * "won-der *|ful" gives won, der, a note without, then ful in the next bar.
 */
export function lyricSteps(text: string): readonly LyricStep[] {
  const steps: LyricStep[] = [];
  let word = '';
  let isAfterHyphen = false;
  const give = (joins: boolean): void => {
    if (word === '') return;
    steps.push({ kind: 'syllable', syllable: { text: word.replaceAll('~', ' '), joins, holds: false } });
    word = '';
  };
  for (const [part] of text.matchAll(piece)) {
    if (part === '-') {
      // A hyphen with nothing before it stands for a note on which the syllable before goes on.
      if (word === '' && isAfterHyphen) steps.push({ kind: 'skip' });
      else if (word === '') isAfterHyphen = joinLast(steps);
      else {
        give(true);
        isAfterHyphen = true;
      }
      continue;
    }
    if (/\s/.test(part)) {
      give(false);
      continue;
    }
    isAfterHyphen = false;
    if (part === '_' || part === '*' || part === '|') {
      give(false);
      if (part === '_') steps.push({ kind: 'syllable', syllable: { text: '', joins: false, holds: true } });
      else steps.push(part === '*' ? { kind: 'skip' } : { kind: 'next-bar' });
    } else word += part === '\\-' ? '-' : part;
  }
  give(false);
  return steps;
}

/** "syll - able": the hyphen stands by itself. */
function joinLast(steps: LyricStep[]): boolean {
  const last = steps.at(-1);
  if (last?.kind !== 'syllable') return false;
  steps[steps.length - 1] = { kind: 'syllable', syllable: { ...last.syllable, joins: true } };
  return true;
}
