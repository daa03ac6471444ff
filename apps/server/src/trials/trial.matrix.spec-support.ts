import { made } from '../things/matrix.spec-support';
import type { ThingMatrix } from '../things/matrix.spec-support';

const newTrial = ({ student }: Readonly<Record<string, string>>): object => ({
  studentId: student,
  model: 'practice-chanter',
  result: { kind: 'ear', from: 'c', to: 'e', thresholdMs: 20, lowMs: 15, highMs: 26, right: 30, asked: 40 },
});

export const matrix: ThingMatrix = {
  make: async (owner, before) => ({ trial: await made(owner, '/api/trials', newTrial(before)) }),
  entries: {
    'GET /api/trials': { expected: [401, 200, 200, 200, 200] },
    'POST /api/trials': { body: newTrial, expected: [401, 404, 201, 201, 201] },
    'DELETE /api/trials/{id}': { path: ({ trial }) => `/api/trials/${trial}`, expected: [401, 404, 204, 204, 403] },
  },
};
