import { longestTakeBytes, type Take } from '@zelpit/contract';
import { randomBytes } from 'node:crypto';
import { BlobRepository } from './blob.repository';
import { Database } from '../database/database';
import { consent, newTake, soundOf, wave } from '../takes/take.matrix.spec-support';
import { restore, take as backup } from '../testing/archive-visits';
import { asBytes } from '../testing/as-bytes';
import { openBucket, type TestBucket } from '../testing/bucket';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';
import { upload } from '../things/matrix.spec-support';
import { ObjectStore } from './object-store';

let [bucket, server, ada, studioId, pim]: [TestBucket, TestServer, Visitor, string, string] = [undefined, undefined, undefined, '', ''] as never;

beforeEach(async () => {
  bucket = await openBucket();
  server = await startTestServer({ files: bucket.settings });
  studioId = await addStudio(server.dataSource, 'ada@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  pim = ((await ada.post('/api/students', { alias: 'Pim' }).expect(201)).body as { id: string }).id;
  await consent(ada, pim, true);
});
afterEach(async () => {
  await server.close();
  // One test ends it itself.
  await bucket.close().catch(() => undefined);
  await bucket.remove();
});

const kept = async (sound = wave()): Promise<Take> => {
  const sent = await upload(ada, `/api/takes/sound?student=${pim}`, sound);
  expect(sent.status).toBe(201);
  return (await ada.post('/api/takes', newTake(pim, (sent.body as { id: string }).id)).expect(201)).body as Take;
};
const heard = async (visitor: Visitor, id: string): Promise<Buffer> => (await asBytes(visitor.get(`/api/takes/${id}/sound`)).expect(200)).body as Buffer;
const count = async (table: string): Promise<number> => ((await server.dataSource.query(`SELECT count(*)::int AS n FROM ${table}`)) as { n: number }[])[0].n;
const blobs = (): BlobRepository => new BlobRepository(server.database);
/** As if the minutes were over after which what is gone is deleted. */
const sweep = async (): Promise<void> => {
  await server.dataSource.query("UPDATE blob_gone SET since = now() - interval '1 minute'");
  await blobs().sweep();
};

describe('a store of files', () => {
  it('keeps a sound under its studio, and nothing of it in the database', async () => {
    const { id } = await kept();
    expect([await bucket.objects(), await count('blob'), await count('blob_piece')]).toEqual([[expect.stringMatching(`^${studioId}/`)], 1, 0]);
    expect(wave().equals(await heard(ada, id))).toBe(true);
  });

  it('keeps a sound that goes in several parts as it was', async () => {
    const sound = Buffer.concat([wave(), randomBytes(11_000_000)]);
    const { id } = await kept(sound);
    expect(sound.equals(await heard(ada, id))).toBe(true);
  });

  it('loses what is deleted, however it is deleted, and nothing else', async () => {
    const [first, second] = [await kept(), await kept()];
    await ada.remove(`/api/takes/${first.id}`).expect(204);
    await blobs().sweep();
    // A backup that is being written may still read it for some minutes.
    expect((await bucket.objects()).length).toBe(2);
    await sweep();
    expect([(await bucket.objects()).length, await count('blob_gone'), (await heard(ada, second.id)).length]).toEqual([1, 0, wave().length]);
    await server.dataSource.query(`DELETE FROM studio WHERE id = '${studioId}'`);
    await sweep();
    expect([await bucket.objects(), await count('blob_gone')]).toEqual([[], 0]);
  });

  it('keeps nothing of what is too large, or no sound', async () => {
    expect((await upload(ada, '/api/takes/sound', Buffer.from('this is no sound'))).status).toBe(415);
    const tooLong = Buffer.concat([wave(1), Buffer.alloc(longestTakeBytes)]);
    expect((await upload(ada, '/api/takes/sound', tooLong)).status).toBe(413);
    await sweep();
    expect([await bucket.objects(), await count('blob')]).toEqual([[], 0]);
  });

  it('gives its takes to a backup, and takes those of one', async () => {
    const { id } = await kept();
    const archive = await backup(ada, '?takes=true');
    const before = (await bucket.objects()).length;
    await addStudio(server.dataSource, 'bea@studio.example');
    const bea = await visit(server.app, 'bea@studio.example');
    expect((await restore(bea, archive)).problem).toBe('');
    const { items } = (await bea.get('/api/takes').expect(200)).body as { items: Take[] };
    expect([items.length, (await heard(bea, items[0].id)).equals(await heard(ada, id))]).toEqual([1, true]);
    // The sound, and for a while the backup that was sent.
    expect((await bucket.objects()).length).toBeGreaterThan(before);
    await sweep();
    expect((await heard(bea, items[0].id)).length).toBe(wave().length);
  });

  it('is rid of what was sent to it before a transaction that came to nothing', async () => {
    const failing = server.database.inStudio(studioId, async () => {
      await blobs().put(studioId, wave());
      throw new Error('The rest went wrong.');
    });
    await expect(failing).rejects.toThrow('The rest went wrong.');
    expect([(await bucket.objects()).length, await count('blob')]).toEqual([1, 0]);
    await sweep();
    expect(await bucket.objects()).toEqual([]);
    // What did come to its end stays, though it was noted in the same way.
    await server.database.inStudio(studioId, () => blobs().put(studioId, wave()));
    await sweep();
    expect([(await bucket.objects()).length, await count('blob_gone')]).toEqual([1, 0]);
  });
});

describe('where a store is set or taken away', () => {
  it('what was kept before is heard from where it lies', async () => {
    const inside = new BlobRepository(new Database(server.rows));
    const { id } = await inside.keep(
      studioId,
      (async function* () {
        yield wave();
      })(),
      longestTakeBytes,
    );
    const take = (await ada.post('/api/takes', newTake(pim, id)).expect(201)).body as Take;
    expect(wave().equals(await heard(ada, take.id))).toBe(true);
    expect(await bucket.objects()).toEqual([]);
    const beside = await soundOf(ada, pim);
    const read = async (): Promise<void> => {
      for await (const _ of inside.read(studioId, beside)) throw new Error('Nothing can be read.');
    };
    await expect(read()).rejects.toThrow('This file lies in a store that this server knows nothing of any more.');
  });
});

describe('a store that does not answer', () => {
  const sentence = 'The store that keeps recordings and backups does not answer as it should. Nothing was changed. Try again in a moment.';

  it('is told in a sentence, and what is there already stays', async () => {
    const { id } = await kept();
    await bucket.close();
    const refused = await upload(ada, `/api/takes/sound?student=${pim}`, wave());
    expect([refused.status, (refused.body as { detail: string }).detail]).toEqual([503, sentence]);
    const silent = await ada.get(`/api/takes/${id}/sound`);
    expect([silent.status, (silent.body as { detail: string }).detail]).toEqual([503, sentence]);
    await ada.remove(`/api/takes/${id}`).expect(204);
    await expect(sweep()).rejects.toThrow(sentence);
    // It is tried again.
    expect(await count('blob_gone')).toBeGreaterThan(0);
  });

  it('or has no such bucket is found when the server starts', async () => {
    await expect((await ObjectStore.open({ ...bucket.settings, bucket: 'another' })).check()).rejects.toThrow(sentence);
    await expect((await ObjectStore.open(bucket.settings)).check()).resolves.toBeUndefined();
  });
});
