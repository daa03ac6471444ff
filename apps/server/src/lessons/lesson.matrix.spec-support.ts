import { made, type ThingMatrix } from '../things/matrix.spec-support';

const shape = { on: '2026-12-01', time: '16:00', minutes: 30, repeats: 'weekly', until: null, note: '' };
export const newLesson = ({ student }: Readonly<Record<string, string>>): object => ({ studentId: student, ...shape });

export const matrix: ThingMatrix = {
  make: async (owner, before) => ({ lesson: await made(owner, '/api/lessons', newLesson(before)) }),
  entries: {
    'GET /api/lessons': { path: () => '/api/lessons?from=2026-12-01&to=2026-12-07', expected: [401, 200, 200, 200, 403] },
    'GET /api/lessons/{id}': { path: ({ lesson }) => `/api/lessons/${lesson}`, expected: [401, 404, 200, 200, 403] },
    'POST /api/lessons': { body: newLesson, expected: [401, 404, 201, 201, 403] },
    'PUT /api/lessons/{id}': {
      path: ({ lesson }) => `/api/lessons/${lesson}`,
      body: () => ({ ...shape, plan: [], version: 1 }),
      expected: [401, 404, 200, 200, 403],
    },
    'DELETE /api/lessons/{id}': { path: ({ lesson }) => `/api/lessons/${lesson}`, expected: [401, 404, 204, 204, 403] },
    'POST /api/lessons/{id}/begin': {
      path: ({ lesson }) => `/api/lessons/${lesson}/begin`,
      body: () => ({ on: '2026-12-08' }),
      expected: [401, 404, 200, 200, 403],
    },
    'POST /api/lessons/{id}/end': { path: ({ lesson }) => `/api/lessons/${lesson}/end`, body: () => ({}), expected: [401, 404, 422, 422, 403] },
  },
};
