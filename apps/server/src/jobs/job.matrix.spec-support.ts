import type { Job } from '@zelpit/contract';
import type { ThingMatrix } from '../things/matrix.spec-support';

const own = (job: string, more = ''): string => `/api/jobs/${job}${more}`;

/** Its sound was never sent. */
const anyTake = {
  ...{ studentId: null, soundId: '6c1f2a6e-4b8f-4c53-9d2e-0a3b7f5d9e10', name: 'Rehearsal.wav', model: 'practice-chanter' },
  asked: { kind: 'changes', from: 'c', to: 'e' },
};

export const matrix: ThingMatrix = {
  // A backup that its owner stopped.
  make: async (owner) => {
    const { id } = (await owner.post('/api/jobs/backup').expect(202)).body as Job;
    await owner.post(own(id, '/stop'));
    return { job: id };
  },
  // A job is of whoever began it: another teacher of the same studio finds none.
  entries: {
    'GET /api/jobs': { expected: [401, 200, 200, 200, 403] },
    'GET /api/jobs/{id}': { path: ({ job }) => own(job), expected: [401, 404, 404, 200, 403] },
    'POST /api/jobs/tunes': { path: () => '/api/jobs/tunes', body: () => Buffer.from('X:1\nT:A\nK:HP\nA'), expected: [401, 202, 202, 202, 403] },
    'POST /api/jobs/backup': { expected: [401, 202, 403, 202, 403] },
    'POST /api/jobs/restore': { path: () => '/api/jobs/restore', body: () => Buffer.from('no backup'), expected: [401, 202, 403, 202, 403] },
    'POST /api/jobs/listen/sound': { path: () => '/api/jobs/listen/sound', body: () => Buffer.from('no sound'), expected: [401, 415, 415, 415, 403] },
    'POST /api/jobs/listen': { path: () => '/api/jobs/listen', body: () => anyTake, expected: [401, 422, 422, 422, 403] },
    'POST /api/jobs/{id}/stop': { path: ({ job }) => own(job, '/stop'), expected: [401, 404, 404, 200, 403] },
    // It gave none.
    'GET /api/jobs/{id}/file': { path: ({ job }) => own(job, '/file'), expected: [401, 404, 404, 409, 403] },
    'DELETE /api/jobs/{id}': { path: ({ job }) => own(job), expected: [401, 404, 404, 204, 403] },
  },
};
