export {
  changesToPractise,
  expectedMinutes,
  expectedSeconds,
  freeTempo,
  heldPhrase,
  lineOfChange,
  plannedLine,
  tenMinuteSheet,
  type PlannedLine,
  type TenMinutes,
} from './ten-minute-sheet';
