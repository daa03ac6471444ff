import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import type { Express } from 'express';
import request from 'supertest';

interface Description {
  readonly paths: Readonly<
    Record<string, Readonly<Record<string, { readonly responses: Readonly<Record<string, { readonly content?: Readonly<Record<string, unknown>> }>> }>>>
  >;
}

export interface DescribedApi {
  /** Every route, as "GET /api/tunes/{id}". */
  readonly routes: readonly string[];
  /** What is wrong with an answer by the description that the server gives of itself; empty where nothing is. */
  readonly faultsOf: (route: string, answer: { readonly status: number; readonly type: string; readonly body: unknown }) => readonly string[];
}

const pointer = (...parts: readonly string[]): string => parts.map((part) => part.replace(/~/g, '~0').replace(/\//g, '~1')).join('/');

/** The API as the server describes it, asked of the server itself. */
export async function describedApi(app: Express): Promise<DescribedApi> {
  const description = (await request(app).get('/api/openapi.json').expect(200)).body as Description;
  const ajv = new Ajv2020({ strict: false, allErrors: true });
  addFormats(ajv);
  ajv.addSchema(description as object, 'api');
  const compiled = new Map<string, ValidateFunction>();
  const validatorAt = (place: string): ValidateFunction => {
    const known = compiled.get(place) ?? ajv.compile({ $ref: `api#/${place}` });
    compiled.set(place, known);
    return known;
  };
  return {
    routes: Object.entries(description.paths).flatMap(([path, methods]) => Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`)),
    faultsOf: (route, { status, type, body }) => {
      const [method, path] = [route.split(' ')[0].toLowerCase(), route.split(' ')[1]];
      const { responses } = description.paths[path][method];
      const wanted = responses[status] === undefined && status >= 400 ? 'default' : String(status);
      const described = responses[wanted];
      if (described === undefined) return [`status ${status} is not described`];
      const types = Object.keys(described.content ?? {});
      if (types.length === 0) return status === 204 ? [] : [`status ${status} is described without a body`];
      if (!types.includes(type)) return [`the answer is ${type}, described is ${types.join(', ')}`];
      if (!type.includes('json')) return [];
      const validate = validatorAt(`paths/${pointer(path, method)}/responses/${wanted}/content/${pointer(type)}/schema`);
      return validate(body) ? [] : (validate.errors ?? []).map((error) => `${error.instancePath} ${error.message ?? ''} ${JSON.stringify(error.params)}`);
    },
  };
}
