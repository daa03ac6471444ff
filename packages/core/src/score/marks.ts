import type { Mark } from './score';

/** Signs and words over the staff that tell where to go on, as ABC and people write them. */
const marks: readonly (readonly [RegExp, readonly Mark[]])[] = [
  [/^segno$|^S$/, ['segno']],
  [/^coda$|^O$/, ['coda']],
  [/^fine$/i, ['fine']],
  [/^(to coda|dacoda|al coda)$/i, ['to-coda']],
  [/^(d\.?\s?c\.?|da\s?capo)(\.?\s?al\.?\s?(fine|coda)\.?)?$/i, ['da-capo']],
  [/^(d\.?\s?s\.?|dal\s?segno)(\.?\s?al\.?\s?(fine|coda)\.?)?$/i, ['dal-segno']],
];

/** What a sign's name or a text means for the order of playing; empty where it is nothing of that kind. */
export const marksIn = (text: string): readonly Mark[] => marks.find(([pattern]) => pattern.test(text.trim()))?.[1] ?? [];
