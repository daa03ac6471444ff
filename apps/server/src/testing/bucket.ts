import S3rver from 's3rver';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ObjectStoreSettings } from '../blobs/object-store';

/** A store of files for tests: it speaks S3, asks for no secret, and lies in a folder. */
export interface TestBucket {
  readonly settings: ObjectStoreSettings;
  /** The names of what lies in it, in order. */
  objects(): Promise<readonly string[]>;
  /** Ends it; what was kept stays until `remove`. */
  close(): Promise<void>;
  remove(): Promise<void>;
}

const bucket = 'zelpit-test';

export async function openBucket(): Promise<TestBucket> {
  const directory = await mkdtemp(join(tmpdir(), 'zelpit-bucket-'));
  const server = new S3rver({ address: '127.0.0.1', port: 0, silent: true, directory, configureBuckets: [{ name: bucket, configs: [] }] });
  const { port } = await server.run();
  return {
    settings: { address: `http://127.0.0.1:${port}`, region: 'us-east-1', bucket, key: 'S3RVER', secret: 'S3RVER' },
    // Each object is a file of its own, under the folder of its studio.
    objects: async () =>
      (await readdir(join(directory, bucket), { recursive: true }))
        .filter((name) => name.endsWith('_object'))
        .map((name) => name.replace(/\._S3rver_object$/, ''))
        .sort(),
    close: () => server.close(),
    remove: () => rm(directory, { recursive: true, force: true }),
  };
}
