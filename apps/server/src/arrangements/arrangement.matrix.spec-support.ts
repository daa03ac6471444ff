import type { ThingMatrix } from '../things/matrix.spec-support';

export const matrix: ThingMatrix = {
  make: async () => ({}),
  entries: {
    'GET /api/tunes/{id}/arrangement': {
      path: ({ tune, student }) => `/api/tunes/${tune}/arrangement?student=${student}`,
      expected: [401, 404, 200, 200, 403],
    },
    'GET /api/students/{id}/tunes': { path: ({ student }) => `/api/students/${student}/tunes`, expected: [401, 404, 200, 200, 403] },
    'PUT /api/tunes/{id}/arrangement': {
      path: ({ tune }) => `/api/tunes/${tune}/arrangement`,
      body: ({ student }) => ({ student, arrangement: { semitones: 5 }, version: 0 }),
      expected: [401, 404, 200, 200, 403],
    },
  },
};
