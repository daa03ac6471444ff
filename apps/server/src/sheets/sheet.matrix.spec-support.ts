import type { ThingMatrix } from '../things/matrix.spec-support';

const line = { home: 'c', other: 'e', repetitions: 8, tempo: null, point: '' };
const newSheet = ({ student, tune }: Readonly<Record<string, string>>): object => ({
  studentId: student,
  tuneId: tune,
  instrument: 'practice-chanter',
  title: 'More',
  note: '',
  lines: [line],
});

export const matrix: ThingMatrix = {
  make: async (owner, before) => {
    const { id, lines } = (await owner.post('/api/sheets', newSheet(before)).expect(201)).body as { id: string; lines: { code: string }[] };
    return { sheet: id, code: lines[0].code };
  },
  entries: {
    'GET /api/sheets': { expected: [401, 200, 200, 200, 200] },
    'POST /api/sheets': { body: newSheet, expected: [401, 404, 201, 201, 403] },
    'GET /api/sheets/{id}': { path: ({ sheet }) => `/api/sheets/${sheet}`, expected: [401, 404, 200, 200, 200] },
    'PUT /api/sheets/{id}': {
      path: ({ sheet }) => `/api/sheets/${sheet}`,
      body: () => ({ title: 'Changed', note: '', version: 1, lines: [] }),
      expected: [401, 404, 200, 200, 403],
    },
    'GET /api/sheets/{id}/lines.abc': { path: ({ sheet }) => `/api/sheets/${sheet}/lines.abc`, expected: [401, 404, 200, 200, 200] },
    'DELETE /api/sheets/{id}': { path: ({ sheet }) => `/api/sheets/${sheet}`, expected: [401, 404, 204, 204, 403] },
    'POST /api/sheets/{id}/restore': {
      path: ({ sheet }) => `/api/sheets/${sheet}/restore`,
      putAway: ({ sheet }) => `/api/sheets/${sheet}`,
      expected: [401, 404, 204, 204, 403],
    },
    'GET /api/lines/{code}': { path: ({ code }) => `/api/lines/${code}`, expected: [401, 404, 200, 200, 200] },
  },
};
