import {
  archiveContentSchema,
  archiveFormat,
  archiveManifestSchema,
  archiveParts,
  archivePartsOf,
  archiveVersion,
  longestUnpacked,
  type ArchiveContent,
  type ArchivePart,
} from '@zelpit/contract';
import { asPlayed, instrumentProblems, instruments, noteOf, withKeptFingerings, ZelpitFault, type Instrument } from '@zelpit/core';
import { strFromU8, strToU8, unzip, zip, type UnzipFileInfo } from 'fflate';
import { createHash } from 'node:crypto';
import * as z from 'zod';
import { HttpProblem } from '../http/problem';
import { assertMovement } from '../movements/movement.routes';

const manifestName = 'manifest.json';
const sha256 = (content: string | Uint8Array): string => createHash('sha256').update(content).digest('hex');

/** An archive that cannot be taken, with the reason. */
export const refused = (said: string): HttpProblem => new HttpProblem(422, 'Archive refused', `${said} Nothing was changed.`);

/** The studio as a zip, as docs/archive.md describes it. */
export async function writeArchive(content: ArchiveContent, written: Date): Promise<Uint8Array> {
  const texts = archiveParts.map((name) => [name, strToU8(JSON.stringify(content[name]))] as const);
  const files = Object.fromEntries(texts.map(([name, bytes]) => [name, sha256(bytes)]));
  const head = { format: archiveFormat, version: archiveVersion, written: written.toISOString(), files };
  const manifest = { ...head, checksum: sha256(JSON.stringify(head)) };
  return zipped({ [manifestName]: strToU8(JSON.stringify(manifest)), ...Object.fromEntries(texts) });
}

/**
 * Reads such a zip and checks all of it before anything is done with it.
 * @throws HttpProblem 422 with a sentence for a file that is truncated, edited, newer, too large, or no archive
 */
export async function readArchive(bytes: Uint8Array): Promise<ArchiveContent> {
  const files = await unzipped(bytes);
  const manifest = readManifest(files.get(manifestName));
  const texts = Object.keys(manifest).map((name): [string, unknown] => {
    const part = files.get(name);
    if (part === undefined) throw refused(`“${name}” is missing in this archive.`);
    if (sha256(part) !== manifest[name as ArchivePart]) throw refused(`“${name}” in this archive is not what was written: its checksum is another.`);
    return [name, parsed(part, name)];
  });
  const content = archiveContentSchema.safeParse(Object.fromEntries(texts));
  if (!content.success) {
    const [issue] = content.error.issues;
    throw refused(`This archive holds something that Zelpit does not know, at ${issue.path.join(' ')}: ${issue.message}.`);
  }
  return checkedSigns(content.data);
}

function readManifest(bytes: Uint8Array | undefined): Readonly<Partial<Record<ArchivePart, string>>> {
  if (bytes === undefined) throw refused('This file is no archive of a Zelpit studio: it has no manifest.');
  const raw = parsed(bytes, manifestName);
  const head = z.object({ format: z.string(), version: z.number().int() }).safeParse(raw);
  if (!head.success || head.data.format !== archiveFormat) throw refused('This file is no archive of a Zelpit studio.');
  if (head.data.version > archiveVersion)
    throw refused(`A newer Zelpit wrote this archive (its version is ${head.data.version}, this one reads ${archiveVersion}). Bring Zelpit up to date first.`);
  const manifest = archiveManifestSchema.safeParse(raw);
  if (!manifest.success) throw refused('The manifest of this archive cannot be read.');
  const { checksum, ...rest } = manifest.data;
  const { format, version, written, files } = rest;
  const parts = archivePartsOf[version];
  const missing = parts.find((name) => files[name] === undefined);
  if (missing !== undefined) throw refused(`The manifest of this archive does not name “${missing}”.`);
  const ordered = { format, version, written, files: Object.fromEntries(parts.map((name) => [name, files[name]])) };
  if (sha256(JSON.stringify(ordered)) !== checksum) throw refused('The manifest of this archive is not what was written: its checksum is another.');
  return Object.fromEntries(parts.map((name) => [name, files[name]]));
}

/** Every sign once, and every sign that is named is there. */
function checkedSigns(content: ArchiveContent): ArchiveContent {
  const { 'instruments.json': held, 'models.json': models } = content;
  const all = [...content['students.json'], ...content['tunes.json'], ...content['sheets.json'], ...held, ...models].map((each) => each.sign);
  if (new Set(all).size !== all.length) throw refused('Two things in this archive have the same sign.');
  const students = new Set(content['students.json'].map((each) => each.sign));
  const tunes = new Set(content['tunes.json'].map((each) => each.sign));
  for (const sheet of content['sheets.json']) {
    if (!students.has(sheet.student)) throw refused(`The sheet “${sheet.title}” belongs to a student who is not in this archive.`);
    if (sheet.tune !== null && !tunes.has(sheet.tune)) throw refused(`The sheet “${sheet.title}” comes from a tune that is not in this archive.`);
  }
  for (const { name, student } of held)
    if (student !== null && !students.has(student)) throw refused(`The instrument “${name}” belongs to a student who is not in this archive.`);
  if (content['trials.json'].some(({ student }) => student !== null && !students.has(student)))
    throw refused('A result in this archive belongs to a student who is not in it.');
  return checkedMovements(checkedModels(content));
}

/** Every movement names notes that the chanter has. */
function checkedMovements(content: ArchiveContent): ArchiveContent {
  for (const { movement, definition } of content['movements.json'].kept) {
    try {
      assertMovement(movement, definition);
    } catch (error) {
      if (error instanceof HttpProblem) throw refused(`A movement in this archive cannot be: ${error.message}`);
      throw error;
    }
  }
  return content;
}

/** The built-in instruments by id and those of the archive by sign. */
export function instrumentsIn(content: ArchiveContent): ReadonlyMap<string, Instrument> {
  return new Map([
    ...instruments.map((each) => [each.id, each] as const),
    ...content['models.json'].map(({ sign, instrument }) => [sign, instrument] as const),
  ]);
}

/** Every model is one that is known here or one of the archive, and holds together. */
function checkedModels(content: ArchiveContent): ArchiveContent {
  const { 'instruments.json': held, 'models.json': models, 'fingerings.json': fingerings } = content;
  const known = instrumentsIn(content);
  for (const { instrument } of models) {
    const [problem] = instrumentProblems(instrument);
    if (problem !== undefined) throw refused(`The instrument “${instrument.name}” in this archive does not hold together: ${problem}.`);
  }
  const check = (name: string, model: string, use: (instrument: Instrument) => unknown): void => {
    const instrument = known.get(model);
    if (instrument === undefined) throw refused(`“${name}” is of an instrument that is neither in this archive nor known here.`);
    try {
      use(instrument);
    } catch (error) {
      if (error instanceof ZelpitFault) throw refused(`“${name}” in this archive cannot be: ${error.message}`);
      throw error;
    }
  };
  for (const each of fingerings) check(each.note, each.model, (instrument) => withKeptFingerings(instrument, [each]));
  // A result outlives its instrument: one of a model that is gone is kept as it is.
  for (const { model, result } of content['trials.json'])
    if (known.has(model) && result.kind !== 'fault-hunt')
      check(`a result of ${result.kind}`, model, (instrument) => [noteOf(instrument, result.from), noteOf(instrument, result.to)]);
  for (const each of held) check(each.name, each.model, (instrument) => [asPlayed(instrument, each), each.knownNotes.map((note) => noteOf(instrument, note))]);
  return content;
}

function parsed(bytes: Uint8Array, name: string): unknown {
  try {
    return JSON.parse(strFromU8(bytes));
  } catch {
    throw refused(`“${name}” in this archive is no JSON.`);
  }
}

function zipped(files: Record<string, Uint8Array>): Promise<Uint8Array> {
  return new Promise((resolve, reject) => zip(files, { level: 6, consume: true }, (error, data) => (error ? reject(error) : resolve(data))));
}

const known = new Set<string>([manifestName, ...archiveParts]);

async function unzipped(bytes: Uint8Array): Promise<ReadonlyMap<string, Uint8Array>> {
  let size = 0;
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    if (!known.has(name)) return false;
    size += originalSize;
    if (size > longestUnpacked) throw refused('This archive is larger than a studio can be.');
    return true;
  };
  try {
    const files = await new Promise<Record<string, Uint8Array>>((resolve, reject) =>
      unzip(bytes, { filter }, (error, data) => (error ? reject(error) : resolve(data))),
    );
    return new Map(Object.entries(files));
  } catch (error) {
    if (error instanceof HttpProblem) throw error;
    throw refused('This file is no archive, or a part of it is missing.');
  }
}
