import { made } from '../things/matrix.spec-support';
import type { ThingMatrix } from '../things/matrix.spec-support';

export const matrix: ThingMatrix = {
  make: async (owner) => ({ spare: await made(owner, '/api/students', { alias: 'Oda' }) }),
  entries: {
    'GET /api/students': { expected: [401, 200, 200, 200, 403] },
    'POST /api/students': { body: () => ({ alias: 'New' }), expected: [401, 201, 201, 201, 403] },
    'PUT /api/students/{id}': {
      path: ({ spare }) => `/api/students/${spare}`,
      body: () => ({ alias: 'Other', version: 1 }),
      expected: [401, 404, 200, 200, 403],
    },
    'DELETE /api/students/{id}': { path: ({ spare }) => `/api/students/${spare}`, expected: [401, 404, 204, 204, 403] },
    'POST /api/students/{id}/restore': {
      path: ({ spare }) => `/api/students/${spare}/restore`,
      putAway: ({ spare }) => `/api/students/${spare}`,
      expected: [401, 404, 204, 204, 403],
    },
    'GET /api/students/{id}/tablets': { path: ({ spare }) => `/api/students/${spare}/tablets`, expected: [401, 404, 200, 200, 403] },
    // Of no tablet that there is: one is signed out in tablets.spec.ts.
    'DELETE /api/tablets/{id}': { path: () => '/api/tablets/6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10', expected: [401, 404, 404, 404, 403] },
    'POST /api/students/{id}/parent-link': { path: ({ spare }) => `/api/students/${spare}/parent-link`, expected: [401, 404, 201, 201, 403] },
    'POST /api/students/{id}/door': { path: ({ spare }) => `/api/students/${spare}/door`, expected: [401, 404, 201, 201, 403] },
    // Of a student without one: one is ended in family.spec.ts.
    'DELETE /api/students/{id}/door': { path: ({ spare }) => `/api/students/${spare}/door`, expected: [401, 404, 404, 404, 403] },
    'POST /api/students/{id}/link': { path: ({ spare }) => `/api/students/${spare}/link`, expected: [401, 404, 201, 201, 403] },
  },
};
