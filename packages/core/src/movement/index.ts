export { graceNoteRule, graceSteps, hidingGraceNote, type GraceStep } from './grace-steps';
export { compileMovement, usualMovementSettings, type CompiledMovement, type MovementSettings, type MovementStep, type StepKind } from './compile';
export { allowsGraceNote, firstAllowed, graceNoteNamed, openerOf, tapOf, type Tap } from './laws';
export { elementsOf, leastTime, timedSteps, usualPace, type MovementPace, type TimedStep } from './movement-time';
export { editDistance, findMovements, movementById, movementsOf, movementTable } from './movements';
export { pipeMovements, type MovementDefinition, type MovementId, type MovementPart } from './movements.data';
export { MovementReader, type Recognised } from './recognise';
export { innerChanges, movementRisk, type InnerChange } from './inner-changes';
export {
  compileOrnament,
  cutFinger,
  ornamentKinds,
  tapFinger,
  usualOrnaments,
  type CompiledOrnament,
  type OrnamentKind,
  type OrnamentSettings,
  type OrnamentStep,
} from './ornaments';
export { trillBetween, type TrillPair } from './trills';
export { proofreadMovement, type MovementProof } from './proof-movement';
export { judgeMovement, type JudgedMovement, type PlayedElement, type StrayPattern } from './judge-movement';
