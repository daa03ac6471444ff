export {
  instrumentSchema,
  type Finger,
  type FingerId,
  type Fingering,
  type GraceNoteRule,
  type Hole,
  type Instrument,
  type Note,
  type NoteId,
  type Pattern,
} from './instrument';
export { loadInstrument } from './load-instrument';
export { chartedFingering, chartedPattern, fingerOf, noteOf, scaleDegree, soundingPitch } from './lookup';
export { coverOf, fingerCoverage, holesThatDiffer, isSameFingers, pattern, patternKey, withFingers } from './pattern';
export { noteIdOf } from './chromatic-notes';
export { pipeChanter, practiceChanter } from './practice-chanter.data';
export { teachingOrders, type TeachingOrder } from './teaching-orders';
export { instruments, instrumentById } from './instruments';
