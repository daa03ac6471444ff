export { graceNoteRule, graceSteps, hidingGraceNote, type GraceStep } from './grace-steps';
export { compileMovement, writtenForm, type CompiledMovement, type MovementStep, type StepKind } from './compile';
export {
  isTapAlone,
  movementDefinitionSchema,
  movementIdSchema,
  movementSettingsSchema,
  notesNamed,
  usualMovementSettings,
  type MovementCell,
  type MovementDefinition,
  type MovementPart,
  type MovementSettings,
} from './definition';
export { allowsGraceNote, firstAllowed, graceNoteNamed, openerOf, tapOf, type Tap } from './laws';
export { beatAt, countOf, elementsOf, leastTime, paceOf, timedSteps, usualPace, type MovementCount, type MovementPace, type TimedStep } from './movement-time';
export { movementEvents, sharesOf, type MovementEvent } from './movement-events';
export { fittingLayers, layersOf, type LayerKind, type MovementLayer } from './layers';
export { lettersOfPatterns, movementFromWritten, partText, readWrittenForm, unknownNotes, type MovementNaming, type WrittenForm } from './make-movement';
export { movementFile, readMovementFile, movementFileFormat, type MovementFile } from './movement-file';
export { syllablesOf, syllableSetSchema, type SyllableSet } from './syllables';
export { editDistance, findMovements, movementById, movementsOf, movementTable } from './movements';
export { lightTapNotes, openers, pipeMovements } from './movements.data';
export { MovementReader, type Recognised } from './recognise';
export { movementHints, movementSupport } from './movement-hints';
export { changesAlong, innerChanges, movementRisk, type InnerChange } from './inner-changes';
export {
  compileOrnament,
  isLowestOf,
  cutFinger,
  ornamentChoicesSchema,
  ornamentKinds,
  ornamentText,
  tapChoices,
  tapFinger,
  usualOrnaments,
  type CompiledOrnament,
  type OrnamentChoices,
  type OrnamentKind,
  type OrnamentSettings,
  type OrnamentStep,
  type TapChoice,
} from './ornaments';
export { isNeighbourOrnament, neighbourOrnaments, trillBetween, type NeighbourOrnament, type NeighbourWay, type TrillPair } from './trills';
export { judgeMovement, type JudgedMovement, type PlayedElement, type StrayPattern } from './judge-movement';
