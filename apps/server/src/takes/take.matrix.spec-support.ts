import type { Student } from '@zelpit/contract';
import { waveFile } from '@zelpit/core';
import { made, upload, type Made, type ThingMatrix } from '../things/matrix.spec-support';
import type { Visitor } from '../testing/test-server';

export const wave = (seconds = 0.1): Buffer => Buffer.from(waveFile(new Float32Array(Math.round(22_050 * seconds)), 22_050));

export const newTake = (studentId: string | null, soundId: string): object => ({
  ...{ studentId, soundId, title: 'B to E', asked: { kind: 'changes', from: 'b', to: 'e' }, model: 'practice-chanter', seconds: 1, places: 8, faulty: 1 },
  ...{ text: 'Seven of eight clean.', at: '2026-11-20T16:10:00.000Z' },
});

export async function soundOf(visitor: Visitor, student?: string): Promise<string> {
  const { status, body } = await upload(visitor, `/api/takes/sound${student === undefined ? '' : `?student=${student}`}`, wave());
  expect(status).toBe(201);
  return (body as { id: string }).id;
}

/** Notes that a guardian agrees, or no longer does. */
export async function consent(owner: Visitor, id: string, agrees: boolean, called = 'Pim'): Promise<void> {
  const { items } = (await owner.get(`/api/students?find=${called}`).expect(200)).body as { items: Student[] };
  const { alias, version } = items.find((each) => each.id === id) as Student;
  const given = agrees ? { guardian: 'R. Vell', on: '2026-09-04', covers: 'takes in lessons and at home' } : null;
  await owner.put(`/api/students/${id}`, { alias, version, consent: given }).expect(200);
}

const own = ({ take }: Made, more = ''): string => `/api/takes/${take}${more}`;

export const matrix: ThingMatrix = {
  make: async (owner, { student }) => {
    await consent(owner, student, true);
    const take = await made(owner, '/api/takes', newTake(student, await soundOf(owner, student)));
    return { take, sound: await soundOf(owner, student) };
  },
  entries: {
    'GET /api/takes': { expected: [401, 200, 200, 200, 200] },
    'GET /api/takes/{id}': { path: (things) => own(things), expected: [401, 404, 200, 200, 200] },
    'POST /api/takes/sound': { path: () => '/api/takes/sound', body: () => wave(), expected: [401, 201, 201, 201, 201] },
    'POST /api/takes': { body: ({ student, sound }) => newTake(student, sound), expected: [401, 404, 201, 201, 201] },
    'PUT /api/takes/{id}': { path: (things) => own(things), body: () => ({ remarks: [], version: 1 }), expected: [401, 404, 200, 200, 403] },
    'GET /api/takes/{id}/sound': { path: (things) => own(things, '/sound'), expected: [401, 404, 200, 200, 200] },
    'DELETE /api/takes/{id}': { path: (things) => own(things), expected: [401, 404, 204, 204, 204] },
    'DELETE /api/students/{id}/takes': { path: ({ student }) => `/api/students/${student}/takes`, expected: [401, 404, 200, 200, 403] },
  },
};
