export { issueText } from './data-issue';
export {
  instrumentSchema,
  mostHoles,
  noteIdSchema,
  withoutMarks,
  type Finger,
  type FingerId,
  type Fingering,
  type GraceNoteRule,
  type Hole,
  type Instrument,
  type Note,
  type NoteId,
  type Pattern,
  type SoundSource,
} from './instrument';
export { assertChosen, chosenFingeringSchema, chosenOf, isSameWay, wayIdOf, wayName, withChosen, type ChosenFingering } from './chosen-fingerings';
export { withHands, type Hands } from './hands';
export { instrumentProblems, loadInstrument } from './load-instrument';
export { cautionsOf, chartedFingering, chartedPattern, fingerOf, isTonguedFamily, noteOf, scaleDegree, soundingPitch, waysOf } from './lookup';
export { coverOf, fingerCoverage, holeSign, holesThatDiffer, isSameFingers, pattern, patternKey, withFingers } from './pattern';
export { holeNumbers, noteNameIn, type NoteNaming } from './note-naming';
export { isSameToPlay, noteReadAs, notesThatDiffer } from './same-to-play';
export { noteIdOf } from './chromatic-notes';
export { pipeChanter, practiceChanter } from './practice-chanter.data';
export { teachingOrders, type TeachingOrder } from './teaching-orders';
export { instruments, instrumentById } from './instruments';
export { asPlayed, type InstrumentSettings } from './as-played';
export { boreGeometrySchema, soundGeometrySchema, vesselGeometrySchema, type BoreGeometry, type SoundGeometry, type VesselGeometry } from './bore-geometry';
export {
  instrumentFileSchema,
  instrumentFormat,
  instrumentJsonSchema,
  longestInstrumentFile,
  readInstrumentFile,
  writeInstrumentFile,
} from './instrument-file';
export { keptFingeringSchema, withKeptFingerings, type ConfirmedFingering, type KeptFingering } from './kept-fingerings';
export { speaksHighQuestion, schoolQuestions, withFirst, withSchools, type SchoolAnswer, type SchoolQuestion, type Schools } from './schools';
export { equalRatio, ratioOf, tuningSchema, withTuning, type Tuning } from './tuning';
export { isWrittenInTwoOctaves, withWrittenOctave, type WrittenOctave } from './written-octave';
