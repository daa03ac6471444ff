import { made } from '../things/matrix.spec-support';
import type { ThingMatrix } from '../things/matrix.spec-support';

const newMovement = (): object => ({ movement: 'grip', definition: null });

export const matrix: ThingMatrix = {
  make: async (owner) => ({ movement: await made(owner, '/api/movements', newMovement()) }),
  entries: {
    'GET /api/movements': { expected: [401, 200, 200, 200, 200] },
    'POST /api/movements': { body: newMovement, expected: [401, 201, 201, 201, 403] },
    'DELETE /api/movements/{id}': { path: ({ movement }) => `/api/movements/${movement}`, expected: [401, 404, 204, 204, 403] },
    'GET /api/movement-choices': { expected: [401, 200, 200, 200, 200] },
    // Each has a version of its own: the owner comes after the teacher.
    'PUT /api/movement-choices': { body: () => ({ settings: {}, syllables: {}, version: 1 }), expected: [401, 200, 200, 409, 403] },
  },
};
