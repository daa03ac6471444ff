export { coverageOf, linesOf, type ChosenLines, type Coverage, type LineSet, type LineSetKind } from './line-sets';
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
export { movementExercises, movementLines, type MovementExercise } from './movement-lines';
export { ornamentExercises, ornamentLines, type OrnamentExercise } from './ornament-lines';
export { drillOf, type Drill, type DrillKind } from './speed-drill';
