import { archiveFormat, archiveManifestSchema, archiveStudioSchema, longestUnpacked, type ArchiveStudio } from '@zelpit/contract';
import { instruments, type Instrument } from '@zelpit/core';
import { createHash } from 'node:crypto';
import { appendFileSync, closeSync, openSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { open, type Entry, type ZipFile } from 'yauzl';
import * as z from 'zod';
import type { HttpProblem } from '../http/problem';
import { modelsFile } from '../models/model.archive';
import { archivePartsOf, type Thing } from '../things/thing';
import { filesOf, manifestName, studioFile, versionOf } from './archive-names';
import { refused, type AnyArchivePart } from './archive-part';
import { jsonItems, jsonWhole } from './json-items';

/** What is known of an archive that was checked. Its things lie in a folder, one file a kind, one thing a line. */
export interface CheckedArchive {
  readonly studio: ArchiveStudio;
  /** Every sign in it. */
  readonly signs: readonly string[];
  /** Kinds that have things in it, each with how many. */
  readonly counts: Readonly<Record<string, number>>;
}

const sha256 = (content: string): string => createHash('sha256').update(content).digest('hex');

/** Where the things of a kind lie that were checked. */
export const checkedPath = (folder: string, kind: string): string => join(folder, `${kind}.lines`);

/**
 * Reads an archive three times: its sums, its signs, then each thing against its schema and the others. What was checked is written into a folder, ready to go
 * into the database; nothing but one thing and all signs stand in memory.
 * @throws HttpProblem `archive-refused` with a sentence for a file that is truncated, edited, newer, too large, or no archive
 */
export async function checkArchive(
  things: readonly Thing[],
  path: string,
  folder: string,
  progress: (done: number, of: number) => void = () => undefined,
): Promise<CheckedArchive> {
  const zip = await opened(path);
  try {
    const entries = await entriesOf(zip, new Set([manifestName, ...filesOf(things, versionOf(things))]));
    return await checkFiles(things, new ArchiveFiles(zip, entries), folder, progress);
  } finally {
    zip.close();
  }
}

/** What the unpacker says is of bytes, not for people. */
const unreadable = (): HttpProblem => refused('This file is not a backup, or part of it is missing.');

async function opened(path: string): Promise<ZipFile> {
  try {
    return await promisify<string, object, ZipFile>(open as never)(path, { lazyEntries: true, autoClose: false });
  } catch {
    throw unreadable();
  }
}

/** The entries that are known, by name; others are passed over. */
async function entriesOf(zip: ZipFile, known: ReadonlySet<string>): Promise<ReadonlyMap<string, Entry>> {
  const entries = new Map<string, Entry>();
  let size = 0;
  await new Promise<void>((resolve, reject) => {
    zip.on('error', () => reject(unreadable())).on('end', resolve);
    zip.on('entry', (entry: Entry) => {
      const { fileName, uncompressedSize } = entry;
      if (known.has(fileName)) {
        size += uncompressedSize;
        if (size > longestUnpacked) return reject(refused('This backup is too large.'));
        if (entries.has(fileName)) return reject(refused(`“${fileName}” is in this backup twice.`));
        entries.set(fileName, entry);
      }
      zip.readEntry();
    });
    zip.readEntry();
  });
  return entries;
}

/** The files in a zip, each as often as it is asked for. */
class ArchiveFiles {
  constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
  ) {}

  has(name: string): boolean {
    return this.entries.has(name);
  }

  async *bytes(name: string): AsyncGenerator<Uint8Array> {
    const entry = this.entries.get(name);
    if (entry === undefined) throw refused(`“${name}” is missing from this backup.`);
    const openStream = promisify(
      this.zip.openReadStream.bind(this.zip) as (entry: Entry, done: (error: Error | null, stream: NodeJS.ReadableStream) => void) => void,
    );
    try {
      for await (const piece of await openStream(entry)) yield piece as Buffer;
    } catch {
      throw unreadable();
    }
  }

  /** @throws HttpProblem where its sum is not the one that the manifest gives */
  async verify(name: string, sum: string): Promise<void> {
    const hash = createHash('sha256');
    for await (const piece of this.bytes(name)) hash.update(piece);
    if (hash.digest('hex') !== sum) throw damaged(name);
  }
}

const damaged = (name: string): HttpProblem => refused(`“${name}” in this backup is damaged or was changed (its checksum does not match).`);

async function checkFiles(
  things: readonly Thing[],
  files: ArchiveFiles,
  folder: string,
  progress: (done: number, of: number) => void,
): Promise<CheckedArchive> {
  const sums = await readManifest(things, files);
  for (const [name, sum] of Object.entries(sums)) await files.verify(name, sum);
  const studio = shaped(studioFile, archiveStudioSchema, await jsonWhole(studioFile, files.bytes(studioFile)));
  const parts = archivePartsOf(things).filter(({ part }) => sums[part.file] !== undefined);
  const signs = new SignsOfAll();
  const models = new Map<string, Instrument>();
  let of = 0;
  for (const { part } of parts)
    for await (const item of itemsOf(part, files.bytes(part.file))) {
      of += 1;
      if (part.signs === undefined) continue;
      const { sign, instrument } = headOf(part, item, of);
      signs.add(part.file, sign);
      if (part.file === modelsFile) models.set(sign, instrument as Instrument);
    }
  const context = { signsIn: (file: string) => signs.of(file), instruments: new Map([...instruments.map((each) => [each.id, each] as const), ...models]) };
  const counts: Record<string, number> = {};
  let done = 0;
  for (const { kind, part } of parts) {
    const checker = part.check(context);
    const lines = new LineFile(checkedPath(folder, kind));
    let count = 0;
    try {
      for await (const raw of itemsOf(part, files.bytes(part.file))) {
        const item = shaped(part.isOne === true ? part.file : `${part.file} ${count}`, part.schema, raw);
        lines.write({ item, prepared: checker.each(item) });
        count += 1;
        done += 1;
        progress(done, of);
      }
      checker.end?.();
    } finally {
      lines.close();
    }
    counts[kind] = count;
  }
  return { studio, signs: signs.all(), counts };
}

async function* itemsOf({ file, isOne }: AnyArchivePart, bytes: AsyncIterable<Uint8Array>): AsyncGenerator<unknown> {
  if (isOne === true) yield await jsonWhole(file, bytes);
  else yield* jsonItems(file, bytes);
}

/** The signs of an archive by their file; none is there twice. */
class SignsOfAll {
  private readonly byFile = new Map<string, Set<string>>();
  private readonly seen = new Set<string>();

  add(file: string, sign: string): void {
    if (this.seen.has(sign)) throw refused('Two things in this backup have the same identifier.');
    this.seen.add(sign);
    const own = this.byFile.get(file) ?? new Set();
    this.byFile.set(file, own.add(sign));
  }

  of(file: string): ReadonlySet<string> {
    return this.byFile.get(file) ?? new Set();
  }

  all(): readonly string[] {
    return [...this.seen];
  }
}

/** Things one a line, gathered before they go to the disk. */
class LineFile {
  private readonly file: number;
  private waiting = '';

  constructor(path: string) {
    this.file = openSync(path, 'wx', 0o600);
  }

  write(content: unknown): void {
    this.waiting += `${JSON.stringify(content)}\n`;
    if (this.waiting.length > 200_000) this.flush();
  }

  close(): void {
    try {
      this.flush();
    } finally {
      closeSync(this.file);
    }
  }

  private flush(): void {
    appendFileSync(this.file, this.waiting);
    this.waiting = '';
  }
}

/** What is needed of a thing that has a sign before all of them are known. A model is checked whole, since others are checked against it. */
function headOf(part: AnyArchivePart, item: unknown, at: number): { readonly sign: string; readonly instrument?: unknown } {
  if (part.file === modelsFile) return shaped(`${part.file} ${at}`, part.schema, item) as { sign: string; instrument: unknown };
  return shaped(`${part.file} ${at}`, signedSchema, item);
}

const signedSchema = z.looseObject({ sign: z.string().max(40) });

function shaped<T>(name: string, schema: z.ZodType<T>, content: unknown): T {
  const read = schema.safeParse(content);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw refused(`This backup has something that Zelpit does not know, at ${[name, ...issue.path].join(' ')}: ${issue.message}.`);
}

async function readManifest(things: readonly Thing[], files: ArchiveFiles): Promise<Readonly<Record<string, string>>> {
  if (!files.has(manifestName)) throw refused('This file is not a Zelpit backup (it has no manifest).');
  const raw = await jsonWhole(manifestName, files.bytes(manifestName));
  const head = z.object({ format: z.string(), version: z.number().int() }).safeParse(raw);
  if (!head.success || head.data.format !== archiveFormat) throw refused('This file is not a Zelpit backup.');
  const known = versionOf(things);
  if (head.data.version > known)
    throw refused(`This backup was made by a newer Zelpit (version ${head.data.version}; this one reads ${known}). Update Zelpit first.`);
  const manifest = archiveManifestSchema.safeParse(raw);
  if (!manifest.success) throw refused('The manifest of this archive cannot be read.');
  const { checksum, format, version, written, files: sums } = manifest.data;
  const names = filesOf(things, version);
  const missing = names.find((name) => sums[name] === undefined);
  if (missing !== undefined) throw refused(`The manifest of this archive does not name “${missing}”.`);
  if (Object.keys(sums).length !== names.length) throw refused('The manifest of this archive cannot be read.');
  const ordered = { format, version, written, files: Object.fromEntries(names.map((name) => [name, sums[name]])) };
  if (sha256(JSON.stringify(ordered)) !== checksum) throw refused('The list of contents in this backup is damaged (its checksum does not match).');
  return ordered.files;
}
