import type * as z from 'zod';

/** How the parts of a file are called, one and the place in the list after it. */
const things: Readonly<Record<string, string>> = {
  holes: 'hole',
  fingers: 'finger',
  notes: 'note',
  fingerings: 'fingering',
  bore: 'point of the bore',
  graceNotes: 'grace note',
  taps: 'tap',
  checks: 'check',
  extras: 'extra fingering',
};

/** Where in the data a schema found fault, and what: "hole 3, finger is missing". */
export function issueText(issue: z.core.$ZodIssue): string {
  const place = placeText(issue.path);
  const of = place === '' ? '' : `${place}: `;
  if (issue.code === 'unrecognized_keys') return `${of}${listedKeys(issue.keys)} not known to Zelpit`;
  if (issue.code === 'invalid_type' && issue.input === undefined && issue.message.includes('undefined')) return `${place || 'everything'} is missing`;
  if (issue.code === 'invalid_value') return `${of}must be one of ${issue.values.map(String).join(', ')}`;
  if (issue.code === 'too_big' && issue.origin === 'array') return `${of}at most ${issue.maximum} are allowed`;
  if (issue.code === 'too_small' && issue.origin === 'array') return `${of}at least one is needed`;
  if (issue.code === 'too_big' && issue.origin === 'string') return `${of}longer than ${issue.maximum} characters`;
  if (issue.code === 'too_small' && issue.origin === 'string') return `${of}is empty`;
  if (issue.code === 'too_big') return `${of}more than ${issue.maximum}`;
  if (issue.code === 'too_small') return `${of}less than ${issue.minimum}`;
  return `${of}${issue.message.replace(/^Invalid input: /, '')}`;
}

const listedKeys = (keys: readonly string[]): string =>
  `${keys
    .slice(0, 5)
    .map((key) => `“${key}”`)
    .join(', ')} ${keys.length === 1 ? 'is' : 'are'}`;

function placeText(path: readonly PropertyKey[]): string {
  const words: string[] = [];
  for (const part of path) {
    if (typeof part === 'number') words[words.length - 1] = `${things[words[words.length - 1]] ?? words[words.length - 1]} ${part + 1}`;
    else words.push(String(part));
  }
  return words.filter((word) => word !== 'instrument' && word !== 'sound' && word !== 'geometry').join(', ');
}
