import { consent, wave } from '../takes/take.matrix.spec-support';
import { upload, type Made, type ThingMatrix } from '../things/matrix.spec-support';

const said = '?title=B%20to%20E&seconds=2';
const of = ({ held }: Made): string => `/api/lessons/${held}/words`;

export const matrix: ThingMatrix = {
  make: async (owner, { student, lesson }) => {
    await consent(owner, student, true);
    const { id: held } = (await owner.post(`/api/lessons/${lesson}/begin`, { on: '2026-12-01' }).expect(200)).body as { id: string };
    const { status, body } = await upload(owner, `/api/lessons/${held}/words${said}`, wave());
    expect(status).toBe(201);
    return { held, word: (body as { id: string }).id };
  },
  entries: {
    'GET /api/lessons/{id}/words': { path: of, expected: [401, 404, 200, 200, 403] },
    'POST /api/lessons/{id}/words': { path: (things) => `${of(things)}${said}`, body: () => wave(), expected: [401, 404, 201, 201, 403] },
    'GET /api/spoken-words/{id}/sound': { path: ({ word }) => `/api/spoken-words/${word}/sound`, expected: [401, 404, 200, 200, 403] },
    'DELETE /api/spoken-words/{id}': { path: ({ word }) => `/api/spoken-words/${word}`, expected: [401, 404, 204, 204, 403] },
  },
};
