import { arrangementThing } from '../arrangements/arrangement.thing';
import { attemptThing } from '../attempts/attempt.thing';
import { fingeringThing } from '../fingerings/fingering.thing';
import { instrumentThing } from '../instruments/instrument.thing';
import { jobThing } from '../jobs/job.thing';
import { lessonThing } from '../lessons/lesson.thing';
import { modelThing } from '../models/model.thing';
import { movementThing } from '../movements/movement.thing';
import { reviewThing } from '../reviews/review.thing';
import { sheetThing } from '../sheets/sheet.thing';
import { spokenWordThing } from '../spoken-words/spoken-word.thing';
import { studentThing } from '../students/student.thing';
import { takeThing } from '../takes/take.thing';
import { trialThing } from '../trials/trial.thing';
import { tuneThing } from '../tunes/tune.thing';
import type { Thing } from './thing';

/** Every kind of thing that a studio keeps; one that names another comes after it, so that an archive can be written in this order. */
export const things: readonly Thing[] = [
  studentThing,
  tuneThing,
  lessonThing,
  sheetThing,
  reviewThing,
  instrumentThing,
  modelThing,
  fingeringThing,
  trialThing,
  movementThing,
  arrangementThing,
  attemptThing,
  takeThing,
  spokenWordThing,
  jobThing,
];
