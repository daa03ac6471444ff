export { graceNoteRule, graceSteps, hidingGraceNote, type GraceStep } from './grace-steps';
