export {
  changesInLine,
  describedLine,
  beatsOfLine,
  lineAbc,
  lineBars,
  lineBeats,
  lineCountInBeats,
  lineMusic,
  lineNotes,
  linesAsAbc,
  lineTitle,
  notesOfLine,
  pairKey,
  pairsOfLine,
  signsOfLine,
  startingTempo,
  asFingered,
  assertLine,
  countText,
  movementShown,
  musicOfLine,
  pacesOf,
  paceText,
  lineFingeringSchema,
  type CountedLine,
  type DescribedLine,
  type Line,
  type LineMusic,
  type LineSound,
  type PacedLine,
} from './line';
export { modeSteps, type Mode } from './key-signature';
export { coverageOf, linesOf, type ChosenLines, type Coverage, type LineSet, type LineSetKind } from './line-sets';
export { bar, beatsOf, exerciseSchema, lineNoteSchema, mostLineNotes, pairsIn, quarter, type Exercise, type LineNote } from './exercise';
export {
  barsOf,
  exercisesOf,
  physicalPurpose,
  rhythms,
  ownScale,
  wholeScale,
  scaleFrom,
  type ExerciseKind,
  type ExerciseLines,
  type ExerciseWish,
  type Rhythm,
} from './exercise-sets';
export { noteHeads, type NoteHead } from './exercise-music';
export { movementExercises, movementLines, type MovementExercise } from './movement-lines';
export { layeredNotes, lineAtLayer, shortNotes, withLayer, type LayeredNote, type ShortNote } from './line-layers';
export { wordRows } from './line-words';
export { ornamentExercises, ornamentLines, type OrnamentExercise } from './ornament-lines';
export { drillOf, type Drill, type DrillKind } from './speed-drill';
