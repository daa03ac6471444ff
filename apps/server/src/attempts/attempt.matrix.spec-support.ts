import { made, type ThingMatrix } from '../things/matrix.spec-support';

export const newAttempt = ({ student, title = 'B to E' }: Readonly<Record<string, string>>): object => ({
  ...{ studentId: student, itemId: null, title, kind: 'line', model: 'practice-chanter', tempo: 60, count: 8 },
  ...{ rating: 'clean', ladder: null, seconds: 64, device: 'tablet', note: '', at: '2026-11-20T16:10:00.000Z' },
});

export const matrix: ThingMatrix = {
  make: async (owner, before) => ({ attempt: await made(owner, '/api/attempts', newAttempt(before)) }),
  entries: {
    'GET /api/attempts': { path: ({ student }) => `/api/attempts?student=${student}`, expected: [401, 200, 200, 200, 200] },
    'GET /api/logbook': { path: ({ student }) => `/api/logbook?student=${student}`, expected: [401, 404, 200, 200, 200] },
    'POST /api/attempts': { body: newAttempt, expected: [401, 404, 201, 201, 201] },
    'POST /api/attempts/{id}/correction': {
      path: ({ attempt }) => `/api/attempts/${attempt}/correction`,
      body: () => ({ rating: 'nearly' }),
      expected: [401, 404, 200, 200, 403],
    },
  },
};
