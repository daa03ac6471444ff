export {
  changesToPractise,
  expectedMinutes,
  expectedSeconds,
  freeTempo,
  heldPhrase,
  lineOfChange,
  plannedLine,
  restPhrase,
  tenMinuteSheet,
  type PlannedLine,
  type TenMinutes,
} from './ten-minute-sheet';
