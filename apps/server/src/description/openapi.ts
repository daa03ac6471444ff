import { onceHeader, problemSchema, tokenHeader, type FileKind, type Route } from '@zelpit/contract';
import * as z from 'zod';
import { createDocument, type ZodOpenApiOperationObject, type ZodOpenApiPathsObject, type ZodOpenApiResponsesObject } from 'zod-openapi';

const fileTypes: Readonly<Record<FileKind, string>> = {
  abc: 'text/vnd.abc',
  zip: 'application/zip',
  sound: 'audio/wav',
  'long-sound': 'audio/wav',
  any: 'application/octet-stream',
};
const binary = { type: 'string', format: 'binary' } as const;

const descriptions: Readonly<Record<number, string>> = { 200: 'Done', 201: 'Made', 204: 'Done, nothing to say' };

/** The API as OpenAPI 3.1, made of the table of routes and its schemas. */
export function describeApi(routes: Readonly<Record<string, Route>>): ReturnType<typeof createDocument> {
  const paths: Record<string, Record<string, ZodOpenApiOperationObject>> = {};
  for (const [id, route] of Object.entries(routes)) {
    const path = `/api${route.path}`;
    paths[path] = { ...paths[path], [route.method]: operation(id, route) };
  }
  return createDocument({
    openapi: '3.1.1',
    info: {
      title: 'Zelpit',
      version: '1',
      description: `Every fault is an RFC 9457 problem with a sentence in \`detail\`. A write needs the session's token in the header \`${tokenHeader}\`; with the header \`${onceHeader}\` it can be sent again safely.`,
    },
    paths: paths as ZodOpenApiPathsObject,
    components: { securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'zelpit' } } },
  });
}

function operation(operationId: string, route: Route): ZodOpenApiOperationObject {
  const names = [...route.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);
  const isWrite = route.method !== 'get';
  return {
    operationId,
    summary: route.summary,
    ...(route.who !== 'anyone' && { description: `For: ${route.who.join(', ')}.`, security: [{ session: [] }] }),
    requestParams: {
      ...(names.length > 0 && { path: z.object(Object.fromEntries(names.map((name) => [name, z.string()]))) }),
      ...(route.query !== undefined && { query: route.query }),
      ...(isWrite && { header: z.object({ [tokenHeader]: z.string(), [onceHeader]: z.uuid().optional() }) }),
    },
    ...(route.body !== undefined && { requestBody: { required: true, content: content(route.body) } }),
    responses: {
      ...(Object.fromEntries(
        Object.entries(route.answers).map(([status, body]) => [
          status,
          { description: descriptions[Number(status)], ...(body !== null && { content: content(body) }) },
        ]),
      ) as ZodOpenApiResponsesObject),
      default: { description: 'What went wrong, with a sentence', content: { 'application/problem+json': { schema: problemSchema } } },
    },
  };
}

function content(body: z.ZodType | FileKind): Record<string, { schema: z.ZodType | typeof binary }> {
  return typeof body === 'string' ? { [fileTypes[body]]: { schema: binary } } : { 'application/json': { schema: body } };
}
