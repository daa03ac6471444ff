export { decodeTake, type DecodedTake } from './decode-take';
export type { HeardStretch } from './heard-stretch';
export {
  changeText,
  cutInMs,
  isFaulty,
  judgeTake,
  takeText,
  worstFirst,
  type BetweenNotes,
  type Decision,
  type HeardChange,
  type JudgedTake,
} from './judge-take';
export { blowingOf, blowingText, pitchTrace, type Blowing, type PitchMoment } from './blowing';
export { slowedDown } from './slow-down';
export { inputLevel, inputProblem, inputProblemText, meterMarks, type InputLevel, type InputProblem } from './take-input';
