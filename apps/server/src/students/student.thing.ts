import { studentRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { studentArchive } from './student.archive';
import { StudentEntity } from './student.entity';
import { serveStudents } from './student.routes';

export const studentThing: Thing = {
  kind: 'student',
  routes: studentRoutes,
  entities: [StudentEntity],
  serve: serveStudents,
  putAway: { table: 'student', name: 'alias' },
  archive: studentArchive,
};
