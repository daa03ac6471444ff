export { canBeSensed, fingersDown, isSameDown, type FingerEvent } from './finger-events';
export { fingersResult, fitPlayed, fitText, verdictCounts, type FingersResult } from './fingers-result';
export { fewestRepetitions, fitMoments, fitTiming, timingOf, type Estimate, type FingerEstimate, type FittedTiming, type TimedChange } from './fit-timing';
export { judgePlaying, verdictOf, type HeardBetween, type JudgedPlaying, type PlayedChange, type Verdict } from './judge-playing';
export { oneChangeOf, simulatedPlaying, type SimulatedChange, type SimulatedPlaying, type StudentNote } from './simulated-student';
