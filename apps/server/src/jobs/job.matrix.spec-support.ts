import type { Job } from '@zelpit/contract';
import type { ThingMatrix } from '../things/matrix.spec-support';

const own = (job: string, more = ''): string => `/api/jobs/${job}${more}`;

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
    'POST /api/jobs/{id}/stop': { path: ({ job }) => own(job, '/stop'), expected: [401, 404, 404, 200, 403] },
    // It gave none.
    'GET /api/jobs/{id}/file': { path: ({ job }) => own(job, '/file'), expected: [401, 404, 404, 409, 403] },
    'DELETE /api/jobs/{id}': { path: ({ job }) => own(job), expected: [401, 404, 404, 204, 403] },
  },
};
