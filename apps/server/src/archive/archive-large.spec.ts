import { strToU8, zipSync } from 'fflate';
import { createHash, randomBytes } from 'node:crypto';
import { fillStudio } from '../testing/large-studio';
import { archiveOf } from '../testing/archives';
import { bring, restore, take } from '../testing/archive-visits';
import { addStudio, startTestServer, visit, type TestServer, type Visitor } from '../testing/test-server';

/** More of each than older versions took; `npm run bench` does it with a hundred thousand things. */
const size = { students: 5500, tunes: 200, sheets: 600, trials: 600 };

let server: TestServer;
let ada: Visitor;
let bea: Visitor;
beforeAll(async () => {
  server = await startTestServer();
  await fillStudio(server.dataSource, await addStudio(server.dataSource, 'ada@studio.example'), size);
  await addStudio(server.dataSource, 'bea@studio.example');
  ada = await visit(server.app, 'ada@studio.example');
  bea = await visit(server.app, 'bea@studio.example');
}, 120_000);
afterAll(() => server.close());

/** Longest time that the server's own thread was kept from its work, in ms. */
async function longestSilence(work: Promise<unknown>): Promise<number> {
  let [longest, last, isDone] = [0, performance.now(), false];
  void work.finally(() => (isDone = true));
  while (!isDone) {
    await new Promise((resolve) => setTimeout(resolve, 5));
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
  }
  return longest;
}

it('what a large studio exports, another takes in whole, things put away too', async () => {
  const counts = { student: size.students, tune: size.tunes, sheet: size.sheets, instrument: size.students, trial: size.trials };
  expect(await bring(bea, await take(ada))).toMatchObject({ counts, newCodes: 0 });
}, 120_000);

describe('a backup that is meant to hurt', () => {
  const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

  /** An archive whose files are these, with sums that fit. */
  async function sealed(change: Readonly<Record<string, Uint8Array>>): Promise<Uint8Array> {
    const { unzipSync, strFromU8 } = await import('fflate');
    const files = { ...unzipSync(await archiveOf('Fell Row')), ...change };
    const manifest = JSON.parse(strFromU8(files['manifest.json'])) as { files: Record<string, string>; checksum?: string };
    for (const name of Object.keys(manifest.files)) manifest.files[name] = sha256(files[name]);
    const { checksum: _, ...head } = manifest;
    files['manifest.json'] = strToU8(JSON.stringify({ ...head, checksum: sha256(strToU8(JSON.stringify(head))) }));
    return zipSync(files);
  }

  it.each<[string, () => Promise<Uint8Array>]>([
    ['200 000 wrong rows', async () => sealed({ 'students.json': strToU8(JSON.stringify(Array.from({ length: 200_000 }, () => ({ alias: 7 })))) })],
    ['ten million brackets', async () => sealed({ 'students.json': new Uint8Array(10_000_000).fill(0x5b) })],
    ['a zip of zips', async () => zipSync({ 'manifest.json': zipSync({ 'manifest.json': new Uint8Array(20_000_000) }) })],
    ['noise', async () => randomBytes(5_000_000)],
  ])(
    '%s is refused in a sentence, and the server goes on answering meanwhile',
    async (_, make) => {
      const archive = await make();
      const answer = restore(bea, archive);
      const silence = longestSilence(answer);
      expect(await answer).toMatchObject({ state: 'failed', problem: expect.stringContaining('Nothing was changed.') });
      // The test's own client shares this thread and reads the answer there.
      expect(await silence).toBeLessThan(1000);
    },
    60_000,
  );
});
