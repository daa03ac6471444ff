import { apiRoot, type FileKind, type Route } from '@zelpit/contract';
import type * as z from 'zod';

/** Names in braces: `id` of "/tunes/{id}". */
type ParamsOf<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}` ? Name | ParamsOf<Rest> : never;

/** What goes into one request: what varies in the path by its name, the query, the body. */
export type RequestOf<R extends Route> = Readonly<Record<ParamsOf<R['path']>, string>> &
  (R extends { readonly query: infer Query extends z.ZodType } ? { readonly query?: z.input<Query> } : object) &
  (R extends { readonly body: infer Body } ? { readonly body: Body extends z.ZodType ? z.input<Body> : Blob } : object);

type Received<Content> = Content extends z.ZodType ? z.output<Content> : Content extends 'abc' ? string : Content extends FileKind ? Blob : undefined;

/** What comes back: the body of whichever answer it was. */
export type ResponseOf<R extends Route> = Received<R['answers'][keyof R['answers']]>;

/** A route that answers with pages of a list. */
export type ListRoute = Route & { readonly method: 'get'; readonly answers: { readonly 200: z.ZodType<{ items: unknown[]; next: string | null }> } };

/** What such a list holds. */
export type ItemOf<R extends ListRoute> = z.output<R['answers'][200]>['items'][number];

/** The address of one request, with what varies filled in and the query at its end. */
export function addressOf(route: Route, request: object = {}): string {
  const values = request as Readonly<Record<string, unknown>>;
  const path = route.path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String(values[name])));
  const query = Object.entries((values['query'] ?? {}) as Readonly<Record<string, unknown>>).filter(([, value]) => value !== undefined);
  const written = new URLSearchParams(query.map(([name, value]) => [name, String(value)])).toString();
  return `${apiRoot}${path}${written === '' ? '' : `?${written}`}`;
}
