import { tokenHeader } from '@zelpit/contract';
import type { Visitor } from './test-server';

/** A studio's backup, as its bytes. */
export const take = async (visitor: Visitor): Promise<Buffer> =>
  (
    await visitor
      .get('/api/archive')
      .buffer()
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200)
  ).body as Buffer;
/** Restores a backup. */
export const bring = (visitor: Visitor, archive: Uint8Array, before = 'empty') =>
  visitor.agent
    .post(`/api/archive?before=${before}`)
    .set(tokenHeader, visitor.token)
    .set('content-type', 'application/octet-stream')
    .send(Buffer.from(archive));
