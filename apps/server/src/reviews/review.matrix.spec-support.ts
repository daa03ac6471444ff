import type { ThingMatrix } from '../things/matrix.spec-support';

const wish = ({ student }: Readonly<Record<string, string>>): object => ({ studentId: student, lessonId: null, on: '2026-12-01' });

/** Each of these comes to a review that somebody else would not even find. */
export const matrix: ThingMatrix = {
  make: async (owner, before) => {
    const { id } = (await owner.post('/api/reviews', wish(before)).expect(201)).body as { id: string };
    const sent = (await owner.post('/api/reviews', wish(before)).expect(201)).body as { id: string; version: number };
    await owner.post(`/api/sheets/${sent.id}/send`, { version: sent.version, mailTo: null }).expect(200);
    return { review: id, sent: sent.id };
  },
  entries: {
    'POST /api/reviews': { body: wish, expected: [401, 404, 201, 201, 403] },
    'POST /api/sheets/{id}/send': {
      path: ({ review }) => `/api/sheets/${review}/send`,
      body: () => ({ version: 1, mailTo: null }),
      expected: [401, 404, 200, 200, 403],
    },
    'POST /api/sheets/{id}/take-back': { path: ({ sent }) => `/api/sheets/${sent}/take-back`, body: () => ({}), expected: [401, 404, 200, 200, 403] },
    'POST /api/sheets/{id}/anew': { path: ({ sent }) => `/api/sheets/${sent}/anew`, body: () => ({}), expected: [401, 404, 201, 201, 403] },
    'POST /api/sheets/{id}/open': { path: ({ sent }) => `/api/sheets/${sent}/open`, body: () => ({}), expected: [401, 403, 403, 403, 204] },
  },
};
