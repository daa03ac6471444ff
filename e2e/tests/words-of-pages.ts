import type { Page } from '@playwright/test';

/**
 * What pages never say: a programmer's words, riddles, second words for one thing, the ids of notes, and fingerings that are spelled. Quoted from the glossary of
 * `docs/words.md`.
 */
const neverSaid: readonly RegExp[] = [
  /\b(low|high)-[ga]\b/i,
  /\bin 100\b/,
  /\d hard\b/,
  /\btroubles?\b/i,
  /\bblind test\b/i,
  /\bsimulated\b/i,
  /\bsomebody\b/i,
  /\bnobody is here\b/i,
  /\bover both hands\b/,
  /\bdirect exchange\b/,
  /\btoo (closed|open)\b/i,
  /\ba run slips\b/,
  /\bstrays\b/,
  /\b(pinned|sigma|bias|onsets?|openers?|payload|boolean|undefined|null|NaN)\b/,
  /\b(log in|log out|username|trash|bin|archive)\b/i,
  /\bbring (it|them|a file|a studio|new ones)? ?in\b/i,
  /\bcame in\b/,
  /\bdoes not hold together\b/,
  /\bis forgotten\b/,
  /\bcannot be:/,
  /\bFetching\b/,
  /\b\d+ (line|tune|bar|note|finger|time|hole|sheet|student)s? (is|are) no\b/,
  /\b1 (lines|tunes|bars|notes|fingers|times|holes|sheets|students|changes|minutes|steps|places)\b/,
  /!(\s|$)/,
];

/** A fingering that is spelled; the page that reads fingerings shows one in its examples. */
const spelledFingering = /(^|\s)[XOh]{1,4} [XOh]{3,4}(\s|$)/;

/** The same for one page. */
export const neverSaidAt = (address: string): readonly RegExp[] => (address === '/charts/proof' ? neverSaid : [...neverSaid, spelledFingering]);

/** Words of the Highland pipes, which no other instrument's page needs. */
export const pipingWords: readonly RegExp[] = [/K:HP/, /\bHighland\b/, /\btaorluath\b/i, /\bas on the pipes\b/];

/** Everything that a page says: its text, and the names, titles and hints of what is in it. */
export const saidBy = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() => {
    const text = document.body.innerText.split('\n');
    const hints = [...document.querySelectorAll('[aria-label], [title], [placeholder]')].flatMap((each) =>
      ['aria-label', 'title', 'placeholder'].map((name) => each.getAttribute(name) ?? ''),
    );
    return [...new Set([...text, ...hints])].map((each) => each.trim()).filter((each) => each !== '');
  });

/** What is said though it never should be. */
export const wronglySaid = (said: readonly string[], never: readonly RegExp[]): readonly string[] =>
  said.flatMap((text) => never.filter((word) => word.test(text)).map((word) => `${String(word)} in “${text.slice(0, 80)}”`));
