export { EarStaircase, longestMs, mostMinutes, mostTrials, probabilityRight, shortestMs, type EarThreshold, type EarTrial } from './ear-staircase';
export { blindPair, type BlindPair } from './blind-pair';
export { earAnswersText, fewestOfEach, takeQuestions, type EarAnswer } from './take-questions';
