import { upload } from '../things/matrix.spec-support';
import type { ThingMatrix } from '../things/matrix.spec-support';

const abc = 'X:1\nT:Hers\nM:4/4\nL:1/4\nK:HP\nA c e a|\n';

export const matrix: ThingMatrix = {
  make: async (owner) => {
    const { body } = await upload(owner, '/api/tunes/import', Buffer.from(abc));
    return { tune: (body as { saved: { id: string }[] }).saved[0].id };
  },
  entries: {
    'GET /api/tunes': { expected: [401, 200, 200, 200, 403] },
    'GET /api/tunes/openings': { path: () => '/api/tunes/openings?known=c,e', expected: [401, 200, 200, 200, 403] },
    'GET /api/tunes/book': { expected: [401, 200, 200, 200, 403] },
    'GET /api/tunes/{id}': { path: ({ tune }) => `/api/tunes/${tune}`, expected: [401, 404, 200, 200, 403] },
    'POST /api/tunes/import': { body: () => Buffer.from(abc), expected: [401, 201, 201, 201, 403] },
    'PUT /api/tunes/{id}': { path: ({ tune }) => `/api/tunes/${tune}`, body: () => ({ abc, version: 1 }), expected: [401, 404, 200, 200, 403] },
    'DELETE /api/tunes/{id}': { path: ({ tune }) => `/api/tunes/${tune}`, expected: [401, 404, 204, 204, 403] },
    'POST /api/tunes/{id}/restore': {
      path: ({ tune }) => `/api/tunes/${tune}/restore`,
      putAway: ({ tune }) => `/api/tunes/${tune}`,
      expected: [401, 404, 204, 204, 403],
    },
    'PUT /api/tunes/{id}/about': {
      path: ({ tune }) => `/api/tunes/${tune}/about`,
      body: () => ({ notes: { form: 'A1' }, version: 1 }),
      expected: [401, 404, 200, 200, 403],
    },
    'PUT /api/tunes/{id}/pins': { path: ({ tune }) => `/api/tunes/${tune}/pins`, body: () => ({ pins: [], version: 1 }), expected: [401, 404, 200, 200, 403] },
  },
};
