import { lessonRoutes } from '@zelpit/contract';
import type { Thing } from '../things/thing';
import { lessonArchive } from './lesson.archive';
import { LessonEntity } from './lesson.entity';
import { serveLessons } from './lesson.routes';

export const lessonThing: Thing = { kind: 'lesson', routes: lessonRoutes, entities: [LessonEntity], serve: serveLessons, archive: lessonArchive };
