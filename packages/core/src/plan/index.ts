export { expectedMinutes, expectedSeconds, freeTempo, heldPhrase, plannedLine, tenMinuteSheet, type PlannedLine, type TenMinutes } from './ten-minute-sheet';
