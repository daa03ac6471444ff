import { archiveFormat, archiveManifestSchema, longestUnpacked } from '@zelpit/contract';
import { strFromU8, strToU8, unzip, zip, type UnzipFileInfo } from 'fflate';
import { createHash } from 'node:crypto';
import { setImmediate as nextTurn } from 'node:timers/promises';
import * as z from 'zod';
import { HttpProblem } from '../http/problem';
import { archivePartsOf, type Thing } from '../things/thing';
import { refused, signsOf, type ArchiveFiles } from './archive-part';
import { studioFile, studioFileSchema, type PreparedFile } from './archive.repository';

const manifestName = 'manifest.json';
const sha256 = (content: string | Uint8Array): string => createHash('sha256').update(content).digest('hex');

/** The version that is written: the latest with which any part came or changed. */
const versionOf = (things: readonly Thing[]): number => Math.max(...archivePartsOf(things).map(({ part }) => part.changed ?? part.since));

/** The files of a version in the order in which its manifest names them: what came earlier stands first. */
function filesOf(things: readonly Thing[], version: number): readonly string[] {
  const parts = archivePartsOf(things).map(({ part }) => part);
  return [studioFile, ...[...parts].sort((one, other) => one.since - other.since).flatMap(({ file, since }) => (since <= version ? [file] : []))];
}

/** The studio as a zip, as docs/archive.md describes it. */
export async function writeArchive(things: readonly Thing[], content: ArchiveFiles, written: Date): Promise<Uint8Array> {
  const version = versionOf(things);
  const texts: (readonly [string, Uint8Array])[] = [];
  for (const name of filesOf(things, version)) texts.push([name, await jsonOf(content.get(name))]);
  const files = Object.fromEntries(texts.map(([name, bytes]) => [name, sha256(bytes)]));
  const head = { format: archiveFormat, version, written: written.toISOString(), files };
  const manifest = { ...head, checksum: sha256(JSON.stringify(head)) };
  return zipped({ [manifestName]: strToU8(JSON.stringify(manifest)), ...Object.fromEntries(texts) });
}

/** Things written at once: between them the server answers others. */
const slice = 500;

async function jsonOf(content: unknown): Promise<Uint8Array> {
  if (!Array.isArray(content)) return Buffer.from(JSON.stringify(content));
  const parts: string[] = [];
  for (let start = 0; start < content.length; start += slice) {
    parts.push(JSON.stringify(content.slice(start, start + slice)).slice(1, -1));
    await nextTurn();
  }
  return Buffer.from(`[${parts.join(',')}]`);
}

/** An archive that was read and checked, ready to be written into a studio. */
export interface ReadArchive {
  readonly studio: z.infer<typeof studioFileSchema>;
  readonly files: readonly PreparedFile[];
}

/**
 * Reads such a zip and checks all of it before anything is done with it.
 * @throws HttpProblem 422 with a sentence for a file that is truncated, edited, newer, too large, or no archive
 */
export async function readArchive(things: readonly Thing[], bytes: Uint8Array): Promise<ReadArchive> {
  const raw = await readFiles(things, bytes);
  const studio = shaped(studioFile, studioFileSchema, raw.get(studioFile));
  const parts = archivePartsOf(things).map(({ kind, part }) => ({
    ...{ kind, part, content: raw.has(part.file) ? shaped(part.file, part.schema, raw.get(part.file)) : part.absent },
  }));
  const signs = parts.flatMap(({ part, content }) => signsOf(part, content));
  if (new Set(signs).size !== signs.length) throw refused('Two things in this backup have the same identifier.');
  const files: ArchiveFiles = new Map(parts.map(({ part, content }) => [part.file, content]));
  return { studio, files: parts.map((each) => ({ ...each, prepared: each.part.prepare(each.content, files) })) };
}

/** What is in the files, each as it was written. */
async function readFiles(things: readonly Thing[], bytes: Uint8Array): Promise<ReadonlyMap<string, unknown>> {
  const files = await unzipped(bytes, new Set([manifestName, ...filesOf(things, versionOf(things))]));
  const checksums = readManifest(things, files.get(manifestName));
  return new Map(
    Object.entries(checksums).map(([name, checksum]) => {
      const file = files.get(name);
      if (file === undefined) throw refused(`“${name}” is missing from this backup.`);
      if (sha256(file) !== checksum) throw refused(`“${name}” in this backup is damaged or was changed (its checksum does not match).`);
      return [name, parsed(file, name)];
    }),
  );
}

function shaped<T>(name: string, schema: z.ZodType<T>, content: unknown): T {
  const read = schema.safeParse(content);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw refused(`This backup has something that Zelpit does not know, at ${[name, ...issue.path].join(' ')}: ${issue.message}.`);
}

function readManifest(things: readonly Thing[], bytes: Uint8Array | undefined): Readonly<Record<string, string>> {
  if (bytes === undefined) throw refused('This file is not a Zelpit backup (it has no manifest).');
  const raw = parsed(bytes, manifestName);
  const head = z.object({ format: z.string(), version: z.number().int() }).safeParse(raw);
  if (!head.success || head.data.format !== archiveFormat) throw refused('This file is not a Zelpit backup.');
  const known = versionOf(things);
  if (head.data.version > known)
    throw refused(`This backup was made by a newer Zelpit (version ${head.data.version}; this one reads ${known}). Update Zelpit first.`);
  const manifest = archiveManifestSchema.safeParse(raw);
  if (!manifest.success) throw refused('The manifest of this archive cannot be read.');
  const { checksum, format, version, written, files } = manifest.data;
  const names = filesOf(things, version);
  const missing = names.find((name) => files[name] === undefined);
  if (missing !== undefined) throw refused(`The manifest of this archive does not name “${missing}”.`);
  if (Object.keys(files).length !== names.length) throw refused('The manifest of this archive cannot be read.');
  const ordered = { format, version, written, files: Object.fromEntries(names.map((name) => [name, files[name]])) };
  if (sha256(JSON.stringify(ordered)) !== checksum) throw refused('The list of contents in this backup is damaged (its checksum does not match).');
  return ordered.files;
}

function parsed(bytes: Uint8Array, name: string): unknown {
  try {
    return JSON.parse(strFromU8(bytes));
  } catch {
    throw refused(`“${name}” in this backup is not JSON.`);
  }
}

function zipped(files: Record<string, Uint8Array>): Promise<Uint8Array> {
  return new Promise((resolve, reject) => zip(files, { level: 6, consume: true }, (error, data) => (error ? reject(error) : resolve(data))));
}

async function unzipped(bytes: Uint8Array, known: ReadonlySet<string>): Promise<ReadonlyMap<string, Uint8Array>> {
  let size = 0;
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    if (!known.has(name)) return false;
    size += originalSize;
    if (size > longestUnpacked) throw refused('This backup is too large.');
    return true;
  };
  try {
    const files = await new Promise<Record<string, Uint8Array>>((resolve, reject) =>
      unzip(bytes, { filter }, (error, data) => (error ? reject(error) : resolve(data))),
    );
    return new Map(Object.entries(files));
  } catch (error) {
    if (error instanceof HttpProblem) throw error;
    throw refused('This file is not a backup, or part of it is missing.');
  }
}
