export { decodeTake, type DecodedTake } from './decode-take';
export type { HeardStretch } from './heard-stretch';
export {
  changeText,
  cutInMs,
  isFaulty,
  judgeTake,
  shortestFault,
  surely,
  takeText,
  worstFirst,
  type BetweenNotes,
  type Decision,
  type HeardChange,
  type JudgedTake,
} from './judge-take';
export { judgeLongTake, type JudgedLongTake, type LongTakeAsked } from './long-take';
export { blowingOf, blowingText, octaveText, pitchTrace, steadyMoments, type Blowing, type PitchMoment } from './blowing';
export { slowedDown } from './slow-down';
export { inputLevel, inputProblem, inputProblemText, meterMarks, type InputLevel, type InputProblem } from './take-input';
export { askedSounds, type AskedNote, type AskedSound } from './asked';
export { alignTake, type AlignedSound, type Pass } from './align-take';
export { ownPulse, type Pulse } from './pulse';
export {
  isNoteFaulty,
  judgeAsked,
  noteText,
  passesText,
  pieceText,
  whereOf,
  worstNotesFirst,
  type HeardGrace,
  type JudgedNote,
  type JudgedPiece,
  type NoteVerdict,
  type PassSummary,
  type TakeClick,
} from './judge-asked';
export { LiveEar, type LivePitch } from './live-ear';
export { barsToWatch, checkedText, foretoldResult, foretoldTallyText, foretoldText, type ForetoldResult } from './bars-to-watch';
export { askedOfLine, askedOfMusic } from './asked-line';
export { heardRung, type HeardRung } from './heard-rung';
export { fingerFormat, readFingerStream, timelineOfFingers, type HoleEvent, type FingerStream } from './finger-stream';
export { keysOfMidi, notesOfKeys, timelineOfKeys, type PlayedKey } from './played-keys';
export { stretchesOfTimeline } from './stretches-of-timeline';
export {
  inRoom,
  simulatedTimeline,
  unsteadily,
  type SimulatedBreath,
  type SimulatedFaults,
  type SimulatedPlayer,
  type SimulatedRoom,
} from './simulated-player';
export { heardResult, heardTimingText, movesOfChanges, movesOfPiece } from './heard-moves';
export { timingOfSound, type HeardMove } from './timing-of-sound';
export { timingOfFingers, type TimedFingers } from './timing-of-fingers';
