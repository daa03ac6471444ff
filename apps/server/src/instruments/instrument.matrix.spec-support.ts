import { made } from '../things/matrix.spec-support';
import type { ThingMatrix } from '../things/matrix.spec-support';

const settings = {
  name: 'Hers',
  model: 'practice-chanter',
  hands: 'left-on-top',
  tuning: { kind: 'chart' },
  schools: {},
  referenceHertz: null,
  knownNotes: ['low-a'],
  note: '',
};
const newInstrument = ({ student }: Readonly<Record<string, string>>): object => ({ ...settings, studentId: student });

export const matrix: ThingMatrix = {
  make: async (owner, before) => ({ instrument: await made(owner, '/api/instruments', newInstrument(before)) }),
  entries: {
    'GET /api/instruments': { expected: [401, 200, 200, 200, 200] },
    'POST /api/instruments': { body: newInstrument, expected: [401, 404, 201, 201, 403] },
    'PUT /api/instruments/{id}': {
      path: ({ instrument }) => `/api/instruments/${instrument}`,
      body: () => ({ ...settings, version: 1 }),
      expected: [401, 404, 200, 200, 403],
    },
    'DELETE /api/instruments/{id}': { path: ({ instrument }) => `/api/instruments/${instrument}`, expected: [401, 404, 204, 204, 403] },
    'POST /api/instruments/{id}/restore': {
      path: ({ instrument }) => `/api/instruments/${instrument}/restore`,
      putAway: ({ instrument }) => `/api/instruments/${instrument}`,
      expected: [401, 404, 204, 204, 403],
    },
  },
};
