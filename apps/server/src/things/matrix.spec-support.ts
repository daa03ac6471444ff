import type { Visitor } from '../testing/test-server';

/** What stands in Ada's studio when a request comes: ids, codes and names by what they are of. `student` is whose tablet the student's session is on. */
export type Made = Readonly<Record<string, string>>;

/** Who may use one route. */
export interface Entry {
  readonly path?: (things: Made) => string;
  readonly body?: (things: Made) => object;
  /** Answers to: nobody, another studio's owner, a teacher of this studio, its owner, its student. */
  readonly expected: readonly [nobody: number, stranger: number, teacher: number, owner: number, student: number];
  /** What is put away before, by its address, so that it can be brought back. */
  readonly putAway?: (things: Made) => string;
  /** True where the session is another one afterwards, so that it must not be the one that all tests share. */
  readonly endsSession?: true;
}

/** Who may do what with one kind of thing; stands in that thing's folder. */
export interface ThingMatrix {
  /** Makes a fresh one; `before` is what the kinds before it in the list have made. */
  readonly make: (owner: Visitor, before: Made) => Promise<Made>;
  readonly entries: Readonly<Record<string, Entry>>;
}

export interface Answered {
  readonly status: number;
  readonly type: string;
  readonly body: unknown;
}

export const upload = (visitor: Visitor, path: string, file: Buffer): Promise<Answered> =>
  visitor.agent.post(path).set('x-zelpit-token', visitor.token).type('application/octet-stream').send(file) as unknown as Promise<Answered>;

/** The id of what a post has made. */
export async function made(visitor: Visitor, path: string, body: object): Promise<string> {
  return ((await visitor.post(path, body).expect(201)).body as { id: string }).id;
}
