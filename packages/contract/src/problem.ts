import * as z from 'zod';

/** One error format for every answer that is no success (RFC 9457), always with a sentence for people in `detail`. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string(),
  /** One sentence per field that was wrong. */
  fields: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;

export const idSchema = z.uuid();

/** Every problem that the server answers with: its code, the status that goes with it, and its title. */
export const problems = {
  'not-understood': { status: 400, title: 'Not valid' },
  'not-signed-in': { status: 401, title: 'Not signed in' },
  'wrong-sign-in': { status: 401, title: 'Not signed in' },
  'not-allowed': { status: 403, title: 'Not allowed' },
  'only-on-the-server': { status: 403, title: 'Only on the server’s computer' },
  'wrong-origin': { status: 403, title: 'Asked by another site' },
  'wrong-password': { status: 403, title: 'Wrong password' },
  'wrong-code': { status: 403, title: 'Wrong code' },
  'page-too-old': { status: 403, title: 'Page out of date' },
  'not-found': { status: 404, title: 'Not found' },
  'link-used-up': { status: 404, title: 'Link not valid' },
  'changed-elsewhere': { status: 409, title: 'Changed somewhere else' },
  'just-taken': { status: 409, title: 'Changed at the same time' },
  'in-use': { status: 409, title: 'In use' },
  'studio-not-empty': { status: 409, title: 'Studio not empty' },
  'too-large': { status: 413, title: 'Too large' },
  'wrong-media-type': { status: 415, title: 'Not valid' },
  'wrong-address': { status: 421, title: 'Wrong address' },
  'not-possible': { status: 422, title: 'Not possible' },
  'address-taken': { status: 422, title: 'Address taken' },
  'password-too-easy': { status: 422, title: 'Password too easy' },
  'last-owner': { status: 422, title: 'Last owner' },
  'not-one-tune': { status: 422, title: 'Not one tune' },
  'model-has-mistakes': { status: 422, title: 'The instrument has mistakes' },
  'archive-refused': { status: 422, title: 'Backup refused' },
  'key-used-twice': { status: 422, title: 'Key used twice' },
  'too-many-tries': { status: 429, title: 'Too many tries' },
  'job-not-done': { status: 409, title: 'Not done yet' },
  'studio-full': { status: 507, title: 'No room left in this studio' },
  'no-room': { status: 507, title: 'No room left on the server' },
  unforeseen: { status: 500, title: 'Something went wrong' },
  'not-ready': { status: 503, title: 'Not ready' },
  'database-away': { status: 503, title: 'Database not answering' },
  'files-away': { status: 503, title: 'Store of files not answering' },
} as const satisfies Readonly<Record<string, { readonly status: number; readonly title: string }>>;
export type ProblemCode = keyof typeof problems;

const problemRoot = 'urn:zelpit:problem:';

/** The `type` of a problem: stable, whatever its title and sentence come to be. */
export const problemType = (code: ProblemCode): string => `${problemRoot}${code}`;

/** The code in a `type`; undefined for one that this version does not know. */
export function problemCodeOf(type: string): ProblemCode | undefined {
  const code = type.startsWith(problemRoot) ? type.slice(problemRoot.length) : '';
  return Object.hasOwn(problems, code) ? (code as ProblemCode) : undefined;
}
