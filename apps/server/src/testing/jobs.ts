import { tokenHeader, type Job } from '@zelpit/contract';
import type request from 'supertest';
import { asBytes } from './as-bytes';
import type { Visitor } from './test-server';

const askMs = 20;
const patienceMs = 60_000;

/** A job when it has come to its end. */
export async function ended(visitor: Visitor, id: string): Promise<Job> {
  const since = Date.now();
  for (;;) {
    const job = (await visitor.get(`/api/jobs/${id}`).expect(200)).body as Job;
    if (job.endedAt !== null) return job;
    if (Date.now() - since > patienceMs) throw new Error(`The job ${job.kind} is still ${job.state} after a minute.`);
    await new Promise((resolve) => setTimeout(resolve, askMs));
  }
}

/** Sends a file for a job. */
export const sendFile = (visitor: Visitor, address: string, file: Uint8Array): request.Test =>
  visitor.agent.post(address).set(tokenHeader, visitor.token).set('content-type', 'application/octet-stream').send(Buffer.from(file));

/** What a job wrote, as its bytes. */
export const fileOf = async (visitor: Visitor, id: string): Promise<Buffer> => (await asBytes(visitor.get(`/api/jobs/${id}/file`)).expect(200)).body as Buffer;
