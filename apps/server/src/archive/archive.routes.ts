import { routes, type ArchiveContent } from '@zelpit/contract';
import { instrumentById, readBook, ZelpitFault, type Instrument, type BookReading, type ReadEntry } from '@zelpit/core';
import { said, type Endpoints } from '../http/endpoints';
import { fileNameOf } from '../http/file-name';
import { HttpProblem } from '../http/problem';
import { assertPlayable } from '../sheets/playable';
import { parseAbc } from '../tunes/abc-parser';
import { instrumentsIn, readArchive, refused, writeArchive } from './archive-file';
import type { ArchiveRepository } from './archive.repository';

/** The whole studio out and in. */
export function archiveRoutes(endpoints: Endpoints, archive: ArchiveRepository): void {
  endpoints.serve(routes.takeArchive, async ({ visitor }) => {
    const content = await archive.read(visitor.studioId);
    const name = fileNameOf(content['studio.json'].name, 'studio');
    const now = new Date();
    return said(200, await writeArchive(content, now), { fileName: `${name} ${now.toISOString().slice(0, 10)}.zip` });
  });

  endpoints.serve(routes.bringArchive, async ({ request, visitor: { studioId }, query: { before } }) => {
    const content = await readArchive(Buffer.isBuffer(request.body) ? request.body : new Uint8Array());
    const entries = readTunes(content);
    checkLines(content);
    if (before === 'empty' && !(await archive.isEmpty(studioId)))
      throw new HttpProblem(
        409,
        'Studio not empty',
        'This studio holds students, tunes, sheets or instruments already. Say whether they are to be put away first. Nothing was changed.',
      );
    const putAway = before === 'put-away' ? await archive.putAllAway(studioId) : 0;
    const result = await archive.write(studioId, content, entries);
    return said(200, { ...result, putAway }, { deed: { did: 'brought in', kind: 'archive', name: content['studio.json'].name } });
  });
}

/** Every tune of the archive, read as if it were brought in alone. */
function readTunes(content: ArchiveContent): ReadonlyMap<string, ReadEntry> {
  const known = instrumentsIn(content);
  return new Map(
    content['tunes.json'].map(({ sign, instrument, abc }) => {
      const [reading, ...others] = readings(known, instrument, abc);
      if (reading?.kind !== 'read' || others.length > 0) throw refused(`A tune in this archive (${sign}) cannot be read.`);
      return [sign, { ...reading.entry, abc }];
    }),
  );
}

function readings(known: ReadonlyMap<string, Instrument>, instrument: string, abc: string): readonly BookReading[] {
  try {
    return [...readBook(known.get(instrument) ?? instrumentById(instrument), abc, parseAbc, (wanted) => wanted)];
  } catch (error) {
    if (error instanceof ZelpitFault) return [];
    throw error;
  }
}

function checkLines(content: ArchiveContent): void {
  const known = instrumentsIn(content);
  for (const { instrument, lines, title } of content['sheets.json']) {
    try {
      assertPlayable(known.get(instrument) ?? instrumentById(instrument), lines);
    } catch (error) {
      if (error instanceof ZelpitFault || error instanceof HttpProblem) throw refused(`A line of the sheet “${title}” cannot be played: ${error.message}`);
      throw error;
    }
  }
}
