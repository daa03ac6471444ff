import { archiveRoutes, type ArchiveStudio } from '@zelpit/contract';
import { respond, type Endpoints } from '../http/endpoints';
import { fileNameOf } from '../http/file-name';
import { HttpProblem } from '../http/problem';
import type { Thing } from '../things/thing';
import { writeArchive } from './archive-file';
import type { ArchiveReader } from './archive-reader';
import { studioFile, type ArchiveRepository } from './archive.repository';

/** The whole studio out and in. */
export function serveArchive(endpoints: Endpoints, archive: ArchiveRepository, things: readonly Thing[], reader: ArchiveReader): void {
  endpoints.serve(
    archiveRoutes.takeArchive,
    async ({ visitor }) => {
      const content = await archive.read(visitor.studioId);
      const name = fileNameOf((content.get(studioFile) as ArchiveStudio).name, 'studio');
      const now = new Date();
      return respond(200, await writeArchive(things, content, now), { fileName: `${name} ${now.toISOString().slice(0, 10)}.zip` });
    },
    { isolation: 'REPEATABLE READ' },
  );

  endpoints.servePrepared(
    archiveRoutes.bringArchive,
    async ({ request, visitor }) => reader.read(visitor.studioId, Buffer.isBuffer(request.body) ? request.body : new Uint8Array()),
    async ({ visitor: { studioId }, query: { before } }, { studio, files }) => {
      if (before === 'empty' && !(await archive.isEmpty(studioId)))
        throw new HttpProblem(
          'studio-not-empty',
          'This studio already has students, tunes, sheets or instruments. Choose to put them away first, or start from an empty studio. Nothing was changed.',
        );
      const putAway = before === 'put-away' ? await archive.putAllAway(studioId) : 0;
      const brought = await archive.write(studioId, files);
      return respond(200, { ...brought, putAway }, { audit: { did: 'brought in', kind: 'archive', name: studio.name } });
    },
  );
}
