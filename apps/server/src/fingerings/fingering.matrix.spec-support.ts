import { made } from '../things/matrix.spec-support';
import type { ThingMatrix } from '../things/matrix.spec-support';

const newFingering = (): object => ({ model: 'whistle-d', note: 'c6', pattern: [0, 1, 1, 0, 1, 0], isFirst: false, isHidden: false, remark: '', forNow: null });

export const matrix: ThingMatrix = {
  make: async (owner) => ({ fingering: await made(owner, '/api/fingerings', newFingering()) }),
  entries: {
    'GET /api/fingerings': { expected: [401, 200, 200, 200, 200] },
    'POST /api/fingerings': { body: newFingering, expected: [401, 201, 201, 201, 403] },
    'DELETE /api/fingerings/{id}': { path: ({ fingering }) => `/api/fingerings/${fingering}`, expected: [401, 404, 204, 204, 403] },
  },
};
