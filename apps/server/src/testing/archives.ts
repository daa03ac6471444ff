import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkArchive, checkedPath } from '../archive/check-archive';
import { writeArchive } from '../archive/write-archive';
import { archivePartsOf } from '../things/thing';
import { things } from '../things/things';

/** What an archive holds, by file. */
export type ArchiveContent = Readonly<Record<string, unknown>>;

async function inFolder<T>(use: (folder: string) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'zelpit-archives-'));
  try {
    return await use(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Everything in an archive, checked as a restored one is. */
export const readWhole = (bytes: Uint8Array): Promise<ArchiveContent> =>
  inFolder(async (folder) => {
    const path = join(folder, `${randomUUID()}.zip`);
    writeFileSync(path, bytes);
    const { studio, counts } = await checkArchive(things, path, folder);
    const files = archivePartsOf(things).map(({ kind, part }) => {
      if (counts[kind] === undefined) return [part.file, undefined] as const;
      const lines = readFileSync(checkedPath(folder, kind), 'utf8')
        .split('\n')
        .filter((line) => line !== '');
      const items = lines.map((line) => (JSON.parse(line) as { item: unknown }).item);
      return [part.file, part.isOne === true ? items[0] : items] as const;
    });
    return { 'studio.json': studio, ...Object.fromEntries(files.filter(([, content]) => content !== undefined)) };
  });

/** An archive that holds this; files that are not named are empty. */
export const archiveOf = (name: string, content: ArchiveContent = {}): Promise<Buffer> =>
  inFolder(async (folder) => {
    const path = join(folder, 'studio.zip');
    const whole: ArchiveContent = { 'movements.json': { choices: null, kept: [] }, ...content };
    const source = {
      studio: { name },
      count: 0,
      read: async function* ({ file, isOne }: { file: string; isOne?: true }) {
        yield isOne === true ? [whole[file]] : ((whole[file] ?? []) as readonly unknown[]);
      },
    };
    await writeArchive(things, source as never, new Date('2026-03-09T14:02:00Z'), path);
    return readFileSync(path);
  });
