import { archiveFormat, type ArchiveStudio } from '@zelpit/contract';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { PassThrough } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import type { Database } from '../database/database';
import type { JobSteps } from '../jobs/job-kind';
import { archivePartsOf, type Thing } from '../things/thing';
import { filesOf, manifestName, versionOf } from './archive-names';
import { idsInOrder, Signs, type AnyArchivePart } from './archive-part';

/** What an archive is written from: its studio, and the things of each file, some at a time. */
export interface ArchiveSource {
  readonly studio: ArchiveStudio;
  /** How many things there are in all. */
  readonly count: number;
  readonly read: (part: AnyArchivePart) => AsyncIterable<readonly unknown[]>;
}

/** Everything of a studio as it is at one moment, what is put away too. Teachers, their passwords and the list of changes stay here, and takes unless they are chosen. Belongs into a transaction that holds the moment. */
export async function studioSource(database: Database, things: readonly Thing[], studioId: string, hasTakes = false): Promise<ArchiveSource> {
  const [{ name }] = await database.query<{ name: string }>('SELECT name FROM studio WHERE id = $1', [studioId]);
  const signs = new Signs();
  let count = 0;
  for (const { part } of archivePartsOf(things)) {
    if (part.signs === undefined) continue;
    const ids = await idsInOrder(database, part.signs.table, part.signs.order);
    signs.give(part.signs.letter, ids);
    count += ids.length;
  }
  return { studio: { name }, count, read: (part) => (part.isByChoice === true && !hasTakes ? nothing() : part.read(database, studioId, signs)) };
}

async function* nothing(): AsyncGenerator<readonly unknown[]> {
  // What is not chosen is an empty list.
}

/**
 * Writes a studio into a zip, as docs/archive.md describes it: thing by thing, each on a line of its own, so that none but a few stand in memory.
 * @param path of a file that is not there yet
 */
export async function writeArchive(things: readonly Thing[], source: ArchiveSource, written: Date, path: string, steps?: JobSteps): Promise<void> {
  const zip = new ZipFile();
  const out = pipeline(zip.outputStream, createWriteStream(path, { flags: 'wx', mode: 0o600 }), ...(steps === undefined ? [] : [{ signal: steps.signal }]));
  // What goes wrong is told by whoever waits for it below.
  out.catch(() => undefined);
  const failed = new Promise<never>((_, reject) => {
    out.catch(reject);
    zip.on('error', reject);
  });
  failed.catch(() => undefined);
  const version = versionOf(things);
  const parts = new Map(archivePartsOf(things).map(({ part }) => [part.file, part]));
  const files: Record<string, string> = {};
  let done = 0;
  for (const name of filesOf(things, version)) {
    const part = parts.get(name);
    const texts =
      part === undefined ? oneText(source.studio) : textsOf(part, source.read(part), (count) => steps?.progress((done += count), Math.max(done, source.count)));
    files[name] = await Promise.race([addFile(zip, name, texts), failed]);
  }
  const head = { format: archiveFormat, version, written: written.toISOString(), files };
  const checksum = createHash('sha256').update(JSON.stringify(head)).digest('hex');
  zip.addBuffer(Buffer.from(JSON.stringify({ ...head, checksum })), manifestName);
  zip.end();
  await Promise.race([out, failed]);
}

async function* oneText(content: unknown): AsyncGenerator<string> {
  yield JSON.stringify(content);
}

/** A list as text, thing by thing. */
async function* textsOf(part: AnyArchivePart, pages: AsyncIterable<readonly unknown[]>, onPage: (count: number) => void): AsyncGenerator<string> {
  let isFirst = true;
  if (part.isOne !== true) yield '[\n';
  for await (const page of pages) {
    if (page.length > 0) yield `${isFirst ? '' : ',\n'}${page.map((item) => JSON.stringify(item)).join(',\n')}`;
    isFirst &&= page.length === 0;
    onPage(page.length);
  }
  if (part.isOne !== true) yield '\n]';
}

/** Puts a file into the zip as its text comes, no faster than it is taken. @returns its SHA-256 */
async function addFile(zip: ZipFile, name: string, texts: AsyncIterable<string>): Promise<string> {
  const hash = createHash('sha256');
  const into = new PassThrough();
  const taken = once(into, 'end');
  zip.addReadStream(into, name, { mode: 0o600 });
  for await (const text of texts) {
    hash.update(text);
    if (!into.write(text)) await once(into, 'drain');
  }
  into.end();
  await taken;
  return hash.digest('hex');
}
