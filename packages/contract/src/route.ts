import * as z from 'zod';

/** A substitute reads and holds lessons; a parent sees what their child was asked and did. */
export type Role = 'owner' | 'teacher' | 'substitute' | 'student' | 'parent';
export const owner: readonly Role[] = ['owner'];
export const staff: readonly Role[] = ['owner', 'teacher'];
/** Who can hold a lesson. */
export const holders: readonly Role[] = [...staff, 'substitute'];
/** Who practises or teaches. */
export const everyone: readonly Role[] = [...holders, 'student'];
/** Who reads what a student was asked and did. */
export const readers: readonly Role[] = [...everyone, 'parent'];

/** A kind of thing that a studio keeps, by its name: "sheet". Each kind is a module of its own on the server. */
export const thingKindSchema = z.string().regex(/^[a-z-]{1,40}$/);

/** Where the API lies on the server. */
export const apiRoot = '/api';

/** A body that is no JSON: a file as it is. */
export type FileKind = 'abc' | 'zip' | 'sound' | 'long-sound' | 'any';

/**
 * What one address of the API takes and gives. The server serves from this table, the published description is made of
 * it, and who may ask stands in it.
 */
export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Under `/api`; what varies stands in braces: "/tunes/{id}". */
  readonly path: string;
  readonly summary: string;
  /** `anyone` needs no sign-in. */
  readonly who: 'anyone' | readonly Role[];
  readonly query?: z.ZodObject;
  /** What is sent: JSON by a schema, or a file. */
  readonly body?: z.ZodType | FileKind;
  /** True where a file is kept piece by piece as it comes, and never stands in memory whole. */
  readonly isStreamed?: true;
  /** What comes back, by status: JSON by a schema, a file, or nothing. Faults are the same everywhere and not listed. */
  readonly answers: Readonly<Record<number, z.ZodType | FileKind | null>>;
}

export type QueryOf<R extends Route> = R extends { readonly query: infer Q extends z.ZodType } ? z.infer<Q> : undefined;
export type BodyOf<R extends Route> = R extends { readonly body: infer B extends z.ZodType } ? z.infer<B> : undefined;

type Content<A> = A extends z.ZodType ? z.infer<A> : A extends FileKind ? Uint8Array | string : undefined;

/** One of the answers that the route has. */
export type AnswerOf<R extends Route> = {
  [S in keyof R['answers']]: { readonly status: S; readonly body: Content<R['answers'][S]> };
}[keyof R['answers']];

/** Keeps the literal types of a route. */
export const route = <const R extends Route>(described: R): R => described;

/** Brings back what was put away: the same address for every kind of thing. */
export const bringBackRoute = <const Kind extends string>(kind: Kind, called: string = kind) =>
  route({ method: 'post', path: `/${kind}s/{id}/restore`, summary: `Bring back: ${called}`, who: staff, answers: { 204: null } });
