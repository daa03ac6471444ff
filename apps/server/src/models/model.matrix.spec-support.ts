import { practiceChanter } from '@zelpit/core';
import { made } from '../things/matrix.spec-support';
import type { ThingMatrix } from '../things/matrix.spec-support';

const newModel = (): object => ({ instrument: { ...practiceChanter, name: 'my own chanter' } });

export const matrix: ThingMatrix = {
  make: async (owner) => ({ model: await made(owner, '/api/models', newModel()) }),
  entries: {
    'GET /api/models': { expected: [401, 200, 200, 200, 200] },
    'GET /api/models/{id}': { path: ({ model }) => `/api/models/${model}`, expected: [401, 404, 200, 200, 200] },
    'POST /api/models': { body: newModel, expected: [401, 201, 201, 201, 403] },
    'PUT /api/models/{id}': { path: ({ model }) => `/api/models/${model}`, body: () => ({ ...newModel(), version: 1 }), expected: [401, 404, 200, 200, 403] },
    'DELETE /api/models/{id}': { path: ({ model }) => `/api/models/${model}`, expected: [401, 404, 204, 204, 403] },
    'POST /api/models/{id}/restore': {
      path: ({ model }) => `/api/models/${model}/restore`,
      putAway: ({ model }) => `/api/models/${model}`,
      expected: [401, 404, 204, 204, 403],
    },
  },
};
