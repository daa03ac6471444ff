export { difficultyOf, type Difficulty, type DifficultyTerm } from './difficulty';
export { difficultyWeights } from './difficulty.data';
export { steppedSounds, stepsBetween, type HeardStep } from './heard-steps';
export { graceNotesOver, hiddenRisk, soundsUnder, type HiddenRisk, type Hiding } from './hidden-change';
export { RiskTable } from './risk-table';
export { ChangeEar, inBetweenSounds, patternAt, soundClasses, underBoth, type InBetweenSound, type SoundClass } from './in-between-sounds';
export { evenNormals, normalQuantile } from './even-normals';
export { normalFrom, normalPool, seededNormal, seededRandom } from './seeded-random';
export {
  addDurations,
  audibleMs,
  bestLead,
  eachStep,
  exactRisk,
  HandNoise,
  levels,
  normalBelow,
  simulatedRisk,
  type ChangeRisk,
  type ClassRisk,
  type LeadWeights,
  type Level,
  type TimingParameters,
} from './timing-model';
export { cheapestPath, PathCosts, type FingerPath, type PathChoice, type PathNote, type Pins } from './path-finder';
export { graceNoteMs, tongueSilenceMs, usualGraceNoteMs } from './durations.data';
